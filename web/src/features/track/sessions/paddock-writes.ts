import { type PaddockEntry, type RoomTrackSession, WHEEL_KEYS } from '@bold-ballast/core'

type Write =
  | { readonly kind: 'create'; readonly resource: 'laps' | 'drift-runs'; readonly body: Record<string, unknown> }
  | { readonly kind: 'update'; readonly resource: 'track-sessions'; readonly id: string; readonly body: Record<string, unknown> & { version: number } }

const EMPTY_WHEEL = { coldPa: null, coldK: null, hotPa: null, isBled: false, treadK: null, discK: null }

type Turned = RoomTrackSession['record']['turned']

/** What was turned before a session and in it, in the order it was driven: the last of a thing says from what it is turned next. */
export const turnedUpTo = (sessions: readonly RoomTrackSession[], session: Pick<RoomTrackSession, 'record'>): Turned => [
  ...sessions
    .map(({ record }) => record)
    .filter(({ id, at }) => id !== session.record.id && at < session.record.at)
    .sort((a, b) => (a.at < b.at ? -1 : 1))
    .flatMap(({ turned }) => turned),
  ...session.record.turned,
]

/** What one line of the paddock writes into a session; `sessions`: of the build. */
export function paddockWrites(entry: PaddockEntry, session: RoomTrackSession, sessions: readonly RoomTrackSession[], makeId: () => string): Write[] {
  const { record, laps, runs } = session
  const update = (body: Record<string, unknown>): Write[] => [
    { kind: 'update', resource: 'track-sessions', id: record.id, body: { version: record.version, ...body } },
  ]
  const nextOf = (list: readonly { readonly position: number }[]) => Math.max(-1, ...list.map(({ position }) => position)) + 1
  switch (entry.is) {
    case 'laps':
      return entry.laps.map((lap, i) => ({
        kind: 'create',
        resource: 'laps',
        body: { id: makeId(), trackSessionId: record.id, position: nextOf(laps) + i, lapS: lap.lapS, kind: lap.kind, typed: lap.typed },
      }))
    case 'run': {
      const { entryMps, angleRad, gear, straightened, typed } = entry
      return [
        {
          kind: 'create',
          resource: 'drift-runs',
          body: { id: makeId(), trackSessionId: record.id, position: nextOf(runs), entryMps, angleRad, gear, straightened, typed: typed || null },
        },
      ]
    }
    case 'pair':
      return update({ rearPairsUsed: (record.rearPairsUsed ?? 0) + 1 })
    case 'pressures':
      return update({
        corners: Object.fromEntries(
          WHEEL_KEYS.map((wheel, i) => [wheel, { ...(record.corners?.[wheel] ?? EMPTY_WHEEL), [entry.when === 'hot' ? 'hotPa' : 'coldPa']: entry.pa[i] }]),
        ),
      })
    case 'tread':
      return update({
        corners: Object.fromEntries(
          WHEEL_KEYS.map((wheel) => [
            wheel,
            wheel === entry.wheel ? { ...(record.corners?.[wheel] ?? EMPTY_WHEEL), treadK: entry.treadK } : (record.corners?.[wheel] ?? null),
          ]),
        ),
      })
    case 'set': {
      const before = turnedUpTo(sessions, session).findLast(({ what }) => what.toLowerCase() === entry.what.toLowerCase())
      return update({ turned: [...record.turned, { what: entry.what, from: before?.to ?? null, to: entry.to }] })
    }
    case 'say':
      return update({ words: record.words ? `${record.words}\n${entry.words}` : entry.words })
    case 'ease':
      return update({ ease: entry.ease })
  }
}
