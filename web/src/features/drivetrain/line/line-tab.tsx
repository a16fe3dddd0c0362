import {
  attempt,
  CalculationError,
  DRIVE_INPUT_WORDS,
  type DriveCar,
  type DriveInputKey,
  driveMotion,
  fromSi,
  leaveSpeeds,
  METRIC_INFO,
  momentAt,
  run,
  type SpreadYardsticks,
  spreadYardsticks,
  unsureInputs,
  YARDSTICKS,
  type Yardstick,
} from '@bold-ballast/core'
import type { Data } from 'plotly.js'
import { useMemo } from 'react'
import { Chart, useChartColours } from '../../../ui/drawing/chart.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { dayText } from '../../../ui/words.ts'
import type { DriveTabProps } from '../tab-props.ts'
import { TimedLine } from './timed-line.tsx'

const LONGEST_M = 402.336

/** A run over a quarter mile as points of time and speed. */
function traceOf(car: DriveCar): { t: number[]; v: number[] } | null {
  const found = attempt(() => {
    const motion = driveMotion(car)
    return { motion, stretches: run({ motion, leaveRpm: leaveSpeeds(motion), toM: LONGEST_M }) }
  })
  if (found instanceof CalculationError) return null
  const points = found.stretches.flatMap((stretch) => [0.25, 0.5, 0.75, 1].map((share) => momentAt(found.motion, stretch, share)))
  return { t: [0, ...points.map(({ timeS }) => timeS)], v: [0, ...points.map(({ speedMps }) => speedMps)] }
}

/** Speed over time of two stages. */
function Traces({ car, before, names }: { car: DriveCar; before: DriveCar | null; names: readonly [string, string] }) {
  const colours = useChartColours()
  const { units } = useQuantities()
  const { data, layout } = useMemo(() => {
    const line = (of: DriveCar, name: string, isMain: boolean): Data[] => {
      const trace = traceOf(of)
      if (!trace) return []
      const y = trace.v.map((mps) => fromSi('speed', mps, units.speed))
      return [
        {
          type: 'scatter',
          mode: 'lines',
          name,
          x: trace.t,
          y,
          line: { color: isMain ? colours.pine : colours.slate, width: isMain ? 2.8 : 1.6, dash: isMain ? 'solid' : 'dash', shape: 'linear' },
          hovertemplate: `%{y:.0f} ${units.speed} after %{x:.2f} s<extra>${name}</extra>`,
        },
      ]
    }
    return {
      data: [...(before ? line(before, names[1], false) : []), ...line(car, names[0], true)],
      layout: {
        margin: { t: 8, r: 12, b: 38, l: 52 },
        xaxis: { title: { text: 'time, s' } },
        yaxis: { title: { text: units.speed }, rangemode: 'tozero' as const },
      },
    }
  }, [car, before, names, colours, units])
  return <Chart data={data} layout={layout} label="Speed over time from rest over a quarter mile" className="h-[300px] w-full" />
}

function Splits({
  found,
  earlier,
  measured,
  stageId,
}: {
  found: SpreadYardsticks
  earlier: SpreadYardsticks | null
  measured: DriveTabProps['made']['measured']
  stageId: string
}) {
  const kindOf = (key: Yardstick) => (key === 'topSpeed' || key === 'quarterMileSpeed' ? ('speed' as const) : ('lapTime' as const))
  return (
    <ScrollBox label="Yardsticks">
      <table className="w-full">
        <thead>
          <tr>
            <th className="text-left">Yardstick</th>
            <th className="text-right">Read here</th>
            <th className="text-right">Worked out</th>
            <th className="text-right">Stage before</th>
          </tr>
        </thead>
        <tbody>
          {YARDSTICKS.map((key) => {
            const [value, was, read] = [found[key], earlier?.[key], measured[key]]
            return (
              <tr key={key} className="border-t border-line">
                <th scope="row" className="py-1 text-left font-normal">
                  {METRIC_INFO[key].word}
                </th>
                <td className="py-1 text-right">
                  {read ? <Figure kind={kindOf(key)} value={read.value} sd={read.sd} showSpread proof={read.proof} className="font-semibold" /> : ''}
                </td>
                <td className="py-1 text-right">
                  {value ? (
                    <Figure
                      kind={kindOf(key)}
                      value={value.value}
                      sd={value.sd}
                      showSpread
                      proof={value.guessShare > 0.5 ? 'guess' : 'calculated'}
                      working={{ of: key, id: stageId }}
                    />
                  ) : (
                    'never'
                  )}
                </td>
                <td className="py-1 text-right text-quiet">{was ? <Figure kind={kindOf(key)} value={was.value} sd={was.sd} /> : ''}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </ScrollBox>
  )
}

/** Runs from rest: traces of two stages, yardsticks with their doubt and what it comes from, and what was timed. */
export function LineTab({ records, room, made, position, stageId, car }: DriveTabProps) {
  const { text, units, format } = useQuantities()
  const { take, notice } = useRemoval(records.build.id, 'readings')
  const before = position > 0 ? (room.stages[position - 1] ?? null) : null
  const found = useMemo(() => (car ? attempt(() => spreadYardsticks(car, room.rollOutM, unsureInputs(made.inputs))) : null), [car, room.rollOutM, made.inputs])
  const earlier = useMemo(() => {
    const own = before?.isConverter ? null : before?.car
    const made2 = own ? attempt(() => spreadYardsticks(own, room.rollOutM, unsureInputs(before?.inputs ?? []))) : null
    return made2 instanceof CalculationError ? null : made2
  }, [before, room.rollOutM])
  if (!car) return null
  if (found instanceof CalculationError) return <p className="border-l-4 border-wait pl-3">{found.message}</p>
  const readings = records.readings.filter((reading) => reading.stageId === stageId)
  const main = found?.zeroTo100 ?? found?.sixtyFoot
  const rule = made.quarterMileRule
  return (
    <div className="grid gap-x-6 gap-y-4 lg:grid-cols-[minmax(0,1fr)_430px]">
      <div className="min-w-0">
        <TimedLine records={records} stageId={stageId} rollOutM={room.rollOutM} />
        {made.isConverter ? (
          <p className="border-l-4 border-wait pl-3">A converter slips from rest and is not calculated; runs from rest begin with a gearbox and its clutch.</p>
        ) : (
          <Traces car={car} before={before?.isConverter ? null : (before?.car ?? null)} names={[`stage ${position}`, `stage ${position - 1}`]} />
        )}
        {main && (
          <>
            <h3 className="mt-3 font-semibold">What the doubt of 0 to 100 comes from</h3>
            <ul className="mt-1">
              {main.inputs.slice(0, 6).map(({ key, byOneSd, isGuess }) => {
                const { word, measure } = DRIVE_INPUT_WORDS[key as DriveInputKey]
                const share = main.sd > 0 ? (byOneSd / main.sd) ** 2 : 0
                return (
                  <li key={key} className="flex flex-wrap items-baseline gap-x-2 border-t border-line py-0.5">
                    <span className="w-[210px] shrink-0">{word}</span>
                    <span className="w-[86px] shrink-0 text-right tabular-nums">± {format('lapTime', Math.abs(byOneSd), { decimals: 3 }).number} s</span>
                    <span aria-hidden="true" className="h-2.5 shrink-0 bg-pine" style={{ width: `${Math.round(90 * share)}px` }} />
                    <span className="text-xs text-quiet">{isGuess ? `a guess: ${measure}` : 'measured'}</span>
                  </li>
                )
              })}
            </ul>
          </>
        )}
      </div>
      <div>
        {!made.isConverter && found && <Splits found={found} earlier={earlier} measured={made.measured} stageId={stageId} />}
        {rule && !made.isConverter && (
          <p className="mt-3 text-quiet">
            Rules of thumb for the quarter mile (from memory, power at the crank by the build’s driveline loss): {Math.min(...rule.times).toFixed(1)} to{' '}
            {Math.max(...rule.times).toFixed(1)} s at {text('speed', Math.min(...rule.speedsMps), { decimals: 0 })} to{' '}
            {text('speed', Math.max(...rule.speedsMps), { decimals: 0 })}; no car passes {rule.floorS.toFixed(1)} s with this power and mass.
          </p>
        )}
        <h3 className="mt-4 font-semibold">Timed at this stage</h3>
        {notice}
        {readings.length === 0 ? (
          <p className="text-quiet">Nothing yet. A time that is read replaces what is worked out, and carries later stages.</p>
        ) : (
          <ul>
            {readings.map((reading) => (
              <li key={reading.id} className="flex flex-wrap items-baseline gap-x-2 border-t border-line py-1">
                <span className="w-[150px]">{METRIC_INFO[reading.metric].word}</span>
                <Figure kind={METRIC_INFO[reading.metric].kind} value={reading.value} decimals={2} proof="measured" />
                <span className="text-xs text-quiet">
                  {dayText(reading.at)}, {reading.timing ?? 'watch'}, {reading.surface}
                  {reading.rollOutM === room.rollOutM
                    ? ''
                    : `; another clock: ${text('length', reading.rollOutM, { decimals: 0 })} of roll-out, so it does not count`}
                </span>
                <button type="button" className="word-link ml-auto" onClick={() => void take(reading)}>
                  Delete
                </button>
              </li>
            ))}
          </ul>
        )}
        <p className="mt-3 text-xs text-quiet">
          Clock of this build: {room.rollOutM === 0 ? 'from the first movement' : `after ${text('length', room.rollOutM, { decimals: 0 })} of roll-out`}. Air{' '}
          {car.airDensityKgM3.toFixed(2)} kg/m³. Speeds in {units.speed}.
        </p>
      </div>
    </div>
  )
}
