import { describe, expect, it, test } from 'vitest'
import { carWith, DEVICES, LAST, notch, OUTLINE, place, STAGES } from '../../../test/aero-car.ts'
import { wingEstimate } from '../../aero/wing.ts'
import { makeBoard } from '../../board/board.ts'
import { aeroDeviceKind, setupKind } from '../../records/aero-kinds.ts'
import { RecordRefusal, type Row } from '../../records/define-record.ts'
import { z } from '../../zod.ts'
import { dragLimitedSpeed, makeAeroRoom } from './aero-room.ts'
import { NO_ANCHORS } from './anchors.ts'
import { balanceSteps } from './balance-steps.ts'
import { devicesAtStage } from './devices.ts'
import { aeroValue } from './stage-aero.ts'
import { aeroTotals, boxAtPicks, wantedChances } from './totals.ts'

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
  it('is taped as its stage is: from there on another nose, before it the one that was', () => {
    const from = (position: number, frontOverhangM: number) =>
      carWith({ stages: STAGES.map((stage, i) => (i === position ? { ...(stage as object), outline: { ...OUTLINE, frontOverhangM } } : stage)) })
    expect(aeroValue(from(LAST, 0.95), LAST, 'reachFront')?.value).toBeCloseTo(0.15, 9)
    expect(aeroValue(from(0, 0.95), LAST, 'reachFront')?.value).toBeCloseTo(0.15, 9)
    const rooms = makeAeroRoom(from(LAST, 0.95)).stages.map((stage) => [stage?.outline?.frontOverhangM, stage?.outlineStage])
    expect(rooms).toEqual(STAGES.map((_, i) => (i === LAST ? [0.95, LAST] : [0.9, null])))
    // Where the splitter's force acts moves with the bumper that its lip stands out of.
    const lip = (made: ReturnType<typeof carWith>) =>
      devicesAtStage(made, LAST).find(({ kind }) => kind === 'splitter')?.notches[0]?.force as { xM: number } | undefined
    expect(lip(from(LAST, 0.95))?.xM).not.toBe(lip(car)?.xM)
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
    expect(aeroTotals(devicesAtStage(blind, LAST), {}, { wheelbaseM: 2.65, school: 'contactPatches' }).loads.unknown).toEqual(['floor'])
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
    expect(steps[0]?.size).toEqual({ of: 'lip', valueM: expect.closeTo(0.238, 3) })
    const second = steps.find((step) => step.notch?.id === 'hole 2')
    expect(second?.frontShare).toBeCloseTo(0.4459, 3)
    expect(second?.downforceM2).toBeCloseTo((887.0 - 1017.4) / 1500, 4)
  })
  it('the chord that an estimated wing would need stands the car there, once the wing is made so', () => {
    const basis = { wheelbaseM: 2.65, school: 'contactPatches' } as const
    const devices = devicesAtStage(car, LAST)
    const step = balanceSteps(devices, {}, basis, 0.4).find(({ size }) => size?.of === 'chord')
    expect(step?.size?.valueM).toBeLessThan(0.26)
    const made = devices.map((device) => ({
      ...device,
      notches: device.notches.map((each) => {
        if (!each.wing || each.force?.form !== 'place' || !step?.size) return each
        const { downforceM2, dragM2 } = wingEstimate({ ...each.wing, chordM: step.size.valueM })
        return { ...each, force: { ...each.force, downforceM2, dragM2 } }
      }),
    }))
    expect(aeroTotals(made, {}, basis).balance?.frontShare).toBeCloseTo(0.4, 9)
    // A share that no chord reaches has no row.
    expect(balanceSteps(devices, {}, basis, 0.9).some(({ size }) => size?.of === 'chord')).toBe(false)
  })
  describe('a floor with a height map', () => {
    const BOX = { xFrontM: 0.4, xRearM: 2.2, yInnerM: 0, yOuterM: 0.7, zBottomM: 0.08, zTopM: 0.1 }
    const mapped = (heightMap: object[] | null, more: object = {}) =>
      carWith({ aeroDevices: DEVICES.map((device) => (device.id === 'floor' ? { ...device, box: BOX, heightMap } : device)), ...more })
    const map = (atRest: number) => [
      { clearanceM: 0.02, factor: 2 },
      { clearanceM: 0.08, factor: atRest },
    ]
    it('gives more as the car comes down: in downforce at the quoted speed, and in the heights themselves', () => {
      const [plain, own] = [mapped(null), mapped(map(1))]
      const [before, after] = [aeroValue(plain, LAST, 'downforce')?.value ?? 0, aeroValue(own, LAST, 'downforce')?.value ?? 0]
      expect(after).toBeGreaterThan(before)
      // At 50 m/s it sinks some millimetres: the map is 1/60 for each.
      expect(after - before).toBeLessThan(0.5 * 1500 * 0.2)
      expect(aeroValue(own, LAST, 'clearance')?.value).toBeLessThan(aeroValue(plain, LAST, 'clearance')?.value ?? 0)
    })
    it('goes with speed: B and the areas too, as they never do without a map', () => {
      const at = (speedMps: number) => mapped(map(1), { build: { ...mapped(null).records.build, aeroBasis: { speedMps } } })
      const balance = (speed: number) => aeroValue(at(speed), LAST, 'aeroBalance')?.value
      expect(balance(20)).not.toBeCloseTo(balance(80) ?? 0, 4)
    })
    it('of a factor of one at any height changes nothing', () => {
      const ones = [0.02, 0.2].map((clearanceM) => ({ clearanceM, factor: 1 }))
      for (const metric of ['downforce', 'aeroBalance', 'clearance'] as const)
        expect(aeroValue(mapped(ones), LAST, metric)?.value).toBeCloseTo(aeroValue(mapped(null), LAST, metric)?.value ?? 0, 9)
    })
    test.each([
      ['without a box', { box: null, wing: null, heightMap: map(1) }, /type its sizes first/],
      ['whose clearances fall', { box: BOX, heightMap: map(1).reverse() }, /rise from line to line/],
    ])('%s is refused', (_, fields, message) => {
      const record = z.object(aeroDeviceKind.fields).parse({ id: 'x', kind: 'floor', name: 'x', notches: [notch('one')], ...fields }) as Row
      expect(() => aeroDeviceKind.rules.map((rule) => rule(record, {} as never))).toThrow(
        expect.objectContaining({ field: 'heightMap', message: expect.stringMatching(message) }),
      )
    })
  })
  it('another notch is another box', () => {
    const wingOver = (hole: string) => boxAtPicks(devicesAtStage(car, LAST), { wing: hole }, { ...OUTLINE, wheelbaseM: 2.65 }).wingOverRoof?.value ?? 0
    expect(wingOver('hole 5')).toBeGreaterThanOrEqual(wingOver('hole 4'))
  })
  it('the room answers each stage; drag alone leaves it a speed', () => {
    const room = makeAeroRoom(car)
    expect(room.stages).toHaveLength(STAGES.length)
    expect(room.stages[LAST]?.front?.rates.rideRateNPerM).toBeCloseTo(42_411, 0)
    const own = {
      anchors: NO_ANCHORS,
      power: { value: 318_000, sd: 9500, proof: 'measured' as const },
      mass: { value: 1335.9, sd: 3, proof: 'measured' as const },
    }
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
