import { describe, expect, it, test } from 'vitest'
import { wingEstimate } from '../../aero/wing.ts'
import { makeBoard } from '../../board/board.ts'
import { EXAMPLE_WING } from '../../calculations/example-aero.ts'
import { EXAMPLE_RECORDS } from '../../calculations/example-records.ts'
import { aeroDeviceKind, setupKind } from '../../records/aero-kinds.ts'
import { RecordRefusal, type Row } from '../../records/define-record.ts'
import { buildRecordsSchema } from '../../records/records.ts'
import { openCar } from '../../stages/car.ts'
import { z } from '../../zod.ts'
import { dragLimitedSpeed, makeAeroRoom } from './aero-room.ts'
import { devicesAtStage } from './devices.ts'
import { aeroValue } from './stage-aero.ts'
import { aeroTotals, balanceSteps, boxAtPicks, wantedChances } from './totals.ts'

const AT = '2026-05-01T10:00:00Z'
const OUTLINE = {
  frontOverhangM: 0.9,
  rearOverhangM: 1,
  bodyWidthM: 1.74,
  roofHeightM: 1.43,
  roofFrontXM: 1.1,
  roofRearXM: 2.4,
  scuttleXM: 0.5,
  scuttleHeightM: 0.95,
  noseHeightM: 0.6,
  tailHeightM: 1,
  undersideM: 0.12,
  wheelRadiusM: 0.32,
}
const axles = (frontM2: number, frontSdM2: number, rearM2: number, rearSdM2: number, dragM2: number, dragSdM2: number, proof = 'guess') => ({
  form: 'axles',
  frontM2,
  frontSdM2,
  rearM2,
  rearSdM2,
  dragM2,
  dragSdM2,
  proof,
  at: AT,
})
const place = (downforceM2: number, downforceSdM2: number, dragM2: number, dragSdM2: number, proof = 'calculated') => ({
  form: 'place',
  downforceM2,
  downforceSdM2,
  dragM2,
  dragSdM2,
  proof,
  at: AT,
})
const notch = (name: string, ...values: object[]) => ({ id: name, name, values })
// The devices of the worked example; invented.
const HOLES = [-2, 0, 2, 4, 6].map((degrees) => {
  const angleRad = (degrees * Math.PI) / 180
  return { angleRad, ...wingEstimate({ ...EXAMPLE_WING, angleRad }) }
})
const DEVICES = [
  { id: 'body', kind: 'body', name: 'body, as bought', notches: [notch('one', axles(-0.02, 0.04, -0.07, 0.05, 0.7, 0.05))] },
  {
    id: 'splitter',
    kind: 'splitter',
    name: 'splitter',
    changeId: 'lip',
    box: { xFrontM: -1.1, xRearM: -0.4, yInnerM: 0, yOuterM: 0.8, zBottomM: 0.065, zTopM: 0.135 },
    notches: [
      notch('one', { ...place(0.208, 0.0646632, 0.006, 0.006), estimate: { of: 'splitter', widthM: 1.6, lipM: 0.2, pressure: 0.65, pressureSd: 0.2021 } }),
    ],
  },
  {
    id: 'canards',
    kind: 'canards',
    name: 'canards',
    changeId: 'canards',
    box: { xFrontM: -0.7, xRearM: -0.4, yInnerM: 0.6, yOuterM: 0.905, zBottomM: 0.3, zTopM: 0.4 },
    notches: [notch('one', place(0.02, 0.01, 0.01, 0.005, 'guess'))],
  },
  { id: 'floor', kind: 'floor', name: 'floor', changeId: 'floor', notches: [notch('one', axles(0.06, 0.05, 0.14, 0.09, -0.015, 0.03, 'catalogue'))] },
  {
    id: 'wing',
    kind: 'wing',
    name: 'wing',
    changeId: 'wing',
    wing: { spanM: 1.4, chordsM: [0.26], pivotXM: 3.45, pivotZM: 1.405, endPlate: { lengthM: 0.26, heightM: 0.22, topM: 0.015 } },
    notches: HOLES.map(({ angleRad, downforceM2, downforceSdM2, dragM2, dragSdM2 }, i) => ({
      ...notch(`hole ${i + 1}`, {
        ...place(downforceM2, downforceSdM2, dragM2, dragSdM2),
        estimate: { of: 'wing', zeroLiftRad: EXAMPLE_WING.zeroLiftRad, place: 'behindRoof', slopeSchool: 'lowAspect' },
      }),
      angleRad,
    })),
  },
]
const line = (id: string, massKg: number) => ({
  id,
  stageId: 'strip',
  kind: 'on',
  name: id,
  state: 'planned',
  values: [{ massKg, sdKg: null, proof: 'guess', typed: null, at: AT }],
})
const carWith = (more: object = {}) =>
  openCar(
    buildRecordsSchema.parse({
      ...EXAMPLE_RECORDS,
      build: {
        ...EXAMPLE_RECORDS.build,
        wheelbaseM: 2.65,
        outline: OUTLINE,
        suspension: {
          front: { wheelRateNPerM: 52_000, tyreRateNPerM: 230_000, motionRatio: 0.94, threadPitchM: 0.0015 },
          rear: { wheelRateNPerM: 46_000, tyreRateNPerM: 230_000, motionRatio: 0.72, threadPitchM: 0.0015 },
        },
      },
      changes: [...(EXAMPLE_RECORDS.changes ?? []), line('lip', 6), line('canards', 1.2), line('floor', 9), line('wing', 11)],
      aeroDevices: DEVICES,
      setups: [{ id: 'su', stageId: 'strip', picks: [{ deviceId: 'wing', notchId: 'hole 4' }], front: null, rear: null }],
      ...more,
    }),
  )
const STAGES = EXAMPLE_RECORDS.stages ?? []
const LAST = STAGES.length - 1

describe('aero of a stage', () => {
  const car = carWith()
  it('holds the devices whose lines are in, at the notch of its set-up', () => {
    expect(devicesAtStage(car, 0).map(({ id }) => id)).toEqual(['body'])
    const devices = devicesAtStage(car, LAST)
    expect(devices).toHaveLength(5)
    const wing = devices.find(({ id }) => id === 'wing')
    expect(wing?.picked).toBe('hole 4')
    expect(wing?.notches[3]?.stallChance).toBeCloseTo(0.0919, 4)
  })
  it('sums to the worked example: downforce, balance, drag', () => {
    const downforce = aeroValue(car, LAST, 'downforce')
    expect(downforce?.value).toBeCloseTo(1017.4, 1)
    expect(downforce?.sd).toBeCloseTo(224.8, 1)
    expect(downforce?.proof).toBe('guess')
    expect(aeroValue(car, LAST, 'aeroBalance')?.value).toBeCloseTo(0.343, 4)
    expect(aeroValue(car, LAST, 'aeroBalance')?.sd).toBeCloseTo(0.1409, 4)
    expect(aeroValue(car, LAST, 'dragArea')?.value).toBeCloseTo(0.7254, 4)
    expect(aeroValue(car, LAST, 'dragArea')?.sd).toBeCloseTo(0.0592, 4)
  })
  it('is as likely to reach what is wanted as the worked example says', () => {
    const totals = aeroTotals(devicesAtStage(car, LAST), {}, { wheelbaseM: 2.65, school: 'contactPatches' })
    const chances = wantedChances(totals, { downforceN: 900, balance: { from: 0.4, to: 0.5 }, airPressurePa: 1500 })
    expect(chances.downforce).toBeCloseTo(0.699, 3)
    expect(chances.balance).toBeCloseTo(0.21, 3)
  })
  it('reads the rule box from the boxes, until a tape says otherwise', () => {
    expect(aeroValue(car, LAST, 'reachFront')?.value).toBeCloseTo(0.2, 9)
    expect(aeroValue(car, LAST, 'reachSide')?.value).toBeCloseTo(0.035, 9)
    expect(aeroValue(car, LAST, 'wingOverRoof')?.value).toBeCloseTo(-0.01, 9)
    expect(aeroValue(car, LAST, 'reachFront')?.proof).toBe('calculated')
    const reading = (value: number, at: string) => ({ id: `r${at}`, stageId: 'strip', metric: 'reachFront', at, value, instrument: 'tape' })
    const taped = carWith({ readings: [reading(0.198, '2026-05-08T10:00:00Z')] })
    expect(aeroValue(taped, LAST, 'reachFront')).toMatchObject({ value: 0.198, proof: 'measured' })
    const twice = carWith({ readings: [reading(0.198, '2026-05-08T10:00:00Z'), reading(0.201, '2026-05-10T10:00:00Z')] })
    expect(aeroValue(twice, LAST, 'reachFront')?.proof).toBe('confirmed')
    expect(aeroValue(taped, 0, 'reachFront')).toBeUndefined()
    expect(aeroValue(car, LAST, 'reachRear')).toMatchObject({ value: 0, sd: 0, proof: 'calculated' })
  })
  it('clears the ground at speed by the springs of the build, less than at rest', () => {
    const clearance = aeroValue(car, LAST, 'clearance')
    expect(clearance?.value).toBeLessThan(0.065)
    expect(clearance?.value).toBeGreaterThan(0.05)
    expect(clearance?.sd).toBeGreaterThan(0.002)
  })
  it('a device that nobody knows leaves the sums without it, gives the target no plan, and What next says so', () => {
    const unknown = DEVICES.map((device) => (device.id === 'floor' ? { ...device, notches: [notch('one')] } : device))
    const target = { id: 't', metric: 'downforce', sense: 'atLeast', value: 900, dueStageId: 'strip' }
    const blind = carWith({ aeroDevices: unknown, targets: [target] })
    expect(aeroValue(blind, LAST, 'downforce')).toBeUndefined()
    expect(aeroTotals(devicesAtStage(blind, LAST), {}, { wheelbaseM: 2.65, school: 'contactPatches' }).unknown).toEqual(['floor'])
    const { next } = makeBoard(blind, '2026-06-01')
    expect(next.some((item) => item.code === 'aero-unknown')).toBe(true)
    const nothing = DEVICES.map((device) => (device.id === 'floor' ? { ...device, notches: [{ ...notch('one'), countsAsNothing: true }] } : device))
    expect(aeroValue(carWith({ aeroDevices: nothing }), LAST, 'downforce')?.value).toBeCloseTo(1017.4 - 300, 0)
  })
  it('without the bare body there is no sum of the car', () => {
    expect(aeroValue(carWith({ aeroDevices: DEVICES.slice(1) }), LAST, 'downforce')).toBeUndefined()
  })
  it('the steps to 40 % are the notches of the wing and a lip of 238 mm, nearest first', () => {
    const steps = balanceSteps(devicesAtStage(car, LAST), {}, { wheelbaseM: 2.65, school: 'contactPatches' }, 0.4)
    expect(steps[0]).toMatchObject({ name: 'splitter', frontShare: 0.4 })
    expect(steps[0]?.lipM).toBeCloseTo(0.238, 3)
    const second = steps.find((step) => step.notch?.id === 'hole 2')
    expect(second?.frontShare).toBeCloseTo(0.4459, 3)
    expect(second?.downforceM2).toBeCloseTo((887.0 - 1017.4) / 1500, 4)
  })
  it('another notch is another box', () => {
    const wingOver = (hole: string) => boxAtPicks(devicesAtStage(car, LAST), { wing: hole }, { ...OUTLINE, wheelbaseM: 2.65 }).wingOverRoof?.value ?? 0
    expect(wingOver('hole 5')).toBeGreaterThanOrEqual(wingOver('hole 4'))
  })
  it('the room answers each stage; drag alone leaves it a speed', () => {
    const room = makeAeroRoom(car)
    expect(room.stages).toHaveLength(STAGES.length)
    expect(room.stages[LAST]?.front?.rates.rideRateNPerM).toBeCloseTo(42_411, 0)
    const own = { power: { value: 318_000, sd: 9500, proof: 'measured' as const }, mass: { value: 1335.9, sd: 3, proof: 'measured' as const } }
    expect(dragLimitedSpeed(own, { areaM2: 0.7674, sdM2: 0.035 }, 1.2)?.speedMps).toBeCloseTo(86.89, 2)
  })
  it('What next says in words what touches the ground', () => {
    const low = carWith({ build: { ...carWith().records.build, outline: { ...OUTLINE, undersideM: 0.02 }, aeroBasis: { fastestMps: 90 } } })
    const { next } = makeBoard(low, '2026-06-01')
    const touch = next.find((item) => item.code === 'touches-ground')
    expect(touch).toBeDefined()
  })
})

describe('what records of aero refuse', () => {
  const device = (more: object) => z.object(aeroDeviceKind.fields).parse({ ...DEVICES[1], ...more }) as Row
  const setup = (more: object) => z.object(setupKind.fields).parse({ id: 's', stageId: 'n', ...more }) as Row
  const FRONT = { springRateNPerM: 58_850, motionRatio: 0.94, gapM: 0.01, packerM: 0.006 }
  test.each<[string, { readonly rules: readonly ((next: Row, context: never) => unknown)[] }, () => Row, RegExp]>([
    ['a box turned round', aeroDeviceKind, () => device({ box: { ...DEVICES[1]?.box, xRearM: -1.5 } }), /turned round/],
    ['two notches of one name', aeroDeviceKind, () => device({ notches: [notch('one'), notch('One')] }), /one name/],
    ['a wing without an angle', aeroDeviceKind, () => device({ wing: DEVICES[4]?.wing, notches: [notch('one')] }), /needs its angle/],
    ['a body on a line', aeroDeviceKind, () => device({ kind: 'body' }), /belongs to no line/],
    ['a guess of a floor', aeroDeviceKind, () => device({ kind: 'floor', notches: [notch('one', place(0.2, 0.1, 0, 0, 'guess'))] }), /no hand formula/],
    ['a packer longer than the gap', setupKind, () => setup({ front: { ...FRONT, packerM: 0.02 } }), /longer than the free gap/],
    [
      'a rubber that falls',
      setupKind,
      () =>
        setup({
          rear: {
            ...FRONT,
            rubber: [
              { compressionM: 0.01, forceN: 400 },
              { compressionM: 0.005, forceN: 500 },
            ],
          },
        }),
      /must rise/,
    ],
  ])('%s', (_, { rules }, record, message) => {
    const refused = () => rules.reduce<unknown>((next, rule) => rule(next as Row, {} as never), record())
    expect(refused).toThrow(RecordRefusal)
    expect(refused).toThrow(message)
  })
})
