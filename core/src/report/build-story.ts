import { arrivedCell, type Board, type BoardCell } from '../board/board.ts'
import type { Proof } from '../proof/quantity.ts'
import type { Metric } from '../records/metric-keys.ts'
import type { Part } from '../records/part-kinds.ts'
import type { BuildRecords } from '../records/records.ts'
import type { Change } from '../records/weight-kinds.ts'
import type { JobsRoom } from '../rooms/jobs/jobs-room.ts'
import type { WeightRoom } from '../rooms/weight/weight-room.ts'
import { shownOn } from './shown-on.ts'

/** A number of a stage beside that of the stage before. */
export interface StoryFigure {
  readonly metric: Metric
  readonly cell: BoardCell
  /** Against the stage before; null at the first, or where that says nothing. */
  readonly change: number | null
  readonly readOn: readonly string[]
}

/** What was done to the car. */
export interface StoryLine {
  readonly id: string
  readonly name: string
  readonly kind: Change['kind']
  readonly isDone: boolean
  /** Signed, all pieces together; null: nobody weighed or guessed it. */
  readonly massKg: number | null
  readonly proof: Proof | null
  readonly fate: Change['fate']
}

export interface StoryChapter {
  readonly id: string
  readonly position: number
  readonly name: string
  readonly date: string | null
  readonly note: string | null
  readonly state: Board['stages'][number]['state']
  /** Mass, power and what they give together, where they are known. */
  readonly figures: readonly StoryFigure[]
  readonly lines: readonly StoryLine[]
  /** What came off and went on by the lines that are done, kg; both more than nothing. */
  readonly offKg: number
  readonly onKg: number
  readonly parts: readonly Pick<Part, 'id' | 'name' | 'kind' | 'status'>[]
  readonly decisions: readonly Pick<BuildRecords['decisions'][number], 'id' | 'question' | 'chosen' | 'reason' | 'decidedOn'>[]
  readonly events: readonly Pick<BuildRecords['events'][number], 'id' | 'name' | 'startsOn'>[]
  readonly jobs: { readonly done: number; readonly open: number; readonly hours: number }
  readonly paid: number
  readonly planned: number
}

const HEADLINES: readonly Metric[] = ['massReady', 'wheelPower', 'powerToMass']

function figuresAt(records: BuildRecords, board: Board, position: number): StoryFigure[] {
  return HEADLINES.flatMap((metric): StoryFigure[] => {
    const cells = board.rows.find((row) => row.metric === metric)?.cells
    const [cell, before] = [arrivedCell(cells?.[position]), arrivedCell(cells?.[position - 1])]
    return cell ? [{ metric, cell, change: before ? cell.value - before.value : null, readOn: shownOn(records, metric, position) }] : []
  })
}

function linesAt(records: BuildRecords, weight: WeightRoom, stageId: string): StoryLine[] {
  const figures = new Map(weight.lines.map((line) => [line.changeId, line]))
  return records.changes
    .filter((change) => change.stageId === stageId && change.state !== 'dropped')
    .map(({ id, name, kind, state, fate }) => {
      const own = figures.get(id)
      const isKnown = own !== undefined && !own.isUnknown
      return { id, name, kind, isDone: state === 'done', massKg: isKnown ? own.massKg : null, proof: isKnown ? own.proof : null, fate: fate ?? null }
    })
}

/**
 * The build from its first stage on, a chapter a stage: what was done, what it weighed and gave, what was decided and why, what it cost. A part counts where it is
 * here or in the car.
 * @example buildStory(EXAMPLE, makeBoard(CAR, '2027-03-01'), makeWeightRoom(CAR), makeJobsRoom(CAR, '2027-03-01')).length === CAR.stages.length // true
 */
export function buildStory(records: BuildRecords, board: Board, weight: WeightRoom, jobs: JobsRoom): StoryChapter[] {
  return board.stages.map(({ id, position, name, date, state }) => {
    const lines = linesAt(records, weight, id)
    const done = lines.filter(({ isDone }) => isDone)
    const sumOf = (sign: 1 | -1) => done.reduce((sum, { massKg }) => sum + Math.max(0, sign * (massKg ?? 0)), 0)
    const tasks = records.tasks.filter((task) => task.stageId === id && task.state !== 'dropped')
    const money = jobs.money[position]
    return {
      id,
      position,
      name,
      date,
      note: records.stages.find((stage) => stage.id === id)?.note ?? null,
      state,
      figures: figuresAt(records, board, position),
      lines,
      offKg: sumOf(-1),
      onKg: sumOf(1),
      parts: records.parts
        .filter((part) => part.stageId === id && part.status !== 'wanted' && part.status !== 'ordered')
        .map((part) => ({ id: part.id, name: part.name, kind: part.kind, status: part.status })),
      decisions: records.decisions
        .filter(({ stageId, chosen }) => stageId === id && chosen)
        .map(({ id: own, question, chosen, reason, decidedOn }) => ({ id: own, question, chosen, reason, decidedOn })),
      events: records.events.filter(({ stageId }) => stageId === id).map(({ id: own, name: event, startsOn }) => ({ id: own, name: event, startsOn })),
      jobs: {
        done: tasks.filter((task) => task.state === 'done').length,
        open: tasks.filter((task) => task.state !== 'done').length,
        hours: tasks.flatMap(({ worked }) => worked).reduce((sum, { hours }) => sum + hours, 0),
      },
      paid: money?.own.paid ?? 0,
      planned: money?.own.planned ?? 0,
    }
  })
}
