import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_DEADLINE, EXAMPLE_ROAD, roadJob } from '../src/calculations/examples/example-road.ts'
import { unmetCrews } from '../src/jobs/crews.ts'
import { chanceBy, drawLengths, lookAhead } from '../src/jobs/draws.ts'
import { hoursBefore, type RoadHand, sessionsOf } from '../src/jobs/free-time.ts'
import { findHelps, movesOf } from '../src/jobs/helps.ts'
import { type Lengths, layRoad, lengthsAt, type Road, type RoadJob, readyH, readyRoad } from '../src/jobs/road.ts'
import { findSlack, slipOf } from '../src/jobs/slips.ts'

const HANDS: RoadHand[] = [
  { id: 'I', name: 'Ilse', hoursByWeekday: [0, 3, 0, 3, 0, 6, 0], away: [] },
  { id: 'T', name: 'Tomas', hoursByWeekday: [0, 0, 3, 0, 0, 6, 0], away: [{ fromDay: 5, toDay: 5 }] },
  { id: 'W', name: 'Wen', hoursByWeekday: [2, 0, 0, 0, 0, 5, 4], away: [] },
]
const road = (jobs: RoadJob[], more: Partial<Road> = {}): Road => ({ ...EXAMPLE_ROAD, hands: HANDS, parts: [], jobs, ...more })

/** Lengths in whole minutes, so that a clock that goes by the minute can agree to the last of them. */
const MINUTE = 1 / 60
const asListed = ({ jobs, parts }: Road): Lengths => ({
  jobs: jobs.map(({ kind, guess }) => (kind === 'work' ? Math.round(guess * 60) * MINUTE : Math.round(guess * 1440) / 1440)),
  arrivalDays: parts.map(({ leadDays }) => Math.ceil(leadDays)),
})

/** Another program for the same rules: the clock goes by the minute, job by job, with one mark for each minute that somebody or something is taken. */
function byTheMinute({ hands, jobs, parts, weekday }: Road, lengths: Lengths, days: number): Map<string, number> {
  const minutes = days * 1440
  const works = new Map(
    hands.map(({ id, hoursByWeekday, away }) => {
      const open = new Uint8Array(minutes)
      for (let day = 0; day < days; day++) {
        const at = (weekday + day) % 7
        const hours = hoursByWeekday[at] ?? 0
        if (away.some(({ fromDay, toDay }) => fromDay <= day && day <= toDay)) continue
        open.fill(1, day * 1440 + (at >= 5 ? 9 : 19) * 60, day * 1440 + (at >= 5 ? 9 : 19) * 60 + hours * 60)
      }
      return [id, open] as const
    }),
  )
  const lift = new Uint8Array(minutes).fill(1)
  const ends = new Map<string, number>()
  const left = [...jobs]
  while (left.length > 0) {
    const [job] = left.splice(
      left.findIndex(({ afterIds }) => afterIds.every((id) => ends.has(id))),
      1,
    ) as [RoadJob]
    const i = jobs.indexOf(job)
    let from = 0
    for (const id of job.afterIds) from = Math.max(from, ends.get(id) ?? 0)
    for (const id of job.partIds) from = Math.max(from, (lengths.arrivalDays[parts.findIndex((part) => part.id === id)] ?? 0) * 1440)
    from = Math.ceil(from - 1e-6)
    if (job.kind === 'wait') {
      ends.set(job.id, from + (lengths.jobs[i] as number) * 1440)
      continue
    }
    const crews = job.handIds.length > 0 ? [job.handIds] : hands.map(({ id }) => [id])
    const tries = crews.map((crew) => {
      const taken: number[] = []
      for (let at = from; at < minutes && taken.length < Math.round((lengths.jobs[i] as number) * 60); at++)
        if (crew.every((id) => works.get(id)?.[at]) && (!job.holds || lift[at])) taken.push(at)
      return { crew, taken, end: (taken.at(-1) ?? Number.POSITIVE_INFINITY) + 1 }
    })
    const best = tries.reduce((one, other) => (other.end < one.end ? other : one))
    for (const at of best.taken) {
      for (const id of best.crew) (works.get(id) as Uint8Array)[at] = 0
      if (job.holds) lift[at] = 0
    }
    ends.set(job.id, best.end)
  }
  return ends
}

const ids = ['A', 'B', 'C', 'D', 'E', 'F', 'G']
const anyJobs = fc
  .array(
    fc.record({
      kind: fc.constantFrom('work', 'work', 'work', 'wait' as const),
      minutes: fc.integer({ min: 15, max: 900 }),
      handIds: fc.subarray(['I', 'T', 'W'], { maxLength: 2 }),
      holds: fc.constantFrom(null, null, 'lift'),
      after: fc.subarray([0, 1, 2, 3, 4, 5], { maxLength: 2 }),
      part: fc.boolean(),
    }),
    { minLength: 1, maxLength: 7 },
  )
  .map((list) =>
    list.map(({ kind, minutes, handIds, holds, after, part }, i) =>
      roadJob(ids[i] as string, {
        kind: kind as 'work' | 'wait',
        guess: kind === 'wait' ? minutes / 1440 : minutes / 60,
        handIds: kind === 'wait' ? [] : handIds,
        holds: kind === 'wait' ? null : holds,
        afterIds: after.filter((at) => at < i).map((at) => ids[at] as string),
        partIds: part ? ['p'] : [],
      }),
    ),
  )
const anyRoad = fc
  .tuple(anyJobs, fc.integer({ min: 1, max: 20 }))
  .map(([jobs, leadDays]) => road(jobs, { parts: [{ id: 'p', name: 'p', leadDays, orderedDaysAgo: null }] }))

describe('the road', () => {
  it('agrees with a clock that goes by the minute, on 200 lists of jobs', () => {
    fc.assert(
      fc.property(anyRoad, (found) => {
        const lengths = asListed(found)
        const ends = byTheMinute(found, lengths, 150)
        for (const { id, endH } of layRoad(readyRoad(found), lengths)) expect(Math.abs(endH * 60 - (ends.get(id) ?? 0))).toBeLessThan(1.001)
      }),
      { numRuns: 200, seed: 14 },
    )
  })
  it('uses no hour twice: neither of a hand nor of the lift', () => {
    fc.assert(
      fc.property(anyRoad, (found) => {
        const laid = layRoad(readyRoad(found), lengthsAt(found))
        const pieces = (mine: (at: number) => boolean) => laid.flatMap((job, i) => (mine(i) ? job.pieces : [])).sort((a, b) => a.fromH - b.fromH)
        const holders = [...HANDS.map(({ id }) => pieces((i) => laid[i]?.handIds.includes(id) ?? false)), pieces((i) => found.jobs[i]?.holds === 'lift')]
        for (const list of holders) for (const [i, piece] of list.slice(1).entries()) expect(piece.fromH).toBeGreaterThanOrEqual((list[i]?.toH ?? 0) - 1e-6)
      }),
    )
  })
  it('moves no job for one below it that it does not need', () => {
    fc.assert(
      fc.property(anyRoad, (found) => {
        const all = layRoad(readyRoad(found), lengthsAt(found))
        const fewer = { ...found, jobs: found.jobs.slice(0, -1) }
        expect(layRoad(readyRoad(fewer), lengthsAt(fewer))).toEqual(all.slice(0, -1))
      }),
    )
  })
  it('with one hand and nothing to wait for is ready when the summed hours are used up, in any order', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.5, max: 20, noNaN: true }), { minLength: 1, maxLength: 8 }), (guesses) => {
        const hand = HANDS[0] as RoadHand
        const alone = (list: number[]) =>
          road(
            list.map((guess, i) => roadJob(`${i}`, { guess, handIds: ['I'] })),
            { hands: [hand] },
          )
        const end = (list: number[]) => readyH(alone(list), layRoad(readyRoad(alone(list)), { jobs: list, arrivalDays: [] }), 3)
        const there = hoursBefore(sessionsOf({ hand, weekday: 0, starts: EXAMPLE_ROAD.starts, days: 730 }), end(guesses))
        expect(there).toBeCloseTo(
          guesses.reduce((sum, guess) => sum + guess, 0),
          3,
        )
        expect(end([...guesses].reverse())).toBeCloseTo(end(guesses), 3)
      }),
    )
  })
  test.each([
    ['two jobs', ['A', 'B'], [['B'], ['A']], 'A and B wait for each other. Take one out.'],
    ['three jobs', ['A', 'B', 'C'], [['B'], ['C'], ['A']], 'A, B and C wait for each other. Take one out.'],
    ['one job', ['A'], [['A']], 'A waits for itself. Take one out.'],
    ['a ring behind a job that can go', ['A', 'B', 'C'], [[], ['C'], ['B']], 'B and C wait for each other. Take one out.'],
  ])('refuses a ring of %s by names', (_, names, after, sentence) => {
    const ring = names.map((id, i) => roadJob(id, { afterIds: after[i] as string[] }))
    expect(() => readyRoad(road(ring))).toThrow(sentence)
  })
  it('lays jobs by stage, and within a stage as they are listed', () => {
    const jobs = [
      roadJob('late', { stage: 4, guess: 2, handIds: ['I'] }),
      roadJob('first', { guess: 2, handIds: ['I'] }),
      roadJob('second', { guess: 2, handIds: ['I'] }),
    ]
    const starts = layRoad(readyRoad(road(jobs)), { jobs: [2, 2, 2], arrivalDays: [] }).map(({ startH }) => startH)
    expect(starts).toEqual([72 + 20, 24 + 19, 24 + 21])
  })
  it('leaves the car alone while a wait holds it, and lets bench work go on', () => {
    const jobs = [
      roadJob('paint', { kind: 'wait', guess: 3, holds: 'Car' }),
      roadJob('mount', { guess: 1, handIds: ['I'] }),
      roadJob('bench', { guess: 1, handIds: ['I'], needsCar: false }),
    ]
    const [paint, mount, bench] = layRoad(readyRoad(road(jobs)), { jobs: [3, 1, 1], arrivalDays: [] })
    expect([paint?.endH, mount?.startH, bench?.startH]).toEqual([72, 72 + 19, 24 + 19])
    // A wait that is listed behind work on the car finds a gap that is long enough.
    const [work, wait] = layRoad(readyRoad(road([jobs[1] as RoadJob, jobs[0] as RoadJob])), { jobs: [1, 3], arrivalDays: [] })
    expect([work?.startH, wait?.startH]).toEqual([24 + 19, 24 + 20])
  })
  it('does on the way only what is marked for it', () => {
    const jobs = [roadJob('mount', { handIds: ['I'] }), roadJob('stickers', { handIds: ['I'], isAway: true })]
    const laid = layRoad(readyRoad(road(jobs, { gone: [{ fromDay: 0, toDay: 3 }] })), { jobs: [1, 1], arrivalDays: [] })
    expect(laid.map(({ startH }) => startH)).toEqual([5 * 24 + 9, 24 + 19])
  })
  it('ends nowhere what never comes to its hours, and what comes after it', () => {
    const idle = HANDS.map((hand) => ({ ...hand, hoursByWeekday: [0, 0, 0, 0, 0, 0, 0] }))
    const laid = layRoad(readyRoad(road([roadJob('A'), roadJob('B', { afterIds: ['A'] })], { hands: idle })), { jobs: [1, 1], arrivalDays: [] })
    expect(laid.map(({ endH }) => endH)).toEqual([Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY])
  })
  it('begins a session earlier that would go past midnight', () => {
    const hand = { id: 'x', name: 'x', hoursByWeekday: [16, 0, 0, 0, 0, 0, 16], away: [] }
    expect(sessionsOf({ hand, weekday: 0, starts: EXAMPLE_ROAD.starts, days: 7 })).toEqual({ from: [8, 6 * 24 + 8], to: [24, 7 * 24] })
  })
})

describe('what slips, and what helps', () => {
  it('a job begins later by its day, whatever it waits for', () => {
    const ready = readyRoad(EXAMPLE_ROAD)
    const starts = (days: number) => layRoad(ready, lengthsAt(EXAMPLE_ROAD), slipOf(ready, 'D', days))[3]?.startH
    expect([starts(0), starts(1)]).toEqual([2 * 24 + 19, 9 * 24 + 19])
  })
  it('room is the most that leaves the day, and one step more moves it', () => {
    const ready = readyRoad(EXAMPLE_ROAD)
    const lengths = lengthsAt(EXAMPLE_ROAD)
    const end = (id: string, more: number) => readyH(EXAMPLE_ROAD, layRoad(ready, lengths, { longer: new Map([[id, more]]) }), 3)
    for (const { id, room } of findSlack({ ready, stage: 3 }).jobs) {
      expect(end(id, room)).toBeCloseTo(end(id, 0), 6)
      expect(end(id, room + (id === 'E' ? 1 : 0.5))).toBeGreaterThan(end(id, 0))
    }
  })
  it('no job moved at random in the list beats what is told first', () => {
    const { best, chance } = findHelps(EXAMPLE_ROAD, EXAMPLE_DEADLINE, { count: 100 })
    const chances = best.map((entry) => entry.chance)
    expect(chances).toEqual([...chances].sort((a, b) => b - a))
    expect(chances[0]).toBeGreaterThan(chance)
    const place = fc.integer({ min: 0, max: 5 })
    fc.assert(
      fc.property(place, place, (from, to) => {
        const jobs = EXAMPLE_ROAD.jobs.filter((_, i) => i !== from)
        jobs.splice(to, 0, EXAMPLE_ROAD.jobs[from] as RoadJob)
        const moved = { ...EXAMPLE_ROAD, jobs }
        expect(chanceBy(readyRoad(moved), drawLengths(moved, 100), EXAMPLE_DEADLINE)).toBeLessThanOrEqual(chances[0] as number)
      }),
      { numRuns: 20 },
    )
  })
  it('moves a job up where that brings the day forward', () => {
    // What somebody else waits three days for stands below two hours of odds and ends.
    const jobs = [
      roadJob('odds', { guess: 3, handIds: ['I'] }),
      roadJob('seal', { guess: 3, handIds: ['I'] }),
      roadJob('dries', { kind: 'wait', guess: 9, afterIds: ['seal'] }),
    ]
    expect(movesOf(road(jobs), 3)).toContainEqual({ kind: 'earlier', jobId: 'seal', beforeId: 'odds' })
  })
  it('can be stopped between two passes', () => {
    const stop = () => {
      throw new Error('stopped')
    }
    expect(() => findHelps(EXAMPLE_ROAD, EXAMPLE_DEADLINE, { count: 10, tick: stop })).toThrow('stopped')
    expect(() => lookAhead(readyRoad(EXAMPLE_ROAD), drawLengths(EXAMPLE_ROAD, 2), { deadlines: [], tick: stop })).toThrow('stopped')
  })
})

describe('hands who never meet', () => {
  const both = (handIds: string[], more: Partial<RoadJob> = {}) => roadJob('j', { guess: 2, handIds, ...more })
  test.each<[string, RoadHand[], Partial<RoadJob>, number, boolean]>([
    ['share the Saturdays', HANDS, {}, 26, false],
    ['share no evening and are asked before the first Saturday', HANDS, {}, 5, true],
    ['share none where one is away until then', [{ ...(HANDS[0] as RoadHand), away: [{ fromDay: 0, toDay: 30 }] }, HANDS[1] as RoadHand], {}, 26, true],
    ['have weeks without a common day', [HANDS[0] as RoadHand, { ...(HANDS[1] as RoadHand), hoursByWeekday: [3, 0, 3, 0, 0, 0, 0] }], {}, 700, true],
    ['are of a later stage', HANDS, { stage: 4 }, 5, false],
    ['are one', HANDS, { handIds: ['I'] }, 0, false],
  ])('%s', (_, hands, more, before, isUnmet) => {
    const found = unmetCrews(readyRoad(road([both(['I', 'T'], more)], { hands })), 3, before)
    expect(found).toEqual(isUnmet ? [{ jobId: 'j', handIds: ['I', 'T'] }] : [])
  })
})
