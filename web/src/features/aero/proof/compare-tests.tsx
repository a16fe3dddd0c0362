import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, compareTests, differenceSd, type RoomTest } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { oneDifference, withTestedDrag } from './keep-value.ts'

const counted = (test: RoomTest) => test.pairs.flatMap(({ dragAreaM2, setAside }) => (setAside === null ? [dragAreaM2] : []))
const nameOf = ({ name, at, position }: RoomTest) => `${name}, ${dayText(at)}, stage ${position}`

/** Two coast-downs held against each other by their pairs; what one device does can be kept as its value. */
export function CompareTests({ records, tests }: { records: RecordsAnswer; tests: readonly RoomTest[] }) {
  const { text, units, format } = useQuantities()
  const coasts = tests.filter(({ kind, drag, setAside }) => kind === 'coastDown' && drag && setAside === null)
  const [ids, setIds] = useState<readonly [string, string]>(['', ''])
  const [patch] = api.usePatchRecordMutation()
  const [told, setTold] = useState<{ readonly text: string; readonly isBad: boolean } | null>(null)
  if (coasts.length < 2)
    return (
      <section aria-label="Before and after">
        <h2 className="mb-1">Before and after</h2>
        <p className="text-quiet">Two coast-downs of two pairs each tell whether a part is worth its drag: drive the second after the change.</p>
      </section>
    )
  const pickedBefore = coasts.find(({ id }) => id === ids[0]) ?? (coasts.at(-2) as RoomTest)
  const pickedAfter = coasts.find(({ id }) => id === ids[1]) ?? (coasts.at(-1) as RoomTest)
  const found = attempt(() => compareTests(counted(pickedBefore), counted(pickedAfter)))
  const one = oneDifference(pickedBefore, pickedAfter)
  const sdM2 = differenceSd(pickedBefore.drag?.sdM2 ?? 0, pickedAfter.drag?.sdM2 ?? 0)
  const device = one && records.aeroDevices.find(({ id }) => id === one.deviceId)
  const area = (value: number) => format('area', value, { sign: true, decimals: 3 }).number
  const keep = async () => {
    if (!one || !device || found instanceof CalculationError) return
    const how = `coast-downs of ${dayText(pickedBefore.at)} and ${dayText(pickedAfter.at)}`
    const made = withTestedDrag(device, one, { differenceM2: found.difference, sdM2, how, at: new Date().toISOString() })
    if ('why' in made) return setTold({ text: made.why, isBad: true })
    const answer = await patch({
      buildId: records.build.id,
      resource: 'aero-devices',
      id: device.id,
      body: { version: device.version, notches: made.notches },
    })
    setTold(
      answer.error
        ? { text: readFailure(answer.error).message, isBad: true }
        : { text: `Kept as the drag of ${one.name}; what it was before stays beside it.`, isBad: false },
    )
  }
  return (
    <section aria-label="Before and after">
      <h2 className="mb-1">Before and after</h2>
      <div className="flex flex-wrap gap-x-4 gap-y-2">
        {(['before', 'after'] as const).map((word, i) => (
          <label key={word} className="text-xs text-quiet">
            {word}
            <select
              value={(i === 0 ? pickedBefore : pickedAfter).id}
              onChange={(event) => {
                setTold(null)
                setIds(i === 0 ? [event.target.value, pickedAfter.id] : [pickedBefore.id, event.target.value])
              }}
              className="block text-sm text-ink"
            >
              {coasts.map((test) => (
                <option key={test.id} value={test.id}>
                  {nameOf(test)}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
      {found instanceof CalculationError ? (
        <p className="mt-2 text-wait">{found.message}</p>
      ) : (
        <p className="mt-2" role="status">
          <strong>
            {area(found.difference)} {units.area}: {found.verdict === 'real' ? 'real' : 'within noise'}
          </strong>
          , {area(found.low)} to {area(found.high)} 95 times in 100{one ? `; ${one.name} is all that differs` : ''}.
        </p>
      )}
      {one && device && !(found instanceof CalculationError) && (
        <p className="mt-1">
          <button type="button" className="word-link" onClick={() => void keep()}>
            Keep it as the drag of {one.name}
          </button>{' '}
          <span className="text-xs text-quiet">
            {found.verdict === 'real' ? '' : 'It may be nothing. '}Spread {text('area', sdM2, { decimals: 3 })}.
          </span>
        </p>
      )}
      {told && (told.isBad ? <Alert className="mt-2">{told.text}</Alert> : <p role="status">{told.text}</p>)}
    </section>
  )
}
