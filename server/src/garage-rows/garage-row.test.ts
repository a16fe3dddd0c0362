import { readFileSync } from 'node:fs'
import { buildFileSchema } from '@bold-ballast/contract'
import { type BuildRecords, lateValue, makeBoard, openCar, type StageValue, summariseRoad } from '@bold-ballast/core'
import { describe, expect, it } from 'vitest'
import { garageRow, type LateKnown, NOTHING_KNOWN } from './garage-row.ts'

const DAY = '2026-11-30'
const demo = (name: string): BuildRecords =>
  buildFileSchema.parse(JSON.parse(readFileSync(new URL(`../../../demo/${name}/build.json`, import.meta.url), 'utf8')))
const ask = (records: BuildRecords, known: LateKnown = NOTHING_KNOWN) => garageRow({ records, day: DAY, brokenCount: 0, known })

describe('a row of the Garage', () => {
  it.each(['gannet', 'osprey', 'petrel'])('of %s says what it lacks, and is whole once that is known', (name) => {
    const records = demo(name)
    const car = openCar(records)
    let known = NOTHING_KNOWN
    let made = ask(records)
    const asked: string[] = []
    // A known value may ask for another; no question comes twice.
    while (made.lacks.metrics.length + made.lacks.roads.length > 0) {
      expect(made.row.isWaiting).toBe(true)
      asked.push(...made.lacks.metrics)
      const values = made.lacks.metrics.map((metric) => [metric, car.stages.map((_, at): StageValue | undefined => lateValue(car, at, metric))] as const)
      const roads = made.lacks.roads.map((road) => ({ asked: road, found: summariseRoad(road) }))
      known = { values: { ...known.values, ...Object.fromEntries(values) }, roads: [...known.roads, ...roads] }
      made = ask(records, known)
    }
    expect(new Set(asked).size).toBe(asked.length)
    expect(made.row.isWaiting).toBeUndefined()
    const board = makeBoard(car, DAY)
    expect(made.row).toMatchObject({ stageCount: board.stages.length, trail: board.trail, problem: null })
    expect(made.row.mass?.value).toBeGreaterThan(500)
  })
  it('names how many records are broken', () => {
    expect(garageRow({ records: demo('petrel'), day: DAY, brokenCount: 1, known: NOTHING_KNOWN }).row.problem).toBe('One record is broken and left out.')
    expect(garageRow({ records: demo('petrel'), day: DAY, brokenCount: 3, known: NOTHING_KNOWN }).row.problem).toBe('3 records are broken and left out.')
  })
})
