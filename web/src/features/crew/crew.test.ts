import type { MovedSpell, SpellItem, WhatMoved } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { initials } from '../../ui/person-tag.tsx'
import { foldedWords, spellDetail, spellHead, verdictClause, verdictWords, whenWords } from './since/spell-words.ts'

const item = (more: Partial<SpellItem>): SpellItem => ({ list: 'changes', id: 'c', name: 'wing', did: 'added', massKg: null, goal: null, fields: [], ...more })
const spell = (items: readonly SpellItem[], kind: MovedSpell['kind'] = 'masses', lineCount = items.length) => ({ items, kind, lineCount })
const goal = item({ list: 'targets', did: 'changed', goal: { before: 1326, after: 1330 } })

describe('a spell in words', () => {
  test.each([
    [[item({ did: 'weighed' }), item({ did: 'weighed' })], 'masses', 'weighed 2 lines'],
    [[item({})], 'masses', 'put 1 line on the plan'],
    [[item({ did: 'removed' })], 'masses', 'took 1 line off the plan'],
    [[goal], 'goals', 'moved the goal, not the car'],
    [[goal, goal], 'goals', 'moved 2 goals, not the car'],
    [[item({ list: 'weighings' })], 'masses', 'added a weighing'],
    [[item({ list: 'partUses', did: 'changed' }), item({ list: 'partUses', did: 'changed' })], 'other', 'changed 2 part uses'],
    [[item({ list: 'build', did: 'changed' })], 'other', 'changed the build’s own values'],
    [[item({ list: 'build', did: 'added', name: 'Tern' })], 'other', 'made the build'],
    [[item({}), item({ list: 'checks' }), item({ list: 'marks' })], 'other', 'put 1 line on the plan, added a check and more'],
  ] as const)('%# %s', (items, kind, words) => expect(spellHead(spell(items, kind))).toBe(words))
  it('that was taken back, or changed nothing, says so', () => {
    expect([spellHead(spell([], 'masses', 2)), spellHead(spell([], 'masses', 1))]).toEqual(['wrote and took it back', 'wrote what changed nothing'])
  })
  it('names three records and counts the rest', () => {
    const mass = (kg: number) => `${kg} kg`
    const weighed = item({ did: 'weighed', massKg: { before: 19, after: 22.4 } })
    expect(spellDetail([weighed, item({ name: 'strut' }), goal, item({}), item({})], mass, String)).toBe('wing 19 kg → 22.4 kg, strut, 1326 → 1330 and 2 more')
  })
})

describe('why the verdict is what it is', () => {
  const verdict = (word: string) => ({ word, chance: 0.5 })
  const moved = (before: string | null, now: string | null, old: string | null) =>
    ({ before: { verdict: before && verdict(before) }, now: { verdict: now && verdict(now) }, nowWithOldGoal: old && verdict(old) }) as unknown as WhatMoved
  test.each([
    [moved('on course', 'on course', 'doubtful'), 'the mass goal is on course because it was moved'],
    [moved('doubtful', 'on course', 'on course'), 'the mass goal is on course, it was doubtful'],
    [moved('doubtful', 'doubtful', null), 'the mass goal is still doubtful'],
    [moved(null, null, null), ''],
  ])('%#', (what, words) => expect(verdictClause(what, 'mass')).toBe(words))
})

test.each([
  ['Ilse', 'IL'],
  ['Wen van Oord', 'WV'],
  ['x', 'X'],
])('two letters for %s', (name, letters) => expect(initials(name)).toBe(letters))

test.each([
  ['2026-11-29T08:05:00', /^today 08:05$/],
  ['2026-11-24T08:00:00', /^Tuesday$/],
  ['2026-11-12T08:00:00', /^12 Nov$/],
  ['2025-11-12T08:00:00', /^12 Nov 2025$/],
])('%s as one says it', (at, words) => expect(whenWords(at, new Date('2026-11-29T20:00:00'))).toMatch(words))

it('folded spells stand by person, with how many entries of what', () => {
  const folded = (by: string, kind: MovedSpell['kind'], lineCount: number, isFolded = true) => ({ by, kind, lineCount, isFolded }) as MovedSpell
  expect(foldedWords([folded('Wen', 'power', 9), folded('Wen', 'places', 1), folded('Ilse', 'power', 2), folded('Ilse', 'masses', 2, false)])).toEqual([
    { by: 'Wen', words: '9 entries on power, 1 entry on places' },
    { by: 'Ilse', words: '2 entries on power' },
  ])
})

test.each([
  [{ word: 'met', chance: 0.97 } as const, 'met'],
  [{ word: 'doubtful', chance: 0.5 } as const, 'doubtful, 5 in 10'],
  [{ word: 'no plan', chance: null } as const, 'no plan'],
  [null, ''],
])('a verdict %j', (verdict, words) => expect(verdictWords(verdict)).toBe(words))
