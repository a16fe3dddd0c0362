import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { type CheckState, dueChecks } from '../src/checks/due.ts'
import { hotGap } from '../src/checks/hot-gap.ts'
import { chanceToLast, setsNeeded } from '../src/checks/life-left.ts'
import { paceGate } from '../src/checks/pace-gate.ts'
import { roundTime } from '../src/checks/round-time.ts'
import { type ShakedownStep, shakedownHour } from '../src/checks/shakedown-hour.ts'
import { crossflowEffectiveness, crossflowUnits } from '../src/cooling/crossflow.ts'
import { fitsIn } from '../src/cooling/fits-in.ts'
import { type CoolingPoint, coolingPerK, coverFor, type RadiatorRating, radiatorCore, settledCoolant, warmUp } from '../src/cooling/radiator.ts'
import { firstToTrip, supply } from '../src/electrics/supply.ts'
import { loomMass, voltageDrop, WIRE_SIZES, wireFor } from '../src/electrics/wire.ts'

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
const RATING: RadiatorRating = { areaM2: 0.24, ratedW: 95_000, ratedItdK: 60, ratedFaceMps: 10, ratedFlowM3PerS: 100 / 60_000 }
const HOT: CoolingPoint = { speedMps: 38, airK: 303.15, airDensityKgM3: 1.15, flowM3PerS: 120 / 60_000, faceShare: 0.28 }
const COLD: CoolingPoint = { ...HOT, speedMps: 22, airK: 283.15, airDensityKgM3: 1.25 }

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

describe('wires', () => {
  const RUN = { currentA: 14.8, lengthM: 3.6, returnsBy: 'wire', temperatureK: 333.15 } as const
  test.each([
    [1.5, 1.4173],
    [2.5, 0.8504],
    [4, 0.5315],
  ])('%d mm² loses %d V', (area, volts) => expect(voltageDrop(RUN, area)).toBeCloseTo(volts, 4))
  it('6 mm² is the thinnest that loses under 0.414 V and carries a trip of 19 A', () => {
    const found = wireFor(RUN, { tripA: 19 })
    expect(found.areaMm2).toBe(6)
    expect(found.allowedV).toBeCloseTo(0.414, 9)
  })
  it('a short run of little drop is still as thick as its trip asks', () => {
    expect(wireFor({ ...RUN, lengthM: 0.2, currentA: 5 }, { tripA: 30 }).areaMm2).toBe(6)
  })
  it('the chassis as return halves the loss, joints add to it', () => {
    expect(voltageDrop({ ...RUN, returnsBy: 'chassis' }, 2.5)).toBeCloseTo(0.8504 / 2, 4)
    expect(voltageDrop({ ...RUN, jointOhm: 0.01 }, 2.5) - voltageDrop(RUN, 2.5)).toBeCloseTo(0.148, 9)
  })
  it('a thicker wire never drops more, and the table rises', () => {
    const drops = WIRE_SIZES.map(({ areaMm2 }) => voltageDrop(RUN, areaMm2))
    expect(drops).toEqual([...drops].sort((a, b) => b - a))
    expect(WIRE_SIZES.map(({ amps }) => amps)).toEqual([...WIRE_SIZES].map(({ amps }) => amps).sort((a, b) => a - b))
  })
  // Resistance of a metre of copper at 20 °C, 2.5 mm²: 17.241 mΩ mm²/m over it (IEC 60028, from memory).
  it('at 20 °C is copper', () => expect(voltageDrop({ currentA: 1, lengthM: 1, returnsBy: 'chassis', temperatureK: 293.15 }, 2.5)).toBeCloseTo(0.0068964, 7))
  it('refuses a run no size does', () => expect(() => wireFor({ ...RUN, lengthM: 40, currentA: 100 }, { tripA: 100 })).toThrow(/two wires side by side/))
  it('the loom of four runs weighs 0.5279 kg', () => {
    const runs = [
      { lengthM: 3.6, areaMm2: 4, returnsBy: 'wire' },
      { lengthM: 2.2, areaMm2: 2.5, returnsBy: 'chassis' },
      { lengthM: 1.4, areaMm2: 1, returnsBy: 'wire' },
      { lengthM: 4.1, areaMm2: 0.5, returnsBy: 'wire' },
    ] as const
    expect(loomMass(runs).massKg).toBeCloseTo(0.5279, 4)
    expect(loomMass(runs).sdKg).toBeCloseTo(0.15 * 0.5279, 4)
  })
})

describe('supply and trips', () => {
  it('62.4 A of 110: 20.1 left hot, 7.4 short at idle, 1,588.4 W of belt, 13.85 minutes on 18 Ah', () => {
    const found = supply({
      circuits: [
        { currentA: 100, duty: 0.5 },
        { currentA: 12.4, duty: 1 },
      ],
      alternatorA: 110,
      batteryAh: 18,
    })
    expect(found.meanA).toBeCloseTo(62.4, 9)
    expect(found.hotA).toBeCloseTo(20.1, 9)
    expect(found.idleA).toBeCloseTo(-7.4, 9)
    expect(found.shaftW).toBeCloseTo(1588.4, 1)
    expect(found.batteryMinutes).toBeCloseTo(13.85, 2)
  })
  it('the pump on 20 A trips first, at 1.3514 times, then the fan on 30 A at 1.3636', () => {
    const out = (key: string, tripA: number, ...amps: number[]) => ({ key, tripA, circuits: amps.map((currentA) => ({ currentA, sdA: 0.1 * currentA })) })
    const found = firstToTrip([out('fan', 30, 22), out('radio', 10, 1.5), out('pump', 20, 14.8), out('spare', 20)])
    expect(found.map(({ key }) => key)).toEqual(['pump', 'fan', 'radio', 'spare'])
    expect(found[0]?.factor).toBeCloseTo(1.3514, 4)
    expect(found[1]?.factor).toBeCloseTo(1.3636, 4)
    expect(found[0]?.settingA).toBe(19)
    expect(found[3]?.factor).toBe(Number.POSITIVE_INFINITY)
  })
  test.each([
    ['a box that draws nothing', [{ currentA: 0, duty: 1 }], /0 A draws nothing/],
    ['a duty over one', [{ currentA: 5, duty: 1.2 }], /duty/],
  ])('refuses %s', (_, circuits, sentence) => expect(() => supply({ circuits, alternatorA: 110, batteryAh: 18 })).toThrow(sentence))
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

/** Both streams unmixed on a grid: each cell hands on what it could not exchange, second order in the cell. Another program for the same exchanger. */
function byGrid(units: number, ratio: number, cells: number): number {
  // The stream of less capacity runs down, in at 1; the other across, in at 0.
  const least = Array.from({ length: cells }, () => 1)
  let out = 0
  const each = units / cells
  for (let row = 0; row < cells; row++) {
    let across = 0
    for (let column = 0; column < cells; column++) {
      const down = least[column] as number
      // Means over the cell on both sides, solved for what is exchanged.
      const q = (each * (down - across)) / (1 + (each / 2) * (1 + ratio))
      least[column] = down - q
      across += q * ratio
    }
  }
  for (const value of least) out += value / cells
  return 1 - out
}

describe('cooling', () => {
  it('the rating says ε 0.54703, Cr 0.47361, UA 2,848.80', () => {
    const core = radiatorCore(RATING)
    expect(core.effectiveness).toBeCloseTo(0.54703, 5)
    expect(core.ratio).toBeCloseTo(0.47361, 5)
    expect(core.uaWPerK).toBeCloseTo(2848.8, 1)
  })
  it('settles at 379.22 ± 17.14 K hot, under 378.15 in 0.4751', () => {
    const found = settledCoolant(RATING, HOT, 126_500)
    expect(found.kWPerK).toBeCloseTo(1662.92, 2)
    expect(found.settledK).toBeCloseTo(379.22, 2)
    expect(found.sdK).toBeCloseTo(17.14, 2)
  })
  it('warms up with 51.72 s, and takes 154.1 s from 85 to 105 °C', () => {
    const { kWPerK, settledK } = settledCoolant(RATING, HOT, 126_500)
    const found = warmUp({ kWPerK, settledK, coolantL: 12, metalKg: 60, fromK: 358.15, limitK: 378.15 })
    expect(found.tauS).toBeCloseTo(51.72, 2)
    expect(found.seconds).toBeCloseTo(154.1, 1)
    // A step-by-step run of the same (Runge and Kutta's fourth order).
    const slope = (temperature: number) => (settledK - temperature) / found.tauS
    let [temperature, seconds] = [358.15, 0]
    while (temperature < 378.15) {
      const h = 0.01
      const k1 = slope(temperature)
      const k2 = slope(temperature + (h / 2) * k1)
      const k3 = slope(temperature + (h / 2) * k2)
      const k4 = slope(temperature + h * k3)
      temperature += (h / 6) * (k1 + 2 * k2 + 2 * k3 + k4)
      seconds += h
    }
    expect(seconds).toBeCloseTo(found.seconds ?? 0, 1)
    expect(warmUp({ kWPerK, settledK, coolantL: 12, metalKg: 60, fromK: 358.15, limitK: 390 }).seconds).toBeNull()
  })
  it('on a cold road settles at 298.49 K, and wants 0.7777 covered for 75 °C', () => {
    expect(coolingPerK(RATING, COLD)).toBeCloseTo(1173.12, 2)
    expect(settledCoolant(RATING, COLD, 18_000).settledK).toBeCloseTo(298.49, 2)
    const cover = coverFor(RATING, COLD, 18_000, 348.15)
    expect(cover).toBeCloseTo(0.7777, 4)
    expect(COLD.airK + 18_000 / coolingPerK(RATING, { ...COLD, covered: cover })).toBeCloseTo(348.15, 6)
  })
  it('needs no cover where it is warm as it is, and is not asked for the impossible', () => {
    expect(coverFor(RATING, HOT, 126_500, 348.15)).toBe(0)
    expect(() => coverFor(RATING, COLD, 18_000, 280)).toThrow(/warmer than what is wanted/)
    expect(() => coverFor(RATING, COLD, 100, 348.15)).toThrow(/thermostat/)
  })
  it('is what a grid of both streams says, to 1e-4', () => {
    for (const units of [0.3, 1, 2.5, 5])
      for (const ratio of [0.1, 0.5, 0.9, 1]) {
        const fine = byGrid(units, ratio, 400)
        const finer = byGrid(units, ratio, 800)
        // Both grids together, their error being of second order.
        expect(crossflowEffectiveness(units, ratio)).toBeCloseTo((4 * finer - fine) / 3, 4)
      }
  })
  it('with one stream without end is 1 − e^−N, and goes back to its transfer units', () => {
    for (const units of [0.2, 1, 3]) expect(crossflowEffectiveness(units, 0)).toBeCloseTo(1 - Math.exp(-units), 12)
    for (const units of [0.2, 1, 3, 8]) expect(crossflowUnits(crossflowEffectiveness(units, 0.6), 0.6)).toBeCloseTo(units, 8)
  })
  it('carries more at more speed and more flow', () => {
    fc.assert(
      fc.property(fc.double({ min: 5, max: 70, noNaN: true }), fc.double({ min: 0.0005, max: 0.004, noNaN: true }), (speedMps, flowM3PerS) => {
        const at = coolingPerK(RATING, { ...HOT, speedMps, flowM3PerS })
        expect(coolingPerK(RATING, { ...HOT, speedMps: speedMps * 1.1, flowM3PerS })).toBeGreaterThan(at)
        expect(coolingPerK(RATING, { ...HOT, speedMps, flowM3PerS: flowM3PerS * 1.1 })).toBeGreaterThanOrEqual(at - 1e-9)
      }),
    )
  })
  test.each<[string, Partial<RadiatorRating>, RegExp]>([
    ['a rating at no difference', { ratedItdK: 0 }, /ratedItdK/],
    ['more than the air carries', { ratedW: 190_000 }, /more than the air carries \(ε 1\.09\)/],
    ['litres a second as cubic metres', { ratedFlowM3PerS: 1.7 }, /1 200 L\/min/],
  ])('refuses %s', (_, more, sentence) => expect(() => radiatorCore({ ...RATING, ...more })).toThrow(sentence))
  it('refuses a share of the face over one', () => expect(() => coolingPerK(RATING, { ...HOT, faceShare: 1.2 })).toThrow(/faceShare/))
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

describe('will it fit', () => {
  const CORE = { lengthM: 0.6, widthM: 0.4, heightM: 0.06 }
  it('says which way round, and how much is left', () => {
    const found = fitsIn(CORE, { lengthM: 0.42, widthM: 0.07, heightM: 0.62 })
    expect(found).toMatchObject({ fits: true, along: ['widthM', 'heightM', 'lengthM'] })
    expect(found.leastRoomM).toBeCloseTo(0.01, 9)
  })
  it('says by how much it is too large', () => {
    const found = fitsIn(CORE, { lengthM: 0.55, widthM: 0.5, heightM: 0.3 })
    expect(found.fits).toBe(false)
    expect(found.leastRoomM).toBeCloseTo(-0.05, 9)
  })
  it('is the same whichever way the space is told', () => {
    const all = [0.42, 0.07, 0.62]
    const rooms = [
      [0, 1, 2],
      [1, 2, 0],
      [2, 0, 1],
    ].map(([a = 0, b = 0, c = 0]) => fitsIn(CORE, { lengthM: all[a] as number, widthM: all[b] as number, heightM: all[c] as number }).leastRoomM)
    for (const room of rooms) expect(room).toBeCloseTo(0.01, 9)
  })
  it('refuses a part without a size', () => expect(() => fitsIn({ ...CORE, heightM: 0 }, CORE)).toThrow(/heightM/))
})
