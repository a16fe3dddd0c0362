import type { DynoSample } from '@bold-ballast/contract'
import { fromSi, type GridCurve, gridSpeedRpm, torqueFromPowerNm } from '@bold-ballast/core'
import type { Data } from 'plotly.js'
import { useMemo } from 'react'
import { Chart, useChartColours } from '../../ui/chart.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { thinned } from './live-file.ts'

const most = (list: readonly number[], now: number) => Math.max(...list, now) * 1.1

/** Power over torque as the pull runs, over the curve of the stage; the axes stand still so that only the line moves. */
export function LiveChart({ samples, reference, referenceName }: { samples: readonly DynoSample[]; reference: GridCurve | null; referenceName: string }) {
  const { units } = useQuantities()
  const colours = useChartColours()
  const behind = useMemo(() => {
    if (!reference) return null
    const x = reference.powerW.map((_, i) => gridSpeedRpm(reference, i))
    return {
      x,
      power: reference.powerW.map((value) => fromSi('power', value, units.power)),
      torque: reference.powerW.map((value, i) => fromSi('torque', torqueFromPowerNm(value, x[i] as number), units.torque)),
    }
  }, [reference, units])
  const peakPower = samples.reduce((best, sample) => Math.max(best, sample.powerW), 0)
  const peakTorque = samples.reduce((best, sample) => Math.max(best, sample.torqueNm), 0)
  const layout = useMemo(
    () => ({
      margin: { t: 8, r: 16, b: 40, l: 56 },
      xaxis: {
        title: { text: 'engine speed, rpm' },
        tickformat: ',.0f',
        anchor: 'y2' as const,
        range: [Math.min(behind?.x[0] ?? 2000, samples[0]?.speedRpm ?? 2000), Math.max(behind?.x.at(-1) ?? 7500, samples.at(-1)?.speedRpm ?? 0)],
      },
      yaxis: { title: { text: `power, ${units.power}` }, domain: [0.54, 1], range: [0, most(behind?.power ?? [100], fromSi('power', peakPower, units.power))] },
      yaxis2: {
        title: { text: `torque, ${units.torque}` },
        domain: [0, 0.46],
        range: [0, most(behind?.torque ?? [200], fromSi('torque', peakTorque, units.torque))],
      },
      annotations: behind
        ? [
            {
              x: behind.x.at(-1) as number,
              y: behind.power.at(-1) as number,
              xanchor: 'right' as const,
              yanchor: 'bottom' as const,
              showarrow: false,
              text: referenceName,
              font: { size: 11 },
            },
          ]
        : [],
    }),
    [behind, samples, peakPower, peakTorque, units, referenceName],
  )
  const data = useMemo(() => {
    const drawn = thinned(samples)
    const x = drawn.map(({ speedRpm }) => speedRpm)
    const base = { type: 'scatter' as const, mode: 'lines' as const, hoverinfo: 'skip' as const }
    const own = { ...base, x, line: { color: colours.pine, width: 2.6 } }
    const lines: Data[] = [
      { ...own, y: drawn.map(({ powerW }) => fromSi('power', powerW, units.power)) },
      { ...own, y: drawn.map(({ torqueNm }) => fromSi('torque', torqueNm, units.torque)), yaxis: 'y2' },
    ]
    const old = { ...base, x: behind?.x ?? [], line: { color: colours.slate, width: 1.2 } }
    return behind ? [{ ...old, y: behind.power }, { ...old, y: behind.torque, yaxis: 'y2' as const }, ...lines] : lines
  }, [samples, behind, units, colours])
  return <Chart data={data} layout={layout} label="Power and torque of the pull as it runs" className="h-[420px] w-full" />
}
