import { describe, expect, it, test } from 'vitest'
import { firstToTrip, supply } from '../src/electrics/supply.ts'
import { loomMass, voltageDrop, WIRE_SIZES, wireFor } from '../src/electrics/wire.ts'

/** The worked example of the car side of the workshop (invented numbers), digit for digit. */
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
