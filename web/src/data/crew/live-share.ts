import type { LiveEvent } from '@bold-ballast/contract'

type Message =
  | { readonly type: 'want'; readonly page: string; readonly buildId: string | null }
  | { readonly type: 'live'; readonly isLive: boolean }
  | { readonly type: 'event'; readonly event: LiveEvent }

const NAME = 'bold-ballast.live'
const WANT_EVERY_MS = 20_000
const FORGOTTEN_MS = 50_000

/** What a page hears of the one stream of its browser. */
export interface LiveListener {
  readonly hear: (event: LiveEvent) => void
  readonly live: (isLive: boolean) => void
}

/**
 * One stream for all tabs of a browser: the tab that holds the lock reads it and passes on what it tells; when it closes, another one holds the lock.
 * A browser has six connections to a server, so that a stream for each tab would leave none.
 */
export class LiveShare {
  private readonly page: string
  private readonly listener: LiveListener
  private readonly channel = new BroadcastChannel(NAME)
  private readonly wanted = new Map<string, { readonly buildId: string; readonly at: number }>()
  private buildId: string | null = null
  private isLeader = false
  private source: EventSource | null = null
  private streamed = ''
  private readonly timer: ReturnType<typeof setInterval>

  constructor(page: string, listener: LiveListener) {
    this.page = page
    this.listener = listener
    this.channel.onmessage = ({ data }: MessageEvent<Message>) => this.received(data)
    this.timer = setInterval(() => this.say(), WANT_EVERY_MS)
    void this.lead()
  }

  private async lead(): Promise<void> {
    // Held until the page is closed.
    await navigator.locks?.request(NAME, () => {
      this.isLeader = true
      this.reopen()
      return new Promise(() => undefined)
    })
  }

  /** Which build this page looks at. */
  want(buildId: string | null): void {
    this.buildId = buildId
    this.say()
  }

  private say(): void {
    const { page, buildId } = this
    this.note({ type: 'want', page, buildId })
    this.channel.postMessage({ type: 'want', page, buildId } satisfies Message)
  }

  private note({ page, buildId }: Extract<Message, { type: 'want' }>): void {
    if (buildId === null) this.wanted.delete(page)
    else this.wanted.set(page, { buildId, at: Date.now() })
    for (const [other, { at }] of this.wanted) if (Date.now() - at > FORGOTTEN_MS) this.wanted.delete(other)
    this.reopen()
  }

  private received(message: Message): void {
    if (message.type === 'want') this.note(message)
    else if (message.type === 'live') this.listener.live(message.isLive)
    else this.listener.hear(message.event)
  }

  private tellLive(isLive: boolean): void {
    this.listener.live(isLive)
    this.channel.postMessage({ type: 'live', isLive } satisfies Message)
  }

  /** Opens the stream anew where other builds are looked at than it tells of. */
  private reopen(): void {
    if (!this.isLeader) return
    const builds = [...new Set([...this.wanted.values()].map(({ buildId }) => buildId))].sort().join(',')
    if (builds === this.streamed && this.source?.readyState !== EventSource.CLOSED) return
    this.source?.close()
    this.streamed = builds
    this.source = builds === '' ? null : new EventSource(`/api/live?builds=${builds}`)
    if (!this.source) {
      this.tellLive(false)
      return
    }
    this.source.onopen = () => this.tellLive(true)
    this.source.onerror = () => this.tellLive(false)
    this.source.onmessage = ({ data }: MessageEvent<string>) => {
      const event = JSON.parse(data) as LiveEvent
      this.listener.hear(event)
      this.channel.postMessage({ type: 'event', event } satisfies Message)
    }
  }

  close(): void {
    clearInterval(this.timer)
    this.source?.close()
    this.channel.close()
  }
}
