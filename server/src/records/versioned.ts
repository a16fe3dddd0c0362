import type { Knex } from 'knex'
import type { ModelClass } from 'objection'
import type { Actor } from '../http/actor.ts'
import { AppError } from '../http/problem.ts'
import { writeHistory } from './history.ts'
import { BuildModel, type RecordModel } from './models.ts'

/** What is written: which table, how its log names it, and its build. */
export interface Place {
  readonly model: ModelClass<RecordModel>
  readonly resource: string
  readonly buildId: string
}

/** The key of a record: a build's own id, or that of its build and its own. */
export const keyOf = ({ resource, buildId }: Place, id: string) => (resource === 'builds' ? id : [buildId, id])

export const plain = (record: RecordModel): Record<string, unknown> => record.toJSON() as unknown as Record<string, unknown>

/** JSON with sorted keys, so that two bodies compare whatever order they came in. */
export function canonical(value: unknown): string {
  return JSON.stringify(value, (_, item) =>
    item && typeof item === 'object' && !Array.isArray(item) ? Object.fromEntries(Object.entries(item).sort(([a], [b]) => (a < b ? -1 : 1))) : item,
  )
}

export function sameFields(fields: Record<string, unknown>, record: Record<string, unknown>): boolean {
  const normal = (value: unknown) => (typeof value === 'string' && /^\d{4}-\d\d-\d\dT/.test(value) ? new Date(value).toISOString() : (value ?? null))
  return Object.entries(fields).every(([key, value]) => canonical(normal(value)) === canonical(normal(record[key])))
}

/** Who made a record and when, at its first version. */
export const freshMeta = ({ now, person }: Actor) => ({ version: 1, createdAt: now, createdBy: person, updatedAt: now, updatedBy: person, deletedAt: null })

/** Creates a record once: the same id with the same content answers the record that is there; with other content it is refused. */
export async function createOnce(
  trx: Knex,
  actor: Actor,
  place: Place,
  fields: Record<string, unknown> & { id: string },
): Promise<{ record: Record<string, unknown>; isNew: boolean }> {
  // Nothing of that id is there to be locked yet: those who would make it at once wait here.
  await trx.raw('SELECT pg_advisory_xact_lock(hashtextextended(?, 0))', [fields.id])
  const existing = await place.model.query(trx).findById(keyOf(place, fields.id))
  if (existing) {
    const record = plain(existing)
    // The id of a build is no way to read it: what became of it since is told to whoever made it alone.
    const isBuild = place.resource === 'builds'
    const isOwn = !isBuild || record.createdBy === actor.person
    const isSeen = !isBuild || (await actor.access.seesBuild(trx, fields.id))
    if (isSeen && ((isOwn && existing.version > 1) || sameFields(fields, record))) return { record, isNew: false }
    throw new AppError('duplicate', 'Another record has this id already. Send it again with a new id.')
  }
  const home = place.resource === 'builds' ? { garageId: await actor.access.garageForNew(trx) } : { buildId: place.buildId }
  const made = await place.model.query(trx).insertAndFetch({ ...fields, ...home, ...freshMeta(actor) })
  const record = plain(made)
  await writeHistory(trx, actor, { buildId: place.buildId, resource: place.resource, recordId: fields.id, action: 'create', before: null, after: record })
  return { record, isNew: true }
}

/** Makes writers of one build wait for each other, so that its log is written in the order of its changes; `not-found` when there is none. */
export async function lockBuild(trx: Knex, buildId: string): Promise<Record<string, unknown>> {
  const build = await BuildModel.query(trx).findById(buildId).forNoKeyUpdate()
  if (!build || build.deletedAt !== null) throw new AppError('not-found', 'There is no such build.')
  return plain(build)
}

/** The record, locked for this transaction; `not-found` when the build has none of this id. */
export async function findLocked(trx: Knex, place: Place, id: string): Promise<Record<string, unknown>> {
  const found = await place.model.query(trx).findById(keyOf(place, id)).forUpdate()
  if (!found) throw new AppError('not-found', 'This build has no such record.')
  return plain(found)
}

/** Refuses a write that saw another version, with the record as it stands, and one to a record that is deleted, or is not where it should be. */
export function requireFresh(before: Record<string, unknown>, version: number, isRestore = false): void {
  if (before.version !== version) {
    throw new AppError('stale', `${String(before.updatedBy)} changed it in the meantime. Look at both and choose.`, { current: before })
  }
  const isGone = before.deletedAt !== null
  if (isGone !== isRestore) throw new AppError('not-found', isGone ? 'It was deleted. Put it back first.' : 'It is not deleted.')
}

/** Changes a record that still has the version the caller saw; a stale one is refused with the record as it stands. */
export async function updateVersioned(
  trx: Knex,
  actor: Actor,
  place: Place,
  id: string,
  version: number,
  fields: Record<string, unknown>,
  action: 'update' | 'remove' | 'restore' = 'update',
): Promise<Record<string, unknown>> {
  const before = await findLocked(trx, place, id)
  requireFresh(before, version, action === 'restore')
  const changed = { ...fields, version: version + 1, updatedAt: actor.now, updatedBy: actor.person }
  const after = plain(await place.model.query(trx).patchAndFetchById(keyOf(place, id), changed))
  await writeHistory(trx, actor, { buildId: place.buildId, resource: place.resource, recordId: id, action, before, after })
  return after
}
