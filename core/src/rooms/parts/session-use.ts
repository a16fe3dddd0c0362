import type { LifeUnit, Part, PartUse } from '../../records/part-kinds.ts'

/** What a spell at a dyno or on a track was to whatever ran in it. */
export interface Ran {
  /** ISO instant. */
  readonly at: string
  readonly hours: number
  readonly laps: number
  readonly runs: number
  /** Tyres it was driven on; empty: not noted, so all that are fitted. */
  readonly tyrePartIds: readonly string[]
}

/** What one part is used up by it, in the unit of its life. */
export interface SessionUse {
  readonly part: Part
  readonly unit: LifeUnit
  readonly amount: number
}

/**
 * What a spell uses up of the fitted parts that live so long: hours, laps and runs as they were; a day or an event once, whatever else was logged of that day.
 * Tyres only where they were on. Nothing of a part that was logged for it already, and nothing of nothing.
 * @example sessionUses({ parts: [], partUses: [] }, { at: '2026-03-01T10:00:00Z', hours: 1, laps: 11, runs: 0, tyrePartIds: [] }, []) // []
 */
export function sessionUses(
  { parts, partUses }: { readonly parts: readonly Part[]; readonly partUses: readonly PartUse[] },
  { at, hours, laps, runs, tyrePartIds }: Ran,
  logged: readonly PartUse[],
): SessionUse[] {
  const day = at.slice(0, 10)
  const once = (part: Part) => (partUses.some((use) => use.partId === part.id && use.kind === 'use' && use.at.slice(0, 10) === day) ? 0 : 1)
  return parts.flatMap((part): SessionUse[] => {
    const { life, status, drive } = part
    if (!life || status !== 'fitted' || logged.some(({ partId }) => partId === part.id)) return []
    if (drive?.role === 'tyre' && tyrePartIds.length > 0 && !tyrePartIds.includes(part.id)) return []
    const amount = { hours, laps, runs, days: once(part), events: once(part) }[life.unit]
    return amount > 0 ? [{ part, unit: life.unit, amount }] : []
  })
}
