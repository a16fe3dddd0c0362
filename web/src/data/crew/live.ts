import type { LiveEvent } from '@bold-ballast/contract'
import { api } from '../api.ts'
import { store } from '../store.ts'
import { SEAT } from '../stored.ts'
import { heardHere, liveSeen } from './here-slice.ts'
import { LiveShare } from './live-share.ts'
import { roleSeen, signedOutSeen } from './seat-slice.ts'

const BEAT_MS = 20_000
/** A page reads its build again this often at most. */
const REREAD_MS = 300

const page = crypto.randomUUID()
let share: LiveShare | null = null
let looked: { readonly buildId: string; readonly room: string } | null = null
let lastBeat = ''
/** Lines that were told while nobody looked at the page, or a moment ago. */
const told = new Map<string, number>()
let isRereading = false
let rereadAt = 0

/** What a build's page asks by itself where nobody tells it; here it is told. */
function reread(): void {
  isRereading = false
  rereadAt = Date.now()
  if (document.visibilityState !== 'visible') return
  for (const [buildId, revision] of told) void store.dispatch(api.util.upsertQueryData('revision', buildId, { revision }))
  told.clear()
}

function hear(event: LiveEvent): void {
  if (event.type === 'changed') {
    told.set(event.buildId, event.entryId)
    // What this person wrote may be told before its own answer comes; what others wrote is read at once, unless it was a moment ago.
    const isOwn = event.personId === SEAT?.personId
    const pause = isOwn ? REREAD_MS : Math.max(0, rereadAt + REREAD_MS - Date.now())
    if (!isRereading) setTimeout(reread, pause)
    isRereading = true
  } else if (event.type === 'here') store.dispatch(heardHere(event))
  else if (event.type === 'bye') store.dispatch(signedOutSeen())
  else if (event.role) store.dispatch(roleSeen({ buildId: event.buildId, role: event.role }))
  else store.dispatch(api.util.invalidateTags(['Garage', { type: 'Any', id: event.buildId }, { type: 'Build', id: event.buildId }]))
}

async function beat(isMoved: boolean): Promise<void> {
  if (!looked || document.visibilityState !== 'visible') return
  const { buildId, room } = looked
  const recordId = store.getState().here.openRecord
  const now = `${buildId} ${room} ${recordId}`
  if (isMoved && now === lastBeat) return
  lastBeat = now
  await fetch(`/api/builds/${buildId}/here`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ page, room, recordId }),
  }).catch(() => undefined)
}

/** Says which room of which build is looked at, from now until another one is; begins to listen with the first. */
export function lookAt(buildId: string | null, room: string): void {
  if (!share) {
    if (buildId === null) return
    share = new LiveShare(page, { hear, live: (isLive) => void store.dispatch(liveSeen(isLive)) })
    setInterval(() => void beat(false), BEAT_MS)
    store.subscribe(() => void beat(true))
    document.addEventListener('visibilitychange', () => {
      reread()
      void beat(false)
    })
  }
  if (looked?.buildId !== buildId) share.want(buildId)
  looked = buildId === null ? null : { buildId, room }
  void beat(true)
}
