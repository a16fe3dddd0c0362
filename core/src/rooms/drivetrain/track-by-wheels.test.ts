import { describe, expect, it, test } from 'vitest'
import { EXAMPLE_RECORDS } from '../../calculations/examples/example-records.ts'
import { buildRecordsSchema } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { trackByWheels } from './track-by-wheels.ts'

const STAGES = (EXAMPLE_RECORDS.stages ?? []) as readonly { id: string }[]
const [bought, strip] = STAGES as [{ id: string }, { id: string }]
const wheel = (id: string, stageId: string, drive: object) => ({
  id,
  name: id,
  kind: 'other',
  stageId,
  status: 'fitted',
  drive: { role: 'wheel', axle: 'both', ...drive },
})
const carOf = (parts: object[], more: object = {}) => openCar(buildRecordsSchema.parse({ ...EXAMPLE_RECORDS, parts, ...more }))
const { trackFrontM, trackRearM } = carOf([]).records.build

describe('the track that wheels make', () => {
  it('follows by twice what the rim stands further out: less offset, more spacer', () => {
    const car = carOf([wheel('narrow', bought.id, { offsetM: 0.045 }), wheel('wide', strip.id, { offsetM: 0.03, spacerM: 0.005 })])
    expect(trackByWheels(car, 0)).toEqual([])
    expect(trackByWheels(car, 1)).toEqual([
      { axle: 'front', typedM: trackFrontM, typedAt: 0, byWheelsM: expect.closeTo(trackFrontM + 0.04, 9) },
      { axle: 'rear', typedM: trackRearM, typedAt: 0, byWheelsM: expect.closeTo(trackRearM + 0.04, 9) },
    ])
  })
  it('is the typed one where the stage says it itself', () => {
    const stages = STAGES.map((stage) => (stage.id === strip.id ? { ...stage, geometry: { wheelbaseM: 2.6, trackFrontM: 1.56, trackRearM: 1.58 } } : stage))
    expect(trackByWheels(carOf([wheel('narrow', bought.id, { offsetM: 0.045 }), wheel('wide', strip.id, { offsetM: 0.03 })], { stages }), 1)).toEqual([])
  })
  test.each([
    ['nobody typed the first wheels', [wheel('wide', strip.id, { offsetM: 0.03 })]],
    ['an offset is not known', [wheel('narrow', bought.id, { offsetM: null }), wheel('wide', strip.id, { offsetM: 0.03 })]],
    ['they stand alike', [wheel('narrow', bought.id, { offsetM: 0.045 }), wheel('other', strip.id, { offsetM: 0.05, spacerM: 0.005 })]],
  ])('is not told where %s', (_, parts) => {
    expect(trackByWheels(carOf(parts), 1)).toEqual([])
  })
  it('is told of one axle alone where only its wheels changed', () => {
    const car = carOf([wheel('narrow', bought.id, { offsetM: 0.045 }), wheel('rears', strip.id, { axle: 'rear', offsetM: 0.025 })])
    expect(trackByWheels(car, 1).map(({ axle }) => axle)).toEqual(['rear'])
  })
})
