import type { RecordsAnswer } from '@bold-ballast/contract'
import { lifeOf, wholeCost, wholeMassKg } from '@bold-ballast/core'
import { moneyText, ratingText, STATUS_WORDS, type StoredPart } from '../../../shared/part-words.ts'
import { Plates } from '../../../ui/plates.tsx'
import { useQuantities } from '../../../ui/quantity.ts'

/** Parts by kind, the kinds in the order of the alphabet and within one what is fitted first. */
export function byKind(parts: readonly StoredPart[]): { kind: string; parts: StoredPart[] }[] {
  const groups = new Map<string, StoredPart[]>()
  for (const part of parts) {
    const key = part.kind.trim().toLowerCase()
    groups.set(key, [...(groups.get(key) ?? []), part])
  }
  const rank = (part: StoredPart) => ['fitted', 'here', 'ordered', 'wanted', 'wornOut'].indexOf(part.status)
  return [...groups]
    .sort(([a], [b]) => a.localeCompare(b))
    .map(([, members]) => ({ kind: members[0]?.kind ?? '', parts: [...members].sort((a, b) => rank(a) - rank(b) || a.name.localeCompare(b.name)) }))
}

export function Register({ records, edit }: { records: RecordsAnswer; edit: (id: string) => void }) {
  const { text, format, units } = useQuantities()
  const stageOf = (part: StoredPart) => records.stages.find((stage) => stage.id === part.stageId)
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scroller that the keyboard can reach
    <section className="relative overflow-x-auto" aria-label="Parts by kind" tabIndex={0}>
      <table className="w-full border-collapse max-[639px]:block">
        <thead className="max-[639px]:sr-only">
          <tr className="border-b border-line">
            <th className="p-1.5">Kind</th>
            <th className="p-1.5">Part</th>
            <th className="p-1.5">It is</th>
            <th className="p-1.5">It can take</th>
            <th className="p-1.5 text-right">Mass, {units.mass}</th>
            <th className="p-1.5 text-right">Cost, whole</th>
            <th className="p-1.5">Life used</th>
          </tr>
        </thead>
        {byKind(records.parts).map((group) => (
          <tbody key={group.kind} className="max-[639px]:block">
            {group.parts.map((part, at) => {
              const life = lifeOf(part, records.partUses)
              const mass = wholeMassKg(part)
              const stage = stageOf(part)
              return (
                <tr
                  key={part.id}
                  className={`${at > 0 ? 'border-t border-line/60' : 'border-t border-line'} align-baseline max-[639px]:block max-[639px]:py-1.5 ${part.status === 'wornOut' ? 'text-faint' : ''}`}
                >
                  <th
                    scope="row"
                    className={`w-[120px] p-1.5 text-sm font-bold text-ink max-[639px]:block max-[639px]:w-full ${at > 0 ? 'max-[639px]:sr-only' : ''}`}
                  >
                    <span className={at > 0 ? 'sr-only' : ''}>{group.kind}</span>
                  </th>
                  <td className="p-1.5 max-[639px]:block">
                    <button type="button" data-content className="word-link text-left font-semibold" onClick={() => edit(part.id)}>
                      {part.name}
                    </button>
                    {part.count > 1 && <span className="text-quiet"> × {part.count}</span>}
                    {part.serial && <span className="ml-2 text-xs text-quiet">{part.serial}</span>}
                  </td>
                  <td data-label="It is" className="list-cell whitespace-nowrap">
                    <span>
                      {STATUS_WORDS[part.status]}
                      {stage && <span className="text-quiet">, stage {stage.position}</span>}
                    </span>
                  </td>
                  <td data-label="It can take" className="list-cell">
                    {part.ratings.length === 0 && <span className="text-faint">not said</span>}
                    {part.ratings.map((rating) => (
                      <span key={`${rating.of} ${rating.limit}`} className="flex items-baseline gap-1.5">
                        {ratingText(part, rating, text)} <Plates proof={rating.known} />
                      </span>
                    ))}
                  </td>
                  <td data-label={`Mass, ${units.mass}`} className="list-cell text-right whitespace-nowrap">
                    {mass === null ? '' : format('mass', mass, { decimals: 1 }).number} {mass !== null && part.mass && <Plates proof={part.mass.proof} />}
                  </td>
                  <td data-label="Cost, whole" className="list-cell text-right whitespace-nowrap">
                    {moneyText(wholeCost(part))}
                    {part.extras.length > 0 && <span className="sr-only"> with {part.extras.length} more</span>}
                  </td>
                  <td data-label="Life used" className={`list-cell whitespace-nowrap ${life ? '' : 'max-[639px]:hidden'}`}>
                    {life && part.life && (
                      <>
                        <span className={life.share >= 1 ? 'font-semibold text-danger' : life.share >= 0.8 ? 'font-semibold text-wait' : ''}>
                          {Number(life.used.toFixed(1))} of {part.life.amount} {part.life.unit}
                        </span>
                        {life.share >= 1 && <span className="block text-xs text-danger">used up</span>}
                      </>
                    )}
                  </td>
                </tr>
              )
            })}
          </tbody>
        ))}
      </table>
    </section>
  )
}
