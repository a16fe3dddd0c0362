import type { RecordsAnswer } from '@bold-ballast/contract'
import { api } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { timeText } from '../../../ui/words.ts'

/** What was in the car that day: by when each change was done, corrected by hand where that was not so. */
export function InCarPanel({ records, weighing, onClose }: { records: RecordsAnswer; weighing: RecordsAnswer['weighings'][number]; onClose: () => void }) {
  const buildId = records.build.id
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const { text } = useQuantities()
  const at = Date.parse(weighing.at)
  const corrections = new Map(records.inCars.filter((entry) => entry.weighingId === weighing.id).map((entry) => [entry.changeId, entry]))
  const lines = records.changes.filter((change) => change.state !== 'dropped')
  const isInByDate = ({ state, doneAt }: (typeof lines)[number]) => state === 'done' && doneAt !== null && Date.parse(doneAt) <= at
  const set = (changeId: string, inCar: boolean) => {
    const known = corrections.get(changeId)
    if (known) void patch({ buildId, resource: 'in-cars', id: known.id, body: { version: known.version, inCar } })
    else void create({ buildId, resource: 'in-cars', body: { id: crypto.randomUUID(), weighingId: weighing.id, changeId, inCar } })
  }
  return (
    <Panel title={`In the car on ${timeText(weighing.at)}`} onClose={onClose}>
      <p className="mb-3 text-quiet">
        Ticked: that change had been made when the car was weighed. It follows from when each line was done; correct it where a part was fitted early, or was
        out that day.
      </p>
      <ul>
        {lines.map((line) => {
          const corrected = corrections.get(line.id)
          const isIn = corrected?.inCar ?? isInByDate(line)
          const value = line.values.at(-1)
          return (
            <li key={line.id} className="border-b border-line">
              <label className="flex min-h-8 items-baseline gap-3 py-1">
                <input type="checkbox" checked={isIn} onChange={(event) => set(line.id, event.target.checked)} />
                <span className="flex-1">
                  {line.kind} {line.name}
                  {corrected && corrected.inCar !== isInByDate(line) && <strong className="text-wait"> corrected by hand</strong>}
                </span>
                <span className="text-quiet">{value ? text('mass', value.massKg * line.count) : 'not known'}</span>
              </label>
            </li>
          )
        })}
      </ul>
    </Panel>
  )
}
