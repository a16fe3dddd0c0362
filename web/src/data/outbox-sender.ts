import { listOfAddress, type RecordList } from '@bold-ballast/core'
import { api, readFailure } from './api.ts'
import { isAway, isSeen, justSent, OUTBOX_KEY, reread, storedOutbox, type Waiting } from './outbox.ts'
import { store } from './store.ts'

const PAUSES_MS = [700, 1500, 3000, 5000]
let retry: ReturnType<typeof setTimeout> | null = null
let attempt = 0
let isRunning = false

/** One after another under a lock of the whole browser, so that two tabs never send the same write at once. */
const withLock = (work: () => Promise<void>): Promise<void> =>
  navigator.locks ? navigator.locks.request('bold-ballast.outbox', work).then(() => undefined) : work()

/** Puts a write into the outbox and sends what waits. */
export function enqueue(item: Omit<Waiting, 'id' | 'refusal'>): string {
  const id = crypto.randomUUID()
  storedOutbox.add({ ...item, id, refusal: null })
  store.dispatch(reread())
  void flush()
  return id
}

export function discard(id: string): void {
  storedOutbox.drop(id)
  store.dispatch(reread())
}

export function sendAgain(id: string, body: Record<string, unknown>): void {
  storedOutbox.resend(id, body)
  store.dispatch(reread())
  void flush()
}

/** Sends what waits, oldest first, until all is out or the server is away; then again after a pause, or as soon as the network is back. */
export async function flush(): Promise<void> {
  if (isRunning) return
  isRunning = true
  if (retry) clearTimeout(retry)
  try {
    await withLock(sendAll)
  } finally {
    isRunning = false
  }
}

async function sendAll(): Promise<void> {
  for (let item = storedOutbox.first(); item; item = storedOutbox.first()) {
    try {
      await sendOne(item)
      store.dispatch(justSent(item))
      void untilSeen(item)
      storedOutbox.drop(item.id)
      attempt = 0
      store.dispatch(isAway(null))
    } catch (error) {
      const failure = readFailure(error)
      // Only the server's own word is a refusal; whatever else went wrong, as in a page that is being closed, the entry waits.
      if (failure.isAway || failure.problem === null) {
        store.dispatch(isAway(failure.message))
        retry = setTimeout(() => void flush(), PAUSES_MS[Math.min(attempt++, PAUSES_MS.length - 1)])
        return
      }
      storedOutbox.refuse(item.id, { message: failure.message, problem: failure.problem })
    }
    store.dispatch(reread())
  }
  store.dispatch(reread())
}

const LOOK_MS = 100
const LOOKS = 100

/**
 * Forgets what was sent once the lists that were read show it: an answer that was asked for before the write may still arrive after it, and would hide
 * for a moment what was typed.
 */
async function untilSeen({ id, buildId, resource, recordId, kind }: Waiting): Promise<void> {
  for (let look = 0; look < LOOKS; look++) {
    await new Promise((done) => setTimeout(done, LOOK_MS))
    const { data, status } = api.endpoints.records.select(buildId)(store.getState() as never)
    const list = data?.[listOfAddress(resource) as RecordList] as readonly { readonly id: string }[] | undefined
    if (kind === 'update' || !list || (status === 'fulfilled' && list.some((record) => record.id === recordId))) break
  }
  store.dispatch(isSeen(id))
}

function sendOne({ kind, buildId, resource, recordId, body }: Waiting): Promise<unknown> {
  return kind === 'create'
    ? store.dispatch(api.endpoints.createRecord.initiate({ buildId, resource, body })).unwrap()
    : store.dispatch(api.endpoints.patchRecord.initiate({ buildId, resource, id: recordId, body })).unwrap()
}

/** Starts with what an earlier page left, and follows the network and other tabs. */
export function watchOutbox(): void {
  window.addEventListener('online', () => void flush())
  window.addEventListener('storage', (event) => event.key === OUTBOX_KEY && store.dispatch(reread()))
  if (storedOutbox.first()) void flush()
}
