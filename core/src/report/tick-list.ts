import type { RulesRoom } from '../board/rule-readings.ts'
import { RATING_SUBJECTS } from '../records/part-kinds.ts'
import type { BuildRecords } from '../records/records.ts'
import type { BookRule } from '../records/rule-kinds.ts'
import type { Task } from '../records/workshop-kinds.ts'
import { isOnItsWay, openTasks } from '../rooms/jobs/road-of-car.ts'

type Part = BuildRecords['parts'][number]

/** What is ticked before the car of a stage goes out. */
export interface TickList {
  /** Open jobs up to the stage, under the name of each hand that has them; "anyone" last. */
  readonly jobsByHand: readonly { readonly name: string; readonly jobs: readonly Task[] }[]
  /** Parts that those jobs or those stages wait for. */
  readonly parts: readonly Part[]
  /** Rules in words: looked at with the book in the hand. */
  readonly rules: readonly BookRule[]
}

/** Whoever is done first. */
const ANYONE = 'Anyone'

/**
 * What is open up to a stage, as a list to tick: jobs by hand, parts to come, and the rules in words of the book it races by.
 * @example tickList(EXAMPLE, { stages: [] }, 0).parts // []
 */
export function tickList(records: BuildRecords, rules: RulesRoom, position: number): TickList {
  const place = new Map(records.stages.map((stage) => [stage.id, stage.position]))
  const jobs = openTasks(records).filter(({ stageId }) => (place.get(stageId) ?? 0) <= position)
  const names = new Map(records.hands.map(({ id, name }) => [id, name]))
  const byHand = new Map<string, Task[]>()
  for (const job of jobs) {
    const whose = job.whoIds.flatMap((id) => names.get(id) ?? [])
    const key = whose.length > 0 ? whose.join(' and ') : ANYONE
    byHand.set(key, [...(byHand.get(key) ?? []), job])
  }
  const waitedFor = new Set(jobs.flatMap(({ partIds }) => partIds))
  const book = records.ruleBooks.find(({ id }) => id === rules.stages[position]?.bookId)
  return {
    jobsByHand: [...byHand].map(([name, own]) => ({ name, jobs: own })).sort((a, b) => Number(a.name === ANYONE) - Number(b.name === ANYONE)),
    parts: records.parts.filter(
      (part) => isOnItsWay(part) && (waitedFor.has(part.id) || (part.stageId !== null && (place.get(part.stageId) ?? 0) <= position)),
    ),
    rules: book?.rules.filter(({ metric }) => metric === null) ?? [],
  }
}

/** What is handed to somebody who does a job elsewhere. */
export interface WorkOrder {
  readonly task: Task
  /** Parts and lines that go along. */
  readonly parts: readonly Part[]
  readonly lines: readonly BuildRecords['changes'][number][]
  /** What the parts have to take, by the ratings they were picked for. */
  readonly ratings: readonly { readonly partId: string; readonly rating: Part['ratings'][number]; readonly word: string }[]
  /** The day it is wanted back: the stage's first event or date; null: nobody said. */
  readonly wantedOn: string | null
}

/**
 * A job as an order to whoever does it: aim, limits, what goes along, the day it is wanted. Undefined where there is no such job.
 * @example workOrder(EXAMPLE, 'none', []) // undefined
 */
export function workOrder(records: BuildRecords, taskId: string, deadlines: readonly { readonly stage: number; readonly on: string }[]): WorkOrder | undefined {
  const task = records.tasks.find(({ id }) => id === taskId)
  if (!task) return undefined
  const position = records.stages.find(({ id }) => id === task.stageId)?.position
  const lines = records.changes.filter(({ id }) => task.changeIds.includes(id))
  const named = new Set([...task.partIds, ...lines.flatMap(({ partId }) => partId ?? [])])
  const parts = records.parts.filter(({ id }) => named.has(id))
  return {
    task,
    parts,
    lines,
    ratings: parts.flatMap(({ id, ratings }) => ratings.map((rating) => ({ partId: id, rating, word: RATING_SUBJECTS[rating.of].word }))),
    wantedOn: deadlines.find(({ stage }) => stage === position)?.on ?? null,
  }
}
