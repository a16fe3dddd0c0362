import type { DynoSession } from '../../records/power-kinds.ts'

/**
 * The sessions that are compared when nobody has picked any: the latest, and the latest before it that the same dyno read; else the one before.
 * @example usualSessions(EXAMPLE.sessions).first.id // 'visit'
 */
export function usualSessions<Session extends Pick<DynoSession, 'at' | 'dynoName' | 'place'>>(
  sessions: readonly Session[],
): { first: Session; second: Session } | undefined {
  const byDate = [...sessions].sort((a, b) => Date.parse(b.at) - Date.parse(a.at))
  const [second, ...before] = byDate
  if (!second) return undefined
  return { second, first: before.find(({ dynoName, place }) => dynoName === second.dynoName && place === second.place) ?? before[0] ?? second }
}
