import { fromSi, type GridCurve, gridSpeedRpm, type SessionComparison, torqueFromPowerNm } from '@bold-ballast/core'
import type { Data } from 'plotly.js'
import { useMemo, useState } from 'react'
import { Chart, useChartColours } from '../../ui/chart.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { useRawSamples } from './use-raw-samples.ts'

/** Zoomed closer than this, in rpm, the samples themselves are drawn under the grid curves. */
const CLOSE_RPM = 1500

interface CompareChartProps {
  readonly found: SessionComparison
  readonly buildId: string
  readonly names: readonly [string, string]
  /** The part that carries least torque, where the build counts power. */
  readonly weakest: { readonly name: string; readonly torqueNm: number } | null
}

/** Both sets, pull by pull and in the mean: power, torque against the weakest rating, and the gain with its interval; the used band as a ground. */
export function CompareChart({ found, buildId, names, weakest }: CompareChartProps) {
  const { units } = useQuantities()
  const colours = useChartColours()
  const [zoom, setZoom] = useState<readonly [number, number] | null>(null)
  const isClose = zoom !== null && zoom[1] - zoom[0] <= CLOSE_RPM
  const pullIds = useMemo(() => [...found.first.pullIds, ...found.second.pullIds], [found])
  const raw = useRawSamples(buildId, pullIds, isClose)
  const { data, layout } = useMemo(() => {
    const sides = [
      { side: found.first, name: names[0], color: colours.slate },
      { side: found.second, name: names[1], color: colours.pine },
    ]
    const power = (watts: number) => fromSi('power', watts, units.power)
    const torque = (newtonMetres: number) => fromSi('torque', newtonMetres, units.torque)
    // Pulls of a side are one line with gaps between them: twenty pulls are drawn as fast as one.
    const joined = (curves: readonly { readonly speedRpm: readonly number[]; readonly powerW: readonly number[] }[]) => ({
      x: curves.flatMap(({ speedRpm }) => [...speedRpm, null]),
      power: curves.flatMap(({ powerW }) => [...powerW.map(power), null]),
      torque: curves.flatMap(({ powerW, speedRpm }) => [...powerW.map((watts, i) => torque(torqueFromPowerNm(watts, speedRpm[i] as number))), null]),
    })
    const draw = (curves: Parameters<typeof joined>[0], line: { color: string; width: number }, name: string, more: object): Data[] => {
      const points = joined(curves)
      const base = { x: points.x, type: 'scatter' as const, mode: 'lines' as const, line, ...more }
      return [
        { ...base, y: points.power, hovertemplate: `%{y:.1f} ${units.power} at %{x:.0f} rpm<extra>${name}</extra>` },
        { ...base, y: points.torque, yaxis: 'y2', hovertemplate: `%{y:.0f} ${units.torque} at %{x:.0f} rpm<extra>${name}</extra>` },
      ]
    }
    const grid = (curve: GridCurve) => ({ speedRpm: curve.powerW.map((_, i) => gridSpeedRpm(curve, i)), powerW: curve.powerW })
    const lines = sides.flatMap(({ side, name, color }) => {
      const sampled = raw
        .filter(({ pullId }) => side.pullIds.includes(pullId))
        .map(({ speedRpm, powerW }) => ({ speedRpm, powerW: powerW.map((watts) => watts * side.factor) }))
      return [
        ...draw(side.curves.map(grid), { color, width: 0.8 }, name, { opacity: 0.55, hoverinfo: 'skip' }),
        ...(sampled.length > 0 ? draw(sampled, { color, width: 0.5 }, `${name}, as sampled`, { mode: 'lines+markers', marker: { size: 2.5, color } }) : []),
        ...draw([grid(side.meanCurve)], { color, width: 2.8 }, name, {}),
      ]
    })
    const speeds = found.gainBySpeed.map(({ speedRpm }) => speedRpm)
    const gain = (pick: 'gainW' | 'lowW' | 'highW') => found.gainBySpeed.map((entry) => (entry[pick] === null ? null : power(entry[pick])))
    const edge = {
      x: speeds,
      type: 'scatter' as const,
      mode: 'lines' as const,
      yaxis: 'y3' as const,
      line: { width: 0, color: colours.pine },
      hoverinfo: 'skip' as const,
    }
    const gains: Data[] = [
      { ...edge, y: gain('lowW') },
      { ...edge, y: gain('highW'), fill: 'tonexty', fillcolor: `${colours.pine}2b` },
      {
        x: speeds,
        y: gain('gainW'),
        type: 'scatter',
        mode: 'lines',
        yaxis: 'y3',
        line: { color: colours.pine, width: 2.2 },
        hovertemplate: `%{y:+.1f} ${units.power} at %{x:.0f} rpm<extra></extra>`,
      },
    ]
    const ends = sides.map(({ side, name }) => ({
      name,
      x: gridSpeedRpm(side.meanCurve, side.meanCurve.powerW.length - 1),
      y: power(side.meanCurve.powerW.at(-1) ?? 0),
    }))
    const apart = ends.map(({ y }) => y)
    const names2 = ends.map((end, i) => ({
      x: end.x,
      y: end.y,
      xanchor: 'left' as const,
      showarrow: false,
      yshift:
        Math.abs((apart[0] as number) - (apart[1] as number)) < 0.06 * Math.max(...apart)
          ? (apart[i] as number) >= Math.max(...apart) && i === apart.indexOf(Math.max(...apart))
            ? 7
            : -7
          : 0,
      text: end.name,
      font: { size: 11 },
    }))
    const band = {
      type: 'rect' as const,
      xref: 'x' as const,
      yref: 'paper' as const,
      x0: found.band.fromRpm,
      x1: found.band.toRpm,
      y0: 0,
      y1: 1,
      fillcolor: colours.wash,
      opacity: 0.45,
      line: { width: 0 },
      layer: 'below' as const,
    }
    const limit = weakest && torque(weakest.torqueNm)
    return {
      data: [...lines, ...gains],
      layout: {
        uirevision: 'zoom',
        margin: { t: 8, r: 44, b: 40, l: 60 },
        xaxis: { title: { text: 'engine speed, rpm' }, tickformat: ',.0f', anchor: 'y3' as const },
        yaxis: { title: { text: `power, ${units.power}` }, domain: [0.68, 1] },
        yaxis2: { title: { text: `torque, ${units.torque}` }, domain: [0.34, 0.63] },
        yaxis3: { title: { text: `gain, ${units.power}` }, domain: [0, 0.28], zeroline: true },
        shapes: [
          band,
          ...(limit
            ? [
                {
                  type: 'line' as const,
                  xref: 'paper' as const,
                  yref: 'y2' as const,
                  x0: 0,
                  x1: 1,
                  y0: limit,
                  y1: limit,
                  line: { color: colours.danger, width: 1.5, dash: 'dash' as const },
                },
              ]
            : []),
        ],
        annotations: [
          ...names2,
          ...(limit && weakest
            ? [
                {
                  xref: 'paper' as const,
                  yref: 'y2' as const,
                  x: 0.01,
                  y: limit,
                  xanchor: 'left' as const,
                  yanchor: 'top' as const,
                  showarrow: false,
                  text: `${weakest.name}: ${Math.round(limit)} ${units.torque}`,
                  font: { size: 11, color: colours.danger },
                },
              ]
            : []),
        ],
      },
    }
  }, [found, names, units, colours, raw, weakest])
  return (
    <>
      <Chart data={data} layout={layout} label={`Power, torque and gain of ${names.join(' and ')}`} className="h-[620px] w-full" onZoom={setZoom} />
      <p className="text-xs text-quiet">
        Drawn on a grid of 50 rpm; zoomed to {CLOSE_RPM} rpm or less the samples as recorded are drawn too. Double-click shows all again.
        {isClose && raw.length === 0 && ' These pulls have no samples, or they are being read.'}
      </p>
    </>
  )
}
