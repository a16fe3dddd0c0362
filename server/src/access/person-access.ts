import type { GoalsBy, MayNot, Role } from '@bold-ballast/contract'
import type { Knex } from 'knex'
import type { Access, Least } from '../http/access.ts'
import { AppError } from '../http/problem.ts'
import { isEnough, type Membership, type Place, strongest } from './roles.ts'

/** A person as the database has him now, with what he is in. */
export interface Standing {
  readonly id: string
  readonly name: string
  readonly login: string
  readonly garageId: string
  readonly epoch: number
  readonly hasCode: boolean
  readonly memberships: readonly Membership[]
  /** Where the build stands that was asked about with it; null: there is none. */
  readonly placeGarageId: string | null
  readonly goalsBy: GoalsBy
  /** The last line of that build's log, as it was when this was read. */
  readonly lastEntryId: number | null
  /** Whether it was written down lately that he is here. */
  readonly isNotedHere: boolean
}

const STANDING = `
  SELECT p.id, p.name, p.login, p.garage_id AS "garageId", p.epoch, p.code_hash IS NOT NULL AS "hasCode", place.garage_id AS "placeGarageId",
    (SELECT max(h.id) FROM history h WHERE h.build_id = CAST(:buildId AS uuid)) AS "lastEntryId", COALESCE(place.goals_by, 'crew') AS "goalsBy", COALESCE(p.here_at > now() - interval '5 minutes', false) AS "isNotedHere",
    COALESCE((SELECT json_agg(json_build_object('garageId', m.garage_id, 'buildId', m.build_id, 'role', m.role, 'until', m.until, 'changedAt', m.changed_at))
      FROM memberships m WHERE m.person_id = p.id AND (m.until IS NULL OR m.until > now())), '[]') AS memberships
  FROM people p
  LEFT JOIN LATERAL (
    SELECT g.id AS garage_id, g.goals_by FROM garages g
    WHERE g.id = COALESCE(CAST(:garageId AS uuid), (SELECT b.garage_id FROM builds b WHERE b.id = CAST(:buildId AS uuid)))
  ) place ON true
  WHERE p.id = :personId AND p.state = 'active'`

/** One look at a person and, beside it, at where a build or a garage stands; undefined: there is no such person, or he is switched off. */
export async function standingOf(
  db: Knex,
  personId: string,
  over: { readonly buildId?: string; readonly garageId?: string } = {},
): Promise<Standing | undefined> {
  const asked = db.raw(STANDING, { personId, buildId: over.buildId ?? null, garageId: over.garageId ?? null })
  // Asked with every request: named, so that the database plans it once a connection.
  const { rows } = await asked.options({ name: 'standing' })
  return rows[0] as Standing | undefined
}

const NO_BUILD = 'There is no such build.'
const NO_GARAGE = 'There is no such garage.'

/** The sentence of a role that is too low, naming who could; and what a page makes its own sentence of. */
async function mayNot(db: Knex, { role, changedAt }: Membership, garageId: string, buildId: string | null): Promise<AppError> {
  const build = buildId === null ? undefined : ((await db('builds').where({ id: buildId }).first('name')) as { name: string } | undefined)
  const owners = (await db('people')
    .join('memberships', 'memberships.personId', 'people.id')
    .where({ 'memberships.garageId': garageId, role: 'owner', state: 'active' })
    .orderBy('people.createdAt')
    .select('people.name')) as { name: string }[]
  const owner = owners[0]?.name ?? null
  const what = build?.name ?? 'this garage'
  const may = role === 'viewer' ? `You may only look at ${what}.` : `You write in ${what}, but this is for its owners.`
  const current: MayNot = { buildName: build?.name ?? null, role, since: changedAt, owner }
  return new AppError('may-not', `${may}${owner === null ? '' : ` ${owner} can do it.`}`, { current })
}

/** Refuses unless a standing reaches that far over a place: what one may not see is answered as what is not there. */
export async function requireRole(db: Knex, standing: Standing | undefined, place: Place, least: Least): Promise<Role> {
  const held = standing && standing.placeGarageId !== null ? strongest(standing.memberships, place) : undefined
  if (!held || !standing) throw new AppError('not-found', place.buildId ? NO_BUILD : NO_GARAGE)
  if (!isEnough(held.role, least, standing.goalsBy)) throw await mayNot(db, held, place.garageId as string, place.buildId ?? null)
  return held.role
}

/** What one person may do; each question reads the database anew, in the transaction of the write it belongs to. */
export class PersonAccess implements Access {
  readonly personId: string

  constructor(personId: string) {
    this.personId = personId
  }

  async requireBuild(db: Knex, buildId: string, least: Least): Promise<void> {
    const standing = await standingOf(db, this.personId, { buildId })
    await requireRole(db, standing, { garageId: standing?.placeGarageId ?? null, buildId }, least)
  }

  async seesBuild(db: Knex, buildId: string): Promise<boolean> {
    const standing = await standingOf(db, this.personId, { buildId })
    return standing?.placeGarageId != null && strongest(standing.memberships, { garageId: standing.placeGarageId, buildId }) !== undefined
  }

  async buildsSeen(db: Knex): Promise<ReadonlySet<string>> {
    const memberships = (await standingOf(db, this.personId))?.memberships ?? []
    const garages = memberships.flatMap(({ garageId }) => (garageId === null ? [] : [garageId]))
    const inGarages = (await db('builds').whereIn('garageId', garages).select('id')) as { id: string }[]
    return new Set([...inGarages.map(({ id }) => id), ...memberships.flatMap(({ buildId }) => (buildId === null ? [] : [buildId]))])
  }

  async garageForNew(db: Knex): Promise<string> {
    const memberships = (await standingOf(db, this.personId))?.memberships ?? []
    const own = memberships.filter(({ garageId, role }) => garageId !== null && isEnough(role, 'crew'))
    const first = own.sort((a, b) => a.changedAt.localeCompare(b.changedAt))[0]?.garageId
    if (first) return first
    throw new AppError('may-not', 'You are in no garage that you may put a build into. An owner can make you one of its crew.')
  }
}
