import type { RecordsAnswer } from '@bold-ballast/contract'
import { type ConditionDifference, PAD_NAMES, type WeightRoom } from '@bold-ballast/core'
import { useState } from 'react'
import { api } from '../../../data/api.ts'
import { Photos } from '../../../shared/photos.tsx'
import { Panel } from '../../../ui/dialog.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Empty } from '../../../ui/states.tsx'
import { timeText } from '../../../ui/words.ts'
import { weighingsTable } from '../tables.ts'
import { InCarPanel } from './in-car-panel.tsx'
import { ReferenceWords } from './reference-words.tsx'
import { WeighingPanel } from './weighing-panel.tsx'

type StoredWeighing = RecordsAnswer['weighings'][number]

const DIFFERENCE_WORDS: Record<ConditionDifference['what'], string> = {
  driver: 'driver',
  fuel: 'fuel',
  scales: 'scales',
  placement: 'how it stood',
  bars: 'bars',
  level: 'level of the floor',
  tyrePressure: 'tyre pressure',
  rideHeight: 'ride height',
}

const METHOD_SHORT = {
  axlesOnBlocks: 'in two placements on blocks',
  cornerSwapped: 'in two placements, a corner swapped',
  otherAxleOnFloor: 'axle by axle, the other on the floor',
} as const

/** What was noted of how the car stood. */
function Noted({ conditions }: { conditions: StoredWeighing['conditions'] }) {
  const { text } = useQuantities()
  if (!conditions) return null
  const { barsDisconnected, isLevel, tyrePressurePa, rideHeightFrontM, rideHeightRearM } = conditions
  const heights = [rideHeightFrontM, rideHeightRearM].map((height) => (height ? text('length', height) : '–'))
  const parts = [
    barsDisconnected === null ? null : barsDisconnected ? 'bars off' : 'bars on',
    isLevel === null ? null : isLevel ? 'floor level' : 'floor not level',
    tyrePressurePa ? `tyres ${text('pressure', tyrePressurePa, { decimals: 0 })}` : null,
    rideHeightFrontM || rideHeightRearM ? `ride height ${heights.join(' and ')}` : null,
  ].filter(Boolean)
  return <span className="block max-w-[190px] text-xs">{parts.join(', ')}</span>
}

/** Visits to the scales: what the pads said, what that is at the reference condition, and what stays unexplained. */
export function Scales({ records, room, stageId }: { records: RecordsAnswer; room: WeightRoom; stageId: string }) {
  const buildId = records.build.id
  const { text, units } = useQuantities()
  const [isAdding, setIsAdding] = useAsked('weighing')
  const [inCarOf, setInCarOf] = useState<string | null>(null)
  const [changingId, setChangingId] = useState<string | null>(null)
  const [picturesOf, setPicturesOf] = useState<string | null>(null)
  const [patch] = api.usePatchRecordMutation()
  const removal = useRemoval(buildId, 'weighings')
  const stageName = (id: string) => {
    const stage = records.stages.find((entry) => entry.id === id)
    return stage ? `stage ${stage.position} ${stage.name}` : ''
  }
  const setAside = (weighing: StoredWeighing) =>
    void patch({
      buildId,
      resource: 'weighings',
      id: weighing.id,
      body: { version: weighing.version, setAside: weighing.setAside === null ? 'set aside by hand' : null },
    })
  const inCar = records.weighings.find(({ id }) => id === inCarOf)
  const changing = records.weighings.find(({ id }) => id === changingId)
  const pictured = records.weighings.find(({ id }) => id === picturesOf)
  const sorted = [...records.weighings].sort((a, b) => Date.parse(b.at) - Date.parse(a.at))
  return (
    <>
      <div className="mb-4 flex flex-wrap items-center gap-4">
        <button type="button" className="button button-strong" onClick={() => setIsAdding(true)}>
          Enter a weighing
        </button>
        <span className="text-quiet">
          Totals are brought to the reference: <ReferenceWords records={records} />.
        </span>
        {sorted.length > 0 && <CsvButton name={`${records.build.name}-weighings`} table={() => weighingsTable(records, room, units)} />}
      </div>
      {removal.notice}
      {sorted.length === 0 ? (
        <Empty title="The car has not been on the scales" why="Four readings, who sat in it and how much fuel: from then on the scales replace the ledger." />
      ) : (
        // biome-ignore lint/a11y/noNoninteractiveTabindex: a scroller that the keyboard can reach
        <section className="relative overflow-x-auto" aria-label="Weighings" tabIndex={0}>
          <table className="w-full border-collapse max-[639px]:block">
            <thead className="max-[639px]:sr-only">
              <tr className="border-b border-line">
                <th className="p-2">Visit</th>
                <th className="p-2">Conditions</th>
                <th className="p-2 text-right">At the reference</th>
                <th className="p-2 text-right">Unexplained</th>
                <th className="p-2">
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody className="max-[639px]:block">
              {sorted.map((weighing) => {
                const figures = room.weighings.find((entry) => entry.weighingId === weighing.id)
                const { unexplained } = figures ?? {}
                return (
                  <tr key={weighing.id} className="border-b border-line align-top max-[639px]:grid max-[639px]:grid-cols-2">
                    <td className="p-2 max-[639px]:col-span-2">
                      <time dateTime={weighing.at} className="font-semibold">
                        {timeText(weighing.at)}
                      </time>
                      <span className="block text-xs text-quiet">{[stageName(weighing.stageId), weighing.scales].filter(Boolean).join(', ')}</span>
                      {weighing.note && <span className="block text-xs text-quiet">{weighing.note}</span>}
                      {weighing.setAside && <strong className="text-wait">set aside</strong>}
                    </td>
                    <td className="p-2 text-quiet">
                      <span className="block whitespace-nowrap">
                        {weighing.driverName ?? 'driver'} {weighing.driverInKg > 0 ? `in, ${text('mass', weighing.driverInKg, { isGoal: true })}` : 'out'},{' '}
                        {text('volume', weighing.fuelL, { isGoal: true })}
                      </span>
                      <Noted conditions={weighing.conditions} />
                      {weighing.secondPlacement && <span className="block">{METHOD_SHORT[weighing.secondPlacement.method]}</span>}
                      {weighing.extras.map((extra) => (
                        <span key={extra.name} className="block">
                          {extra.name} {text('mass', extra.massKg)}
                        </span>
                      ))}
                    </td>
                    <td className="p-2 text-right text-[16px]">
                      {figures?.reference ? (
                        <Figure
                          kind="mass"
                          value={figures.reference.massKg}
                          sd={figures.reference.sdKg}
                          showSpread
                          className="font-bold"
                          working={{ of: 'weighing', id: weighing.id }}
                        />
                      ) : (
                        <span className="block max-w-[260px] text-left text-sm">{figures?.refusal}</span>
                      )}
                      {weighing.total && <span className="block text-left text-xs text-quiet">a total alone: no shares</span>}
                      {figures?.axleShare && (
                        <span className="block text-left text-xs text-quiet">
                          two axles: front {text('share', figures.axleShare.value, { sd: figures.axleShare.sd })}
                        </span>
                      )}
                      {figures?.floor && <span className="block max-w-[260px] text-left text-xs text-quiet">{figures.refusal}</span>}
                      {figures && figures.differences.length > 0 && (
                        <span className="block max-w-[280px] text-left text-xs text-wait">
                          Not taken like the one before: {figures.differences.map(({ what }) => DIFFERENCE_WORDS[what]).join(', ')}.
                          {figures.differences.every(({ isCorrected }) => isCorrected) ? ' The total is corrected for it.' : ' Compare with care.'}
                        </span>
                      )}
                      {figures?.warnings.map((warning) => (
                        <span key={warning} className="block text-left text-xs text-wait">
                          {warning}
                        </span>
                      ))}
                    </td>
                    <td className={`p-2 text-right text-[16px] max-[639px]:text-left ${unexplained?.isFlagged ? 'text-wait' : ''}`}>
                      {unexplained ? (
                        <Figure
                          kind="mass"
                          value={unexplained.massKg}
                          sd={unexplained.sdKg}
                          sign
                          showSpread
                          className="font-semibold"
                          working={{ of: 'unexplained', id: weighing.id }}
                        />
                      ) : (
                        <span className="text-sm text-quiet">none before</span>
                      )}
                      {unexplained?.isFlagged && (
                        <strong className="block text-xs">
                          {unexplained.unlistedPosition === null ? 'over twice its spread' : `stage ${unexplained.unlistedPosition} lists nothing`}
                        </strong>
                      )}
                    </td>
                    <td className="p-2 text-right">
                      <button
                        type="button"
                        className="word-link mr-3"
                        onClick={() => setChangingId(weighing.id)}
                        aria-label={`Change the weighing of ${timeText(weighing.at)}`}
                      >
                        change
                      </button>
                      <button
                        type="button"
                        className="word-link mr-3"
                        onClick={() => setInCarOf(weighing.id)}
                        aria-label={`${figures?.inCarCount ?? 0} lines in the car on ${timeText(weighing.at)}`}
                      >
                        {figures?.inCarCount ?? 0} lines in
                      </button>
                      <button
                        type="button"
                        className="word-link mr-3"
                        onClick={() => setPicturesOf(weighing.id)}
                        aria-label={`pictures of the weighing of ${timeText(weighing.at)}`}
                      >
                        pictures
                      </button>
                      <button
                        type="button"
                        className="word-link mr-3"
                        onClick={() => setAside(weighing)}
                        aria-label={`${weighing.setAside ? 'Take back' : 'Set aside'} the weighing of ${timeText(weighing.at)}`}
                      >
                        {weighing.setAside ? 'take back' : 'set aside'}
                      </button>
                      <button
                        type="button"
                        className="word-link"
                        onClick={() => void removal.take(weighing)}
                        aria-label={`Delete the weighing of ${timeText(weighing.at)}`}
                      >
                        delete
                      </button>
                    </td>
                  </tr>
                )
              })}
            </tbody>
          </table>
        </section>
      )}
      {room.repeatability.map((group) => (
        <p key={group.weighingIds.join()} className="mt-3">
          Repeatability: {group.weighingIds.length} weighings of one car{group.scales && ` on ${group.scales}`} differ by{' '}
          <strong>± {text('mass', group.totalSdKg, { decimals: 2 })}</strong> in total; by pad{' '}
          {PAD_NAMES.map((pad) => `${pad} ± ${text('mass', group.padSdKg[pad], { decimals: 2 })}`).join(', ')}.
        </p>
      ))}
      {isAdding && <WeighingPanel records={records} stageId={stageId} weighing={null} onClose={() => setIsAdding(false)} />}
      {changing && <WeighingPanel key={changing.id} records={records} stageId={stageId} weighing={changing} onClose={() => setChangingId(null)} />}
      {inCar && <InCarPanel records={records} weighing={inCar} onClose={() => setInCarOf(null)} />}
      {pictured && (
        <Panel title={`Weighing of ${timeText(pictured.at)}`} onClose={() => setPicturesOf(null)}>
          <Photos records={records} recordId={pictured.id} />
        </Panel>
      )}
    </>
  )
}
