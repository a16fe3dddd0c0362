import type { ResourceName } from '@bold-ballast/contract'
import type { Knex } from 'knex'
import { AppError } from '../http/problem.ts'
import { modelOf } from './models.ts'

type Row = Record<string, unknown>

/** The live records of the one build that rules are asked about. */
export interface RuleContext {
  readonly live: (resource: ResourceName, where: Row) => Promise<readonly Row[]>
  readonly now: string
}

/** The records as they stand in the database. */
export const storedContext = (trx: Knex, buildId: string, now: string): RuleContext => ({
  now,
  live: async (resource, where) =>
    (await modelOf(resource)
      .query(trx)
      .where({ buildId, ...where })
      .whereNull('deletedAt')) as unknown as Row[],
})

const broken = (path: string, message: string) => new AppError('rule-broken', message, { errors: [{ path, message }] })

/** References must name records that are there and not deleted. */
async function requireLive(context: RuleContext, resource: ResourceName, id: unknown, path: string, what: string): Promise<Row> {
  const [found] = await context.live(resource, { id })
  if (!found) throw broken(path, `This build has no such ${what}. Pick one that is there.`)
  return found
}

async function checkStage(_context: RuleContext, before: Row | undefined, next: Row): Promise<Row> {
  if (before?.position === 0 && next.position !== 0) throw broken('position', 'Stage 0 is the car as bought and stays first.')
  if (before && next.position !== before.position) throw broken('position', 'Stages change places through the stage order.')
  if (!before && next.position === 0) throw broken('position', 'Stage 0 is made with the build. Give the next free place.')
  return next
}

async function checkChange(context: RuleContext, _before: Row | undefined, next: Row): Promise<Row> {
  const stage = await requireLive(context, 'stages', next.stageId, 'stageId', 'stage')
  if (stage.position === 0) throw broken('stageId', 'Stage 0 is the car as bought and holds no changes. Pick a later stage.')
  for (const key of ['fromChangeId', 'toChangeId'] as const) {
    if (next[key]) await requireLive(context, 'changes', next[key], key, 'line')
  }
  if (next.boxId) await requireLive(context, 'boxes', next.boxId, 'boxId', 'box')
  const doneAt = next.state === 'done' ? (next.doneAt ?? context.now) : null
  return { ...next, doneAt }
}

async function checkGoal(context: RuleContext, next: Row, stageKey: string): Promise<Row> {
  if (next[stageKey]) await requireLive(context, 'stages', next[stageKey], stageKey, 'stage')
  const isBetween = next.sense === 'between'
  if (isBetween && !(typeof next.highValue === 'number' && next.highValue > (next.value as number))) {
    throw broken('highValue', 'A range needs an upper value above the lower one.')
  }
  if (next.metric === 'frontShare' && (next.value as number) > 1) throw broken('value', 'A front share lies under 100 %.')
  return isBetween || !('highValue' in next) ? next : { ...next, highValue: null }
}

async function checkExpectation(context: RuleContext, _before: Row | undefined, next: Row): Promise<Row> {
  await requireLive(context, 'stages', next.stageId, 'stageId', 'stage')
  if (next.mode !== 'by' && !((next.value as number) > 0)) throw broken('value', 'The expected power or factor must be more than zero.')
  return next
}

async function checkStanding(context: RuleContext, _before: Row | undefined, next: Row): Promise<Row> {
  await requireLive(context, 'stages', next.stageId, 'stageId', 'stage')
  await requireLive(context, 'sessions', next.sessionId, 'sessionId', 'session')
  const pulls = await context.live('pulls', { sessionId: next.sessionId })
  const known = new Set(pulls.map((pull) => pull.id))
  if (!(next.pullIds as string[]).every((id) => known.has(id))) throw broken('pullIds', 'A pull that stands must be one of the session. Pick among its pulls.')
  return next
}

type Rule = (context: RuleContext, before: Row | undefined, next: Row) => Promise<Row>

const withStage: Rule = async (context, _before, next) => {
  await requireLive(context, 'stages', next.stageId, 'stageId', 'stage')
  return next
}

async function checkWeighing(context: RuleContext, _before: Row | undefined, next: Row): Promise<Row> {
  const second = next.secondPlacement as { method: string; pads: Record<string, unknown>; padHeightM: number | null } | null
  if (second?.method === 'otherAxleOnFloor' && second.padHeightM === null)
    throw broken('secondPlacement.padHeightM', 'With the other axle on the bare floor the height of the pads is needed. Measure it and type it.')
  return withStage(context, _before, next)
}

async function checkPhoto(context: RuleContext, _before: Row | undefined, next: Row): Promise<Row> {
  for (const resource of ['changes', 'weighings', 'sessions', 'boxes', 'parts'] as const) {
    const [found] = await context.live(resource, { id: next.recordId })
    if (found) return next
  }
  throw broken('recordId', 'A picture hangs on a ledger line, a box, a part, a weighing or a dyno session of this build. Pick one that is there.')
}

async function checkPart(context: RuleContext, _before: Row | undefined, next: Row): Promise<Row> {
  if (next.stageId) await requireLive(context, 'stages', next.stageId, 'stageId', 'stage')
  for (const [i, { of, limit }] of (next.ratings as { of: string; limit: number }[]).entries())
    if (of === 'injectorDuty' && limit > 1) throw broken(`ratings.${i}.limit`, 'A duty is a share of the time: 100 % at most.')
  return next
}

async function checkPartUse(context: RuleContext, _before: Row | undefined, next: Row): Promise<Row> {
  const part = await requireLive(context, 'parts', next.partId, 'partId', 'part')
  if (!part.life) throw broken('partId', 'Nobody has said how long this part lives. Give its life first, in hours, days or events.')
  if (next.sessionId) await requireLive(context, 'sessions', next.sessionId, 'sessionId', 'session')
  return next
}

const RULES: Partial<Record<ResourceName, Rule>> = {
  stages: checkStage,
  changes: checkChange,
  targets: (context, _before, next) => checkGoal(context, next, 'dueStageId'),
  limits: (context, _before, next) => checkGoal(context, next, 'fromStageId'),
  expectations: checkExpectation,
  weighings: checkWeighing,
  sessions: withStage,
  standings: checkStanding,
  lifts: async (context, _before, next) => {
    await requireLive(context, 'weighings', next.weighingId, 'weighingId', 'weighing')
    return next
  },
  'balance-steps': withStage,
  'ballast-aims': withStage,
  photos: checkPhoto,
  parts: checkPart,
  'part-uses': checkPartUse,
  'engine-plans': withStage,
  'pull-plans': withStage,
}

/** What a record must be before it is stored; may fill in what follows from the rest. `next` is the whole record as it would be. */
export async function applyRules(context: RuleContext, resource: ResourceName, before: Row | undefined, next: Row): Promise<Row> {
  return (await RULES[resource]?.(context, before, next)) ?? next
}

/** What keeps a record from being deleted. */
export async function checkRemoval(context: RuleContext, resource: ResourceName, record: Row): Promise<void> {
  if (resource === 'stages') {
    if (record.position === 0) throw broken('id', 'Stage 0 is the car as bought and cannot be deleted.')
    for (const [other, what] of [
      ['weighings', 'weighings'],
      ['sessions', 'dyno sessions'],
      ['changes', 'ledger lines'],
      ['parts', 'parts'],
    ] as const) {
      if ((await context.live(other, { stageId: record.id })).length > 0) throw broken('id', `This stage has ${what}. Move or delete them first.`)
    }
    const due = await context.live('targets', { dueStageId: record.id })
    if (due.length > 0) throw broken('id', 'A target is due at this stage. Give it another due stage first.')
    const limits = await context.live('limits', { fromStageId: record.id })
    if (limits.length > 0) throw broken('id', 'A limit holds from this stage on. Give it another stage first.')
  }
  if (resource === 'changes') {
    const pieces = await context.live('changes', { fromChangeId: record.id })
    if (pieces.length > 0) throw broken('id', 'Pieces of this part go to its replacement. Delete those lines first.')
  }
  if (resource === 'boxes') {
    const lines = await context.live('changes', { boxId: record.id })
    if (lines.length > 0) throw broken('id', 'Ledger lines were weighed in this box. Delete those lines first.')
  }
  if (resource === 'weighings') {
    const lifts = await context.live('lifts', { weighingId: record.id })
    if (lifts.length > 0) throw broken('id', 'Lifted readings rest on this weighing. Delete those first.')
  }
}
