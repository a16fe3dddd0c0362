import type { SinceAnswer } from '@bold-ballast/contract'
import { METRIC_INFO, type MovedSpell, type Standing } from '@bold-ballast/core'
import { Figure } from '../../../ui/figure.tsx'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { PersonTag } from '../../../ui/person-tag.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { timeText } from '../../../ui/words.ts'
import { spellDetail, spellHead, verdictWords } from './spell-words.ts'
import { HEAD_PX, ROW_PX, Staircase } from './staircase.tsx'

const TONES: Readonly<Record<string, string>> = {
  met: 'text-pine',
  'on course': 'text-pine',
  holds: 'text-pine',
  'would hold': 'text-pine',
  doubtful: 'text-wait',
  unlikely: 'text-danger',
  missed: 'text-danger',
  broken: 'text-danger',
  'would break': 'text-danger',
}
const toneOf = (verdict: Standing['verdict']) => (verdict ? (TONES[verdict.word] ?? 'text-quiet') : 'text-quiet')

function End({ at, metric }: { at: Standing; metric: SinceAnswer['moved']['metric'] }) {
  return (
    <>
      {at.value === null ? (
        <span className="text-quiet">not known</span>
      ) : (
        <Figure
          kind={METRIC_INFO[metric].kind}
          value={at.value}
          sd={at.sd ?? undefined}
          proof={at.proof ?? undefined}
          showSpread
          className="text-xl font-extrabold"
          showUnit={false}
        />
      )}
      <span className={`block font-semibold ${toneOf(at.verdict)}`}>{verdictWords(at.verdict)}</span>
    </>
  )
}

/** One row a spell between then and now: who did what, the stair, by how much and what the goal said. */
export function SinceRows({
  answer,
  shown,
  isWhole,
  steps,
  picked,
  pick,
}: {
  answer: SinceAnswer
  shown: readonly MovedSpell[]
  isWhole: boolean
  /** How the sum of the steps between goes, as long as it is not there. */
  steps: { readonly isRunning: boolean; readonly stop: () => void; readonly again: () => void }
  picked: MovedSpell | null
  pick: (lastId: number) => void
}) {
  const [holder, width] = useWidth<HTMLDivElement>(320)
  const { text } = useQuantities()
  const { metric, before, now } = answer.moved
  const { kind, word } = METRIC_INFO[metric]
  const mass = (massKg: number) => text('mass', massKg)
  const goal = (value: number) => text(kind, value, { isGoal: true })
  const row = 'flex flex-col justify-center border-t border-line'
  return (
    <div className="grid grid-cols-[minmax(0,1.1fr)_minmax(0,.9fr)] gap-x-4 min-[760px]:grid-cols-[minmax(200px,260px)_minmax(0,1fr)_170px]">
      <div>
        <p className="flex items-end pb-1 text-[12.5px] font-semibold text-quiet" style={{ height: HEAD_PX }}>
          Who did what
        </p>
        <div className={row} style={{ height: ROW_PX }}>
          <b>{answer.fromAt ? 'Then' : 'The beginning'}</b>
          <span className="text-quiet">{answer.fromAt ? timeText(answer.fromAt) : 'before the first entry'}</span>
        </div>
        {shown.map((spell) => (
          <button
            key={spell.lastId}
            type="button"
            aria-pressed={spell === picked}
            onClick={() => pick(spell.lastId)}
            className={`${row} w-full overflow-hidden text-left ${spell === picked ? 'bg-picked' : ''}`}
            style={{ height: ROW_PX }}
          >
            <span className="flex items-center gap-1.5 whitespace-nowrap">
              <PersonTag name={spell.by} /> <b>{spell.by}</b> <span className="text-[12.5px] text-quiet">{timeText(spell.to).replace(/ \d{4},/, ',')}</span>
            </span>
            <span className="truncate">{spellHead(spell)}</span>
            <span className="truncate text-[12.5px] text-quiet">{spellDetail(spell.items, mass, goal)}</span>
          </button>
        ))}
        {!isWhole && (
          <p className={`${row} text-quiet`} style={{ height: ROW_PX }}>
            {steps.isRunning ? 'The steps between are being worked out.' : 'The steps between are not worked out.'}
            <button type="button" className="word-link self-start" onClick={steps.isRunning ? steps.stop : steps.again}>
              {steps.isRunning ? 'Stop it' : 'Work them out'}
            </button>
          </p>
        )}
        <div className={`${row} border-b-2 !border-b-ink`} style={{ height: ROW_PX }}>
          <b>Now</b>
          <span className="text-quiet">
            {timeText(answer.revisionAt)}, {answer.lineCount} {answer.lineCount === 1 ? 'entry' : 'entries'} since
          </span>
        </div>
      </div>
      <div
        ref={holder}
        className="hidden [contain:inline-size] min-[760px]:block"
        role="img"
        aria-label={`${word} step by step: ${[before, ...shown.map(({ after }) => after)].map(({ value }) => (value === null ? 'not known' : text(kind, value))).join(', ')}`}
      >
        <Staircase rows={isWhole ? [before, ...shown.map(({ after }) => after), now] : [before, now, now]} kind={kind} width={width} />
      </div>
      <div>
        <p className="flex items-end pb-1 text-[12.5px] font-semibold text-quiet" style={{ height: HEAD_PX }}>
          {word}
        </p>
        <div className={row} style={{ height: ROW_PX }}>
          <End at={before} metric={metric} />
        </div>
        {shown.map(({ lastId, step, movesGoal, after }) => (
          <div key={lastId} className={`${row} ${picked?.lastId === lastId ? 'bg-picked' : ''}`} style={{ height: ROW_PX }}>
            {step !== null && Math.abs(step) >= 1e-9 ? (
              <Figure kind={kind} value={step} sign decimals={1} className="text-xl font-extrabold" />
            ) : (
              <span className="text-quiet">{step === null ? 'not known then' : movesGoal ? 'car unmoved' : 'as it was'}</span>
            )}
            <span className={`block font-semibold ${toneOf(after.verdict)}`}>{verdictWords(after.verdict)}</span>
          </div>
        ))}
        {!isWhole && <div className={row} style={{ height: ROW_PX }} />}
        <div className={`${row} border-b-2 !border-b-ink`} style={{ height: ROW_PX }}>
          <End at={now} metric={metric} />
        </div>
      </div>
    </div>
  )
}
