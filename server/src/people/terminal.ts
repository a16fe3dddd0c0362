import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { Mode } from '../access/mode.ts'
import { tell } from '../access/notify.ts'
import { requireSafeDatabase } from '../database/address.ts'
import { bringUp } from '../database/migrate.ts'
import { openDatabase } from '../database/open.ts'
import { writeAudit } from '../sign-in/audit.ts'
import { folded } from '../sign-in/names.ts'
import { type PersonRow, raiseEpoch } from '../sign-in/rows.ts'
import { hashOfToken, makeToken } from '../sign-in/tokens.ts'

const HOUR_MS = 3_600_000

/** A sentence for the person at the terminal. */
export class TerminalRefusal extends Error {}

async function byLogin(knex: Knex, login: string | undefined): Promise<PersonRow> {
  const person =
    login === undefined
      ? undefined
      : ((await knex('people')
          .where({ loginKey: folded(login) })
          .first()) as PersonRow | undefined)
  if (!person) throw new TerminalRefusal(`Nobody signs in as "${login ?? ''}". npm run people -- list tells who does.`)
  return person
}

async function firstGarage(knex: Knex): Promise<string> {
  return ((await knex('garages').orderBy(['madeAt', 'id']).first('id')) as { id: string }).id
}

async function makeLink(knex: Knex, fields: object): Promise<string> {
  const token = makeToken()
  await knex('invitations').insert({ id: randomUUID(), tokenHash: hashOfToken(token), expiresAt: new Date(Date.now() + HOUR_MS), ...fields })
  return `/join#${token}`
}

async function list(knex: Knex): Promise<string> {
  const rows = (await knex('people')
    .leftJoin('memberships', 'memberships.personId', 'people.id')
    .leftJoin('builds', 'builds.id', 'memberships.buildId')
    .orderBy('people.createdAt')
    .select('people.name', 'login', 'state', 'role', 'builds.name as build')) as {
    name: string
    login: string | null
    state: string
    role: string | null
    build: string | null
  }[]
  if (rows.length === 0) return 'Nobody signs in yet: anyone at this machine may write.'
  return rows
    .map(({ name, login, state, role, build }) => `${name} (${login ?? 'no sign-in yet'}): ${state}, ${role ?? 'in nothing'}${build ? ` of ${build}` : ''}`)
    .join('\n')
}

function nameOf(name: string | undefined, how: string): string {
  if (!name?.trim()) throw new TerminalRefusal(`Say who: npm run people -- ${how}.`)
  return name.trim()
}

async function ownerLink(knex: Knex, name: string, garageId: string, base: string): Promise<string> {
  const link = await makeLink(knex, { role: 'owner', name, garageId })
  await writeAudit(knex, null, { action: 'invited', subject: `${name}, as owner, at the terminal`, garageId })
  return `${name} becomes an owner with this link, for one hour and once:\n${base}${link}`
}

const owner = async (knex: Knex, name: string | undefined, base: string): Promise<string> =>
  ownerLink(knex, nameOf(name, 'owner "NAME"'), await firstGarage(knex), base)

/** A second garage on the same server, which sees nothing of the first, with a link for its owner. */
async function garage(knex: Knex, garageName: string | undefined, ownerName: string | undefined, base: string): Promise<string> {
  const how = 'garage "ITS NAME" "OWNER"'
  const [name, who] = [nameOf(garageName, how), nameOf(ownerName, how)]
  if (!(await new Mode(knex).isClosed())) throw new TerminalRefusal('Nobody signs in yet. Make an owner of the first garage: npm run people -- owner "NAME".')
  if (await knex('garages').where({ name }).first('id')) throw new TerminalRefusal(`There is a garage named "${name}" already. Give another name.`)
  const id = randomUUID()
  await knex('garages').insert({ id, name })
  return ownerLink(knex, who, id, base)
}

async function reset(knex: Knex, login: string | undefined, base: string): Promise<string> {
  const person = await byLogin(knex, login)
  const link = await makeLink(knex, { role: 'viewer', personId: person.id, garageId: person.garageId })
  await writeAudit(knex, null, {
    action: 'invited',
    subject: `${person.name}, to a new password, at the terminal`,
    personId: person.id,
    garageId: person.garageId,
  })
  return `${person.name} sets a new password with this link, for one hour and once:\n${base}${link}`
}

async function off(knex: Knex, login: string | undefined): Promise<string> {
  const person = await byLogin(knex, login)
  await knex('people')
    .where({ id: person.id })
    .update({ state: 'off', epoch: raiseEpoch(knex) })
  await tell(knex, { p: person.id, rights: true })
  await writeAudit(knex, null, { action: 'switched off', subject: `${person.name}, at the terminal`, personId: person.id, garageId: person.garageId })
  return `${person.name} is switched off, and signed out everywhere.`
}

/** Back to anyone at this machine: every sign-in ends, people and log stay. */
async function open(knex: Knex): Promise<string> {
  const wasClosed = await knex.transaction(async (trx) => {
    await trx('sign_ins').delete()
    await trx('people').update({ epoch: raiseEpoch(trx) })
    await tell(trx, { rights: true })
    await writeAudit(trx, null, { action: 'opened again', subject: 'at the terminal', garageId: await firstGarage(trx) })
    return Mode.open(trx)
  })
  return wasClosed ? 'Anyone at this machine may write again. People and log stay; an owner made anew closes it.' : 'Nobody had to sign in; nothing changed.'
}

const USAGE = 'npm run people -- list | owner NAME | garage NAME OWNER | reset LOGIN | off LOGIN | open'

/** What a command at the terminal does, told in words: the last resort of whoever can start the server. Throws a sentence for what it cannot do. */
export async function atTerminal(knex: Knex, [verb, name, more]: readonly string[], base: string): Promise<string> {
  if (verb === 'list') return list(knex)
  if (verb === 'owner') return owner(knex, name, base)
  if (verb === 'garage') return garage(knex, name, more, base)
  if (verb === 'reset') return reset(knex, name, base)
  if (verb === 'off') return off(knex, name)
  if (verb === 'open') return open(knex)
  throw new TerminalRefusal(`Say what to do: ${USAGE}`)
}

/** The same on the database of an address, brought to this program first. */
export async function runAtTerminal(databaseUrl: string, words: readonly string[], base: string): Promise<string> {
  requireSafeDatabase(databaseUrl)
  const knex = openDatabase(databaseUrl)
  try {
    await bringUp({ knex, databaseUrl })
    return await atTerminal(knex, words, base)
  } finally {
    await knex.destroy()
  }
}
