import type { RecordsAnswer } from '@bold-ballast/contract'
import type { ReactNode } from 'react'
import { DISCIPLINE_WORDS, DRIVE_WORDS } from '../../ui/words.ts'

/** The band on top of a sheet: which car, which stage, and what the sheet is. */
export function SheetHead({
  records: { build },
  stage,
  title,
  children,
}: {
  records: RecordsAnswer
  stage?: { readonly position: number; readonly name: string } | undefined
  title: string
  children?: ReactNode
}) {
  return (
    <header className="mb-4 flex items-start gap-3 border-b-2 border-ink pb-3">
      {stage && (
        <span className="flex size-11 shrink-0 items-center justify-center rounded border border-ink bg-[#f5c518] text-[22px] font-[800] text-[#15211f] [print-color-adjust:exact]">
          {stage.position}
        </span>
      )}
      <div className="min-w-0 flex-1">
        <p className="text-[20px] leading-6 font-[760] [font-stretch:118%]">{stage ? stage.name : build.name}</p>
        <p>{[stage ? build.name : '', DISCIPLINE_WORDS[build.discipline], DRIVE_WORDS[build.drivenAxles], build.className].filter(Boolean).join(', ')}</p>
      </div>
      <div className="text-right">
        <p className="font-semibold">{title}</p>
        {children}
      </div>
    </header>
  )
}

/** A box to tick by hand. */
export const TickBox = () => <span className="mr-2 inline-block size-3.5 shrink-0 translate-y-0.5 border border-ink" aria-hidden="true" />

/** A line to write on. */
export const WriteLine = ({ label }: { label: string }) => (
  <p className="mt-6 flex items-end gap-2">
    <span className="whitespace-nowrap">{label}</span>
    <span className="h-5 flex-1 border-b border-ink" />
  </p>
)
