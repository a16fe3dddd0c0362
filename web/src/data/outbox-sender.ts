import type { Problem } from '@bold-ballast/contract'
import { listOfAddress, type RecordList } from '@bold-ballast/core'
import { api, readFailure } from './api.ts'
import { isAway, isSeen, justSent, keptBoth, OUTBOX_KEY, reread, storedOutbox, type Waiting } from './outbox.ts'
import { keptBothWords, mergeStale } from './stale-edit.ts'
import { store } from './store.ts'
import { isSeatChange, storedKey } from './stored.ts'

const PAUSES_MS = [700, 1500, 3000, 5000]
let retry: ReturnType<typeof setTimeout> | null = null
let attempt = 0
let isRunning = false

/** One after another under a lock of the whole browser, so that two tabs never send the same write at once. */
const withLock = (work: () => Promise<void>): Promise<void> =>
  navigator.locks ? navigator.locks.request('bold-ballast.outbox', work).then(() => undefined) : work()

/** A record as it was read last. */
function asRead({ buildId, resource, recordId }: Pick<Waiting, 'buildId' | 'resource' | 'recordId'>): Readonly<Record<string, unknown>> | null {
  const { data } = api.endpoints.records.select(buildId)(store.getState() as never)
  const list = data?.[listOfAddress(resource) as RecordList] as readonly { readonly id: string }[] | undefined
  return (list?.find(({ id }) => id === recordId) as Readonly<Record<string, unknown>> | undefined) ?? null
}

/** Puts a write into the outbox and sends what waits. */
export function enqueue(item: Omit<Waiting, 'id' | 'refusal' | 'base' | 'typedAt'>): string {
  const id = crypto.randomUUID()
  const read = item.kind === 'update' ? asRead(item) : null
  // An edit that began on an older version of it knows nothing of how it stood.
  storedOutbox.add({ ...item, id, typedAt: new Date().toISOString(), base: read?.version === item.body.version ? read : null, refusal: null })
  store.dispatch(reread())
  void flush()
  return id
}

export function discard(id: string): void {
  storedOutbox.drop(id)
  store.dispatch(reread())
}

export function sendAgain(id: string, body: Readonly<Record<string, unknown>>): void {
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
      const stored = await sendOne(item)
      if (item.kind === 'update') storedOutbox.follow(item, stored as Readonly<Record<string, unknown>>)
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
      if (keepsBoth(item, failure.problem)) continue
      storedOutbox.refuse(item.id, { message: failure.message, problem: failure.problem })
    }
    store.dispatch(reread())
  }
  store.dispatch(reread())
}

/** Whether an edit met one of other fields: then it goes out again onto that one, and it is said. */
function keepsBoth(item: Waiting, problem: Problem): boolean {
  const theirs = problem.code === 'stale' ? (problem.current as Readonly<Record<string, unknown>> | undefined) : undefined
  if (item.kind !== 'update' || !theirs) return false
  const merged = mergeStale({ mine: item.body, base: item.base ?? null, theirs })
  if (merged.kind !== 'both') return false
  storedOutbox.resend(item.id, merged.body)
  store.dispatch(keptBoth(`${item.words}: ${keptBothWords(theirs)}`))
  return true
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

function sendOne({ kind, buildId, resource, recordId, body, typedAt }: Waiting): Promise<unknown> {
  return kind === 'create'
    ? store.dispatch(api.endpoints.createRecord.initiate({ buildId, resource, body, typedAt })).unwrap()
    : store.dispatch(api.endpoints.patchRecord.initiate({ buildId, resource, id: recordId, body, typedAt })).unwrap()
}

/** Starts with what an earlier page left, and follows the network and other tabs. */
export function watchOutbox(): void {
  window.addEventListener('online', () => void flush())
  window.addEventListener('storage', (event) => event.key === storedKey(OUTBOX_KEY) && store.dispatch(reread()))
  // Somebody else sat down in another tab: this one is his too.
  window.addEventListener('storage', (event) => isSeatChange(event) && window.location.reload())
  if (storedOutbox.first()) void flush()
}
