import { describe, expect, it, test } from 'vitest'
import { changed } from '../../../test/worked-example.ts'
import { makeBoard } from '../../board/board.ts'
import { makeWorking } from '../../board/working.ts'
import { type Check, checkKind, markKind } from '../../records/check-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { circuitKind, coolingPlanKind, powerBoxKind } from '../../records/systems-kinds.ts'
import { trackKind } from '../../records/track/track-kinds.ts'
import { trackLogKind } from '../../records/track/track-log-kinds.ts'
import { trackSessionKind } from '../../records/track/track-session-kinds.ts'
import { openCar } from '../../stages/car.ts'
import { z } from '../../zod.ts'
import { readCircuitLine } from './circuit-line.ts'
import { coolingSetup, coolingView } from './cooling.ts'
import { electricsAtStage, placingOf } from './electrics.ts'
import { coolantHotValue, leastGapValue, supplyMarginValue } from './metrics.ts'
import { makeSystemsRoom } from './systems-room.ts'

const TODAY = '2027-03-01'
const box = (more: object = {}) =>
  z.object(powerBoxKind.fields).parse({
    id: 'box',
    stageId: 's1',
    name: 'module',
    outputs: [
      { key: 'A1', ratedA: 20, tripA: 19 },
      { key: 'A2', ratedA: 10 },
      { key: 'A3', ratedA: 30 },
    ],
    peakShare: 3,
    ...more,
  })
const circuit = (name: string, currentA: number, more: object = {}) =>
  z.object(circuitKind.fields).parse({ id: name, name, currentA, known: 'catalogue', ...more })
const electric = (edit: (all: BuildRecords) => void = () => undefined) =>
  changed((all) => {
    all.powerBoxes.push(box())
    all.circuits.push(
      circuit('pump', 14.8, { output: 'A1', group: 'run', isVital: true, startFactor: 3, lengthM: 3.6 }),
      circuit('radio', 1.5, { output: 'A2', group: 'key', lengthM: 2, areaMm2: 0.35, behindKill: false }),
      circuit('dash', 2.2, { output: 'A2', group: 'key', lengthM: 1.5 }),
      circuit('later', 5, { stageId: 's2' }),
    )
    edit(all)
  })

describe('electrics of a stage', () => {
  const view = electricsAtStage(electric(), 1)
  it('trips first where the load is nearest its trip, and says what stays free and what has no output', () => {
    expect(view.first?.key).toBe('A1')
    expect(view.first?.factor).toBeCloseTo(19 / 14.8, 9)
    expect(view.free).toEqual([{ ratedA: 30, count: 1 }])
    expect([view.unplaced, electricsAtStage(electric(), 2).unplaced.map(({ name }) => name)]).toEqual([[], ['later']])
    expect(view.outsideKill.map(({ name }) => name)).toEqual(['radio'])
  })
  it('wires by drop and trip as worked by hand; a trip over what a laid wire carries is told', () => {
    expect(view.wires.find((wire) => wire.circuit.name === 'pump')?.needMm2).toBe(6)
    expect(view.wires.filter(({ tripOverWire }) => tripOverWire).map((wire) => wire.circuit.name)).toEqual(['radio'])
    expect(view.loom?.massKg).toBeGreaterThan(0.4)
  })
  it('a group broken up, a shared vital one and an output over its load are told', () => {
    const crowded = electricsAtStage(
      electric((all) => {
        for (const each of all.circuits) each.output = 'A2'
      }),
      1,
    ).outputs.find(({ key }) => key === 'A2')
    expect(crowded?.problems.join(' ')).toMatch(/more than 80 % of its 10 A.*A start draws.*not switched together.*A vital circuit shares/)
  })
  it('what is switched alone is a group of its own, and only what is pinned stays', () => {
    const { circuits } = placingOf(
      box(),
      electric((all) => Object.assign(all.circuits[0] as object, { isPinned: true }))
        .circuits.filter(({ name }) => name !== 'later')
        .concat(circuit('horn', 4)),
    )
    expect(circuits.map(({ group, pinned }) => [group, pinned])).toEqual([
      ['run', 'A1'],
      ['key', null],
      ['key', null],
      ['alone horn', null],
    ])
  })
})

// The worked example of the rules (invented numbers).
const plan = (more: object = {}) =>
  z.object(coolingPlanKind.fields).parse({
    id: 'k',
    stageId: 's1',
    heatW: 126_500,
    areaM2: 0.24,
    rating: { ratedW: 95_000, ratedItdK: 60, ratedFaceMps: 10, ratedFlowM3PerS: 100 / 60_000 },
    mount: 'ductedNose',
    flowM3PerS: 120 / 60_000,
    fluidL: 12,
    hot: { speedMps: 38, airK: 303.15, airDensityKgM3: 1.15 },
    cold: { speedMps: 22, airK: 283.15, airDensityKgM3: 1.25, heatW: 18_000 },
    stopK: 378.15,
    warmK: 348.15,
    thermostatK: 358.15,
    ...more,
  })
const bases = { discipline: 'timeAttack', planHeatW: null } as const

describe('cooling of a stage', () => {
  it('as worked by hand, hot and cold', () => {
    const view = coolingView(coolingSetup(plan(), bases), 1)
    expect([view.hot.settledK, view.hot.sdK, view.chanceUnder]).toEqual([expect.closeTo(379.22, 2), expect.closeTo(17.14, 2), expect.closeTo(0.4751, 4)])
    expect([view.tauS, view.secondsToStop]).toEqual([expect.closeTo(51.72, 2), expect.closeTo(154.1, 1)])
    expect([view.cold?.settledK, view.cold?.cover, view.cold?.isHeld]).toEqual([expect.closeTo(298.49, 2), expect.closeTo(0.7777, 4), true])
    expect(view.mostDoubt).toBe('heat')
  })
  it('three logged laps near each other stand for air and rating; one alone only moves the number', () => {
    const hotAt = plan().hot
    // Laps a tenth better than the rating says, spread over ± 2 %.
    const logged = [1.08, 1.1, 1.12].map((factor) => ({ speedMps: 38, airK: hotAt.airK, coolantK: hotAt.airK + 76.07 / factor, heatW: 126_500 }))
    const [one, three] = [logged.slice(1, 2), logged].map((laps) => coolingSetup(plan({ logged: laps, hot: { ...hotAt, airDensityKgM3: null } }), bases))
    const bare = coolingView(coolingSetup(plan({ hot: { ...hotAt, airDensityKgM3: null } }), bases), 1)
    expect(three?.loggedShare).toBeCloseTo(0.0182, 3)
    expect(one?.loggedShare).toBeNull()
    const [viewOne, viewThree] = [one, three].map((setup) => coolingView(setup as never, 1))
    expect((viewOne?.hot.settledK ?? 0) - hotAt.airK).toBeCloseTo(76.07 / 1.1, 4)
    expect(viewThree?.hot.sdK).toBeLessThan(bare.hot.sdK * 0.75)
  })
  it('a lap stands for a rating that nobody typed, and gives back its own temperature', () => {
    const lap = { speedMps: 38, airK: 303.15, coolantK: 371.15, heatW: 110_000 }
    const setup = coolingSetup(plan({ rating: null, logged: [lap], hot: { speedMps: 38, airK: 303.15, airDensityKgM3: null }, heatW: 110_000 }), bases)
    expect(coolingView(setup, 1).hot.settledK).toBeCloseTo(371.15, 6)
  })
  test.each([
    ['no rating and no lap', { rating: null }, /cannot be judged by its size/],
    ['no heat', { heatW: null }, /Nobody knows the heat yet/],
    [
      'a rating the air cannot carry',
      { rating: { ratedW: 200_000, ratedItdK: 60, ratedFaceMps: 10, ratedFlowM3PerS: 100 / 60_000 } },
      /The rating asks more than the air carries \(ε 1\.15\)/,
    ],
  ])('refuses %s', (_, more, words) => expect(() => coolingView(coolingSetup(plan(more), bases), 1)).toThrow(words))
  it('heat by the engine plan counts as much of it as a lap does', () => {
    expect(coolingSetup(plan({ heatW: null }), { ...bases, planHeatW: 230_000 }).heatW).toBeCloseTo(126_500, 6)
    expect(coolingSetup(plan({ heatW: null }), { discipline: 'drift', planHeatW: 100_000 }).heatW).toBeCloseTo(70_000, 6)
  })
})

const check = (fields: object): Check => z.object(checkKind.fields).parse(fields)
const gapCheck = check({
  id: 'g',
  kind: 'gap',
  name: 'Downpipe to brake pipe',
  gap: { neighbour: 'brake pipe', nature: 'hot', needM: 0.025, expansionPerK: 17.3e-6, lengthM: 0.9, riseK: 550, moveM: 0.006 },
})
const mark = (fields: object) =>
  z.object(markKind.fields).parse({ id: crypto.randomUUID(), stageId: 's1', at: '2027-02-01T10:00:00Z', result: 'ok', ...fields })
const whole = (edit: (all: BuildRecords) => void = () => undefined) =>
  openCar(
    electric((all) => {
      all.build.supply = { alternatorA: 110, hotShare: 0.75, idleShare: 0.5, batteryAh: 18, usable: 0.8, efficiency: 0.55 }
      all.coolingPlans.push(plan() as never)
      all.checks.push(
        gapCheck,
        check({ id: 'c', kind: 'reading', name: 'Coolant', reading: { quantity: 'temperature', role: 'coolant', stopHigh: 378.15, warnHigh: 373.15 } }),
      )
      all.marks.push(mark({ checkId: 'g', value: 0.032 }))
      edit(all)
    }),
  )

describe('what the Board shows of them', () => {
  it('a gap hot as worked by hand, tight, and never called measured while it grows', () => {
    const [gap] = makeSystemsRoom(whole()).stages[1]?.gaps ?? []
    expect(gap?.hotM).toBeCloseTo(0.01744, 5)
    expect([gap?.verdict, leastGapValue(whole(), 1)?.proof]).toEqual(['tight', 'calculated'])
  })
  it('the alternator hot, and its draw by a clamp', () => {
    expect(supplyMarginValue(whole(), 1)?.value).toBeCloseTo(82.5 - 18.5, 9)
    const clamped = whole((all) => {
      all.checks.push(check({ id: 'a', kind: 'reading', name: 'Draw', reading: { quantity: 'current', role: 'current' } }))
      all.marks.push(mark({ checkId: 'a', value: 62.4 }))
    })
    expect(supplyMarginValue(clamped, 1)).toMatchObject({ value: expect.closeTo(20.1, 9), proof: 'measured' })
  })
  it('coolant is reckoned until it was read at full pace in such air; two days confirm', () => {
    const read = (days: readonly number[], airC = 31) =>
      coolantHotValue(
        whole((all) => {
          all.tracks.push(z.object(trackKind.fields).parse({ id: 't', name: 't', segments: [{ lengthM: 500 }] }) as never)
          for (const [i, celsius] of days.entries()) {
            const at = `2027-02-0${i + 1}T10:00:00Z`
            const ambient = { pressurePa: 101_000, pressureKind: 'station', temperatureK: airC + 273.15, relativeHumidity: 0.4 }
            all.trackSessions.push(z.object(trackSessionKind.fields).parse({ id: `s${i}`, stageId: 's1', trackId: 't', at, ambient }) as never)
            all.marks.push(mark({ checkId: 'c', at, trackSessionId: `s${i}`, value: celsius + 273.15 }))
          }
        }),
        1,
      )
    expect(read([])?.proof).toBe('calculated')
    expect(read([96])).toMatchObject({ proof: 'measured', value: expect.closeTo(369.15, 9) })
    expect(read([96, 97])?.proof).toBe('confirmed')
    expect(read([96], 12)?.proof).toBe('calculated')
  })
  it('a usual duct or load that carries most of the doubt makes it a guess', () => {
    expect(
      coolantHotValue(
        whole((all) => Object.assign(all.coolingPlans[0] as object, { faceShare: 0.28 })),
        1,
      )?.proof,
    ).toBe('calculated')
    const view = whole((all) => Object.assign(all.coolingPlans[0] as object, { rating: { ...plan().rating, known: 'guess' }, faceShare: null }))
    expect(['guess', 'calculated']).toContain(coolantHotValue(view, 1)?.proof)
  })
  it('their own limits join the goals: a coolant over its stop would break it', () => {
    const board = makeBoard(whole(), TODAY)
    expect(board.rows.filter(({ metric }) => ['coolantHot', 'supplyMargin', 'leastGap'].includes(metric)).map(({ metric }) => metric)).toEqual([
      'coolantHot',
      'supplyMargin',
      'leastGap',
    ])
    expect(board.next.some(({ code }) => code === 'limit-would-break')).toBe(true)
  })
  test.each(['coolantHot', 'supplyMargin', 'leastGap'] as const)('%s has a working', (of) => {
    const working = makeWorking(whole(), of, 's1', TODAY)
    expect(working.lines.length).toBeGreaterThan(1)
  })
})

it('an alarm that cries in good runs is told, and a reading over its stop', () => {
  const car = whole((all) => {
    all.tracks.push(z.object(trackKind.fields).parse({ id: 't', name: 't', segments: [{ lengthM: 500 }] }) as never)
    for (let i = 0; i < 5; i++) {
      all.trackSessions.push(z.object(trackSessionKind.fields).parse({ id: `s${i}`, stageId: 's1', trackId: 't', at: '2027-02-01T10:00:00Z' }) as never)
      const channel = { role: 'coolant', name: 'ECT', unit: '°C', rateHz: 5, count: 100, min: 300, max: i === 0 ? 375 : 360, gapShare: 0 }
      all.trackLogs.push(
        z
          .object(trackLogKind.fields)
          .parse({ id: `l${i}`, trackSessionId: `s${i}`, loggerName: 'x', fileName: 'x', rowCount: 9, durationS: 60, channels: [channel] }) as never,
      )
    }
    all.marks.push(mark({ checkId: 'c', value: 380 }))
  })
  const codes = makeBoard(car, TODAY).next
  expect(codes.find(({ code }) => code === 'alarm-cries')).toMatchObject({ runs: 5, cried: 1 })
  expect(codes.find(({ code }) => code === 'channel-over-stop')).toMatchObject({ name: 'Coolant' })
})

describe('a line of a circuit', () => {
  test.each([
    ['circuit fan 22 A 3.6 m', { name: 'Fan', currentA: 22, lengthM: 3.6, startFactor: 3 }],
    ['ignition 11 A 2 m group run vital measured', { name: 'Ignition', group: 'run', isVital: true, known: 'measured', startFactor: 1 }],
    ['rain light 2.4 A duty 20 % chassis live', { name: 'Rain light', duty: 0.2, return: 'chassis', behindKill: false }],
    ['water pump 9 A ± 1 4 m pin O3 x4 4 mm2', { name: 'Water pump', sdA: 1, output: 'O3', isPinned: true, startFactor: 4, areaMm2: 4 }],
    ['wheel speed signal 3 m', { name: 'Wheel speed', kind: 'signal', dropShare: 0.01, currentA: 0 }],
  ])('%s', (line, wanted) => {
    const read = readCircuitLine(line, '.')
    expect(read).toMatchObject(wanted)
    expect(z.object(circuitKind.fields).safeParse({ id: 'x', ...read }).success).toBe(true)
  })
  test.each([
    ['fan', /Say what it draws/],
    ['fan 0 A', /0 A draws nothing/],
    ['22 A 3 m', /has no name/],
    ['fan 5 A 12 V', /was not understood/],
  ])('refuses %s', (line, words) => expect(() => readCircuitLine(line, '.')).toThrow(words))
})
