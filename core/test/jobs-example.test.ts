import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_DEADLINE, EXAMPLE_ROAD } from '../src/calculations/examples/example-road.ts'
import { leftOf } from '../src/jobs/begun.ts'
import { chanceBy, drawLengths, lookAhead } from '../src/jobs/draws.ts'
import { findHelps } from '../src/jobs/helps.ts'
import { hoursLeft } from '../src/jobs/hours-left.ts'
import { optimismFactors } from '../src/jobs/optimism.ts'
import { arrivalDay, layRoad, lengthsAt, MEDIAN_DRAW, readyH, readyRoad } from '../src/jobs/road.ts'
import { findSlack, slipOf } from '../src/jobs/slips.ts'

// Every number here is of the room's worked example: its own, worked apart with a table of the standard normal and scipy.
const ready = readyRoad(EXAMPLE_ROAD)
const middle = lengthsAt(EXAMPLE_ROAD)
const laid = layRoad(ready, middle)
const dayAndHour = (hours: number) => [Math.floor(hours / 24), Number((hours % 24).toFixed(3))]
const drawn = drawLengths(EXAMPLE_ROAD)
const { work } = EXAMPLE_ROAD.optimism

describe('the worked example of the road', () => {
  it('learns how guesses of hours run', () => {
    expect([work.mu, work.s, work.v]).toEqual([expect.closeTo(0.501651, 6), expect.closeTo(0.260939, 6), expect.closeTo(0.009727, 6)])
    const { median, mean } = optimismFactors(work)
    expect([median, mean]).toEqual([expect.closeTo(1.6514, 4), expect.closeTo(1.717, 4)])
  })
  it('knows the days that parts come', () => {
    expect(EXAMPLE_ROAD.parts.map((part) => arrivalDay(part, EXAMPLE_ROAD.optimism.arrival, MEDIAN_DRAW))).toEqual([6, 8])
  })
  test.each([
    ['A', 9.9087, [12, 9], [19, 12.909], 8.958],
    ['B', 2.9547, [1, 19], [1, 21.955], 0],
    ['C', 6.6058, [8, 19], [15, 19.606], 1.984],
    ['D', 8.2572, [2, 19], [16, 21.257], 6.191],
    ['E', 2.5681, [16, 21.257], [19, 10.89], 3.612],
    ['F', 3.3029, [19, 12.909], [22, 20.212], 3.667],
  ] as const)('lays %s', (id, length, start, end, moreDays) => {
    const at = EXAMPLE_ROAD.jobs.findIndex((job) => job.id === id)
    const found = laid[at]
    expect(found?.length).toBeCloseTo(length, 4)
    expect(dayAndHour(found?.startH ?? 0)).toEqual(start)
    expect(dayAndHour(found?.endH ?? 0)).toEqual(end)
    expect(findSlack({ ready, stage: 3 }).jobs[at]?.moreCostsDays).toBeCloseTo(moreDays, 3)
  })
  it('says how late parts may be, and where a week later leads', () => {
    expect(findSlack({ ready, stage: 3 }).parts.map(({ mayBeLateDays }) => mayBeLateDays)).toEqual([6, 2])
    const late = (id: string) => dayAndHour(readyH(EXAMPLE_ROAD, layRoad(ready, middle, slipOf(ready, id, 7)), 3))
    expect([late('drives'), late('cooler')]).toEqual([
      [29, 20.212],
      [22, 20.817],
    ])
  })
  it('gives each job its room', () => {
    expect(findSlack({ ready, stage: 3 }).jobs.map(({ id, room }) => `${id} ${room}`)).toEqual(['A 0', 'B 14', 'C 5', 'D 2.5', 'E 3', 'F 0'])
  })
  it('moves as a whole with the doubt in how guesses run', () => {
    const all = lengthsAt(EXAMPLE_ROAD, { kind: () => 1, own: () => 0 })
    expect(all.arrivalDays).toEqual([8, 12])
    expect(dayAndHour(readyH(EXAMPLE_ROAD, layRoad(ready, all), 3))).toEqual([24, 19.871])
  })
  it('counts its chance in draws', () => {
    const { stages } = lookAhead(ready, drawn, { deadlines: [EXAMPLE_DEADLINE] })
    expect(stages).toEqual([expect.objectContaining({ stage: 3, halfDay: 24, eightDay: 29 })])
    expect(Math.abs((stages[0]?.chance ?? 0) - 0.55)).toBeLessThan(0.03)
    const surely = (day: number) => drawn.map(({ jobs, arrivalDays }) => ({ jobs, arrivalDays: [day, arrivalDays[1] ?? 0] }))
    expect(Math.abs(chanceBy(ready, surely(6), EXAMPLE_DEADLINE) - 0.61)).toBeLessThan(0.03)
    expect(Math.abs(chanceBy(ready, surely(13), EXAMPLE_DEADLINE) - 0.03)).toBeLessThan(0.02)
  })
  it('holds the hours left against the hours there are', () => {
    const [ilse, tomas] = hoursLeft(ready, laid, 3, 26)
    expect([ilse?.meanH, ilse?.sdH, ilse?.thereH, ilse?.chance]).toEqual([expect.closeTo(23.756, 3), expect.closeTo(4.247, 3), 42, expect.closeTo(0.9995, 4)])
    expect([tomas?.meanH, tomas?.sdH, tomas?.thereH, tomas?.chance]).toEqual([expect.closeTo(18.887, 3), expect.closeTo(4.035, 3), 24, expect.closeTo(0.89, 2)])
    const left = leftOf(3, 2, work)
    expect([left.mean, left.sd]).toEqual([expect.closeTo(3.1528, 4), expect.closeTo(1.4636, 4)])
  })
  it('finds that the Saturdays the two share decide, and what helps', () => {
    const { chance, best } = findHelps(EXAMPLE_ROAD, EXAMPLE_DEADLINE)
    expect(best[0]?.move).toEqual({ kind: 'session', handIds: ['I', 'T'], weekday: 6, hours: 4 })
    expect(best[1]?.move).toEqual({ kind: 'fewerHands', jobId: 'A', handId: 'T' })
    for (const { chance: better } of best.slice(0, 2)) expect(better).toBeGreaterThan(chance + 0.2)
  })
})
