import type { LiveEvent } from '@bold-ballast/contract'
import type { Response } from 'express'
import type { Knex } from 'knex'
import { standingOf } from '../access/person-access.ts'
import { strongest } from '../access/roles.ts'
import { lastEntryId } from '../records/history.ts'
import type { Heard, LiveHub } from './hub.ts'
import { forgetGone, hereNow } from './presence.ts'

const BEAT_MS = 10_000
const CHECK_MS = 60_000
const RETRY_MS = 1000
const MOST_UNREAD_BYTES = 1_000_000

interface StreamParts {
  readonly knex: Knex
  readonly hub: LiveHub
  readonly person: { readonly id: string; readonly epoch: number }
  readonly builds: readonly string[]
  /** The last line that the page heard of, where it comes back. */
  readonly lastEventId: number | null
}

/** One browser's stream: what others write to the builds it looks at, who is there, and when it must end. */
export class LiveStream {
  private readonly response: Response
  private readonly parts: StreamParts
  private roles = new Map<string, string>()
  private readonly timers: NodeJS.Timeout[] = []
  private stop: () => void = () => undefined
  private isEnded = false
  /** The server stops: the page asks the next one, in a moment. */
  private readonly onClosed = () => {
    if (!this.isEnded) this.response.write(`retry: ${RETRY_MS}\n\n`)
    this.end()
  }

  constructor(response: Response, parts: StreamParts) {
    this.response = response
    this.parts = parts
  }

  private send(event: LiveEvent, id?: number): void {
    if (this.isEnded) return
    this.response.write(`${id === undefined ? '' : `id: ${id}\n`}data: ${JSON.stringify(event)}\n\n`)
    // A page that reads nothing any more is let go; its own retry comes back.
    if (this.response.writableLength > MOST_UNREAD_BYTES) this.end()
  }

  end(): void {
    if (this.isEnded) return
    this.isEnded = true
    this.stop()
    this.parts.hub.closed.signal.removeEventListener('abort', this.onClosed)
    for (const timer of this.timers) clearInterval(timer)
    this.response.end()
  }

  /** Begins; the rights were looked at before the request came this far, each build is asked about here. */
  async begin(): Promise<void> {
    const { hub, builds } = this.parts
    const ended = hub.closed.signal
    this.stop = await hub.listen((heard) => void this.hear(heard).catch(() => this.end()))
    this.response.on('close', () => this.end())
    ended.addEventListener('abort', this.onClosed, { once: true })
    if (ended.aborted || this.response.closed) return this.end()
    this.response.writeHead(200, { 'content-type': 'text/event-stream', connection: 'keep-alive', 'x-accel-buffering': 'no' })
    this.response.write('retry: 2000\n\n')
    this.timers.push(setInterval(() => this.response.write(': still here\n\n'), BEAT_MS))
    this.timers.push(setInterval(() => void this.checkRights().catch(() => this.end()), CHECK_MS))
    await this.checkRights()
    for (const buildId of builds) await this.tellState(buildId, this.parts.lastEventId)
  }

  private sees(buildId: string): boolean {
    return this.roles.has(buildId)
  }

  /** What a page that comes back has missed, and who is there. */
  private async tellState(buildId: string, since: number | null): Promise<void> {
    if (!this.sees(buildId)) return
    const last = await lastEntryId(this.parts.knex, buildId)
    if (since === null || last > since) this.send({ type: 'changed', buildId, entryId: last, personId: null, isFirst: since === null }, last)
    this.send({ type: 'here', buildId, people: await hereNow(this.parts.knex, buildId) })
  }

  private async hear(heard: Heard): Promise<void> {
    if ('gap' in heard) {
      await this.checkRights()
      for (const buildId of this.parts.builds) await this.tellState(buildId, 0)
      return
    }
    const { b, e, p, here, rights } = heard
    if (rights && (p === undefined || p === this.parts.person.id)) await this.checkRights()
    if (b === undefined || !this.sees(b)) return
    if (here) this.send({ type: 'here', buildId: b, people: await hereNow(this.parts.knex, b) })
    else if (e !== undefined) this.send({ type: 'changed', buildId: b, entryId: e, personId: p ?? null, isFirst: false }, e)
  }

  /** Reads the rights anew; says what changed, and ends where the person is signed out. */
  private async checkRights(): Promise<void> {
    const { knex, person, builds } = this.parts
    const standing = await standingOf(knex, person.id)
    if (!standing || standing.epoch !== person.epoch) {
      this.send({ type: 'bye' })
      return this.end()
    }
    const next = new Map<string, string>()
    const places = (await knex('builds')
      .whereIn('id', [...builds])
      .select('id', 'garageId')) as { id: string; garageId: string }[]
    for (const { id, garageId } of places) {
      const held = strongest(standing.memberships, { garageId, buildId: id })
      if (held) next.set(id, held.role)
    }
    for (const buildId of builds) {
      const role = next.get(buildId) ?? null
      if (this.roles.get(buildId) !== next.get(buildId)) this.send({ type: 'role', buildId, role: role as 'viewer' | 'crew' | 'owner' | null })
    }
    this.roles = next
    await forgetGone(knex)
  }
}
