import { setMaxListeners } from 'node:events'
import createSubscriber, { type Subscriber } from 'pg-listen'
import { CHANNEL, type Told } from '../access/notify.ts'

export type Heard = Told | { readonly gap: true }

/** What the servers tell each other, heard on one connection; made when somebody first listens. */
export class LiveHub {
  private readonly databaseUrl: string
  private subscriber: Subscriber | undefined
  private connecting: Promise<void> | undefined
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
      if (wasConnected) this.pass({ gap: true })
      wasConnected = true
    })
    subscriber.events.on('error', () => {
      // One that cannot be mended is made anew for the next listener.
      this.connecting = undefined
    })
    await subscriber.connect()
    await subscriber.listenTo(CHANNEL)
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
