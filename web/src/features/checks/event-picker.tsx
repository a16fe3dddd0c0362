import { useAddress } from '../../ui/hooks/use-address.ts'
import { dayText } from '../../ui/words.ts'
import type { ChecksTabProps } from './tab-props.ts'

/** Which event it is for. */
export function EventPicker({ records, event }: Pick<ChecksTabProps, 'records' | 'event'>) {
  const { set } = useAddress()
  return (
    <label className="flex items-center gap-2">
      Event
      <select value={event?.id ?? 'none'} onChange={(change) => set({ event: change.target.value })}>
        <option value="none">none, today</option>
        {[...records.events]
          .sort((a, b) => a.startsOn.localeCompare(b.startsOn))
          .map(({ id, name, startsOn }) => (
            <option key={id} value={id}>
              {name}, {dayText(startsOn)}
            </option>
          ))}
      </select>
    </label>
  )
}
