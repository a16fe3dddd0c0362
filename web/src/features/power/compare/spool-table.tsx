import { attempt, CalculationError, fromSi, type GridCurve, gridSpeedRpm, type Ladder, parseQuantity, powerAtSpeed, speedAtPower } from '@bold-ballast/core'
import type { Data } from 'plotly.js'
import { useMemo, useState } from 'react'
import { Chart, useChartColours } from '../../../ui/drawing/chart.tsx'
import { useQuantities } from '../../../ui/quantity.ts'

/** How early each setting comes on: its curve, its power at one speed, and where it first reaches one power. */
export function SpoolTable({ ladder: { rungs, band } }: { ladder: Ladder }) {
  const { format, units, decimalMark } = useQuantities()
  const colours = useChartColours()
  const drawn = useMemo(() => rungs.flatMap((rung) => (rung.curve ? [{ name: rung.setting.name, id: rung.setting.id, curve: rung.curve }] : [])), [rungs])
  const least = Math.min(...drawn.map(({ curve }) => Math.max(...curve.powerW)))
  const [speed, setSpeed] = useState('4000')
  const [power, setPower] = useState(() => (Number.isFinite(least) ? String(Math.round(fromSi('power', least / 2, units.power) / 10) * 10) : ''))
  const speedRpm = attempt(() => parseQuantity(speed, 'engineSpeed', { defaultUnit: 'rpm', decimalMark, field: 'The speed' }).value)
  const powerW = attempt(() => parseQuantity(power, 'power', { defaultUnit: units.power, decimalMark, field: 'The power' }).value)
  const data = useMemo(
    (): Data[] =>
      drawn.map(({ name, curve }, i) => ({
        x: curve.powerW.map((_, at) => gridSpeedRpm(curve, at)),
        y: curve.powerW.map((watts) => fromSi('power', watts, units.power)),
        name,
        mode: 'lines',
        line: { color: i === drawn.length - 1 ? colours.pine : colours.slate, width: i === drawn.length - 1 ? 2.5 : 1.5, dash: i % 2 === 0 ? 'solid' : 'dash' },
      })),
    [drawn, units.power, colours],
  )
  if (drawn.length === 0) return null
  return (
    <section>
      <h2 className="mb-1">Power against engine speed, {units.power}</h2>
      <Chart
        label={`Power against engine speed of ${drawn.map(({ name }) => name).join(', ')}`}
        data={data}
        layout={{
          height: 230,
          showlegend: drawn.length > 1,
          legend: { orientation: 'h', y: -0.2 },
          margin: { l: 44, r: 8, t: 6, b: 30 },
          ...(band
            ? {
                shapes: [
                  {
                    type: 'rect',
                    xref: 'x',
                    yref: 'paper',
                    x0: band.fromRpm,
                    x1: band.toRpm,
                    y0: 0,
                    y1: 1,
                    fillcolor: colours.wash,
                    opacity: 0.45,
                    line: { width: 0 },
                    layer: 'below',
                  },
                ],
              }
            : {}),
        }}
      />
      <table className="mt-2 w-full border-collapse">
        <thead>
          <tr className="border-b border-line">
            <th className="p-1.5">Spool</th>
            {drawn.map(({ id, name }) => (
              <th key={id} className="p-1.5 text-right">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          <tr className="border-b border-line">
            <td className="p-1.5">
              <label>
                <input value={power} onChange={(event) => setPower(event.target.value)} className="w-[64px]" aria-label={`A power, ${units.power}`} />{' '}
                {units.power} from, rpm
              </label>
            </td>
            <Cells
              drawn={drawn}
              of={(curve) => (powerW instanceof CalculationError ? null : speedAtPower(curve, powerW))}
              show={(rpm) => format('engineSpeed', rpm).number}
            />
          </tr>
          <tr className="border-b border-line">
            <td className="p-1.5">
              <label>
                At <input value={speed} onChange={(event) => setSpeed(event.target.value)} className="w-[64px]" aria-label="An engine speed, rpm" /> rpm,{' '}
                {units.power}
              </label>
            </td>
            <Cells
              drawn={drawn}
              of={(curve) => (speedRpm instanceof CalculationError ? null : powerAtSpeed(curve, speedRpm))}
              show={(watts) => format('power', watts, { decimals: 1 }).number}
            />
          </tr>
        </tbody>
      </table>
    </section>
  )
}

interface CellsProps {
  readonly drawn: readonly { readonly id: string; readonly curve: GridCurve }[]
  readonly of: (curve: GridCurve) => number | null
  readonly show: (value: number) => string
}

/** One number of each setting's curve; a dash where its curve does not reach. */
const Cells = ({ drawn, of, show }: CellsProps) =>
  drawn.map(({ id, curve }) => {
    const value = of(curve)
    return (
      <td key={id} className="p-1.5 text-right font-bold">
        {value === null ? '–' : show(value)}
      </td>
    )
  })
