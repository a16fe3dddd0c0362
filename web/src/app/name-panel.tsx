import { prefer } from '../data/preferences.ts'
import { useAppDispatch, usePreferences } from '../data/store.ts'
import { Panel } from '../ui/dialog.tsx'

export function NamePanel({ onClose }: { onClose: () => void }) {
  const { person } = usePreferences()
  const dispatch = useAppDispatch()
  return (
    <Panel title="Who is writing?" onClose={onClose}>
      <form
        onSubmit={(event) => {
          event.preventDefault()
          dispatch(prefer({ person: String(new FormData(event.currentTarget).get('person') ?? '').trim() }))
          onClose()
        }}
      >
        <label htmlFor="person" className="mb-1 block font-semibold">
          Your name
        </label>
        <input id="person" name="person" defaultValue={person} maxLength={80} className="mr-2" />
        <button type="submit" className="button button-strong">
          Keep it
        </button>
        <p className="mt-2 text-quiet">It stays in this browser and stands beside each change in the log.</p>
      </form>
    </Panel>
  )
}
