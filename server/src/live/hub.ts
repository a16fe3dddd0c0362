import { setMaxListeners } from 'node:events'
import createSubscriber, { type Subscriber } from 'pg-listen'
import { CHANNEL, type Told } from '../access/notify.ts'

export type Heard = Told | { readonly gap: true }

/** What a server tells itself, to know how long it takes. */
const ECHO = 'ballast_echo'
const LONGEST_LAG_MS = 2000

/** What the servers tell each other, heard on one connection; made when somebody first listens. */
export class LiveHub {
  private readonly databaseUrl: string
  private subscriber: Subscriber | undefined
  private connecting: Promise<void> | undefined
  private isConnected = false
  private readonly listeners = new Set<(heard: Heard) => void>()
  /** Aborted when no stream goes on. */
  readonly closed = new AbortController()

  constructor(databaseUrl: string) {
    this.databaseUrl = databaseUrl
    // As many as there are browsers.
    setMaxListeners(0, this.closed.signal)
  }

  private async connect(): Promise<void> {
    const subscriber = createSubscriber({ connectionString: this.databaseUrl }, { retryTimeout: 0, retryInterval: 500 })
    this.subscriber = subscriber
    subscriber.notifications.on(CHANNEL, (told: Told) => this.pass(told))
    let wasConnected = false
    // What was told while nobody heard it is lost: pages read again.
    subscriber.events.on('connected', () => {
      this.isConnected = true
      if (wasConnected) this.pass({ gap: true })
      wasConnected = true
    })
    subscriber.events.on('reconnect', () => {
      this.isConnected = false
    })
    subscriber.events.on('error', () => {
      this.isConnected = false
      // One that cannot be mended is made anew for the next listener.
      this.connecting = undefined
    })
    await subscriber.connect()
    await subscriber.listenTo(CHANNEL)
  }

  /** Whether somebody listens and nothing is heard. */
  get isAway(): boolean {
    return this.listeners.size > 0 && !this.isConnected
  }

  get streamCount(): number {
    return this.listeners.size
  }

  /** Seconds from telling the servers to hearing it here; undefined where nobody listens, or nothing comes back. */
  async lagS(): Promise<number | undefined> {
    const { subscriber } = this
    if (!subscriber || !this.isConnected) return undefined
    const begun = process.hrtime.bigint()
    const token = String(begun)
    await subscriber.listenTo(ECHO)
    return new Promise((resolve) => {
      const end = (lag: number | undefined) => {
        clearTimeout(limit)
        subscriber.notifications.removeListener(ECHO, onEcho)
        resolve(lag)
      }
      const onEcho = (heard: unknown) => heard === token && end(Number(process.hrtime.bigint() - begun) / 1e9)
      const limit = setTimeout(() => end(undefined), LONGEST_LAG_MS)
      subscriber.notifications.on(ECHO, onEcho)
      subscriber.notify(ECHO, token).catch(() => end(undefined))
    })
  }

  private pass(heard: Heard): void {
    for (const listener of this.listeners) listener(heard)
  }

  /** Hears what is told from now on; answers how to stop. Rejects where the database is away. */
  async listen(listener: (heard: Heard) => void): Promise<() => void> {
    this.listeners.add(listener)
    try {
      this.connecting ??= this.connect()
      await this.connecting
    } catch (error) {
      this.connecting = undefined
      this.listeners.delete(listener)
      throw error
    }
    return () => void this.listeners.delete(listener)
  }

  async close(): Promise<void> {
    this.closed.abort()
    await this.subscriber?.close().catch(() => undefined)
  }
}
