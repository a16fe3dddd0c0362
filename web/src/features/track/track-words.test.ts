import type { LapPlan, StageLap } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { axisStep } from '../../ui/drawing/axis-step.ts'
import { mayBelongTo } from './compare/belongs.ts'
import { lapPieces, secondsHeld } from './lap/lap-pieces.ts'
import { lineWords } from './lap/ledger-figure.tsx'
import { guessRange, trackNews, wantedWords } from './news.ts'
import { RECORD, session } from './session-fixture.ts'
import { firstLook } from './sessions/session-detail.tsx'

describe('words', () => {
  const text = ((_: string, value: number, options?: { decimals?: number }) => value.toFixed(options?.decimals ?? 1)) as never
  const stage = { lapS: 84.4, sdS: 0.4, proof: 'calculated', how: 'fitted' } as StageLap
  it('of a wish follow its chance', () => {
    expect(wantedWords(stage, 83.5)).toBe('unlikely')
    expect(wantedWords(stage, 84.4)).toBe('doubtful')
    expect(wantedWords(stage, 85)).toBe('on course')
    expect(wantedWords({ ...stage, proof: 'measured' }, 84)).toBe('missed')
    expect(wantedWords({ ...stage, proof: 'measured' }, 84.4)).toBe('met')
  })
  it('of a title: nothing drawn, a guess in whole seconds, planned and wanted, drift', () => {
    const made = { lap: { missing: [] }, wantedS: { f: 83.5, other: 80 } } as never
    const room = { drift: { runs: 31, pairsUsed: 12, entryMps: { value: 26 } } } as never
    const news = (more: object) => trackNews({ room, made, position: 4, track: { id: 'f', name: 'Field' }, stage, isDrift: false, text, ...more })
    expect(news({ track: null })).toMatch(/Draw or import/)
    expect(news({})).toBe('Field at stage 4: 84.40 planned, 83.50 wanted, unlikely')
    expect(news({ stage: { ...stage, how: 'guess', sdS: 2.4 } })).toBe('Field at stage 4: 82 to 87, a guess')
    expect(news({ stage: null, made: { lap: { missing: [{ what: 'its power: none' }] }, wantedS: {} } })).toBe(
      'Field at stage 4: no lap until we know its power',
    )
    expect(news({ isDrift: true })).toBe('31 runs on 12 rear pairs, entry 26')
    expect(guessRange({ lapS: 84.4, sdS: 2.5 })).toEqual([81, 87])
  })
  it('of the first look come before any time', () => {
    expect(firstLook(session({ logger: 'nothing', ease: 1 }, { laps: [] }))).toEqual([
      'The logger recorded nothing.',
      'No lap is on record yet.',
      'No hot pressures were read.',
      'The driver was not at ease in the car: its laps may be the driver’s.',
    ])
    expect(firstLook(session({ kind: 'runs' }, { laps: [], runs: [] }))).toEqual(['No run is on record yet.'])
    const wheel = (mean: number) => ({ coldPa: null, coldK: null, hotPa: 200_000, isBled: false, treadK: [mean - 4, mean, mean + 4], discK: null })
    const corners = { LF: wheel(330), RF: wheel(350), LR: wheel(390), RR: wheel(360) } as never
    const tyre = { id: 't', name: 'soft', count: 4, hotPa: null, windowK: { least: 343, most: 373 }, warmUpLaps: 2 }
    expect(firstLook(session({ corners, frontTyresPartId: 't', rearTyresPartId: 't' }), [tyre])).toEqual([
      'The tread of the left front was 13 K under what its tyre works in.',
      'The tread of the left rear was 17 K over what its tyre works in.',
    ])
    expect(firstLook(session({ corners, frontTyresPartId: 't' }), [{ ...tyre, windowK: null }])).toEqual([])
  })
  it('of what a difference may belong to', () => {
    const at = (kelvin: number) => ({ ...RECORD.ambient, temperatureK: kelvin }) as never
    const found = mayBelongTo(session({ ambient: at(283), turned: [] }), session({ ambient: at(295), driver: 'Ilse', ease: 2 }, { position: 3 }), text)
    expect(found).toEqual([
      'the car: stage 2 against stage 3',
      'rear bar turned from soft to middle',
      'the driver: Wen against Ilse',
      'the air: 283.0 against 295.0',
      'the driver’s ease: 4 against 2 of 5',
    ])
    expect(mayBelongTo(session({ turned: [] }), session({ turned: [] }), text)).toEqual([])
  })
  it('of the ledger name what moved', () => {
    expect(lineWords({ part: 'mass', by: -12.3 }, [], text)).toBe('12.3 lighter')
    expect(lineWords({ part: 'aero', by: 0.5 }, ['wing', 'splitter', 'floor'], text)).toBe('wing, splitter and floor, as a set')
    expect(lineWords({ part: 'aero', by: 0.1 }, [], text)).toBe('the air around it')
    expect(lineWords({ part: 'tyres', by: 0.02 }, [], text)).toBe('tyres, 0.0 more grip')
  })
})

describe('a lap as stretches', () => {
  const holders = ['grip', 'grip', 'power', 'shift', 'power', 'power', 'braking', 'grip'] as const
  const made = {
    cells: holders.map((_, i) => ({ atM: 10 * i, lengthM: 10 })),
    holder: [...holders],
    timeS: Float64Array.from({ length: 9 }, (_, i) => 0.4 * i),
    secondsBy: { grip: 1.2, power: 1.2, shift: 0.4, braking: 0.4, gear: 0 },
  } as unknown as Parameters<typeof lapPieces>[0]
  it('a shift is the engine’s, and the seconds add up', () => {
    const pieces = lapPieces(made)
    expect(pieces.map(({ by, fromM, toM }) => [by, fromM, toM])).toEqual([
      ['tyres', 0, 20],
      ['engine', 20, 60],
      ['brakes', 60, 70],
      ['tyres', 70, 80],
    ])
    expect(pieces.reduce((sum, { fromS, toS }) => sum + toS - fromS, 0)).toBeCloseTo(3.2, 9)
    expect(secondsHeld(made)).toEqual({ tyres: 1.2, engine: 1.6, brakes: 0.4 })
  })
  it('steps of an axis are round', () => {
    expect([0.37, 4.2, 83, 260].map((span) => axisStep(span))).toEqual([0.1, 1, 20, 50])
  })
})

// A plan is what the page and the pool work a lap out of: the type must stay plain data.
test('a plan of a lap is data that a thread can be handed', () => {
  const plan = {
    track: { segments: [], isClosed: true },
    stage: { car: null, inputs: [], missing: [], uncounted: [], tyrePartId: null, braking: null },
    driven: null,
    anchor: null,
    isUnchanged: false,
    pairs: [],
  } satisfies LapPlan
  expect(JSON.parse(JSON.stringify(plan))).toEqual(plan)
})
