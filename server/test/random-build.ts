import { randomUUID } from 'node:crypto'
import { BUILD_FILE_FORMAT, BUILD_FILE_VERSION, type BuildFile, buildFileSchema } from '@bold-ballast/contract'
import fc from 'fast-check'
import { buildBody } from './test-server.ts'

const at = (day: number, hour: number) => new Date(Date.UTC(2026, 0, 1 + day, hour)).toISOString()
const grid = (peakW: number) => ({ stepRpm: 50, firstSpeedRpm: 3000, powerW: [peakW * 0.7, peakW * 0.9, peakW] })

interface Shape {
  readonly offs: readonly { kg: number; proof: 'guess' | 'catalogue' | 'measured'; done: boolean; typed: string; stage: number }[]
  readonly weighings: readonly { day: number; kg: number; fuelL: number }[]
  readonly pulls: readonly number[]
  readonly goalKg: number
}

/** A build file of any shape; ids are fresh each time, so that two never meet in one database. */
function fileOf({ offs, weighings, pulls, goalKg }: Shape): BuildFile {
  const stages = ['As bought', 'Strip', 'Power'].map((name, position) => ({ id: randomUUID(), position, name }))
  const sessionId = randomUUID()
  const boxId = randomUUID()
  const place = { xM: goalKg / 1000, yM: -0.2, zM: 0.4 }
  const weighingIds = weighings.map(() => randomUUID())
  const pullRecords = pulls.map((peakW, position) => ({
    id: randomUUID(),
    sessionId,
    position,
    label: String(position + 1),
    peakPowerW: peakW,
    peakPowerSpeedRpm: 3100,
    peakTorqueNm: peakW / 320,
    curve: grid(peakW),
  }))
  return buildFileSchema.parse({
    format: BUILD_FILE_FORMAT,
    formatVersion: BUILD_FILE_VERSION,
    build: { ...buildBody(), baselineMass: { massKg: 1300, sdKg: null, proof: 'catalogue', typed: '1300 kg' } },
    stages,
    targets: [{ id: randomUUID(), metric: 'massReady', sense: 'atMost', value: goalKg, typed: `${goalKg} kg` }],
    limits: [{ id: randomUUID(), metric: 'massReady', sense: 'atLeast', value: 900, source: 'classRule' }],
    changes: offs.map(({ kg, proof, done, typed, stage }, i) => ({
      id: randomUUID(),
      stageId: stages[stage]?.id,
      kind: i % 3 === 2 ? 'on' : 'off',
      name: i === 0 ? 'bench' : `part ${i}`,
      count: 1 + (i % 2),
      // Every fourth was weighed in a box, every fifth by nobody.
      values:
        i % 5 === 4
          ? []
          : [{ massKg: kg, sdKg: null, proof, typed, at: at(i, 8), box: i % 4 === 3 ? { boxId, position: i, readingKg: 90 + i, readingSdKg: 0.1 } : null }],
      boxId: i % 4 === 3 ? boxId : null,
      zone: i % 2 ? 'Cabin' : null,
      place: i % 3 === 1 ? place : null,
      cost: i % 3 === 0 ? kg : null,
      hours: i % 3 === 0 ? i / 2 : null,
      state: done ? 'done' : 'planned',
      doneAt: done ? at(i, 9) : null,
    })),
    expectations: [{ id: randomUUID(), stageId: stages[2]?.id, mode: 'times', value: 1.2, sd: 0.05, proof: 'guess' }],
    zones: [{ id: randomUUID(), name: 'cabin', place }],
    boxes: [{ id: boxId, name: 'crate', emptyKg: 1.2, typed: '1.2' }],
    sites: [{ id: randomUUID(), name: 'floor', place, limitKg: 20, plates: [{ massKg: 2.5, count: 4 }] }],
    ballastAims: [{ id: randomUUID(), stageId: stages[2]?.id, minimumKg: goalKg, objective: 'nearestShares', front: { value: 0.52 }, loadFactorG: 20 }],
    lifts: weighingIds.slice(0, 1).map((weighingId) => ({
      id: randomUUID(),
      weighingId,
      at: at(61, 9),
      lifted: 'rear',
      liftM: 0.4,
      rearAxleKg: 500,
      radiusFrontM: 0.3,
      radiusRearM: 0.31,
    })),
    balanceSteps: [
      {
        id: randomUUID(),
        stageId: stages[1]?.id,
        at: at(3, 9),
        school: 'heightKept',
        wantedCrossRfLr: 0.5,
        before: { LF: 300, RF: 301, LR: 290, RR: 291 },
        turns: { LF: 0.25, RF: -0.25, LR: 0, RR: 0.5 },
      },
    ],
    weighings: weighings.map(({ day, kg, fuelL }, i) => ({
      id: weighingIds[i],
      conditions: i % 2 ? { barsDisconnected: true, tyrePressurePa: 180_000 } : null,
      stageId: stages[1]?.id,
      at: at(day, 12),
      pads: { LF: { massKg: kg }, RF: { massKg: kg * 1.01 }, LR: { massKg: kg * 0.9 }, RR: { massKg: kg * 0.92 } },
      driverInKg: 0,
      fuelL,
    })),
    sessions: [{ id: sessionId, stageId: stages[0]?.id, at: at(2, 10), dynoName: 'hall dyno', place: 'hub', printedStandard: 'SAE J1349' }],
    pulls: pullRecords,
  })
}

export const smallBuildFile = (): BuildFile =>
  fileOf({
    offs: [
      { kg: 18.6, proof: 'measured', done: true, typed: '18.6 kg', stage: 1 },
      { kg: 41 * 0.45359237, proof: 'guess', done: true, typed: '41 lb', stage: 1 },
      { kg: 12, proof: 'catalogue', done: false, typed: '12', stage: 2 },
    ],
    weighings: [{ day: 40, kg: 310, fuelL: 20 }],
    pulls: [118_000, 119_000],
    goalKg: 1200,
  })

/** Build files of any size and content that the rules allow. */
export const randomBuildFile = (): fc.Arbitrary<BuildFile> =>
  fc
    .record({
      offs: fc.array(
        fc.record({
          kg: fc.double({ min: 0.01, max: 90, noNaN: true }),
          proof: fc.constantFrom('guess' as const, 'catalogue' as const, 'measured' as const),
          done: fc.boolean(),
          typed: fc.string({ maxLength: 20, unit: 'binary' }).filter((text) => !text.includes('\0')),
          stage: fc.integer({ min: 1, max: 2 }),
        }),
        { maxLength: 12 },
      ),
      weighings: fc.array(
        fc.record({
          day: fc.integer({ min: 0, max: 60 }),
          kg: fc.double({ min: 250, max: 400, noNaN: true }),
          fuelL: fc.double({ min: 0, max: 60, noNaN: true }),
        }),
        { maxLength: 4 },
      ),
      pulls: fc.array(fc.double({ min: 50_000, max: 400_000, noNaN: true }), { minLength: 1, maxLength: 3 }),
      goalKg: fc.double({ min: 800, max: 1400, noNaN: true }),
    })
    .map(fileOf)
