import { describe, expect, it, test } from 'vitest'
import { readDay } from '../../jobs/read-day.ts'
import { readJobLine } from './job-line.ts'

const named = (...names: string[]) => names.map((name) => ({ id: name.toLowerCase(), name }))
const OPTIONS = {
  today: '2027-03-01',
  mark: '.' as const,
  hands: named('Ilse', 'Tomas', 'Wen'),
  parts: named('final drives', 'cooler'),
  jobs: named('Engine mounts', 'Floor sealed', 'Floor templates'),
  stageCount: 5,
}
const job = (more: object) => ({
  is: 'job',
  kind: 'work',
  whoIds: [],
  holds: null,
  partIds: [],
  afterIds: [],
  notBefore: null,
  isOptional: false,
  stage: null,
  ...more,
})

describe('a line of the Jobs room', () => {
  test.each([
    [
      'fit final drives 6 h Ilse+Tomas holds lift needs "final drives" after mounts @3',
      job({ name: 'Fit final drives', amount: 6, whoIds: ['ilse', 'tomas'], holds: 'lift', partIds: ['final drives'], afterIds: ['engine mounts'], stage: 3 }),
    ],
    ['paint dries 2 days after floor sealed', job({ name: 'Paint dries', kind: 'wait', amount: 2, afterIds: ['floor sealed'] })],
    ['looms away 1 week', job({ name: 'Looms away', kind: 'wait', amount: 7 })],
    ['seat belts bolted and marked 1.5 h Wen', job({ name: 'Seat belts bolted and marked', amount: 1.5, whoIds: ['wen'] })],
    ['bleed brakes 45 min anyone', job({ name: 'Bleed brakes', amount: 0.75 })],
    ['polish 2 hours optional', job({ name: 'Polish', amount: 2, isOptional: true })],
    ['scrutineering 3 h Ilse and Tomas not before 20 Mar', job({ name: 'Scrutineering', amount: 3, whoIds: ['ilse', 'tomas'], notBefore: '2027-03-20' })],
    ['weld 4 h needs cooler, final drives', job({ name: 'Weld', amount: 4, partIds: ['cooler', 'final drives'] })],
    ['final drives come 14 Mar', { is: 'arrival', partId: 'final drives', name: 'final drives', on: '2027-03-14' }],
    ['cooler came', { is: 'arrival', partId: 'cooler', name: 'cooler', on: '2027-03-01' }],
    ['cooler came yesterday 3 h', job({ name: 'Cooler came yesterday', amount: 3 })],
  ])('%s', (text, expected) => {
    expect(readJobLine(text, OPTIONS)).toEqual(expected)
  })
  test.each([
    ['fit drives', 'missing', /Say how long it takes/],
    ['6 h Ilse', 'missing', /has no name/],
    ['fit 0 h', 'out-of-range', /is no time/],
    ['fit 5,000 h', 'ambiguous', /type 5000 or 5\.000/],
    ['fit 5000 h', 'implausible', /more than any job takes/],
    ['paint dries 500 days', 'implausible', /more than any job takes/],
    ['fit 3 h Maro', 'unknown', /no hand called “Maro”; there is Ilse, Tomas, Wen/],
    ['fit 3 h needs turbo', 'unknown', /no part called “turbo”/],
    ['fit 3 h after floor', 'ambiguous', /Floor sealed or Floor templates/],
    ['fit 3 h after', 'unreadable', /“after” was not understood/],
    ['paint dries 2 days Ilse', 'inconsistent', /takes nobody’s hours/],
    ['fit 3 h @9', 'out-of-range', /no stage 9; the last is 4/],
    ['final drives come 3/4', 'ambiguous', /3 April or 4 March.*month in letters/],
    ['fit 3 h not before 29 February 2027', 'out-of-range', /2027 has no 29 February/],
  ])('%s is refused: %s', (text, code, sentence) => {
    expect(() => readJobLine(text, OPTIONS)).toThrow(expect.objectContaining({ code, message: expect.stringMatching(sentence) }))
  })
})

describe('a day as people write it', () => {
  test.each([
    ['4 Mar', '2027-03-04'],
    ['4 March 2028', '2028-03-04'],
    ['Mar 4', '2027-03-04'],
    ['2027-03-04', '2027-03-04'],
    ['20 Dec', '2026-12-20'],
    ['29 Feb 2028', '2028-02-29'],
    ['today', '2027-03-01'],
    ['tomorrow', '2027-03-02'],
    ['Saturday', '2027-03-06'],
    ['mon', '2027-03-08'],
  ])('%s', (text, day) => {
    expect(readDay(text, '2027-03-01')).toBe(day)
  })
  it.each(['soon', '4', 'Mar', '31 Apr', '2027-13-01', '13/13'])('%s is refused', (text) => {
    expect(() => readDay(text, '2027-03-01')).toThrow()
  })
})
