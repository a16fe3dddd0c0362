import type { RecordsAnswer } from '@bold-ballast/contract'
import { lifeOf, RATING_SUBJECT_NAMES, RATING_SUBJECTS, ratedLimit, wholeCost, wholeMassKg } from '@bold-ballast/core'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, readFailure } from '../../../data/api.ts'
import { useBuild } from '../../../data/use-build.ts'
import { moneyText, STATUS_WORDS } from '../../../shared/part-words.ts'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useTabKeys } from '../../../ui/hooks/use-tab-keys.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { byKind } from '../register/register.tsx'

/** What parts are weighed by until somebody says otherwise. */
const CRITERIA = [
  { name: 'cost', from: 'cost', better: 'less', price: 1 },
  { name: 'mass', from: 'mass', better: 'less' },
  { name: 'days', from: 'arrival', better: 'less' },
] as const

/** Makes a decision of the parts that stand beside each other, and goes to it; the letter d does the same. */
function useDecision(
  records: RecordsAnswer,
  { kind, parts }: { readonly kind: string; readonly parts: readonly { readonly id: string; readonly name: string }[] },
) {
  const { stage } = useBuild()
  const [create, { isLoading }] = api.useCreateRecordMutation()
  const navigate = useNavigate()
  const [said, setSaid] = useState<string | null>(null)
  const canDecide = parts.length > 1 && stage !== undefined && !isLoading
  const decide = async () => {
    const id = crypto.randomUUID()
    const options = parts.map((part) => ({ name: part.name, partIds: [part.id] }))
    const answer = await create({
      buildId: records.build.id,
      resource: 'decisions',
      body: { id, question: `Which ${kind}?`, stageId: stage?.id, criteria: CRITERIA, options },
    })
    if (answer.error) return setSaid(readFailure(answer.error).message)
    void navigate(`/builds/${records.build.id}/jobs?tab=decisions&decision=${id}&stage=${stage?.id}`)
  }
  useTabKeys((key) => {
    if (key !== 'd' || !canDecide) return false
    void decide()
    return true
  })
  return { decide, canDecide, said }
}

/** Parts of one kind beside each other, for one job: a row a property, the best of each row marked. */
export function SideBySide({ records, edit }: { records: RecordsAnswer; edit: (id: string) => void }) {
  const address = useAddress()
  const { text } = useQuantities()
  const groups = byKind(records.parts)
  const most = groups.reduce((best, group) => (group.parts.length > best.parts.length ? group : best), groups[0] as (typeof groups)[number])
  const group = groups.find(({ kind }) => kind === address.get('kind')) ?? most
  const { parts } = group
  const subjects = RATING_SUBJECT_NAMES.filter((of) => parts.some((part) => part.ratings.some((rating) => rating.of === of)))
  const row = (label: string, values: readonly (number | null)[], shown: (value: number, at: number) => string, better: 'more' | 'less') => {
    const known = values.filter((value) => value !== null)
    const best = known.length < 2 ? null : better === 'more' ? Math.max(...known) : Math.min(...known)
    return (
      <tr key={label} className="border-t border-line align-baseline">
        <th scope="row" className="p-1.5">
          {label}
        </th>
        {values.map((value, at) => (
          <td key={parts[at]?.id} className={`p-1.5 ${value !== null && value === best ? 'font-bold' : ''}`}>
            {value === null ? <span className="text-faint">not said</span> : shown(value, at)}
            {value !== null && value === best && <span className="ml-1 text-xs font-normal text-quiet">{better}</span>}
          </td>
        ))}
      </tr>
    )
  }
  const decide = useDecision(records, group)
  const words = (label: string, of: (part: (typeof parts)[number]) => string | null) => (
    <tr className="border-t border-line align-baseline">
      <th scope="row" className="p-1.5">
        {label}
      </th>
      {parts.map((part) => (
        <td key={part.id} className="max-w-[280px] p-1.5">
          {of(part)}
        </td>
      ))}
    </tr>
  )
  return (
    <>
      <div className="mb-3 flex flex-wrap items-end gap-4">
        <label className="block">
          <span className="mb-1 block font-semibold">For the job of</span>
          <select value={group.kind} onChange={(event) => address.set({ kind: event.target.value })}>
            {groups.map(({ kind, parts: members }) => (
              <option key={kind} value={kind}>
                {kind} ({members.length})
              </option>
            ))}
          </select>
        </label>
        {parts.length > 1 && (
          <button type="button" className="button" disabled={!decide.canDecide} onClick={() => void decide.decide()}>
            Weigh them as a decision <kbd className="font-mono text-[11px] text-quiet">d</kbd>
          </button>
        )}
        <span role="status">{decide.said}</span>
      </div>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a scroller that the keyboard can reach */}
      <section className="relative overflow-x-auto" aria-label={`${group.kind} side by side`} tabIndex={0}>
        <table className="border-collapse">
          <thead>
            <tr>
              <th className="p-1.5">
                <span className="sr-only">Property</span>
              </th>
              {parts.map((part) => (
                <th key={part.id} className="min-w-[170px] p-1.5">
                  <button type="button" data-content className="word-link text-left text-[15px] font-bold text-ink" onClick={() => edit(part.id)}>
                    {part.name}
                  </button>
                  <span className="block font-normal">{STATUS_WORDS[part.status]}</span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {subjects.map((of) => {
              const { word, kind } = RATING_SUBJECTS[of]
              const ratingOf = (at: number) => parts[at]?.ratings.find((rating) => rating.of === of)
              return row(
                word,
                parts.map((part, at) => {
                  const rating = ratingOf(at)
                  return rating ? ratedLimit(part, rating) : null
                }),
                (value, at) => {
                  const rating = ratingOf(at)
                  const share = rating?.ethanolShare ?? null
                  return `${text(kind, value)}, ${rating?.known}${share === null ? '' : share === 0 ? ', on petrol' : `, on ${text('share', share, { decimals: 0 })} ethanol`}`
                },
                'more',
              )
            })}
            {row(
              'mass with what comes with it',
              parts.map((part) => wholeMassKg(part)),
              (value) => text('mass', value, { decimals: 1 }),
              'less',
            )}
            {row(
              'cost with what comes with it',
              parts.map((part) => wholeCost(part)),
              (value) => moneyText(value),
              'less',
            )}
            {row(
              'life left',
              parts.map((part) => lifeOf(part, records.partUses)?.left ?? null),
              (value, at) => `${Number(value.toFixed(1))} ${parts[at]?.life?.unit}`,
              'more',
            )}
            {words('comes with', (part) => part.extras.map(({ name }) => name).join(', ') || null)}
            {words('for it', (part) => part.pros)}
            {words('against it', (part) => part.cons)}
          </tbody>
        </table>
      </section>
    </>
  )
}
