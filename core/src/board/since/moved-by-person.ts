import type { MovedSpell } from './what-moved.ts'

/** What one person did to a number in all. */
export interface PersonMoved {
  readonly by: string
  /** The sum of the known steps. */
  readonly step: number
  /** Whether every step was known. */
  readonly isKnown: boolean
  readonly lineCount: number
  readonly movedGoal: boolean
}

/**
 * Who moved a number by how much in all, the most first.
 * @example movedByPerson([]) // []
 */
export function movedByPerson(spells: readonly Pick<MovedSpell, 'by' | 'step' | 'lineCount' | 'movesGoal'>[]): PersonMoved[] {
  const people = new Map<string, PersonMoved>()
  for (const { by, step, lineCount, movesGoal } of spells) {
    const own = people.get(by) ?? { by, step: 0, isKnown: true, lineCount: 0, movedGoal: false }
    people.set(by, {
      by,
      step: own.step + (step ?? 0),
      isKnown: own.isKnown && step !== null,
      lineCount: own.lineCount + lineCount,
      movedGoal: own.movedGoal || movesGoal,
    })
  }
  return [...people.values()].sort((a, b) => Math.abs(b.step) - Math.abs(a.step))
}
