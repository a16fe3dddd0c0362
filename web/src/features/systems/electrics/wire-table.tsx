import type { ElectricsView } from '@bold-ballast/core'
import { Plates } from '../../../ui/plates.tsx'
import { ScrollBox } from '../../../ui/scroll-box.tsx'

/** Circuits with their wires: what each needs, by drop and by trip. */
export function WireTable({ view, alter }: { view: ElectricsView; alter: (id: string) => void }) {
  return (
    <ScrollBox label="Circuits and their wires">
      <table className="w-full border-collapse">
        <thead>
          <tr>
            <th className="text-left">Circuit</th>
            <th className="pl-3 text-right">Draws</th>
            <th className="pl-3 text-left">On</th>
            <th className="pl-3 text-left">Switched</th>
            <th className="pl-3 text-right">Wire</th>
            <th className="pl-3 text-right">Loses</th>
            <th className="pl-3 text-right">May lose</th>
            <th className="pl-3 text-left">So</th>
          </tr>
        </thead>
        <tbody>
          {view.wires.map(({ circuit, needMm2, dropV, allowedV, refused, tripOverWire }) => (
            <tr key={circuit.id} className="border-t border-line align-baseline">
              <td className="py-1">
                <button type="button" className="word-link text-left" onClick={() => alter(circuit.id)}>
                  {circuit.name}
                </button>
                {circuit.isVital && <span className="text-quiet">, vital</span>}
              </td>
              <td className="py-1 pl-3 text-right whitespace-nowrap tabular-nums">
                {circuit.currentA.toFixed(1)} A <Plates proof={circuit.known} />
              </td>
              <td className="py-1 pl-3 whitespace-nowrap">
                {circuit.output ?? '–'}
                {circuit.isPinned ? ', stays' : ''}
              </td>
              <td className="py-1 pl-3 text-quiet">{circuit.group ?? 'alone'}</td>
              <td className="py-1 pl-3 text-right whitespace-nowrap tabular-nums">{needMm2 === null ? '–' : `${needMm2} mm²`}</td>
              <td className="py-1 pl-3 text-right whitespace-nowrap tabular-nums">{dropV === null ? '–' : `${dropV.toFixed(2)} V`}</td>
              <td className="py-1 pl-3 text-right whitespace-nowrap tabular-nums text-quiet">{allowedV.toFixed(2)} V</td>
              <td className="py-1 pl-3">
                {refused ? <span className="text-wait">{refused}</span> : null}
                {tripOverWire ? <b className="text-danger">Trips above what its {circuit.areaMm2} mm² carries</b> : null}
                {!refused && !tripOverWire && circuit.areaMm2 !== null && needMm2 !== null ? (
                  circuit.areaMm2 < needMm2 ? (
                    <b className="text-wait">{circuit.areaMm2} mm² laid</b>
                  ) : (
                    'holds by this sum'
                  )
                ) : null}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </ScrollBox>
  )
}
