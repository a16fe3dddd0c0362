const RETRY_MS = 2000

interface Told<Event> {
  readonly onEvent: (event: Event) => void
  /** The server is away; refused: it answered that there is no such stream. */
  readonly onAway: (isRefused: boolean) => void
}

type Message<Event> = { readonly event: Event } | { readonly away: boolean } | { readonly asks: true }

/**
 * One stream of the server for all tabs of this browser, which holds only a few connections to one address: the tab that has the lock keeps it open and
 * tells the others. When it is closed another one takes over. A tab that comes later is told again what the stream begins with. Answers what ends it.
 */
export function sharedStream<Event>(url: string, { onEvent, onAway }: Told<Event>): () => void {
  const channel = new BroadcastChannel(`bold-ballast ${url}`)
  const left = new AbortController()
  let reopen = () => {}
  channel.onmessage = ({ data }: MessageEvent<Message<Event>>) => {
    if ('event' in data) onEvent(data.event)
    else if ('away' in data) onAway(data.away)
    else reopen()
  }
  const tell = (message: Message<Event>) => {
    channel.postMessage(message)
    if ('event' in message) onEvent(message.event)
    else if ('away' in message) onAway(message.away)
  }
  const keepOpen = () =>
    new Promise<void>((end) => {
      let source: EventSource
      let retry: ReturnType<typeof setTimeout> | undefined
      const open = () => {
        clearTimeout(retry)
        source?.close()
        source = new EventSource(url)
        source.onmessage = ({ data }) => tell({ event: JSON.parse(data as string) as Event })
        source.onerror = () => {
          // Closed for good: the server answered that it is not there, or answers nothing.
          const isRefused = source.readyState === EventSource.CLOSED
          tell({ away: isRefused })
          if (isRefused) retry = setTimeout(open, RETRY_MS)
        }
      }
      open()
      reopen = open
      left.signal.addEventListener('abort', () => {
        clearTimeout(retry)
        source.close()
        end()
      })
    })
  channel.postMessage({ asks: true } satisfies Message<Event>)
  void navigator.locks.request(`bold-ballast ${url}`, { signal: left.signal }, keepOpen).catch(() => {})
  return () => {
    left.abort()
    channel.close()
  }
}
