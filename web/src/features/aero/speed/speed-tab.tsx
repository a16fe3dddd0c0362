import { type AeroTotals, airPressurePa, dragLimitedSpeed, fromSi, powerFromDragW, totalsAlong } from '@bold-ballast/core'
import type { Data } from 'plotly.js'
import { useMemo } from 'react'
import { Chart, useChartColours } from '../../../ui/drawing/chart.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import type { AeroTabProps } from '../tab-props.ts'

const STEPS = 60

/** Downforce and drag against speed with their bands, the power that the air takes, and what each device gives for its drag, mass and money. */
export function SpeedTab({ records, room, made, totals, stated, heights, q }: AeroTabProps) {
  const colours = useChartColours()
  const { units, text } = useQuantities()
  const { airDensityKgM3, basis } = room
  const { data, layout } = useMemo(() => {
    const speeds = Array.from({ length: STEPS }, (_, i) => 5 + ((basis.fastestMps - 5) * i) / (STEPS - 1))
    const x = speeds.map((speed) => fromSi('speed', speed, units.speed))
    const along = totalsAlong(stated, heights, speeds)
    const band = (of: (own: AeroTotals) => readonly [area: number, sd: number], name: string, colour: string): Data[] => {
      const at = (share: number) =>
        along.map((own, i) => {
          const [area, sd] = of(own)
          return fromSi('force', airPressurePa(airDensityKgM3, speeds[i] ?? 0) * (area + share * sd), units.force)
        })
      return [
        { type: 'scatter', mode: 'lines', x, y: at(-1), line: { width: 0, color: colour }, hoverinfo: 'skip', showlegend: false },
        {
          type: 'scatter',
          mode: 'lines',
          x,
          y: at(1),
          line: { width: 0, color: colour },
          fill: 'tonexty',
          fillcolor: `${colour}33`,
          hoverinfo: 'skip',
          showlegend: false,
        },
        {
          type: 'scatter',
          mode: 'lines',
          name,
          x,
          y: at(0),
          line: { color: colour, width: 2.6 },
          hovertemplate: `%{y:.0f} ${units.force} at %{x:.0f} ${units.speed}<extra>${name}</extra>`,
        },
      ]
    }
    return {
      data: [
        ...band(({ downforceM2, downforceSdM2 }) => [downforceM2, downforceSdM2], 'downforce', colours.pine),
        ...band(({ areas }) => [areas.dragM2, Math.sqrt(areas.dragVariance)], 'drag', colours.slate),
      ],
      layout: {
        margin: { t: 8, r: 12, b: 40, l: 60 },
        xaxis: { title: { text: units.speed } },
        yaxis: { title: { text: units.force } },
        showlegend: true,
        legend: { x: 0.02, y: 0.98 },
      },
    }
  }, [stated, heights, airDensityKgM3, basis.fastestMps, colours, units])
  const area = { areaM2: totals.areas.dragM2, sdM2: Math.sqrt(totals.areas.dragVariance) }
  const top = totals.drag.isWhole ? dragLimitedSpeed(made, area, airDensityKgM3) : null
  return (
    <div className="grid gap-x-6 gap-y-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,480px)]">
      <div className="min-w-0">
        <h2 className="mb-1">Downforce and drag against speed</h2>
        <Chart data={data} layout={layout} label="Downforce and drag against speed, one spread on either side" className="h-[340px] w-full" />
        <p className="mt-2">
          Pushing the air takes <strong>{text('power', powerFromDragW(totals.areas.dragM2, airDensityKgM3, basis.speedMps), { decimals: 0 })}</strong> at{' '}
          {text('speed', basis.speedMps, { decimals: 0 })}
          {top ? (
            <>
              ; by drag alone the top is <strong>{text('speed', top.speedMps, { decimals: 0 })}</strong> ± {text('speed', top.sdMps, { decimals: 0 })}, if the
              gearing lets it.
            </>
          ) : (
            '.'
          )}
        </p>
      </div>
      <div className="min-w-0">
        <h2 className="mb-1">What each device gives</h2>
        <ScrollBox label="Devices by what they give">
          <table className="w-full">
            <thead>
              <tr className="text-xs text-quiet">
                <th className="text-left font-normal">Device</th>
                <th className="text-right font-normal">down over drag</th>
                <th className="text-right font-normal">down by kg</th>
                <th className="text-right font-normal">down by 100 of money</th>
              </tr>
            </thead>
            <tbody>
              {totals.lines.flatMap(({ device, areas, notch }) => {
                if (!areas || device.kind === 'body') return []
                const down = areas.frontM2 + areas.rearM2
                const line = records.changes.find(({ id }) => id === device.changeId)
                const massKg = line?.values.at(-1)?.massKg
                const cost = line?.cost ?? null
                return [
                  <tr key={device.id} className="border-t border-line">
                    <th scope="row" className="py-1 text-left font-normal">
                      {device.name}
                      {device.notches.length > 1 ? `, ${notch.name}` : ''}
                    </th>
                    <td className="py-1 text-right tabular-nums">{areas.dragM2 > 1e-6 ? (down / areas.dragM2).toFixed(1) : 'no drag'}</td>
                    <td className="py-1 text-right">{massKg ? <Figure kind="force" value={(q * down) / massKg} decimals={0} /> : 'not weighed'}</td>
                    <td className="py-1 text-right">{cost ? <Figure kind="force" value={(q * down * 100) / cost} decimals={0} /> : 'no cost'}</td>
                  </tr>,
                ]
              })}
            </tbody>
          </table>
        </ScrollBox>
        <p className="mt-2 text-xs text-quiet">At {text('speed', basis.speedMps, { decimals: 0 })}; each alone, without what it feeds.</p>
      </div>
    </div>
  )
}
