import { Dialog } from 'radix-ui'
import { useRef } from 'react'

/** Esc closes what is open also while a notice stands beside it, which would take the key for itself. */
export const closeByEscape = (close: () => void) => (event: React.KeyboardEvent) => {
  if (event.key !== 'Escape' || event.defaultPrevented) return
  event.preventDefault()
  close()
}

const FIRST_FIELD = 'form :is(input, select, textarea):not([type=hidden], [type=file], :disabled)'

/** A panel from the right for workings, or a middle one for forms, which begins in its first field; Esc closes it and focus goes back. */
export function Panel({
  title,
  onClose,
  side = false,
  focusOn,
  children,
}: {
  title: string
  onClose: () => void
  side?: boolean
  /** The name of the field that is to have the focus at first; the first of a form where left out. */
  focusOn?: string | undefined
  children: React.ReactNode
}) {
  const content = useRef<HTMLDivElement>(null)
  const place = side ? 'right-0 top-0 h-full w-[min(460px,100vw)]' : 'left-1/2 top-[6vh] max-h-[88vh] w-[min(620px,96vw)] -translate-x-1/2 rounded'
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-black/40" />
        <Dialog.Content
          ref={content}
          aria-describedby={undefined}
          onOpenAutoFocus={(event) => {
            const asked = focusOn ? `[name="${focusOn}"]` : FIRST_FIELD
            const field = content.current?.querySelector<HTMLElement>(asked)
            if (!field) return
            event.preventDefault()
            field.focus()
          }}
          onKeyDown={closeByEscape(onClose)}
          className={`fixed z-30 overflow-y-auto border border-line bg-sheet p-5 ${place}`}
        >
          <div className="mb-3 flex items-start justify-between gap-4">
            <Dialog.Title className="text-lg leading-tight font-bold">{title}</Dialog.Title>
            <Dialog.Close className="button" type="button">
              Close
            </Dialog.Close>
          </div>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
