import { describe, expect, it } from 'vitest'
import { changed } from '../../../test/worked-example.ts'
import { partKind } from '../../records/part-kinds.ts'
import { coolingPlanKind, type OtherCooler, otherCoolerSchema } from '../../records/systems-kinds.ts'
import { openCar } from '../../stages/car.ts'
import { z } from '../../zod.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import { frontShareAt } from '../weight/metrics.ts'
import { coolersSideBySide, decisionOfCoolers } from './side-by-side.ts'

const rating = { ratedW: 95_000, ratedItdK: 60, ratedFaceMps: 10, ratedFlowM3PerS: 100 / 60_000 }
const core = (id: string, xM: number, massKg: number | null, cost: number | null) =>
  z.object(partKind.fields).parse({
    id,
    kind: 'radiator',
    name: id,
    status: 'here',
    place: { xM, yM: 0, zM: 0.4 },
    mass: massKg === null ? null : { massKg, sdKg: null, proof: 'measured' },
    cost,
  })
const other = (more: object): OtherCooler => otherCoolerSchema.parse({ name: 'rear', areaM2: 0.24, rating, mount: 'ductedBoot', fluidL: 15, ...more })
const carWith = (others: readonly OtherCooler[]) =>
  openCar(
    changed((all) => {
      all.parts.push(core('nose', -0.5, 5, null) as never, core('boot', 3, 7, 300) as never)
      all.coolingPlans.push(
        z.object(coolingPlanKind.fields).parse({
          id: 'k',
          stageId: 's1',
          heatW: 126_500,
          partId: 'nose',
          areaM2: 0.24,
          rating,
          mount: 'ductedNose',
          flowM3PerS: 120 / 60_000,
          fluidL: 10,
          hot: { speedMps: 38, airK: 303.15, airDensityKgM3: 1.15 },
          stopK: 378.15,
          warmK: 348.15,
          logged: [{ speedMps: 38, airK: 303.15, coolantK: 370, heatW: 126_500 }],
          others,
        }) as never,
      )
    }),
  )

describe('cores and places side by side', () => {
  const rear = other({ partId: 'boot' })
  const car = carWith([rear, other({ name: 'unknown', rating: null }), other({ name: 'same place', mount: 'ductedNose', faceShare: 0.28 })])
  const [planned, boot, unknown, same] = coolersSideBySide(car, 1, 'coolant')
  it('weighs each with what is in it, and moves the front share by its place', () => {
    // Coolant of 1.03 kg/L: 5 + 10.3 and 7 + 15.45 kg.
    expect([planned?.massKg, boot?.massKg, same?.massKg]).toEqual([expect.closeTo(15.3, 9), expect.closeTo(22.45, 9), null])
    const [mass, share, wheelbaseM] = [massOf(car, 1)?.value ?? 0, frontShareAt(car, 1)?.value ?? 0, car.records.build.wheelbaseM]
    const onFront = mass * share - 15.3 * (1 + 0.5 / wheelbaseM) + 22.45 * (1 - 3 / wheelbaseM)
    expect(boot?.frontShare).toBeCloseTo(onFront / (mass - 15.3 + 22.45), 12)
    // In its own stead it changes nothing.
    expect(planned?.frontShare).toBeCloseTo(share, 12)
    expect([planned?.cost, boot?.cost]).toEqual([null, 300])
  })
  it('laps that were logged with the planned core say nothing of another', () => {
    // Logged at the density of dry air, asked at one a little thinner.
    expect(planned?.hot?.settledK).toBeCloseTo(370, 0)
    // As worked by hand for the same core without a log.
    expect(same?.hot?.settledK).toBeCloseTo(379.22, 2)
    expect(boot?.hot?.settledK).toBeGreaterThan(same?.hot?.settledK ?? 0)
  })
  it('says why of a core that nobody knows a rating of', () => {
    expect(unknown).toMatchObject({ hot: null, chanceUnder: null, refused: expect.stringContaining('cannot be judged by its size') })
  })
  it('opens as a decision: the limit is a must, what is not known is left out', () => {
    const { question, criteria, options } = decisionOfCoolers(coolersSideBySide(car, 1, 'coolant'), { stageId: 's1', stopK: 378.15, unit: '°C' })
    expect(question).toBe('Which core, and where: nose or rear or unknown or same place?')
    expect(criteria[0]).toMatchObject({ name: 'settles, °C', better: 'less', must: 105 })
    expect(options.map(({ values }) => values.map(({ of }) => of))).toEqual([
      ['settles, °C', 'mass', 'front share'],
      ['settles, °C', 'mass', 'front share'],
      [],
      ['settles, °C'],
    ])
    expect(options[0]?.values[0]?.value).toBe(97.1)
  })
})
