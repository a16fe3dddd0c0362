import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, type BuildRecords, CalculationError, fromSi, type Ladder, ladderOf, type PowerRoom, parseQuantity } from '@bold-ballast/core'
import { useMemo } from 'react'
import { Figure } from '../../../ui/figure.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { settingWords } from '../setting-words.ts'
import { LadderFigure } from './ladder-figure.tsx'
import { SpoolTable } from './spool-table.tsx'

interface Props {
  readonly records: RecordsAnswer
  readonly room: PowerRoom
  readonly position: number
  readonly visits: readonly { readonly visit: string; readonly session: { readonly dynoName: string; readonly at: string } }[]
}

/** The settings of one visit in the order they were run: what each gained on the one before and on the first, and what was changed for it. */
export function LadderView({ records, room, position, visits }: Props) {
  const address = useAddress()
  const { decimalMark, text, format, units } = useQuantities()
  const visit = visits.find((entry) => entry.visit === address.get('visit')) ?? visits[0]
  const typedBand = address.get('band')
  const ladder = useMemo(
    () =>
      attempt(() => {
        const ends = typedBand.split(/\s*(?:to|-|–)\s*/).filter((part) => part !== '')
        const read = (part: string | undefined) => parseQuantity(part ?? '', 'engineSpeed', { defaultUnit: 'rpm', decimalMark, field: 'The band' }).value
        const band = ends.length === 0 ? undefined : { fromRpm: read(ends[0]), toRpm: read(ends[1]) }
        return ladderOf(records as unknown as BuildRecords, visit?.visit ?? '', band)
      }),
    [records, visit, typedBand, decimalMark],
  )
  return (
    <div className="grid grid-cols-1 gap-4">
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <label>
          <span className="mb-1 block font-semibold">Visit</span>
          <select value={visit?.visit} onChange={(event) => address.set({ visit: event.target.value })}>
            {visits.map((entry) => (
              <option key={entry.visit} value={entry.visit}>
                {entry.session.dynoName}, {dayText(entry.session.at)}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="mb-1 block font-semibold">Band</span>
          <input value={typedBand} onChange={(event) => address.type({ band: event.target.value })} placeholder="where all have pulls" className="w-[170px]" />
        </label>
        {!(ladder instanceof CalculationError) && (
          <>
            <p className="pb-1 text-quiet">
              {ladder.band
                ? `${format('engineSpeed', ladder.band.fromRpm).number} to ${format('engineSpeed', ladder.band.toRpm).number} rpm${typedBand ? '' : ', where all have pulls, so that spool counts'}; as printed`
                : 'peaks alone: no band; as printed'}
            </p>
            <CsvButton name={`${records.build.name}-ladder`} table={() => ladderCsv(ladder, units.power, text)} />
          </>
        )}
      </div>
      {ladder instanceof CalculationError ? (
        <Alert>{ladder.message}</Alert>
      ) : (
        <div className="grid gap-8 min-[1180px]:grid-cols-[1fr_360px]">
          <section className="min-w-0">
            <LadderFigure ladder={ladder} />
            <p className="mt-2 text-quiet">
              {ladder.spread.pullCount > 0
                ? `Single pulls are judged by this dyno’s own spread from pull to pull, ${(100 * ladder.spread.share).toFixed(1)} % of each value, from ${ladder.spread.pullCount} earlier pulls.`
                : 'Single pulls are judged by 1 % of each value, as this dyno has no earlier pulls here (common practice, no source).'}{' '}
              What differs from one visit to the next cancels within one.
            </p>
          </section>
          <aside className="grid content-start gap-6 min-[1180px]:border-l min-[1180px]:border-line min-[1180px]:pl-5">
            <Standing room={room} position={position} />
            <SpoolTable ladder={ladder} />
          </aside>
        </div>
      )}
    </div>
  )
}

/** What the picked stage stands at, and why. */
function Standing({ room, position }: Pick<Props, 'room' | 'position'>) {
  const stage = room.stages[position]
  if (!stage) return null
  const { stands, otherSettings } = stage
  return (
    <section>
      <h2 className="mb-1">The power of stage {position}</h2>
      <p className="text-[22px] font-bold">
        <Figure kind="power" value={stage.value} sd={stage.sd} showSpread />
      </p>
      {stands && (
        <p className="text-quiet">
          {stands.isPicked ? `${stands.name} was picked to stand.` : `${stands.name}, the last setting run, stands; let another stand in Pulls.`}
          {otherSettings.length > 0 && ` The other ${otherSettings.length === 1 ? 'setting stays' : `${otherSettings.length} settings stay`} in sight.`}
        </p>
      )}
    </section>
  )
}

const ladderCsv = (ladder: Ladder, unit: string, text: ReturnType<typeof useQuantities>['text']) => {
  const watts = (value: number | null | undefined) => (value === null || value === undefined ? null : fromSi('power', value, unit))
  return {
    head: [
      'Setting',
      'Ran on',
      'Pulls',
      `Peak (${unit})`,
      'At (rpm)',
      `Mean (${unit})`,
      `On the one before (${unit})`,
      `Low (${unit})`,
      `High (${unit})`,
      `On the first (${unit})`,
    ],
    rows: ladder.rungs.map(({ setting, pullIds, peakW, peakSpeedRpm, meanW, onBefore, onFirst }) => [
      setting.name,
      settingWords(setting, text),
      pullIds.length,
      watts(peakW),
      peakSpeedRpm,
      watts(meanW),
      watts(onBefore?.peak.differenceW),
      watts(onBefore?.peak.lowW),
      watts(onBefore?.peak.highW),
      watts(onFirst?.peak.differenceW),
    ]),
  }
}
