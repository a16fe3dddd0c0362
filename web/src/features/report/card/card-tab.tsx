import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  type Board,
  type BoardRow,
  buildAtStage,
  buildStory,
  formatChance,
  METRIC_INFO,
  PAD_NAMES,
  PAD_WORDS,
  type StageRoad,
  type StoryChapter,
} from '@bold-ballast/core'
import { useMemo } from 'react'
import { boardCsv } from '../../../shared/board/board-csv.ts'
import { basisSentence, byMetric, Cell, Goals } from '../../../shared/board/board-marks.tsx'
import { CarFigure, Corners } from '../../../ui/drawing/car-figure.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { Plates } from '../../../ui/plates.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { dayText, stageStateText } from '../../../ui/words.ts'
import { SheetHead } from '../sheet-head.tsx'
import type { SheetProps } from '../sheet-props.ts'

/** A page holds so many numbers and so many lines; the rest is said to be there. */
const MOST_METRICS = 16
const MOST_LINES = 9

/** Whether a row says something of a stage: a goal that is due there, or a number with nothing against it that holds elsewhere alone. */
function isOfStage({ goal, cells }: BoardRow, { stages }: Board, position: number): boolean {
  if (goal.kind === 'target' && goal.verdict?.duePosition === position) return true
  const at = (id: string | null, none: number) => (id === null ? none : stages.findIndex((stage) => stage.id === id))
  const holds = goal.kind !== 'limit' || (at(goal.record.fromStageId, 0) <= position && position <= at(goal.record.untilStageId, stages.length))
  return cells[position] !== null && holds
}

/** The corners of the stage's latest weighing on four pads; nothing where there is none. */
function CornersOf({ records, stageId }: { records: RecordsAnswer; stageId: string }) {
  const { format, text } = useQuantities()
  const weighing = records.weighings
    .filter((entry) => entry.stageId === stageId && entry.setAside === null && PAD_NAMES.every((pad) => entry.pads[pad]))
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
    .at(-1)
  if (!weighing) return null
  const geometry = buildAtStage(records, stageId)
  const read = (pad: (typeof PAD_NAMES)[number]) => format('mass', weighing.pads[pad]?.massKg ?? 0).number
  return (
    <div>
      <h2>
        Corners, {dayText(weighing.at)}, driver {weighing.driverInKg > 0 ? 'in' : 'out'}, {text('volume', weighing.fuelL, { isGoal: true })}
      </h2>
      <CarFigure
        geometry={geometry}
        label={`Corners: ${PAD_NAMES.map((pad) => `${PAD_WORDS[pad]} ${read(pad)}`).join(', ')}`}
        plan={(scale) => <Corners scale={scale} geometry={geometry} of={(pad) => ({ head: read(pad), under: PAD_WORDS[pad] })} />}
      />
    </div>
  )
}

/** What was done and what is still planned, the heaviest first. */
function Lines({ chapter }: { chapter: StoryChapter }) {
  const { text } = useQuantities()
  const lines = [...chapter.lines].sort((a, b) => Math.abs(b.massKg ?? 0) - Math.abs(a.massKg ?? 0))
  const shown = lines.slice(0, MOST_LINES)
  if (lines.length === 0) return <p className="text-quiet">Nothing is listed at this stage.</p>
  return (
    <div>
      <h2>What was done</h2>
      <ul>
        {shown.map(({ id, name, massKg, proof, isDone }) => (
          <li key={id} className="flex items-baseline gap-2 border-b border-line py-0.5">
            <span className="min-w-0 flex-1 truncate">
              {name}
              {!isDone && <span className="text-planned-text">, planned</span>}
            </span>
            <span className="whitespace-nowrap tabular-nums">{massKg === null ? 'not weighed' : text('mass', massKg, { sign: true })}</span>
            {proof && <Plates proof={proof} />}
          </li>
        ))}
      </ul>
      {lines.length > shown.length && <p className="text-[13px] text-quiet">and {lines.length - shown.length} lighter ones</p>}
    </div>
  )
}

const roadSentence = ({ readyOn, chance, wantedOn, eventName }: StageRoad): string => {
  const by = wantedOn ? ` by ${eventName ? `${eventName} on ` : ''}${dayText(wantedOn)}` : ''
  return `${readyOn ? `Ready about ${dayText(readyOn)}` : 'Never ready: a job finds no hours'}${chance === null ? '' : `, ${formatChance(chance)}${by}`}.`
}

/** Money, decisions and the road of the stage, each in a sentence. */
function Sentences({ chapter, board, currency }: { chapter: StoryChapter; board: Board; currency: string }) {
  const { format } = useQuantities()
  const money = (value: number) => `${format('money', value).number} ${currency}`.trim()
  const road = board.stages[chapter.position]?.road
  return (
    <>
      {road && <p>{roadSentence(road)}</p>}
      {chapter.paid + chapter.planned > 0 && (
        <p>
          Paid for this stage {money(chapter.paid)}
          {chapter.planned > 0 && `, planned ${money(chapter.planned)}`}.
        </p>
      )}
      {chapter.parts.length > 0 && <p>Fitted or here: {chapter.parts.map(({ name }) => name).join(', ')}.</p>}
      {chapter.decisions.map(({ id, question, chosen, reason }) => (
        <p key={id}>
          {question} <b>{chosen}</b>
          {reason ? `: ${reason}` : ''}
        </p>
      ))}
    </>
  )
}

/** One stage on one page: its numbers with goals and proof, its corners, what was done. */
export function CardTab({ records, board, weight, jobs, position }: SheetProps) {
  const { text, units } = useQuantities()
  const story = useMemo(() => buildStory(records, board, weight, jobs), [records, board, weight, jobs])
  const chapter = story[position]
  const stage = board.stages[position]
  if (!chapter || !stage) return null
  const groups = byMetric(board.rows.filter((row) => isOfStage(row, board, position)))
  return (
    <>
      <SheetHead records={records} stage={stage} title="Stage card">
        <p>{stageStateText(stage)}</p>
      </SheetHead>
      <p className="mb-2 flex justify-between gap-4 text-[13px] text-quiet">
        {basisSentence(board.rows, text)}
        <CsvButton name={`${records.build.name}-stage-${position}`} table={() => boardCsv({ ...board, stages: [stage] }, units)} />
      </p>
      <div className="mb-4 grid gap-x-6 @min-[560px]:grid-cols-2 print:grid-cols-2">
        {groups.slice(0, MOST_METRICS).map((group) => (
          <section key={group[0].id} className="grid break-inside-avoid grid-cols-[1fr_auto] items-start gap-x-2 border-t border-line py-1.5">
            <h3 className="font-bold">
              {METRIC_INFO[group[0].metric].word} <span className="font-normal text-quiet">{units[METRIC_INFO[group[0].metric].kind]}</span>
            </h3>
            <div className="row-span-2 text-right">
              <Cell row={group[0]} at={position} stageId={stage.id} isPlanned={stage.state === 'planned'} />
            </div>
            <div className="min-w-0">{group[0].goal.kind !== 'none' && <Goals group={group} board={board} />}</div>
          </section>
        ))}
      </div>
      {groups.length > MOST_METRICS && <p className="mb-3 text-quiet">{groups.length - MOST_METRICS} more numbers stand on the Board.</p>}
      <div className="mb-3 grid gap-x-6 gap-y-4 @min-[560px]:grid-cols-2 print:grid-cols-2">
        <CornersOf records={records} stageId={stage.id} />
        <Lines chapter={chapter} />
      </div>
      <div className="grid gap-1 border-t border-line pt-2">
        <Sentences chapter={chapter} board={board} currency={records.build.money?.currency ?? ''} />
      </div>
    </>
  )
}
