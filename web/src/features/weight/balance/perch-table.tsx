import { formatNumber, PAD_NAMES, PAD_WORDS, type PerCorner, type PerchPlan } from '@bold-ballast/core'
import { useQuantities } from '../../../ui/quantity.ts'
import { turnWords } from './turn-words.ts'

/** What to turn at each perch, what the pads read then, and how the body rises. */
export function PerchTable({
  title,
  plan,
  reached,
  exact,
  log,
  isBusy,
  unit,
}: {
  title: string
  plan: PerchPlan
  reached: string
  exact: PerCorner<number> | null
  log: () => void
  isBusy: boolean
  unit: string
}) {
  const { text, format } = useQuantities()
  return (
    <section>
      <h2 className="mb-1">{title}</h2>
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-line">
            <th className="p-1.5">Perch</th>
            <th className="p-1.5">Turn</th>
            <th className="p-1.5 text-right">Then, {unit}</th>
            <th className="p-1.5 text-right">Body rises</th>
          </tr>
        </thead>
        <tbody>
          {PAD_NAMES.map((pad) => (
            <tr key={pad} className="border-b border-line">
              <td className="p-1.5">{PAD_WORDS[pad]}</td>
              <td className="p-1.5 text-[16px] font-bold">
                {turnWords(plan.turns[pad])}
                {exact && <span className="block text-xs font-normal text-quiet">exactly {formatNumber(exact[pad], 2)}</span>}
              </td>
              <td className="p-1.5 text-right">{format('mass', plan.cornersKg[pad], { decimals: 1 }).number}</td>
              <td className="p-1.5 text-right">{text('length', plan.riseM[pad], { sign: true, decimals: 2 })}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="my-2">
        Reaches <strong>{reached}</strong>.
      </p>
      <button type="button" className="button" onClick={log} disabled={isBusy}>
        Turned: log this round
      </button>
    </section>
  )
}
