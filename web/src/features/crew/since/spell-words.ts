import { type MovedSpell, recordWord, type SpellItem, type VerdictThen, type WhatMoved } from '@bold-ballast/core'
import { differenceInCalendarDays, format, parseISO } from 'date-fns'
import { wordWithChance } from '../../../ui/words.ts'

const DID: Readonly<Record<SpellItem['did'], string>> = { added: 'added', weighed: 'weighed', changed: 'changed', removed: 'took out' }
const MOST_NAMED = 3

/** "partUses" as "part uses". */
const manyOf = (list: string) => list.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`)

function countWords(did: SpellItem['did'], list: SpellItem['list'], count: number): string {
  if (list === 'changes') {
    const lines = count === 1 ? '1 line' : `${count} lines`
    if (did === 'added') return `put ${lines} on the plan`
    if (did === 'removed') return `took ${lines} off the plan`
    return `${DID[did]} ${lines}`
  }
  if (list === 'build') return did === 'added' ? 'made the build' : 'changed the build’s own values'
  return `${DID[did]} ${count === 1 ? recordWord(list) : `${count} ${manyOf(list)}`}`
}

/** What somebody did in a spell, in a few words. */
export function spellHead({ items, kind, lineCount }: Pick<MovedSpell, 'items' | 'kind' | 'lineCount'>): string {
  if (items.length === 0) return lineCount === 1 ? 'wrote what changed nothing' : 'wrote and took it back'
  if (kind === 'goals' && items.every(({ goal }) => goal !== null))
    return items.length === 1 ? 'moved the goal, not the car' : `moved ${items.length} goals, not the car`
  const counts = new Map<string, { did: SpellItem['did']; list: SpellItem['list']; count: number }>()
  for (const { did, list } of items) {
    const key = `${did} ${list}`
    counts.set(key, { did, list, count: (counts.get(key)?.count ?? 0) + 1 })
  }
  const words = [...counts.values()].sort((a, b) => b.count - a.count).map(({ did, list, count }) => countWords(did, list, count))
  return words.length > 2 ? `${words.slice(0, 2).join(', ')} and more` : words.join(', ')
}

/** The first few records with what became of them: "floor 19 → 22.4 kg, wing 9 → 9.6 kg". */
export function spellDetail(items: readonly SpellItem[], mass: (massKg: number) => string, goal: (value: number) => string): string {
  const named = items.slice(0, MOST_NAMED).map((item) => {
    if (item.goal) return `${goal(item.goal.before)} → ${goal(item.goal.after)}`
    return item.massKg ? `${item.name} ${mass(item.massKg.before)} → ${mass(item.massKg.after)}` : item.name
  })
  const left = items.length - named.length
  return `${named.join(', ')}${left > 0 ? ` and ${left} more` : ''}`
}

export const verdictWords = (verdict: VerdictThen | null): string => (verdict === null ? '' : wordWithChance(verdict.word, verdict.chance))

/** A time as one says it: the weekday within the last week, else the day. */
export function whenWords(instant: string, now: Date): string {
  const at = parseISO(instant)
  const days = differenceInCalendarDays(now, at)
  return days === 0 ? `today ${format(at, 'HH:mm')}` : days < 7 && days > 0 ? format(at, 'EEEE') : format(at, days < 300 ? 'd MMM' : 'd MMM yyyy')
}

/** Why the verdict is what it is: because the car moved, or because its goal did. */
export function verdictClause({ before, now, nowWithOldGoal }: WhatMoved, goalName: string): string {
  if (!now.verdict) return ''
  if (nowWithOldGoal && nowWithOldGoal.word !== now.verdict.word) return `the ${goalName} goal is ${now.verdict.word} because it was moved`
  if (before.verdict && before.verdict.word !== now.verdict.word) return `the ${goalName} goal is ${now.verdict.word}, it was ${before.verdict.word}`
  return `the ${goalName} goal is still ${now.verdict.word}`
}

/** Folded spells by person: how many entries of which kinds. */
export function foldedWords(spells: readonly MovedSpell[]): { readonly by: string; readonly words: string }[] {
  const KINDS = { masses: 'masses', power: 'power', places: 'places', goals: 'goals', other: 'other things' } as const
  const people = new Map<string, Map<MovedSpell['kind'], number>>()
  for (const { by, kind, lineCount } of spells.filter(({ isFolded }) => isFolded)) {
    const own = people.get(by) ?? new Map<MovedSpell['kind'], number>()
    own.set(kind, (own.get(kind) ?? 0) + lineCount)
    people.set(by, own)
  }
  return [...people].map(([by, kinds]) => ({
    by,
    words: [...kinds].map(([kind, count]) => `${count} ${count === 1 ? 'entry' : 'entries'} on ${KINDS[kind]}`).join(', '),
  }))
}
