import type { RecordsAnswer } from '@bold-ballast/contract'
import { type CoastRun, fromSi } from '@bold-ballast/core'
import type { Data } from 'plotly.js'
import { useMemo } from 'react'
import { Chart, useChartColours } from '../../../ui/drawing/chart.tsx'
import { useQuantities } from '../../../ui/quantity.ts'

/** The runs of a test as they were driven: speed over time, out solid, back dashed; what is set aside is pale. */
export function RunsChart({ runs }: { runs: RecordsAnswer['aeroRuns'] }) {
  const colours = useChartColours()
  const { units } = useQuantities()
  const { data, layout } = useMemo(() => {
    const line = (run: CoastRun, name: string, dash: 'solid' | 'dash', color: string): Data => ({
      type: 'scatter',
      mode: 'lines',
      name,
      x: run.timeS.map((time) => time - (run.timeS[0] ?? 0)),
      y: run.speedMps.map((speed) => fromSi('speed', speed, units.speed)),
      line: { color, dash, width: 1.8 },
      hovertemplate: `%{y:.1f} ${units.speed} after %{x:.1f} s<extra>${name}</extra>`,
    })
    const drawn = runs.flatMap(({ coast, position, setAside }): Data[] =>
      coast
        ? [
            line(coast.out, `pair ${position + 1} out`, 'solid', setAside === null ? colours.pine : colours.edge),
            line(coast.back, `pair ${position + 1} back`, 'dash', setAside === null ? colours.slate : colours.edge),
          ]
        : [],
    )
    return {
      data: drawn,
      layout: {
        margin: { t: 8, r: 12, b: 40, l: 56 },
        xaxis: { title: { text: 's of coasting' } },
        yaxis: { title: { text: units.speed } },
      },
    }
  }, [runs, colours, units.speed])
  return <Chart data={data} layout={layout} label="Speed over time of each run, out solid, back dashed" className="h-[240px] w-full" />
}
