import type { RecordsAnswer } from '@bold-ballast/contract'
import { checkKind, damageSeen, dueAt, livesAhead, readCheckLine, takeAlong, UNIT_SETS, usualChecks, z } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { FormReader } from '../../ui/forms/form-reader.ts'
import { checkForm } from './check-form.ts'
import { aboutWords, reasonWords, stopsWords } from './check-words.ts'
import { jobBody } from './make-job.ts'
import { readPasted } from './ready/checks-paste.tsx'
import { NOTHING_BROKE, readBroke } from './round/broke-fields.tsx'
import { checksTable, damageTable, livesTable, takeTable } from './tables.ts'

const UNITS = UNIT_SETS.metric
const BUILD = { id: 'b', discipline: 'drift', wheelbaseM: 2.6, trackFrontM: 1.5, trackRearM: 1.5 } as const
const OPTIONS = { today: '2027-03-01', mark: '.', units: UNITS, geometry: BUILD } as const
const checks = usualChecks(BUILD).map((body, i) => z.object(checkKind.fields).parse({ id: `c${i}`, ...body }))
const RECORDS = {
  build: BUILD,
  checks,
  marks: [],
  tasks: [],
  changes: [],
  parts: [],
  partUses: [],
  stages: [{ id: 's', position: 0 }],
  events: [],
  zones: [],
} as unknown as RecordsAnswer
const ASKED = { event: null, position: 0, today: '2027-03-01', round: 'event' } as const

describe('lines that are pasted', () => {
  it('are read each by itself: the first cell of a row, quoted or not; empty ones are none', () => {
    const found = readPasted('bolt hub nut 1 x 245 Nm p.96\tover there\n\n"level engine oil"\nnonsense', (line) => readCheckLine(line, OPTIONS))
    expect(found.map(({ number, read }) => [number, 'check' in read ? read.check.name : read.message.slice(0, 10)])).toEqual([
      [1, 'Hub nut'],
      [3, 'Engine oil'],
      [4, 'Begin with'],
    ])
  })
})

describe('a job of a bad check', () => {
  const check = { id: 'c1', name: 'Hoses' }
  const task = { stageId: 's', position: 4, checkId: null, state: 'planned' }
  it('stands behind the jobs of its stage with what was noted', () => {
    expect(jobBody({ tasks: [task] } as never, check, 's', 'weeps', 'new')).toEqual({
      id: 'new',
      stageId: 's',
      position: 5,
      name: 'Put right: Hoses',
      kind: 'work',
      guessH: 1,
      checkId: 'c1',
      note: 'weeps',
    })
  })
  it('is made once while it is open', () => {
    expect(jobBody({ tasks: [{ ...task, checkId: 'c1' }] } as never, check, 's', null, 'new')).toBeNull()
    expect(jobBody({ tasks: [{ ...task, checkId: 'c1', state: 'done' }] } as never, check, 's', null, 'new')).not.toBeNull()
  })
})

describe('tables', () => {
  const width = ({ head, rows }: { head: readonly string[]; rows: readonly (readonly unknown[])[] }) =>
    [...new Set(rows.map((row) => row.length))].map((each) => each === head.length)
  it('of checks, of what is taken and of lives are as wide as their heads', () => {
    const due = dueAt(RECORDS as never, ASKED)
    expect(width(checksTable(RECORDS, due, '2027-03-01'))).toEqual([true])
    expect(width(takeTable(takeAlong(RECORDS as never, ASKED)))).toEqual([true])
    expect(livesTable(livesAhead(RECORDS as never, '2027-03-01')).rows).toEqual([])
    expect(checksTable(RECORDS, due, '2027-03-01').rows).toHaveLength(26)
  })
})

describe('words', () => {
  test.each([
    [0, 'Nothing stops it'],
    [1, '1 thing stops it'],
    [3, '3 things stop it'],
  ])('%d', (count, words) => expect(stopsWords(count)).toBe(words))
  it('a torque without its page is called a guess', () => {
    const about = (line: string) => aboutWords(readCheckLine(line, OPTIONS).check)
    expect(about('bolt caliper 2 x 85 Nm')).toBe('2 bolts, 85 N·m, a guess: no page named')
    expect(about('bolt caliper 2 x 85 Nm p.41')).toBe('2 bolts, 85 N·m, p.41')
  })
  it('gear that ran out is said so', () => {
    const check = readCheckLine('belts expire 20 Feb 2027', OPTIONS).check
    expect(reasonWords({ check, reason: 'expires', last: null, touchedOn: null } as never, '2027-03-01')).toBe('ran out on 20 Feb 2027')
    expect(reasonWords({ check, reason: 'expires', last: null, touchedOn: null } as never, '2027-02-01')).toBe('runs out on 20 Feb 2027')
  })
})

/** Numbers to the digits that a form shows. */
const numbersOf = (part: object) =>
  Object.fromEntries(Object.entries(part).map(([key, value]) => [key, typeof value === 'number' ? expect.closeTo(value, 6) : value]))

describe('the form of a check', () => {
  const lines = [
    'bolt front caliper LF 2 x 85 Nm p.41 @front between every 2 events',
    'level engine oil',
    'belts expire 30 Apr 2027',
    'take hub socket 2',
    'reading coolant temperature warn 100 stop 105',
    'gap downpipe to brake pipe hot',
    'look hoses between',
  ]
  test.each(lines)('gives back what was typed as: %s', (line) => {
    const check = z.object(checkKind.fields).parse({ id: 'c', ...readCheckLine(line, OPTIONS).check })
    const form = checkForm(RECORDS, check.kind, check.reading?.quantity)
    const read = new FormReader(form.defaults(check, UNITS), UNITS, '.')
    const body = form.body(read) as Record<string, unknown>
    expect(read.errors).toEqual({})
    expect({ ...check }).toMatchObject(JSON.parse(JSON.stringify({ ...body, reading: undefined, gap: undefined })))
    for (const part of ['reading', 'gap'] as const) if (check[part]) expect(body[part]).toMatchObject(numbersOf(check[part]))
  })
})

describe('what broke', () => {
  test.each([
    [{}, '.', { isMakeDo: true, hours: null, cost: null }],
    [{ hours: '1,5', cost: '40', isMakeDo: false }, ',', { isMakeDo: false, hours: 1.5, cost: 40 }],
    [{ hours: 'an hour' }, '.', '"an hour" cannot be read as a number. Type a plain number, such as 12.5.'],
    [{ cost: '-4' }, '.', 'Cost under 0? Type what it took, or leave it empty.'],
  ] as const)('%j with %s', (typed, mark, wanted) => {
    expect(readBroke({ ...NOTHING_BROKE, ...typed }, mark)).toEqual(wanted)
  })
  it('goes out as a table, with no rate where nothing was run', () => {
    const [first] = checks
    const mark = { id: 'm', checkId: first?.id, at: '2027-02-01T10:00:00Z', result: 'damage', note: 'torn', damage: { isMakeDo: true, hours: 1, cost: null } }
    const { rows } = damageTable(damageSeen({ ...RECORDS, marks: [mark] } as never, '2027-03-01'))
    expect(rows).toEqual([[first?.name, 1, null, null, 1, 0, '2027-02-01', 'torn', 'yes']])
  })
})
