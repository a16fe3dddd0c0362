import { finalRatioOf, gearWord, tyreRolling } from '@bold-ballast/core'
import { proxy, type Remote } from 'comlink'
import { useState } from 'react'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useWorked } from '../../../ui/hooks/use-worked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Empty } from '../../../ui/states.tsx'
import { beginDriveWorker } from '../begin-worker.ts'
import type { DriveWorker, TriedFinal } from '../drive.worker.ts'
import type { DriveTabProps } from '../tab-props.ts'

const MOST = 30

/** Finals of the register with their pairs, tyres that are thought about, and typed ratios. */
function choicesOf({ records, made, finalRatio }: Pick<DriveTabProps, 'records' | 'made' | 'finalRatio'>, typed: string): (TriedFinal & { words: string })[] {
  const finals = records.parts.flatMap(({ drive, name }) => {
    if (drive?.role !== 'finalDrive') return []
    const pairs = drive.pairs.map((pair) => ({ finalRatio: finalRatioOf(drive, pair), words: `${name}, ${pair.first}/${pair.second}` }))
    return drive.pairs.length > 0 ? pairs : [{ finalRatio: drive.ratio, words: name }]
  })
  const own = typed
    .split(/[\s;]+/)
    .map(Number)
    .filter((ratio) => ratio >= 1.5 && ratio <= 8)
    .map((ratio) => ({ finalRatio: ratio, words: 'typed' }))
  const tyres = records.parts.flatMap(({ drive, name, stageId, status }) => {
    if (drive?.role !== 'tyre' || stageId !== null || status === 'fitted' || status === 'wornOut' || (drive.code === null && drive.circumferenceM === null))
      return []
    return finalRatio === null ? [] : [{ finalRatio, radiusM: tyreRolling(drive).radiusM, words: `${name} on the final as it is` }]
  })
  const standing = made.car ? [{ finalRatio: made.car.finalRatio, words: 'as the stage has it' }] : []
  const seen = new Set<string>()
  const all: { readonly finalRatio: number; readonly radiusM?: number; readonly words: string }[] = [...finals, ...own, ...tyres, ...standing]
  return all.slice(0, MOST).flatMap((each) => {
    const id = `${each.finalRatio.toFixed(4)} ${each.radiusM?.toFixed(4) ?? ''}`
    if (seen.has(id)) return []
    seen.add(id)
    return [{ ...each, id }]
  })
}

/** Finals, pairs and tyres on a course: what each is worth, and when it does not matter. */
export function FinalsTab(props: DriveTabProps) {
  const { course, car, made, setFinal, records } = props
  const { text } = useQuantities()
  const address = useAddress()
  const [done, setDone] = useState(0)
  const choices = choicesOf(props, address.get('finals'))
  const worn = records.parts.flatMap(({ drive, life }) => (drive?.role === 'gear' && life ? [drive.number] : []))
  const key = course && car ? JSON.stringify([car, course, choices, worn]) : ''
  const { answer, failed } = useWorked(beginDriveWorker, key, (remote: Remote<DriveWorker>) =>
    remote.finals(
      car as NonNullable<typeof car>,
      made.inputs,
      course as NonNullable<typeof course>,
      choices.map(({ id, finalRatio, radiusM }) => ({ id, finalRatio, radiusM })),
      worn,
      proxy(setDone),
    ),
  )
  if (!course || !car)
    return <Empty title="No course yet" why="Name a corner and its speed, and the straight after it. Finals are held against each other on it." />
  return (
    <div className="max-w-5xl">
      <label className="no-print mb-3 flex items-center gap-2">
        <span>Try these too</span>
        <input value={address.get('finals')} onChange={(event) => address.type({ finals: event.target.value })} placeholder="3.7 4.3" className="w-[190px]" />
        <span className="text-quiet">ratios between blanks; finals, pairs and wanted tyres of the register are there already</span>
      </label>
      {failed && <p className="border-l-4 border-wait pl-3">{failed}</p>}
      {!answer ? (
        <p role="status" className="text-quiet">
          Driving {course.name} with {choices.length} finals: {done} done …
        </p>
      ) : (
        <>
          <ScrollBox label="Finals, best first">
            <table className="w-full">
              <thead>
                <tr>
                  <th className="text-left">Final</th>
                  <th className="text-right">Time</th>
                  <th className="text-right">Behind</th>
                  <th className="pl-3 text-left">Upshifts into</th>
                  <th className="text-right">In the band</th>
                  <th className="text-right">At the end of top</th>
                  <th className="pl-3 text-left">Verdict</th>
                </tr>
              </thead>
              <tbody>
                {answer.ranked.map(({ id, timeS, behindS, behindSdS, doesNotMatter, course: run }, i) => {
                  const choice = choices.find((each) => each.id === id)
                  const shifts = run.upshiftsInto.flatMap((count, at) => (count > 0 ? [`${gearWord(at + 2)} ${count}×`] : []))
                  return (
                    <tr key={id} className="border-t border-line">
                      <th scope="row" className="py-1.5 text-left">
                        <button type="button" className="word-link" onClick={() => setFinal(choice?.finalRatio ?? null)}>
                          {choice?.finalRatio.toFixed(2)}
                        </button>
                        <span className="block text-xs font-normal text-quiet">{choice?.words}</span>
                      </th>
                      <td className="text-right tabular-nums">{text('lapTime', timeS, { decimals: 2 })}</td>
                      <td className="text-right whitespace-nowrap tabular-nums">{behindS === 0 ? '' : `+ ${behindS.toFixed(2)} ± ${behindSdS.toFixed(2)}`}</td>
                      <td className="pl-3">{shifts.join(', ') || 'none'}</td>
                      <td className="text-right tabular-nums">{text('share', run.bandShare, { decimals: 0 })}</td>
                      <td className="text-right tabular-nums">{run.atEndS < 0.005 ? '' : `${run.atEndS.toFixed(1)} s`}</td>
                      <td className="pl-3">
                        {doesNotMatter ? (i === 0 ? 'best' : 'it does not matter for time') : 'slower'}
                        {run.cornersOutsideBand.length > 0 && (
                          <span className="block text-xs text-quiet">outside the band: {run.cornersOutsideBand.join(', ')}</span>
                        )}
                      </td>
                    </tr>
                  )
                })}
              </tbody>
            </table>
          </ScrollBox>
          {answer.refused.map(({ id, reason }) => (
            <p key={id} className="mt-2 border-l-4 border-wait pl-3">
              {choices.find((each) => each.id === id)?.finalRatio.toFixed(2)}: {reason}
            </p>
          ))}
          <p className="mt-3 text-xs text-quiet">
            By time; within 0.05 s or two spreads of the difference it does not matter, then fewer shifts, then less use of a gear with little life. Corner
            speeds stay as they are; corners take no time.
          </p>
        </>
      )}
    </div>
  )
}
