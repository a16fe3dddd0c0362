import type { Hand, JobsRoom, Road } from '@bold-ballast/core'
import { layRoad, lengthsAt, readyRoad } from '@bold-ballast/core'
import nodeIcal from 'node-ical'
import { describe, expect, it, test } from 'vitest'
import { awayFrom, calendarOf } from './calendar.ts'
import { readWeek } from './date-forms.ts'

const bias = { mu: 0.4, s: 0.45, v: 0.0675, pairCount: 0, isDefault: true }
const hand: Hand = { id: 'i', name: 'Ilse', hoursByWeekday: [0, 3, 0, 3, 0, 6, 0], away: [] }
const road: Road = {
  weekday: 0,
  starts: { weekdayH: 19, weekendH: 9 },
  hands: [{ ...hand, away: [] }],
  jobs: [
    {
      id: 'weld',
      name: 'Weld; brackets, both',
      kind: 'work',
      guess: 6,
      spent: 0,
      stage: 1,
      handIds: ['i'],
      holds: null,
      afterIds: [],
      partIds: ['p'],
      notBeforeDay: null,
      isOptional: false,
      needsCar: true,
      isAway: false,
    },
  ],
  parts: [{ id: 'p', name: 'Short final', leadDays: 3, orderedDaysAgo: null }],
  optimism: { work: bias, wait: bias, arrival: bias, money: bias },
  gone: [],
}
const room = {
  road,
  today: '2027-03-01',
  events: [{ id: 'e', name: 'Test hour', startsOn: '2027-03-27', days: 2 }],
} as unknown as JobsRoom

const file = (...events: string[][]) =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//any//any//EN',
    ...events.flatMap((lines, i) => ['BEGIN:VEVENT', `UID:${i}`, ...lines, 'END:VEVENT']),
    'END:VCALENDAR',
  ].join('\r\n')

describe('days away out of a calendar file', () => {
  test.each([
    [
      'an entry of whole days, its end not counted in',
      ['DTSTART;VALUE=DATE:20270308', 'DTEND;VALUE=DATE:20270311'],
      [{ from: '2027-03-08', to: '2027-03-10' }],
    ],
    ['an evening that falls into his hours', ['DTSTART:20270302T200000', 'DTEND:20270302T210000'], [{ from: '2027-03-02', to: '2027-03-02' }]],
    ['a morning outside of them', ['DTSTART:20270302T090000', 'DTEND:20270302T110000'], []],
    ['an evening on which he does not work', ['DTSTART:20270303T190000', 'DTEND:20270303T220000'], []],
    ['one that began before today', ['DTSTART;VALUE=DATE:20270220', 'DTEND;VALUE=DATE:20270303'], [{ from: '2027-03-01', to: '2027-03-02' }]],
    ['one that is over', ['DTSTART;VALUE=DATE:20260220', 'DTEND;VALUE=DATE:20260222'], []],
    [
      'one that comes each week, three times',
      ['DTSTART:20270304T190000', 'DTEND:20270304T200000', 'RRULE:FREQ=WEEKLY;COUNT=3'],
      [
        { from: '2027-03-04', to: '2027-03-04' },
        { from: '2027-03-11', to: '2027-03-11' },
        { from: '2027-03-18', to: '2027-03-18' },
      ],
    ],
  ])('%s', (_, lines, expected) => {
    expect(awayFrom(file(lines), hand, room)).toEqual(expected)
  })
  it('is refused where it is no calendar', () => {
    expect(() => awayFrom('a photo', hand, room)).toThrow()
  })
})

describe('the calendar of a build, read back by another parser', () => {
  const laid = layRoad(readyRoad(road), lengthsAt(road))
  const text = calendarOf(
    room,
    { jobs: laid.map((each) => ({ laid: each, halfDay: 0, eightDay: 0 })), ready: null },
    'Gannet',
    new Date('2027-03-01T08:00:00Z'),
  )
  const entries = Object.values(nodeIcal.sync.parseICS(text)).filter((entry) => entry?.type === 'VEVENT') as nodeIcal.VEvent[]
  it('has the event on its days, the job in its sessions, and the day the part is likely here', () => {
    const summaries = entries.map(({ summary }) => String(summary)).sort()
    expect(summaries).toEqual(['Gannet: Test hour', 'Short final likely here', 'Weld; brackets, both (Ilse)', 'Weld; brackets, both (Ilse)'])
    const job = entries.filter(({ summary }) => String(summary).startsWith('Weld'))
    // 6 h guessed are 8.95 h likely: 6 h on Saturday the 6th, when the part is here, and the rest on the Tuesday.
    const hours = job.reduce((sum, { start, end }) => sum + ((end as Date).getTime() - start.getTime()) / 3_600_000, 0)
    expect(hours).toBeCloseTo(6 * Math.exp(0.4), 1)
    const event = entries.find(({ summary }) => String(summary).endsWith('Test hour')) as nodeIcal.VEvent
    expect([event.datetype, (event.end as Date).getTime() - event.start.getTime()]).toEqual(['date', 2 * 86_400_000])
  })
  it('gives each entry an id of its own, and keeps lines short', () => {
    expect(new Set(entries.map(({ uid }) => uid)).size).toBe(4)
    expect(Math.max(...text.split('\r\n').map((line) => line.length))).toBeLessThanOrEqual(75)
  })
})

describe('the hours of a week as people say them', () => {
  test.each([
    ['Tue 3, Thu 3, Sat 6', [0, 3, 0, 3, 0, 6, 0]],
    ['saturday 6.5 h', [0, 0, 0, 0, 0, 6.5, 0]],
    ['0 3 0 3 0 6 0', [0, 3, 0, 3, 0, 6, 0]],
    ['Mon 2; Sun 4', [2, 0, 0, 0, 0, 0, 4]],
  ])('%s', (text, hours) => {
    expect(readWeek(text, '.')).toEqual(hours)
  })
  test.each([
    ['', 'Say which days'],
    ['evenings', 'is no day with its hours'],
    ['Tue 30', 'up to 16 h'],
    ['Tue 3 Thu 3', 'is no day with its hours'],
  ])('%s is refused', (text, sentence) => {
    expect(() => readWeek(text, '.')).toThrow(sentence)
  })
})
