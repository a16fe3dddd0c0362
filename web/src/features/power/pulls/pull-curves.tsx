import type { StoredRecords } from '@bold-ballast/contract'
import { fromSi, type GridCurve, gridSpeedRpm, type PowerRoom, scaleCurve, settingOf, torqueFromPowerNm } from '@bold-ballast/core'
import type { Data } from 'plotly.js'
import { useMemo, useState } from 'react'
import { Chart, useChartColours } from '../../../ui/drawing/chart.tsx'
import { CsvButton, type CsvTable } from '../../../ui/files/csv-button.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { dayText } from '../../../ui/words.ts'

interface Curve {
  readonly name: string
  readonly curve: GridCurve
  readonly isStage: boolean
  readonly isSetAside: boolean
}

const DASHES = ['solid', 'dash', 'dot', 'dashdot', 'longdash'] as const

/** Pulls of the sessions that are ticked, over the curve of the picked stage: power and torque in two plots, one over the other. */
export function PullCurves({ records, room, position }: { records: StoredRecords; room: PowerRoom; position: number }) {
  const { units } = useQuantities()
  const [showsTable, setShowsTable] = useState(false)
  const [hidden, setHidden] = useState<readonly string[]>([])
  const stageId = records.stages[position]?.id
  const here = records.sessions.filter((session) => session.stageId === stageId)
  const from = room.stages[position]?.fromPosition ?? -1
  const startsFrom = records.sessions.filter(
    (session) =>
      session.stageId === records.stages[from]?.id &&
      room.sessions.some((entry) => entry.sessionId === session.id && (entry.role === 'stands' || entry.role === 'start')),
  )
  const shown = here.length > 0 ? here : startsFrom
  const curves = useMemo<Curve[]>(() => {
    const sessions = shown.filter((session) => !hidden.includes(session.id))
    const pulls = sessions.flatMap((session) => {
      const factorOf = (settingId: string | null) => {
        const setting = settingOf(session, settingId)
        return room.sessions.find((entry) => entry.sessionId === session.id && entry.settingId === setting.id)?.power?.factor ?? 1
      }
      return records.pulls
        .filter((pull) => pull.sessionId === session.id)
        .flatMap((pull) => (pull.curve ? [{ ...pull, curve: pull.curve }] : []))
        .map((pull) => ({
          name: `${shown.length > 1 ? `${dayText(session.at).replace(/ \d{4}$/, '')}, ` : ''}${session.settings.length > 1 ? `${settingOf(session, pull.settingId).name}, ` : ''}pull ${pull.label}`,
          curve: scaleCurve(pull.curve, factorOf(pull.settingId)),
          isStage: false,
          isSetAside: pull.setAside !== null,
        }))
    })
    const stage = room.stages[position]
    const scaled = stage?.scaledFromPosition
    const own = stage?.curve
      ? [{ name: scaled === null || scaled === undefined ? 'stage mean' : `scaled from stage ${scaled}`, curve: stage.curve, isStage: true, isSetAside: false }]
      : []
    return [...pulls, ...own]
  }, [shown, hidden, records, room, position])
  const colours = useChartColours()
  const { data, layout } = useMemo(() => drawing(curves, units.power, units.torque, colours), [curves, units, colours])
  return (
    <section className="min-w-0">
      <div className="mb-2 flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <h2>
          Power, {units.power}, over torque, {units.torque}, against engine speed
        </h2>
        {shown.map((session) => (
          <label key={session.id} className="flex min-h-7 items-center gap-2">
            <input
              type="checkbox"
              checked={!hidden.includes(session.id)}
              onChange={(event) => setHidden(event.target.checked ? hidden.filter((id) => id !== session.id) : [...hidden, session.id])}
            />
            {session.dynoName}, {dayText(session.at)}
          </label>
        ))}
      </div>
      {curves.length === 0 ? (
        <p className="text-quiet">No pull to draw. Import a CSV file into a session.</p>
      ) : (
        <Chart data={data} layout={layout} label={`Power and torque of ${curves.map((curve) => curve.name).join(', ')}`} className="h-[520px] w-full" />
      )}
      <button type="button" className="word-link mt-2" onClick={() => setShowsTable(!showsTable)}>
        {showsTable ? 'Hide the numbers' : 'The same numbers as a table'}
      </button>
      {curves.length > 0 && (
        <span className="ml-5">
          <CsvButton name={`${records.build.name}-curves`} table={() => curvesTable(curves, units.power)} />
        </span>
      )}
      {showsTable && <CurveTable curves={curves} powerUnit={units.power} />}
    </section>
  )
}

function drawing(curves: readonly Curve[], powerUnit: string, torqueUnit: string, { pine, slate }: { pine: string; slate: string }) {
  const nameOnce = curves.length <= 6
  const data = curves.flatMap((entry, i): Data[] => {
    const x = entry.curve.powerW.map((_, at) => gridSpeedRpm(entry.curve, at))
    const line = {
      color: entry.isSetAside ? slate : pine,
      width: entry.isStage ? 3.2 : 1.4,
      dash: entry.isStage ? ('solid' as const) : (DASHES[i % DASHES.length] ?? 'solid'),
    }
    const power = entry.curve.powerW.map((value) => fromSi('power', value, powerUnit))
    const torque = entry.curve.powerW.map((value, at) => fromSi('torque', torqueFromPowerNm(value, x[at] as number), torqueUnit))
    const base = { x, type: 'scatter' as const, mode: 'lines' as const, line, name: entry.name }
    return [
      { ...base, y: power, hovertemplate: `%{y:.1f} ${powerUnit} at %{x:.0f} rpm<extra>${entry.name}</extra>` },
      { ...base, y: torque, yaxis: 'y2', hovertemplate: `%{y:.0f} ${torqueUnit} at %{x:.0f} rpm<extra>${entry.name}</extra>` },
    ]
  })
  // Direct labels at the ends of the curves, pushed apart so that none covers another.
  const ends = curves
    .map((entry, i) => ({
      i,
      last: fromSi('power', entry.curve.powerW.at(-1) ?? 0, powerUnit),
      x: gridSpeedRpm(entry.curve, entry.curve.powerW.length - 1),
      entry,
    }))
    .sort((a, b) => b.last - a.last)
  const annotations = nameOnce
    ? ends.map((end, rank) => ({
        x: end.x,
        y: end.last,
        xanchor: 'left' as const,
        showarrow: false,
        yshift: (ends.length / 2 - rank) * 13 - 6,
        text: end.entry.isStage ? `<b>${end.entry.name}</b>` : end.entry.name,
        font: { size: 11 },
      }))
    : []
  return {
    data,
    layout: {
      annotations,
      margin: { t: 8, r: 120, b: 40, l: 56 },
      xaxis: {
        range: [Math.min(...curves.map((entry) => entry.curve.firstSpeedRpm)), Math.max(...ends.map((end) => end.x))],
        title: { text: 'engine speed, rpm' },
        tickformat: ',.0f',
        anchor: 'y2' as const,
      },
      yaxis: { title: { text: `power, ${powerUnit}` }, domain: [0.54, 1], rangemode: 'tozero' as const },
      yaxis2: { title: { text: `torque, ${torqueUnit}` }, domain: [0, 0.46], rangemode: 'tozero' as const },
    },
  }
}

/** Every curve on its grid; the stage's own scaled curve is no pull and stays out. */
function curvesTable(curves: readonly Curve[], powerUnit: string): CsvTable {
  const pulls = curves.filter((entry) => !entry.name.startsWith('scaled'))
  const speeds = [...new Set(pulls.flatMap(({ curve }) => curve.powerW.map((_, at) => gridSpeedRpm(curve, at))))].sort((a, b) => a - b)
  const at = ({ curve }: Curve, speed: number) => curve.powerW[(speed - curve.firstSpeedRpm) / curve.stepRpm]
  return {
    head: ['Engine speed (rpm)', ...pulls.map((entry) => `${entry.name} (${powerUnit})`)],
    rows: speeds.map((speed) => [
      speed,
      ...pulls.map((entry) => {
        const power = at(entry, speed)
        return power === undefined ? null : fromSi('power', power, powerUnit)
      }),
    ]),
  }
}

function CurveTable({ curves, powerUnit }: { curves: readonly Curve[]; powerUnit: string }) {
  const { format } = useQuantities()
  const speeds = [...new Set(curves.flatMap((entry) => entry.curve.powerW.map((_, at) => gridSpeedRpm(entry.curve, at))))]
    .filter((speed) => speed % 250 === 0)
    .sort((a, b) => a - b)
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scroller that the keyboard can reach
    <section className="mt-2 max-h-[420px] overflow-auto" tabIndex={0} aria-label="Power by engine speed">
      <table className="w-full">
        <thead>
          <tr>
            <th className="p-1">rpm</th>
            {curves.map((entry) => (
              <th key={entry.name} className="p-1 text-right">
                {entry.name}, {powerUnit}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {speeds.map((speed) => (
            <tr key={speed} className="border-t border-line">
              <td className="p-1">{format('engineSpeed', speed).number}</td>
              {curves.map((entry) => {
                const power = entry.curve.powerW[(speed - entry.curve.firstSpeedRpm) / entry.curve.stepRpm]
                return (
                  <td key={entry.name} className="p-1 text-right">
                    {power === undefined ? '' : format('power', power, { decimals: 1 }).number}
                  </td>
                )
              })}
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
