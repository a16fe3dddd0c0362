import { randomInt, randomUUID } from 'node:crypto'
import { createSchema, type Role } from '@bold-ballast/contract'
import { kindOf, type ResourceName } from '@bold-ballast/core'
import type { Knex } from 'knex'
import { Mode } from '../access/mode.ts'
import { PersonAccess } from '../access/person-access.ts'
import type { Actor } from '../http/actor.ts'
import { RecordService } from '../records/service.ts'
import { Hasher } from '../sign-in/hashing.ts'
import { folded, shapeOf } from '../sign-in/names.ts'

type Row = Record<string, unknown> & { readonly id: string; readonly version: number }
interface Line extends Row {
  readonly stageId: string
  readonly state: string
  readonly values: readonly { readonly massKg: number; readonly proof: string }[]
}

/** Who works on the demo's Gannet: what each may do, in the whole garage or in that build. */
const CREW: readonly { readonly name: string; readonly role: Role; readonly isGuest: boolean }[] = [
  { name: 'Ilse', role: 'owner', isGuest: false },
  { name: 'Tomas', role: 'crew', isGuest: false },
  { name: 'Wen', role: 'crew', isGuest: false },
  { name: 'Maro', role: 'crew', isGuest: true },
]
const DAY_MS = 86_400_000

/** Four words from a list, as an owner might choose them. */
async function fourWords(): Promise<string> {
  const { dictionary } = await import('@zxcvbn-ts/language-common')
  const words = dictionary['diceware-common'] as readonly string[]
  return Array.from({ length: 4 }, () => words[randomInt(words.length)]).join(' ')
}

async function makePeople(
  knex: Knex,
  buildId: string,
): Promise<{ readonly ids: ReadonlyMap<string, string>; readonly passwords: ReadonlyMap<string, string> }> {
  const hasher = new Hasher()
  const { id: garageId } = (await knex('garages').first('id')) as { id: string }
  const [ids, passwords] = [new Map<string, string>(), new Map<string, string>()]
  for (const { name, role, isGuest } of CREW) {
    const [id, password] = [randomUUID(), await fourWords()]
    const login = folded(name)
    await knex('people').insert({
      id,
      garageId,
      name,
      nameShape: shapeOf(name),
      login,
      loginKey: login,
      passwordHash: await hasher.hash(password),
      state: 'active',
    })
    await knex('memberships').insert({ id: randomUUID(), personId: id, role, ...(isGuest ? { buildId } : { garageId }) })
    ids.set(name, id)
    passwords.set(login, password)
  }
  await Mode.close(knex, ids.get('Ilse') as string)
  return { ids, passwords }
}

/** A week of work, an entry after the other, each with its day and minute and whoever wrote it. */
class Week {
  private readonly records: RecordService
  private readonly buildId: string
  private readonly ids: ReadonlyMap<string, string>
  private readonly startMs: number

  constructor(knex: Knex, parts: { buildId: string; ids: ReadonlyMap<string, string>; startMs: number }) {
    this.records = new RecordService(knex)
    this.buildId = parts.buildId
    this.ids = parts.ids
    this.startMs = parts.startMs
  }

  private actor(person: string, day: number, minute: number): Actor {
    return { person, access: new PersonAccess(this.ids.get(person) as string), now: new Date(this.startMs + day * DAY_MS + minute * 60_000).toISOString() }
  }

  list(resource: ResourceName): Promise<Row[]> {
    return this.records.list(resource, this.buildId) as unknown as Promise<Row[]>
  }

  async add(who: string, day: number, minute: number, resource: ResourceName, fields: object): Promise<Row> {
    const body = createSchema(kindOf(resource).fields).parse({ id: randomUUID(), ...fields }) as { id: string }
    const made = await this.records.create(this.actor(who, day, minute), resource, this.buildId, body)
    return made.record as Row
  }

  async change(who: string, day: number, minute: number, resource: ResourceName, { id, version }: Row, fields: object): Promise<void> {
    await this.records.update(this.actor(who, day, minute), resource, this.buildId, id, { version, ...fields })
  }

  async remove(who: string, day: number, minute: number, resource: ResourceName, { id, version }: Row): Promise<void> {
    await this.records.remove(this.actor(who, day, minute), resource, this.buildId, id, version)
  }

  /** Puts what guessed lines weigh beside their guesses. */
  async weigh(who: string, day: number, minute: number, line: Line | undefined, times: number): Promise<void> {
    const guess = line?.values.at(-1)
    if (!line || !guess) return
    const value = { massKg: Math.round(guess.massKg * times * 10) / 10, proof: 'measured', at: new Date(this.startMs + day * DAY_MS).toISOString() }
    await this.change(who, day, minute, 'changes', line, { values: [...line.values, value] })
  }
}

/** Nineteen entries: guesses weighed, parts put on, dyno notes, places, a goal that is moved, a guess that is thought better of. */
async function replay(week: Week): Promise<void> {
  const last = (await week.list('stages')).at(-1) as Row
  const planned = ((await week.list('changes')) as Line[]).filter(({ stageId, state }) => stageId === last.id && state === 'planned')
  const guesses = planned.filter(({ values }) => values.at(-1)?.proof === 'guess')
  const line = (name: string, massKg: number, proof: string) => ({
    stageId: last.id,
    kind: 'on',
    name,
    values: [{ massKg, proof, at: '2026-01-01T10:00:00Z' }],
  })
  await week.weigh('Tomas', 1, 552, guesses[0], 1.12)
  await week.weigh('Tomas', 1, 556, guesses[1], 1.06)
  await week.add('Wen', 2, 620, 'changes', line('skid plates', 2.1, 'catalogue'))
  await week.weigh('Maro', 2, 1068, guesses[2], 0.88)
  for (let i = 0; i < 3; i++) {
    const session = (await week.list('sessions')).at(-1) as Row
    await week.change('Maro', 3, 600 + i * 4, 'sessions', session, { tuneNote: `wastegate spring ${['0.7', '0.8', '0.9'][i]} bar, belts cold` })
  }
  for (const [i, name] of ['tail box', 'bell housing', 'rear bulkhead', 'sill left'].entries())
    await week.add('Tomas', 3, 1000 + i * 3, 'zones', { name, place: { xM: 1 + i * 0.6, yM: 0, zM: 0.4 } })
  const target = (await week.list('targets')).find(({ metric }) => metric === 'massReady') as Row & { readonly value: number }
  await week.change('Ilse', 4, 1090, 'targets', target, { value: target.value + 5, typed: null })
  const bracket = await week.add('Ilse', 5, 540, 'changes', line('cooler bracket', 6, 'guess'))
  await week.remove('Ilse', 5, 543, 'changes', bracket)
  for (const [i, name] of ['pedal box', 'dash bar', 'fuel bay'].entries())
    await week.add('Wen', 5, 965 + i * 5, 'zones', { name, place: { xM: 0.4 + i, yM: 0.1, zM: 0.5 } })
  await week.add('Wen', 6, 480, 'changes', line('tow strap rear', 0.4, 'catalogue'))
  await week.add('Tomas', 6, 488, 'changes', line('tow strap front', 0.4, 'catalogue'))
}

/** Lets four people work on the demo for a week; once for a database. Answers what each signs in with, null where that was done before. */
export async function loadCrewOnce(knex: Knex, startMs: number): Promise<ReadonlyMap<string, string> | null> {
  if (await knex('people').first('id')) return null
  const { id: buildId } = (await knex('builds').where({ name: 'Gannet' }).first('id')) as { id: string }
  const { ids, passwords } = await makePeople(knex, buildId)
  // The owner looked last before the week began.
  const { id: entryId } = (await knex('history').where({ buildId }).orderBy('id', 'desc').first('id')) as { id: number }
  await knex('seen').insert({ buildId, personId: ids.get('Ilse'), entryId, at: new Date(startMs + 1120 * 60_000) })
  await replay(new Week(knex, { buildId, ids, startMs }))
  return passwords
}
