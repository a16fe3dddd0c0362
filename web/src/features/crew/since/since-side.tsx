import type { RecordsAnswer, SinceAnswer } from '@bold-ballast/contract'
import { METRIC_INFO, type MovedSpell, movedByPerson } from '@bold-ballast/core'
import { fieldWord } from '../../../shared/fields/field-words.ts'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { PersonTag } from '../../../ui/person-tag.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { HereNow } from './here-now.tsx'
import { verdictWords } from './spell-words.ts'

const MOST_ITEMS = 12

/** The picked spell record by record, what it stood like behind it, and taking it back. */
function PickedSpell({ buildId, spell, back }: { buildId: string; spell: MovedSpell; back: (spell: MovedSpell) => void }) {
  const { text } = useQuantities()
  const { set } = useAddress()
  return (
    <section>
      <h2 className="mb-1">{spell.by}, record by record</h2>
      <ul className="text-[13.5px]">
        {spell.items.slice(0, MOST_ITEMS).map(({ list, id, name, did, massKg, fields }) => (
          <li key={`${list} ${id}`} className="border-t border-line py-1">
            <b>{name}</b> {did === 'removed' ? 'taken out' : did}
            {massKg ? `, ${text('mass', massKg.before)} → ${text('mass', massKg.after)}` : fields.length > 0 ? `: ${fields.map(fieldWord).join(', ')}` : ''}
          </li>
        ))}
        {spell.items.length > MOST_ITEMS && <li className="border-t border-line py-1 text-quiet">and {spell.items.length - MOST_ITEMS} more, in the Log</li>}
      </ul>
      <p className="no-print mt-1 flex flex-wrap gap-x-4">
        <button type="button" className="word-link" onClick={() => back(spell)}>
          Take it back <kbd className="font-mono text-xs">u</kbd>
        </button>
        <button type="button" className="word-link" onClick={() => set({ entry: String(spell.lastId) })}>
          As it stood behind it
        </button>
        <a className="word-link" href={`/builds/${buildId}/log`}>
          In the Log
        </a>
      </p>
    </section>
  )
}

/** What it did to the goals, who moved it, and the picked spell. */
export function SinceSide({
  buildId,
  answer,
  records,
  picked,
  back,
}: {
  buildId: string
  answer: SinceAnswer
  records: RecordsAnswer
  picked: MovedSpell | null
  back: (spell: MovedSpell) => void
}) {
  const { text } = useQuantities()
  const { moved } = answer
  const { kind } = METRIC_INFO[moved.metric]
  const goals = moved.goals.filter(({ before, now, withOldGoal }) => withOldGoal !== null || before?.word !== now?.word)
  const still = moved.goals.length - goals.length
  const stageOf = (id: string) => {
    const due = records.targets.find((target) => target.id === id)?.dueStageId
    return records.stages.find((stage) => stage.id === due)?.position
  }
  return (
    <aside className="grid content-start gap-5 min-[1100px]:border-l min-[1100px]:border-line min-[1100px]:pl-4">
      {picked && <PickedSpell buildId={buildId} spell={picked} back={back} />}
      {moved.goals.length > 0 && answer.lineCount > 0 && (
        <section>
          <h2 className="mb-1">What it did to the goals</h2>
          <ul>
            {goals.map(({ id, metric, before, now, withOldGoal }) => (
              <li key={id} className="border-t border-line py-1.5">
                <b>{METRIC_INFO[metric].word}</b>
                {stageOf(id) === undefined ? '' : <span className="text-quiet"> at stage {stageOf(id)}</span>}
                {withOldGoal ? (
                  <>
                    <span className="block">with the old goal {verdictWords(withOldGoal)}</span>
                    <span className="block font-semibold">with the new one {verdictWords(now)}</span>
                  </>
                ) : (
                  <span className="block">
                    {before ? `${verdictWords(before)} → ` : 'new: '}
                    <b>{verdictWords(now)}</b>
                  </span>
                )}
              </li>
            ))}
            {still > 0 && (
              <li className="border-t border-line py-1.5 text-quiet">
                {goals.length === 0
                  ? still === 1
                    ? 'The one goal reads as it did.'
                    : `All ${still} goals read as they did.`
                  : `${still} more read as they did.`}
              </li>
            )}
          </ul>
        </section>
      )}
      {moved.spells.length > 0 && (
        <section>
          <h2 className="mb-1">Who moved it</h2>
          <ul>
            {movedByPerson(moved.spells).map(({ by, step, isKnown, lineCount, movedGoal }) => (
              <li key={by} className="flex items-baseline gap-2 border-t border-line py-1.5">
                <PersonTag name={by} />
                <span>
                  <b>{by}</b>{' '}
                  {!isKnown ? 'from before it was known' : Math.abs(step) < 1e-9 ? 'did not move it' : text(kind, step, { sign: true, decimals: 1 })}
                  {movedGoal ? ', moved the goal' : ''}
                  <span className="text-quiet">
                    , {lineCount} {lineCount === 1 ? 'entry' : 'entries'}
                  </span>
                </span>
              </li>
            ))}
          </ul>
          <p className="mt-2 text-[13px] text-quiet">A value then and a value now rest on the same readings, so no spread is given for a step.</p>
        </section>
      )}
      <HereNow buildId={buildId} records={records} />
    </aside>
  )
}
