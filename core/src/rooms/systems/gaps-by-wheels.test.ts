import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_RECORDS } from '../../calculations/examples/example-records.ts'
import { buildRecordsSchema } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { readCheckLine } from '../checks/check-line.ts'
import { gapsAtStage } from './gaps.ts'
import { leastGapValue } from './metrics.ts'

const [bought, strip] = (EXAMPLE_RECORDS.stages ?? []) as unknown as readonly [{ id: string }, { id: string }]
const part = (id: string, stage: { id: string }, drive: object) => ({ id, name: id, kind: 'other', stageId: stage.id, status: 'fitted', drive })
const wheel = (id: string, stage: { id: string }, drive: object) => part(id, stage, { role: 'wheel', ...drive })
const tyre = (id: string, stage: { id: string }, code: string) => part(id, stage, { role: 'tyre', code })

/** One gap of 12 mm, measured with the wheels of the first stage. */
const carOf = (besideWheel: string, parts: object[]) =>
  openCar(
    buildRecordsSchema.parse({
      ...EXAMPLE_RECORDS,
      parts,
      checks: [{ id: 'g', kind: 'gap', name: 'Wheel to strut', gap: { neighbour: 'strut', needM: 0.005, besideWheel } }],
      marks: [{ id: 'm', checkId: 'g', stageId: bought.id, at: '2027-02-01T10:00:00Z', result: 'ok', value: 0.012 }],
    }),
  )
const gapAt = (besideWheel: string, parts: object[], position: number) => gapsAtStage(carOf(besideWheel, parts).records, position)[0]

/** 45 to 30 mm of offset and a spacer of 5: the rim's middle stands 20 mm further out; 225 to 265 mm of tyre: 20 mm more to each side. */
const OLD = [wheel('old', bought, { offsetM: 0.045, widthM: 0.203 }), tyre('narrow', bought, '225/40R18')]
const NEW = [wheel('new', strip, { offsetM: 0.03, spacerM: 0.005, widthM: 0.2286 }), tyre('wide', strip, '265/35R18')]

describe('gaps beside a wheel', () => {
  test.each([
    ['frontInside', [...OLD, ...NEW], 0],
    ['frontOutside', [...OLD, ...NEW], -0.04],
    ['rearInside', [...OLD, wheel('new', strip, { offsetM: 0.03, widthM: 0.203 })], 0.015],
    ['rearOutside', [...OLD, wheel('new', strip, { axle: 'front', offsetM: 0.03, widthM: 0.203 })], 0],
    // Without codes the rims tell what is wider: 25.6 mm, half of it to each side.
    ['frontInside', [OLD[0], NEW[0]], 0.02 - 0.0128],
    // The same rims on a spacer of 8 mm: spokes stand off the caliper by it.
    ['frontCaliper', [OLD[0], wheel('spaced', strip, { offsetM: 0.045, widthM: 0.203, spacerM: 0.008 })], 0.008],
  ])('%s follows what changed', (side, parts, byM) => {
    const gap = gapAt(side, parts as object[], 1)
    expect(gap?.byWheelsM).toBeCloseTo(byM, 9)
    expect(gap?.coldM).toBeCloseTo(Math.max(0, 0.012 + byM), 9)
    // At its own stage it is what was measured.
    expect(gapAt(side, parts as object[], 0)).toMatchObject({ coldM: 0.012, byWheelsM: 0 })
  })
  it('closed by wider wheels, it touches, and is calculated at most', () => {
    const car = carOf('frontOutside', [...OLD, ...NEW])
    expect(gapsAtStage(car.records, 1)[0]).toMatchObject({ coldM: 0, verdict: 'touches', isPlain: false })
    expect([leastGapValue(car, 0)?.proof, leastGapValue(car, 1)?.proof]).toEqual(['measured', 'calculated'])
  })
  test.each([
    ['frontInside', [...OLD, wheel('new', strip, { widthM: 0.2286 })], 'type offset and spacer of both'],
    ['frontInside', [wheel('old', bought, { offsetM: 0.045 }), wheel('new', strip, { offsetM: 0.03 })], 'type both tyre codes, or both rim widths'],
    ['frontCaliper', [...OLD, ...NEW], 'other spokes'],
  ])('%s is unknown where it cannot be carried: %#', (side, parts, sentence) => {
    const gap = gapAt(side, parts, 1)
    expect(gap).toMatchObject({ coldM: null, verdict: null })
    expect(gap?.unknown).toContain(sentence)
    expect(leastGapValue(carOf(side, parts), 1)).toBeUndefined()
  })
  test.each([
    ['gap front tyre to strut 12 mm', 'frontInside'],
    ['gap left rear wheel to arch 20 mm', 'rearOutside'],
    ['gap front spokes to caliper 4 mm', 'frontCaliper'],
    ['gap front wheel to loom 20 mm', null],
    ['gap tyre to strut 12 mm', null],
    ['gap downpipe to brake pipe 32 mm', null],
  ])('%s', (line, side) => {
    const { check } = readCheckLine(line, { today: '2027-03-01', mark: '.', units: {}, geometry: { wheelbaseM: 2.6, trackFrontM: 1.5, trackRearM: 1.5 } })
    expect(check.gap?.besideWheel).toBe(side)
  })
})
