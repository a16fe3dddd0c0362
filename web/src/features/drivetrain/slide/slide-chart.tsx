import { fromSi, type SlideMap } from '@bold-ballast/core'
import type { Data } from 'plotly.js'
import { useMemo } from 'react'
import { Chart, useChartColours } from '../../../ui/drawing/chart.tsx'

const ORDINALS = ['1st', '2nd', '3rd', '4th', '5th', '6th', '7th', '8th', '9th', '10th'] as const
const DEGREES = 180 / Math.PI

/** Corners as they stand in the map. */
export interface MapCorner {
  readonly name: string
  readonly speedMps: number
  readonly angleRad: number
  readonly state: 'holds' | 'less' | 'short'
  readonly isPicked: boolean
}

/** Where each gear is the best, its name in the middle of where it holds with the reserve. */
function gearNames(map: SlideMap, reserve: number, speedUnit: string) {
  const places = new Map<number, { x: number; y: number; count: number }>()
  map.gear.forEach((row, i) => {
    row.forEach((gear, j) => {
      if (gear === null || (map.inHand[i]?.[j] ?? -1) < reserve) return
      const before = places.get(gear) ?? { x: 0, y: 0, count: 0 }
      places.set(gear, { x: before.x + (map.speedsMps[j] as number), y: before.y + (map.anglesRad[i] as number), count: before.count + 1 })
    })
  })
  return [...places].flatMap(([gear, { x, y, count }]) =>
    count < 40
      ? []
      : [{ x: fromSi('speed', x / count, speedUnit), y: (y / count) * DEGREES, text: `<b>${ORDINALS[gear - 1]}</b>`, showarrow: false, font: { size: 13 } }],
  )
}

/** Angle over speed: how much power is in hand by the best gear; its edge at nothing and at the wanted reserve; another stage dashed; corners of the course. */
export function SlideChart({
  map,
  other,
  reserve,
  corners,
  speedUnit,
}: {
  map: SlideMap
  other: SlideMap | null
  reserve: number
  corners: readonly MapCorner[]
  speedUnit: string
}) {
  const colours = useChartColours()
  const { data, layout } = useMemo(() => {
    const x = map.speedsMps.map((mps) => fromSi('speed', mps, speedUnit))
    const y = map.anglesRad.map((angle) => angle * DEGREES)
    const percent = (rows: SlideMap['inHand']) => rows.map((row) => row.map((value) => (value === null ? null : Math.max(-60, Math.min(90, 100 * value)))))
    const edge = (of: SlideMap, at: number, dash: 'solid' | 'dot' | 'dash', color: string, width: number): Data =>
      ({
        type: 'contour',
        x,
        y,
        z: percent(of.inHand),
        connectgaps: false,
        contours: { type: 'constraint', operation: '=', value: at, showlines: true },
        line: { color, width, dash, smoothing: 0.6 },
        showscale: false,
        hoverinfo: 'skip',
        showlegend: false,
      }) as unknown as Data
    const field = {
      type: 'heatmap',
      x,
      y,
      z: percent(map.inHand).map((row) => row.map((value) => (value === null ? null : value >= 100 * reserve ? 2 : value >= 0 ? 1 : 0))),
      customdata: map.inHand.map((row, i) =>
        row.map((value, j) => (value === null ? '' : `${(100 * value).toFixed(0)} % in hand, ${ORDINALS[(map.gear[i]?.[j] ?? 1) - 1]}`)),
      ),
      hovertemplate: `%{customdata}<br>%{x:.0f} ${speedUnit}, %{y:.0f}°<extra></extra>`,
      colorscale: [
        [0, colours.sheet],
        [0.33, colours.sheet],
        [0.34, colours.wash],
        [0.66, colours.wash],
        [0.67, colours.pine],
        [1, colours.pine],
      ],
      zmin: 0,
      zmax: 2,
      opacity: 0.42,
      showscale: false,
      zsmooth: false,
    } as unknown as Data
    const dots: Data = {
      type: 'scatter',
      mode: 'text+markers',
      x: corners.map(({ speedMps }) => fromSi('speed', speedMps, speedUnit)),
      y: corners.map(({ angleRad }) => angleRad * DEGREES),
      text: corners.map(({ name }) => name),
      textposition: 'bottom center',
      textfont: { color: colours.ink, size: 12.5 },
      marker: {
        size: corners.map(({ isPicked }) => (isPicked ? 15 : 11)),
        symbol: corners.map(({ state }) => (state === 'holds' ? 'circle' : state === 'less' ? 'circle-open-dot' : 'circle-open')),
        color: colours.ink,
        line: { width: 2, color: colours.ink },
      },
      hoverinfo: 'skip',
    }
    return {
      data: [
        field,
        edge(map, 100 * reserve, 'solid', colours.pine, 2.6),
        edge(map, 0, 'dot', colours.pine, 1.6),
        ...(other ? [edge(other, 100 * reserve, 'dash', colours.slate, 1.8)] : []),
        dots,
      ],
      layout: {
        margin: { t: 6, r: 10, b: 38, l: 52 },
        xaxis: { title: { text: `speed of the rear axle, ${speedUnit}` } },
        yaxis: { title: { text: 'angle, degrees' } },
        annotations: gearNames(map, reserve, speedUnit),
      },
    }
  }, [map, other, reserve, corners, speedUnit, colours])
  return <Chart data={data} layout={layout} label="Slides that the gears hold: angle over speed" className="h-[300px] w-full" />
}
