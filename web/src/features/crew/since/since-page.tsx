import type { SinceAnswer } from '@bold-ballast/contract'
import { METRIC_INFO, type Metric, type MovedSpell } from '@bold-ballast/core'
import { api } from '../../../data/api.ts'
import { useAppDispatch } from '../../../data/store.ts'
import { takeBack } from '../../../data/take-back.ts'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useTabKeys } from '../../../ui/hooks/use-tab-keys.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { LoadError, Loading } from '../../../ui/states.tsx'
import { timeText } from '../../../ui/words.ts'
import type { CrewTabProps } from '../crew-tab.ts'
import type { Seen } from '../seen.ts'
import { SinceRows } from './since-rows.tsx'
import { SinceSide } from './since-side.tsx'
import { foldedWords, verdictClause, whenWords } from './spell-words.ts'

const WEEK = 'week'
const BEGINNING = '0'

/** "10.1 kg heavier", "3.2 kW up": by how much the number moved. */
function movedWords({ moved }: SinceAnswer, format: ReturnType<typeof useQuantities>['text']): string {
  const { metric, before, now } = moved
  const { kind, word } = METRIC_INFO[metric]
  if (before.value === null || now.value === null) return now.value === null ? `${word} is not known` : `${word} is known now`
  const by = now.value - before.value
  const amount = format(kind, Math.abs(by), { decimals: 1 })
  if (Number.parseFloat(amount) === 0) return `${word} stands where it was`
  if (kind === 'mass') return `${amount} ${by > 0 ? 'heavier' : 'lighter'}`
  return `${word} ${by > 0 ? 'up' : 'down'} by ${amount}`
}

function titleOf(answer: SinceAnswer, format: ReturnType<typeof useQuantities>['text']): string {
  const since = answer.fromAt ? whenWords(answer.fromAt, new Date()) : 'the beginning'
  if (answer.lineCount === 0) return `Nothing changed since ${answer.fromAt ? timeText(answer.fromAt) : 'the beginning'}`
  const name = movedWords(answer, format)
  const clause = verdictClause(answer.moved, METRIC_INFO[answer.moved.metric].word.toLowerCase().split(',')[0] ?? '')
  return `Since ${since} ${name.charAt(0).toLowerCase()}${name.slice(1)}${clause === '' ? '' : `; ${clause}`}`
}

/** Where a look begins: where one left it, a week ago, at the beginning, or on a day. */
function FromPicker({ from, hasMark, set }: { from: string; hasMark: boolean; set: (from: string) => void }) {
  const isDay = /^\d{4}-/.test(from)
  return (
    <>
      <label className="flex items-center gap-2">
        from
        <select value={isDay ? 'day' : /^\d+$/.test(from) && from !== BEGINNING ? 'line' : from} onChange={({ target }) => set(target.value)}>
          {hasMark && <option value="">where you left it</option>}
          <option value={WEEK}>a week ago</option>
          <option value={BEGINNING}>the beginning</option>
          {isDay && <option value="day">the day beside</option>}
          {/^\d+$/.test(from) && from !== BEGINNING && <option value="line">entry {from} of the log</option>}
        </select>
      </label>
      <input
        type="date"
        aria-label="From the beginning of a day"
        value={isDay ? from : ''}
        onChange={({ target }) => set(target.value === '' ? WEEK : target.value)}
      />
    </>
  )
}

interface SinceProps extends CrewTabProps {
  readonly seen: Seen | null
  readonly mark: (seen: Seen) => void
  readonly keptWhere: string
}

/** What changed since one looked: a number as a stair of spells, who moved it, what it did to the goals. */
export function SincePage({ buildId, board, records, position, tabs, seen, mark, keptWhere }: SinceProps) {
  const { get, set } = useAddress()
  const { text } = useQuantities()
  const dispatch = useAppDispatch()
  const metrics = [...new Set(board.rows.map(({ metric }) => metric))]
  const metric = metrics.find((each) => each === get('metric')) ?? ('massReady' satisfies Metric)
  const asked = get('from')
  const from = asked === '' ? (seen ? String(seen.entryId) : '') : asked === WEEK ? '' : asked
  const stage = board.stages[position]?.id ?? ''
  const ends = api.useSinceQuery({ buildId, from, metric, stage, ends: 'yes' })
  const everyStep = { buildId, from, metric, stage, ends: 'no' } as const
  const whole = api.useSinceQuery(everyStep)
  const answer = whole.currentData ?? ends.currentData
  const shown = answer?.moved.spells.filter(({ isFolded }) => !isFolded) ?? []
  const picked = shown.find(({ lastId }) => String(lastId) === get('spell')) ?? null
  const sawIt = () => {
    if (!answer) return
    mark({ entryId: answer.revision, at: new Date().toISOString() })
    set({ from: '', spell: '' })
  }
  const step = (by: 1 | -1) => {
    const at = picked ? shown.indexOf(picked) + by : by === 1 ? 0 : shown.length - 1
    const next = shown[at]
    if (next) set({ spell: String(next.lastId) })
  }
  const back = async (spell: MovedSpell) => {
    // Last written, first taken back.
    for (const entryId of [...spell.lineIds].reverse()) await takeBack(dispatch, { buildId, entryId })
  }
  useTabKeys((key) => {
    if (key === 'ArrowDown' || key === 'ArrowUp') step(key === 'ArrowDown' ? 1 : -1)
    else if (key === 's') sawIt()
    else if (key === 'u' && picked) void back(picked)
    else return false
    return true
  })
  if (whole.error && !answer) return <LoadError error={whole.error} retry={whole.refetch} />
  if (!answer) return <Loading what="what changed" />
  const folded = foldedWords(answer.moved.spells)
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-5 min-[1100px]:grid-cols-[minmax(0,1fr)_280px]">
      <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-3">
        <h1>{titleOf(answer, text)}</h1>
        {tabs}
        <p className="no-print flex flex-wrap items-center gap-x-4 gap-y-2">
          <label className="flex items-center gap-2">
            number
            <select value={metric} onChange={({ target }) => set({ metric: target.value, spell: '' })}>
              {metrics.map((each) => (
                <option key={each} value={each}>
                  {METRIC_INFO[each].word}
                </option>
              ))}
            </select>
          </label>
          <FromPicker from={asked === '' && !seen ? WEEK : asked} hasMark={seen !== null} set={(next) => set({ from: next, spell: '' })} />
        </p>
        {answer.lineCount === 0 ? (
          <p className="text-quiet">Every change to this build will stand here, with who made it and what it did to the number.</p>
        ) : (
          <SinceRows
            answer={answer}
            shown={shown}
            isWhole={whole.currentData !== undefined}
            steps={{
              isRunning: whole.isFetching,
              stop: () => dispatch(api.util.getRunningQueryThunk('since', everyStep))?.abort(),
              again: () => void whole.refetch(),
            }}
            picked={picked}
            pick={(lastId) => set({ spell: String(lastId) })}
          />
        )}
        {folded.length > 0 && (
          <p className="text-quiet">
            Moved nothing of it:{' '}
            {folded.map(({ by, words }, i) => (
              <span key={by}>
                {i > 0 ? '; ' : ''}
                <b className="text-ink">{by}</b> {words}
              </span>
            ))}
            .
          </p>
        )}
        <p className="no-print flex flex-wrap items-center gap-3">
          <button type="button" className="button button-strong" onClick={sawIt} disabled={answer.lineCount === 0 && seen !== null}>
            I have seen this <kbd className="font-mono text-xs">s</kbd>
          </button>
          <span className="text-quiet">
            {seen ? `You said so last on ${timeText(seen.at)}. ` : ''}The next look starts from here; it is kept {keptWhere}. Nothing else changes.
          </span>
        </p>
      </div>
      <SinceSide buildId={buildId} answer={answer} records={records} picked={picked} back={(spell) => void back(spell)} />
    </div>
  )
}
