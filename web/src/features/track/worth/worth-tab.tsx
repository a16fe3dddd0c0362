import {
  attempt,
  CalculationError,
  type DecimalMark,
  LAP_STEP_WORDS,
  type LapChange,
  type LapWorth,
  lapSpread,
  lapsNeeded,
  parseQuantity,
  type QuantityKind,
} from '@bold-ballast/core'
import { useMemo, useState } from 'react'
import { OneLine } from '../../../ui/forms/one-line.tsx'
import { useWorked } from '../../../ui/hooks/use-worked.ts'
import { useQuantities, usualText } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Empty } from '../../../ui/states.tsx'
import { TrackSelect } from '../lap/lap-tab.tsx'
import type { TrackTabProps } from '../tab-props.ts'
import type { TrackWorker } from '../track.worker.ts'
import { beginTrackWorker } from '../use-lap.ts'
import { Pieces } from './pieces.tsx'

/** An idea in one line: "-12 kg +8 kW". */
export function readIdea(line: string, mark: DecimalMark, units: Readonly<Record<QuantityKind, string>>): LapChange {
  const pieces = [...line.matchAll(/([+-−]?)\s*(\d[\d.,]*)\s*([a-zA-Z%²]+)/g)]
  const rest = pieces.reduce((text, [piece]) => text.replace(piece, ''), line).trim()
  if (pieces.length === 0 || rest !== '')
    throw new CalculationError(
      'unreadable',
      'idea',
      `${rest ? `“${rest}” cannot be read. ` : ''}Type mass, power, % of grip or m² of drag with a sign: -12 kg +8 kW.`,
    )
  const change: { -readonly [Key in keyof LapChange]: LapChange[Key] } = {}
  for (const [, sign = '', number = '', unit = ''] of pieces) {
    const by = sign === '-' || sign === '−' ? -1 : 1
    const of = (kind: QuantityKind) => by * parseQuantity(`${number} ${unit}`, kind, { defaultUnit: units[kind], decimalMark: mark, field: 'idea' }).value
    if (unit === '%') change.gripFactor = 1 + of('share')
    else if (/^(kg|lb|lbs)$/i.test(unit)) change.massKg = (change.massKg ?? 0) + of('mass')
    else if (/^(kw|hp|ps|bhp)$/i.test(unit)) change.powerW = (change.powerW ?? 0) + of('power')
    else if (/^(m²|m2)$/i.test(unit))
      change.dragAreaM2 = (change.dragAreaM2 ?? 0) + by * parseQuantity(`${number} m²`, 'area', { defaultUnit: 'm²', decimalMark: mark, field: 'idea' }).value
    else throw new CalculationError('unknown-unit', 'idea', `“${unit}” is no unit of an idea: kg, kW, % of grip or m² of drag.`)
  }
  return change
}

/** By what a step is divided for its columns. */
const PER: Readonly<Partial<Record<LapWorth['key'], string>>> = { mass: 'a kilogram', power: 'a kilowatt', grip: 'a percent' }

/** One bar of seconds on a scale that all share: gained to the right, lost to the left. */
function Bar({ seconds, most }: { seconds: number; most: number }) {
  const width = (50 * Math.abs(seconds)) / most
  return (
    <span className="relative block h-3 w-[180px]" aria-hidden="true">
      <span className="absolute top-[-4px] bottom-[-4px] left-1/2 w-px bg-edge" />
      <span
        className={`absolute top-0 bottom-0 ${seconds < 0 ? 'bg-pine' : 'border-2 border-wait'}`}
        style={seconds < 0 ? { left: '50%', width: `max(2px, ${width}%)` } : { right: '50%', width: `max(3px, ${width}%)` }}
      />
    </span>
  )
}

/** What each step is worth from the picked stage, and how many laps on each side show it; an idea in one line. */
export function WorthTab({ room, track, driven, openTrack, position }: TrackTabProps) {
  const { text, units, decimalMark, format } = useQuantities()
  const [idea, setIdea] = useState('')
  const spread = lapSpread(room.sessions, track?.id)
  const car = driven?.stage?.car ?? null
  const key = track && car ? JSON.stringify([track.id, track.version, car, spread.sdS]) : ''
  const { answer } = useWorked<TrackWorker, Awaited<ReturnType<TrackWorker['worth']>> | null>(beginTrackWorker, key, async (remote) =>
    track && car ? remote.worth(track, car, spread.sdS) : null,
  )
  const read = useMemo(() => (idea.trim() === '' ? null : attempt(() => readIdea(idea, decimalMark, units))), [idea, decimalMark, units])
  const change = read && !(read instanceof CalculationError) ? read : null
  const { answer: told } = useWorked<TrackWorker, Awaited<ReturnType<TrackWorker['changed']>> | null>(
    beginTrackWorker,
    change && track && car ? JSON.stringify([track.id, car, change]) : '',
    async (remote) => (change && track && car ? remote.changed(track, car, [change]) : null),
  )
  if (!track || !car)
    return (
      <Empty
        title="No lap to measure against"
        why="Worth is what a step takes off a lap: it needs a track, and a car whose mass, axle loads and power are known."
      />
    )
  const rows = answer && !('refused' in answer) ? answer : []
  const most = Math.max(0.05, ...rows.map(({ differenceS }) => Math.abs(differenceS ?? 0)))
  const shown = [...rows].sort((a, b) => (a.differenceS ?? 9) - (b.differenceS ?? 9))
  const ideaWords = () => {
    if (read instanceof CalculationError) return read.message
    if (!change) return 'A sign, a number and its unit, several in a line.'
    if (!told) return 'Being worked out …'
    if ('refused' in told) return told.refused
    const seconds = told[0] ?? 0
    const laps = Math.abs(seconds) < 1e-4 ? null : lapsNeeded({ sdS: spread.sdS, differenceS: seconds, school: 'ranks' }).lapsASide
    return `${format('lapTime', seconds, { sign: true, decimals: 2 }).number} s a lap${laps === null ? '' : `; ${laps} laps a side would show it`}.`
  }
  return (
    <>
      <div className="mb-2 flex flex-wrap items-baseline gap-x-4">
        <TrackSelect room={room} track={track} openTrack={openTrack} />
        <span className="text-quiet">
          from stage {position}, {text('lapTime', driven?.stage?.lapS ?? 0, { decimals: 2 })}; laps scatter by {spread.sdS.toFixed(2)} s
          {spread.isOwn ? ' of this driver’s own' : ', the usual until two clean laps are driven'}
        </span>
      </div>
      <div className="max-w-xl">
        <OneLine
          label="An idea in one line"
          placeholder={`${usualText(units, 'mass', -12)} +${usualText(units, 'power', 8000)}`}
          text={idea}
          type={setIdea}
          said={ideaWords()}
          store={async () => {}}
          isBusy={false}
        />
      </div>
      {!answer && (
        <p role="status" className="text-quiet">
          Each step is being driven …
        </p>
      )}
      {answer && 'refused' in answer && <p className="text-wait">{answer.refused}</p>}
      {rows.length > 0 && (
        <ScrollBox label="What each step is worth" className={driven?.isOld ? 'opacity-60' : ''}>
          <table className="w-full max-w-[860px]">
            <thead>
              <tr className="text-xs text-quiet">
                <th className="text-left font-normal">Step</th>
                <th className="text-right font-normal">seconds a lap</th>
                <th className="w-[200px] px-3 text-center font-normal">loses · gains</th>
                <th className="text-right font-normal">laps a side to show it</th>
                <th className="pl-6 text-left font-normal">each</th>
              </tr>
            </thead>
            <tbody>
              {shown.map(({ key: step, differenceS, lapsASide }) => (
                <tr key={step} className="border-t border-line">
                  <th scope="row" className="py-1.5 text-left font-normal">
                    {LAP_STEP_WORDS[step]}
                  </th>
                  <td className="py-1.5 text-right font-semibold tabular-nums">
                    {differenceS === null ? '' : format('lapTime', differenceS, { sign: true, decimals: 3 }).number}
                  </td>
                  <td className="px-3">{differenceS === null ? '' : <Bar seconds={differenceS} most={most} />}</td>
                  <td className={`py-1.5 text-right tabular-nums ${lapsASide !== null && lapsASide > 12 ? 'text-wait' : ''}`}>
                    {lapsASide === null ? (differenceS === null ? 'nothing of it on record' : 'it moves nothing') : lapsASide > 200 ? 'over 200' : lapsASide}
                  </td>
                  <td className="py-1.5 pl-6 text-quiet tabular-nums">
                    {differenceS !== null && PER[step] ? `${(Math.abs(differenceS) / (step === 'grip' ? 1 : 10)).toFixed(4)} s ${PER[step]}` : ''}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </ScrollBox>
      )}
      <Pieces room={room} track={track} car={car} position={position} lapSdS={spread.sdS} />
      <p className="mt-3 max-w-[860px] text-xs text-quiet">
        Whole steps of the whole model. Lines and parts by their mass, air, tyres and what is expected of them; what gears give stands in Drivetrain. Laps a
        side: to see it 4 times in 5, by ranks, with laps that scatter as above; what lies between two outings comes on top. Most single changes cannot be shown
        in five laps a side.
      </p>
    </>
  )
}
