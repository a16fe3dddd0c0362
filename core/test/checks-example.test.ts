import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { type CheckState, dueChecks } from '../src/checks/due.ts'
import { hotGap } from '../src/checks/hot-gap.ts'
import { chanceToLast, setsNeeded } from '../src/checks/life-left.ts'
import { paceGate } from '../src/checks/pace-gate.ts'
import { roundTime } from '../src/checks/round-time.ts'
import { type ShakedownStep, shakedownHour } from '../src/checks/shakedown-hour.ts'

/** The worked example of the car side of the workshop (invented numbers), digit for digit. */
const MINUTES = [2.5, 2, 2, 1.5, 1.5, 1.5, 1, 1, 1, 1, 1, 1, 0.5, 0.5]
const STEPS: ShakedownStep[] = [
  { name: 'bed', factor: 1.5, wantLaps: 4, leastLaps: 3, coolS: 600 },
  { name: '65 %', factor: 1.3, wantLaps: 5, leastLaps: 3, coolS: 300 },
  { name: '80 %', factor: 1.12, wantLaps: 5, leastLaps: 3, coolS: 300 },
  { name: 'full', factor: 1, wantLaps: 4, leastLaps: 3, coolS: 300 },
]
const hour = (people: number, bookedS = 3600) =>
  shakedownHour({ bookedS, setUpS: 480, lapS: 75, roundS: roundTime(MINUTES, people).minutes * 60, steps: STEPS })
describe('the hour of a first drive', () => {
  it('a round of fourteen checks takes two people nine minutes', () => {
    const { minutes, shares } = roundTime(MINUTES, 2)
    expect(minutes).toBe(9)
    expect(shares.flatMap(({ checks }) => checks).sort((a, b) => a - b)).toEqual(MINUTES.map((_, i) => i))
  })
  it('holds 4, 5, 3 and 3 laps, 25.5 s are left, and all of it takes 3,817.5 s', () => {
    expect(hour(2)).toEqual({ laps: [4, 5, 3, 3], stopsS: [600, 540, 540], spareS: 25.5, wholeS: 3817.5, lapsLeftOut: 3 })
  })
  it('holds all of it with one more hand', () => expect(hour(3).laps).toEqual([4, 5, 5, 4]))
  it('too short for the first step says how much more to book', () => {
    expect(() => hour(2, 700)).toThrow('Book 2 minutes more for the first step.')
    expect(hour(2, 900).laps).toEqual([3])
  })
  it('never a step before another, never under its least laps; of all plans that keep to that none has more steps', () => {
    for (let bookedS = 900; bookedS <= 4000; bookedS += 37) {
      const { laps, spareS, stopsS } = hour(2, bookedS)
      laps.forEach((count, i) => {
        expect(count).toBeGreaterThanOrEqual(STEPS[i]?.leastLaps ?? 0)
      })
      expect(spareS).toBeGreaterThanOrEqual(-1e-9)
      const taken = 480 + stopsS.reduce((sum, stop) => sum + stop, 0) + laps.reduce((sum, count, i) => sum + count * 75 * (STEPS[i]?.factor ?? 1), 0)
      expect(taken + spareS).toBeCloseTo(bookedS, 9)
      // One step more at its least laps would not fit.
      const next = STEPS[laps.length]
      if (next) {
        const least = 480 + [600, 540, 540].slice(0, laps.length).reduce((sum, stop) => sum + stop, 0)
        expect(least + STEPS.slice(0, laps.length + 1).reduce((sum, step) => sum + step.leastLaps * 75 * step.factor, 0)).toBeGreaterThan(bookedS)
      }
    }
  })
  it('more booked time never keeps fewer steps', () => {
    const counts = Array.from({ length: 60 }, (_, i) => hour(2, 900 + 50 * i).laps.length)
    expect(counts).toEqual([...counts].sort((a, b) => a - b))
  })
  it('sharing out a round is never worse than 4/3 of the best, found by trying every way (Graham 1969)', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 1, max: 20 }), { minLength: 1, maxLength: 8 }), fc.integer({ min: 1, max: 3 }), (minutes, people) => {
        let best = Number.POSITIVE_INFINITY
        for (let way = 0; way < people ** minutes.length; way++) {
          const load = Array.from({ length: people }, () => 0)
          minutes.reduce((rest, each) => {
            load[rest % people] = (load[rest % people] ?? 0) + each
            return Math.floor(rest / people)
          }, way)
          best = Math.min(best, Math.max(...load))
        }
        const found = roundTime(minutes, people).minutes
        expect(found).toBeGreaterThanOrEqual(best)
        expect(found).toBeLessThanOrEqual(best * (4 / 3 - 1 / (3 * people)) + 1e-9)
      }),
      { numRuns: 60 },
    )
  })
})

describe('the gate before the next pace', () => {
  const gate = (reading: object) =>
    paceGate({ paces: [0.65, 0.8], nextPace: 1, readings: [{ name: 'r', values: [], sd: 1, warn: null, stop: null, ...reading }] })
  test.each([
    ['coolant goes on to 100.83 ± 2.687 under its stop of 105: go', { values: [88, 93.5], stop: 105 }, 100.8333, 'go'],
    ['oil goes on to 133 ± 2.687 over its stop of 130: again', { values: [112, 121], stop: 130 }, 133, 'again'],
    ['within a spread of its stop: again', { values: [88, 93.5], stop: 103 }, 100.8333, 'again'],
    ['on over its warning: watch', { values: [88, 93.5], warn: 98, stop: 110 }, 100.8333, 'watch'],
    ['over its warning now: again', { values: [88, 99], warn: 98, stop: 130 }, 113.6667, 'again'],
  ])('%s', (_, reading, next, word) => {
    const found = gate(reading)
    expect(found.word).toBe(word)
    expect(found.readings[0]?.next).toBeCloseTo(next, 4)
    expect(found.readings[0]?.nextSd).toBeCloseTo(2.687, 3)
  })
  it('over its stop now: no, and the worst reading decides', () => {
    const readings = [
      { name: 'coolant', values: [88, 93.5], sd: 1, warn: null, stop: 105 },
      { name: 'oil', values: [112, 131], sd: 1, warn: null, stop: 130 },
    ]
    expect(paceGate({ paces: [0.65, 0.8], nextPace: 1, readings }).word).toBe('no')
  })
  it('after one pace nothing is carried on', () => {
    const readings = [{ name: 'oil', values: [112], sd: 1, warn: 125, stop: 130 }]
    expect(paceGate({ paces: [0.65], nextPace: 0.8, readings }).readings[0]).toEqual({ name: 'oil', next: null, nextSd: null, word: 'go' })
  })
  test.each([
    ['no reading', { paces: [0.65], nextPace: 0.8, readings: [] }, /says nothing/],
    ['a pace that falls', { paces: [0.8, 0.65], nextPace: 1, readings: [{ name: 'oil', values: [1, 2], sd: 1, warn: null, stop: null }] }, /Paces rise/],
    ['a reading short', { paces: [0.65, 0.8], nextPace: 1, readings: [{ name: 'oil', values: [1], sd: 1, warn: null, stop: null }] }, /oil has no reading/],
  ])('refuses %s', (_, input, sentence) => expect(() => paceGate(input)).toThrow(sentence))
})

describe('life', () => {
  it('a fifth gear of four days with 3.5 used lasts two more in 0.1768, a new one in 0.9754', () => {
    expect(chanceToLast({ life: 4, used: 3.5, more: 2 })).toBeCloseTo(0.1768, 4)
    expect(chanceToLast({ life: 4, used: 0, more: 2 })).toBeCloseTo(0.9754, 4)
  })
  it('180 runs on pairs of 22 take ten at 9 in 10', () => {
    const { sets, chance, chanceOfOneFewer } = setsNeeded({ life: 22, wanted: 180, cv: 0.25 })
    expect(sets).toBe(10)
    expect(chance).toBeCloseTo(0.9924, 4)
    expect(chanceOfOneFewer).toBeCloseTo(0.8639, 4)
  })
  it('falls with use and with what is wanted; sets never fall with what is wanted', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 6, noNaN: true }),
        fc.double({ min: 0, max: 4, noNaN: true }),
        fc.double({ min: 0.1, max: 0.8, noNaN: true }),
        (used, more, cv) => {
          const at = (u: number, a: number) => chanceToLast({ life: 4, used: u, more: a, cv })
          expect(at(used + 0.3, more)).toBeLessThanOrEqual(at(used, more) + 1e-9)
          expect(at(used, more + 0.3)).toBeLessThanOrEqual(at(used, more) + 1e-12)
        },
      ),
    )
    const sets = Array.from({ length: 30 }, (_, i) => setsNeeded({ life: 22, wanted: 10 + 12 * i }).sets)
    expect(sets).toEqual([...sets].sort((a, b) => a - b))
  })
  it('a life of a shape of one is exponential and forgets its use (closed form)', () => {
    for (const used of [0, 3, 11]) expect(chanceToLast({ life: 4, used, more: 2, cv: 1 })).toBeCloseTo(Math.exp(-0.5), 10)
  })
})

describe('gaps', () => {
  const EXHAUST = { coldM: 0.032, expansionPerK: 17.3e-6, lengthM: 0.9, riseK: 550, moveM: 0.006, needM: 0.025 }
  it('32 mm cold are 17.44 hot and too little for 25', () => {
    const found = hotGap(EXHAUST)
    expect(found.hotM).toBeCloseTo(0.01744, 5)
    expect(found).toMatchObject({ verdict: 'tight' })
  })
  test.each([
    ['holds', 0.05],
    ['tight', 0.03],
    ['touches', 0.014],
  ] as const)('%s from %d m', (verdict, coldM) => expect(hotGap({ ...EXHAUST, coldM }).verdict).toBe(verdict))
  it('refuses 32 m', () => expect(() => hotGap({ ...EXHAUST, coldM: 32 })).toThrow(/coldM/))
})

describe('what is due', () => {
  const state = (name: string, more: Partial<CheckState> = {}): CheckState => ({
    name,
    isSafety: true,
    minutes: 0.5,
    okOn: '2027-03-12',
    badOn: null,
    touchedOn: null,
    interval: null,
    expiresOn: null,
    isAsked: false,
    marks: 0,
    bads: 0,
    ...more,
  })
  const reasonOf = (more: Partial<CheckState>) => dueChecks([state('c', more)], '2027-03-28')[0]
  it('bolts of a gearbox worked on since are, the seat’s are not, and belts that end a day too soon stop it', () => {
    const due = dueChecks([state('gearbox', { touchedOn: '2027-03-20' }), state('seat'), state('belts', { expiresOn: '2027-03-27' })], '2027-03-28')
    expect(due).toEqual([
      { name: 'gearbox', reason: 'touched', stops: true },
      { name: 'belts', reason: 'expires', stops: true },
    ])
  })
  test.each<[string, Partial<CheckState>, object | undefined]>([
    ['in order', {}, undefined],
    ['touched before it was in order', { touchedOn: '2027-03-10' }, undefined],
    ['bad and not fixed', { badOn: '2027-03-14' }, { reason: 'bad', stops: true }],
    ['bad and in order since', { badOn: '2027-03-01' }, undefined],
    ['never marked', { okOn: null }, { reason: 'never', stops: true }],
    ['its interval ends within the event', { interval: { every: 4, since: 3, adds: 2 } }, { reason: 'interval', stops: false }],
    ['its interval lasts just so long', { interval: { every: 5, since: 3, adds: 2 } }, undefined],
    ['expires on the last day', { expiresOn: '2027-03-28' }, undefined],
    ['asked in this round', { isAsked: true }, { reason: 'asked', stops: false }],
    ['bad, and no matter of safety', { badOn: '2027-03-14', isSafety: false }, { reason: 'bad', stops: false }],
  ])('%s', (_, more, found) => {
    if (found) expect(reasonOf(more)).toMatchObject(found)
    else expect(reasonOf(more)).toBeUndefined()
  })
  it('safety first, then what goes bad most often for its minutes', () => {
    const due = dueChecks(
      [
        state('slow', { isAsked: true, isSafety: false, marks: 9, bads: 3, minutes: 4 }),
        state('quick', { isAsked: true, isSafety: false, marks: 9, bads: 3 }),
        state('never bad', { isAsked: true, isSafety: false, marks: 40 }),
        state('belts', { isAsked: true, marks: 40 }),
      ],
      '2027-03-28',
    )
    expect(due.map(({ name }) => name)).toEqual(['belts', 'quick', 'slow', 'never bad'])
  })
  it('refuses a day that is none', () => expect(() => dueChecks([], '28.3.2027')).toThrow(/is no day/))
})
