import { randomUUID } from 'node:crypto'
import type { Request } from 'express'
import type { Knex } from 'knex'
import { Mode } from '../access/mode.ts'
import { tell } from '../access/notify.ts'
import type { Standing } from '../access/person-access.ts'
import { personOf } from '../http/guard.ts'
import { AppError } from '../http/problem.ts'
import { writeAudit } from './audit.ts'
import type { Hasher } from './hashing.ts'
import { field, grant, NOT_VALID, useInvitation, wholePerson } from './invitations.ts'
import { folded, isFreeName, shapeOf } from './names.ts'
import { requirePassword } from './passwords.ts'
import { type NewPerson, type PersonRow, raiseEpoch } from './rows.ts'
import { MOST_SEATS, type Seat, seatOf, takeSeats } from './sessions.ts'
import type { Tries } from './tries.ts'

const WRONG = 'Name or password is not right.'

/** Signing in and out, taking over a seat, and what a person changes about his own sign-in. */
export class SignInService {
  readonly knex: Knex
  private readonly hasher: Hasher
  private readonly tries: Tries
  private readonly mode: Mode

  constructor(knex: Knex, parts: { hasher: Hasher; tries: Tries; mode: Mode }) {
    this.knex = knex
    this.hasher = parts.hasher
    this.tries = parts.tries
    this.mode = parts.mode
  }

  private person(id: string): Promise<PersonRow | undefined> {
    return this.knex('people').where({ id }).first()
  }

  /** Puts a person at this browser, beside those who are at it. */
  private async seat(request: Request, { id, epoch }: Pick<PersonRow, 'id' | 'epoch'>): Promise<void> {
    const others = (request.session.seats ?? []).filter(({ personId }) => personId !== id)
    const seat: Seat = { personId: id, epoch, at: Date.now() }
    await takeSeats(request, [...others.slice(-(MOST_SEATS - 1)), seat], id)
  }

  /** One text and one hash for whoever is unknown, invited, switched off or wrong. */
  async signIn(request: Request, { login, password }: { login: string; password: string }): Promise<void> {
    const person = (await this.knex('people')
      .where({ loginKey: folded(login) })
      .first()) as PersonRow | undefined
    const isKnownBrowser = person !== undefined && (request.session.known ?? []).includes(person.id)
    const giveBack = await this.tries.signIn({ login, address: request.ip ?? '', isKnownBrowser })
    const isRight = await this.hasher.isRight(person?.state === 'active' ? person.passwordHash : null, password)
    const audited = { subject: login, personId: person?.id ?? null, garageId: person?.garageId ?? null }
    if (!isRight || !person) {
      await writeAudit(this.knex, request, { action: 'sign-in refused', outcome: 'refused', ...audited })
      throw new AppError('signed-out', WRONG)
    }
    await giveBack()
    await this.seat(request, person)
    await writeAudit(this.knex, request, { action: 'signed in', ...audited })
  }

  /** Hands the browser to somebody who is signed in on it too, by his code or password; after five wrong tries his seat goes. */
  async handOver(
    request: Request,
    { personId, code, password }: { personId: string; code?: string | undefined; password?: string | undefined },
  ): Promise<void> {
    const { seats = [], current = null } = request.session
    const seat = seats.find((each) => each.personId === personId)
    const person = seat && (await this.person(personId))
    if (!seat || !person || person.state !== 'active' || person.epoch !== seat.epoch) {
      if (seat)
        await takeSeats(
          request,
          seats.filter((each) => each !== seat),
          current === personId ? null : current,
        )
      throw new AppError('signed-out', 'This person is not signed in on this browser any more. Sign in with the password.')
    }
    const tries = await this.tries.atSeat(`${seat.at}`, personId)
    const isRight = code !== undefined ? await this.hasher.isRight(person.codeHash, code) : await this.hasher.isRight(person.passwordHash, password ?? '')
    const audited = { subject: person.name, personId, garageId: person.garageId }
    if (isRight && tries.left > 0) {
      await tries.forget()
      await takeSeats(request, seats, personId)
      await writeAudit(this.knex, request, { action: 'took over', ...audited })
      return
    }
    await writeAudit(this.knex, request, { action: 'take-over refused', outcome: 'refused', ...audited })
    if (tries.left > 0) throw new AppError('signed-out', `That is not right. ${tries.left === 1 ? 'One try is' : `${tries.left} tries are`} left.`)
    await tries.forget()
    await takeSeats(
      request,
      seats.filter((each) => each !== seat),
      current === personId ? null : current,
    )
    throw new AppError('signed-out', `That is not right. ${person.name} is signed out on this browser; sign in with the password.`)
  }

  async signOut(request: Request): Promise<void> {
    const seat = seatOf(request)
    if (!seat) return
    const person = await this.person(seat.personId)
    const others = (request.session.seats ?? []).filter((each) => each !== seat)
    await takeSeats(request, others, null)
    if (person) await writeAudit(this.knex, request, { action: 'signed out', subject: person.name, personId: person.id, garageId: person.garageId })
  }

  /** Ends every sign-in of a person, this one too. */
  async signOutEverywhere(request: Request, { id, name, garageId }: Standing): Promise<void> {
    await this.knex('people')
      .where({ id })
      .update({ epoch: raiseEpoch(this.knex) })
    await tell(this.knex, { p: id, rights: true })
    await writeAudit(this.knex, request, { action: 'ended everywhere', subject: name, personId: id, garageId })
    await takeSeats(
      request,
      (request.session.seats ?? []).filter(({ personId }) => personId !== id),
      null,
    )
  }

  private async requireOwn(request: Request, { id, login }: Standing, password: string, path: string): Promise<PersonRow> {
    const giveBack = await this.tries.signIn({ login, address: request.ip ?? '', isKnownBrowser: true })
    const person = (await this.person(id)) as PersonRow
    if (!(await this.hasher.isRight(person.passwordHash, password))) throw field(path, 'This is not the password of now.')
    await giveBack()
    return person
  }

  /** A new password ends what was signed in with the old one, but for this seat. */
  async changePassword(request: Request, standing: Standing, { old, new: next }: { old: string; new: string }): Promise<void> {
    const person = await this.requireOwn(request, standing, old, 'old')
    await requirePassword(next, [person.name, standing.login], 'new')
    const passwordHash = await this.hasher.hash(next)
    const [changed] = await this.knex('people')
      .where({ id: person.id })
      .update({ passwordHash, epoch: raiseEpoch(this.knex) })
      .returning('epoch')
    await tell(this.knex, { p: person.id, rights: true })
    await this.seat(request, { id: person.id, epoch: (changed as { epoch: number }).epoch })
    await writeAudit(this.knex, request, { action: 'password changed', subject: person.name, personId: person.id, garageId: person.garageId })
  }

  async changeCode(request: Request, standing: Standing, { password, code }: { password: string; code: string | null }): Promise<void> {
    const person = await this.requireOwn(request, standing, password, 'password')
    await this.knex('people')
      .where({ id: person.id })
      .update({ codeHash: code === null ? null : await this.hasher.hash(code) })
    await writeAudit(this.knex, request, { action: 'code changed', subject: person.name, personId: person.id, garageId: person.garageId })
  }

  /** A new person of a garage, whose name nobody there can take for another's. */
  private async addPerson(trx: Knex, garageId: string, { name, login, password }: NewPerson): Promise<PersonRow> {
    if (!isFreeName(name)) throw field('name', `"${name}" cannot be a person's name: lines of the log bear it that nobody signed. Choose another.`)
    const other = (await trx('people')
      .where({ garageId, nameShape: shapeOf(name) })
      .first('name')) as { name: string } | undefined
    if (other) throw field('name', `It looks like "${other.name}", who is here already. Add a letter or a surname.`)
    if (
      await trx('people')
        .where({ loginKey: folded(login) })
        .first('id')
    )
      throw field('login', 'This sign-in name is taken. Choose another.')
    await requirePassword(password, [name, login])
    const passwordHash = await this.hasher.hash(password)
    const row = { id: randomUUID(), garageId, name: name.trim(), nameShape: shapeOf(name), login, loginKey: folded(login), passwordHash, state: 'active' }
    const [made] = await trx('people').insert(row).returning('*')
    return made as PersonRow
  }

  /** The first owner: from then on people sign in. Of two at once one is first; the name typed before becomes his. */
  async makeOwner(request: Request, body: NewPerson): Promise<void> {
    const person = await this.knex.transaction(async (trx) => {
      const garage = (await trx('garages').orderBy(['madeAt', 'id']).first('id')) as { id: string }
      const made = await this.addPerson(trx, garage.id, body)
      await this.closeFor(trx, made)
      const typedName = personOf(request)
      if (isFreeName(typedName))
        await trx('name_claims').insert({ id: randomUUID(), garageId: garage.id, name: typedName, personId: made.id, agreedBy: made.id })
      await writeAudit(trx, request, { action: 'owner made', subject: made.name, personId: made.id, garageId: garage.id })
      return made
    })
    this.mode.forget()
    await this.seat(request, person)
  }

  private async closeFor(trx: Knex, { id, garageId }: PersonRow): Promise<void> {
    if (!(await Mode.close(trx, id))) throw new AppError('duplicate', 'There is an owner already. Ask for an invitation, or sign in.')
    await trx('memberships').insert({ id: randomUUID(), personId: id, garageId, role: 'owner' })
  }

  /** Joins by an invitation: as oneself where one is signed in, else as a new person; or sets a password anew. */
  async join(request: Request, standing: Standing | undefined, body: { token: string } & Partial<NewPerson>): Promise<void> {
    const isClosed = await this.mode.isClosed()
    const person = await this.knex.transaction(async (trx) => {
      const invitation = await useInvitation(trx, body.token)
      if (invitation.personId) return this.setAnew(trx, request, invitation.personId, body.password)
      if (!isClosed && invitation.role !== 'owner') throw new AppError('gone', NOT_VALID)
      const joined = standing
        ? ((await trx('people').where({ id: standing.id }).first()) as PersonRow)
        : await this.addPerson(trx, invitation.homeId, wholePerson(body))
      if (isClosed) await grant(trx, joined.id, invitation)
      else await this.closeFor(trx, joined)
      await trx('invitations').where({ id: invitation.id }).update({ usedBy: joined.id })
      await writeAudit(trx, request, {
        action: isClosed ? 'joined' : 'owner made',
        subject: joined.name,
        personId: joined.id,
        garageId: invitation.homeId,
        buildId: invitation.buildId,
      })
      return joined
    })
    this.mode.forget()
    await this.seat(request, person)
  }

  private async setAnew(trx: Knex, request: Request, personId: string, password: string | undefined): Promise<PersonRow> {
    const person = (await trx('people').where({ id: personId }).first()) as PersonRow
    await requirePassword(password ?? '', [person.name, person.login ?? ''])
    const passwordHash = await this.hasher.hash(password ?? '')
    const [changed] = await trx('people')
      .where({ id: personId })
      .update({ passwordHash, state: 'active', epoch: raiseEpoch(trx) })
      .returning('*')
    await tell(trx, { p: personId, rights: true })
    await writeAudit(trx, request, { action: 'password set anew', subject: person.name, personId, garageId: person.garageId })
    return changed as PersonRow
  }
}
