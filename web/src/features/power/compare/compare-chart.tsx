import { type ComparableSets, fromSi, type GridCurve, gridSpeedRpm, type SetComparison, torqueFromPowerNm, type WeakestTorque } from '@bold-ballast/core'
import type { Data } from 'plotly.js'
import { useMemo, useState } from 'react'
import { Chart, useChartColours } from '../../../ui/drawing/chart.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { type RawCurve, useRawSamples } from './use-raw-samples.ts'

/** Zoomed closer than this, in rpm, the samples themselves are drawn under the grid curves. */
const CLOSE_RPM = 1500
const MARGIN = { r: 44, l: 60 } as const
type Colours = ReturnType<typeof useChartColours>
type Units = Record<'power' | 'torque', string>

interface CompareChartProps {
  readonly sets: ComparableSets
  readonly found: SetComparison
  readonly buildId: string
  /** The part that carries least torque, where the build counts power. */
  readonly weakest: WeakestTorque | null
}

/**
 * Both sets, pull by pull and in the mean: power, torque against the weakest rating, and under them the gain with its interval; the used band as a ground.
 * The curves stand in a drawing of their own, so that another band draws the gain alone anew.
 */
export function CompareChart({ sets, found, buildId, weakest }: CompareChartProps) {
  const { units } = useQuantities()
  const colours = useChartColours()
  const [zoom, setZoom] = useState<readonly [number, number] | null>(null)
  const isClose = zoom !== null && zoom[1] - zoom[0] <= CLOSE_RPM
  const pullIds = useMemo(() => [...sets.first.pullIds, ...sets.second.pullIds], [sets])
  const raw = useRawSamples(buildId, pullIds, isClose)
  const { lines, names, whole } = useMemo(() => curvesOf(sets, raw, units, colours), [sets, raw, units, colours])
  const gains = useMemo(() => gainsOf(found, units, colours), [found, units, colours])
  const { fromRpm, toRpm } = found.band
  const layouts = useMemo(() => {
    const band = {
      type: 'rect' as const,
      xref: 'x' as const,
      yref: 'paper' as const,
      x0: fromRpm,
      x1: toRpm,
      y0: 0,
      y1: 1,
      fillcolor: colours.wash,
      opacity: 0.45,
      line: { width: 0 },
      layer: 'below' as const,
    }
    const range = [...(zoom ?? whole)]
    const limit = weakest && fromSi('torque', weakest.torqueNm, units.torque)
    const rating = {
      type: 'line' as const,
      xref: 'paper' as const,
      yref: 'y2' as const,
      x0: 0,
      x1: 1,
      y0: limit ?? 0,
      y1: limit ?? 0,
      line: { color: colours.danger, width: 1.5, dash: 'dash' as const },
    }
    const ratingName = {
      xref: 'paper' as const,
      yref: 'y2' as const,
      x: 0.01,
      y: limit ?? 0,
      xanchor: 'left' as const,
      yanchor: 'top' as const,
      showarrow: false,
      text: `${weakest?.part.name}: ${Math.round(limit ?? 0)} ${units.torque}`,
      font: { size: 11, color: colours.danger },
    }
    return {
      curves: {
        margin: { ...MARGIN, t: 8, b: 8 },
        xaxis: { range, showticklabels: false, anchor: 'y2' as const },
        yaxis: { title: { text: `power, ${units.power}` }, domain: [0.53, 1] },
        yaxis2: { title: { text: `torque, ${units.torque}` }, domain: [0, 0.47] },
        shapes: [band, ...(limit ? [rating] : [])],
        annotations: [...names, ...(limit ? [ratingName] : [])],
      },
      gain: {
        margin: { ...MARGIN, t: 8, b: 40 },
        xaxis: { range, title: { text: 'engine speed, rpm' }, tickformat: ',.0f' },
        yaxis: { title: { text: `gain, ${units.power}` }, zeroline: true },
        shapes: [band],
      },
    }
  }, [fromRpm, toRpm, zoom, whole, names, units, colours, weakest])
  return (
    <>
      <Chart data={lines} layout={layouts.curves} label="Power and torque of both sets" className="h-[430px] w-full" onZoom={setZoom} />
      <Chart data={gains} layout={layouts.gain} label="Gain from one set to the other" className="h-[190px] w-full" onZoom={setZoom} />
      <p className="text-xs text-quiet">
        Drawn on a grid of 50 rpm; zoomed to {CLOSE_RPM} rpm or less the samples as recorded are drawn too. Double-click shows all again.
        {isClose && raw.length === 0 && ' These pulls have no samples, or they are being read.'}
      </p>
    </>
  )
}

type Curve = { readonly speedRpm: readonly number[]; readonly powerW: readonly number[] }

const asCurve = (curve: GridCurve): Curve => ({ speedRpm: curve.powerW.map((_, i) => gridSpeedRpm(curve, i)), powerW: curve.powerW })

/** Curves as one line of power and one of torque, with gaps between them: twenty pulls are drawn as fast as one. */
function draw(curves: readonly Curve[], units: Units, name: string, line: { color: string; width: number }, more: object): Data[] {
  const torque = (watts: number, rpm: number) => fromSi('torque', torqueFromPowerNm(watts, rpm), units.torque)
  const base = { x: curves.flatMap(({ speedRpm }) => [...speedRpm, null]), type: 'scatter' as const, mode: 'lines' as const, line, ...more }
  return [
    {
      ...base,
      y: curves.flatMap(({ powerW }) => [...powerW.map((watts) => fromSi('power', watts, units.power)), null]),
      hovertemplate: `%{y:.1f} ${units.power} at %{x:.0f} rpm<extra>${name}</extra>`,
    },
    {
      ...base,
      y: curves.flatMap(({ powerW, speedRpm }) => [...powerW.map((watts, i) => torque(watts, speedRpm[i] as number)), null]),
      yaxis: 'y2',
      hovertemplate: `%{y:.0f} ${units.torque} at %{x:.0f} rpm<extra>${name}</extra>`,
    },
  ]
}

/** The curves of both sets, their names at the ends of the means, and the speeds that they span. */
function curvesOf(sets: ComparableSets, raw: readonly RawCurve[], units: Units, colours: Colours) {
  const sides = [
    { side: sets.first, name: 'from', color: colours.slate },
    { side: sets.second, name: 'to', color: colours.pine },
  ]
  const lines = sides.flatMap(({ side, name, color }) => {
    const sampled = raw
      .filter(({ pullId }) => side.pullIds.includes(pullId))
      .map(({ speedRpm, powerW }) => ({ speedRpm, powerW: powerW.map((watts) => watts * side.factor) }))
    const dots = { mode: 'lines+markers', marker: { size: 2.5, color } }
    return [
      ...draw(side.curves.map(asCurve), units, name, { color, width: 0.8 }, { opacity: 0.55, hoverinfo: 'skip' }),
      ...(sampled.length > 0 ? draw(sampled, units, `${name}, as sampled`, { color, width: 0.5 }, dots) : []),
      ...draw([asCurve(side.meanCurve)], units, name, { color, width: 2.8 }, {}),
    ]
  })
  const ends = sides.map(({ side: { meanCurve }, name }) => ({
    name,
    x: gridSpeedRpm(meanCurve, meanCurve.powerW.length - 1),
    y: fromSi('power', meanCurve.powerW.at(-1) ?? 0, units.power),
  }))
  const [from, to] = ends as [(typeof ends)[number], (typeof ends)[number]]
  // Names that would cover each other are pushed apart.
  const push = Math.abs(from.y - to.y) < 0.06 * Math.max(from.y, to.y) ? 7 : 0
  const names = ends.map(({ name, x, y }) => ({
    x,
    y,
    xanchor: 'left' as const,
    showarrow: false,
    yshift: (name === 'to') === to.y >= from.y ? push : -push,
    text: name,
    font: { size: 11 },
  }))
  const curves = [...sets.first.curves, ...sets.second.curves]
  const whole = [
    Math.min(...curves.map(({ firstSpeedRpm }) => firstSpeedRpm)),
    Math.max(...curves.map((curve) => gridSpeedRpm(curve, curve.powerW.length - 1))),
  ] as const
  return { lines, names, whole }
}

/** The gain by speed with the interval that its pulls give. */
function gainsOf({ gainBySpeed }: SetComparison, units: Units, { pine }: Colours): Data[] {
  const x = gainBySpeed.map(({ speedRpm }) => speedRpm)
  const values = (pick: 'gainW' | 'lowW' | 'highW') => gainBySpeed.map(({ [pick]: watts }) => (watts === null ? null : fromSi('power', watts, units.power)))
  const edge = { x, type: 'scatter' as const, mode: 'lines' as const, line: { width: 0, color: pine }, hoverinfo: 'skip' as const }
  return [
    { ...edge, y: values('lowW') },
    { ...edge, y: values('highW'), fill: 'tonexty', fillcolor: `${pine}2b` },
    {
      x,
      y: values('gainW'),
      type: 'scatter',
      mode: 'lines',
      line: { color: pine, width: 2.2 },
      hovertemplate: `%{y:+.1f} ${units.power} at %{x:.0f} rpm<extra></extra>`,
    },
  ]
}
