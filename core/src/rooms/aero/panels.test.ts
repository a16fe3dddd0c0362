import { describe, expect, it, test } from 'vitest'
import { carWith, DEVICES, LAST } from '../../../test/aero-car.ts'
import { makeBoard } from '../../board/board.ts'
import { panelPressure, panelsAtStage } from './panels.ts'

const panel = (more: object = {}) => ({
  id: 'p',
  deviceId: 'splitter',
  sheet: 'plywood',
  thicknessM: 0.0127,
  widthM: 1.6,
  lipM: 0.2,
  support: 'cantilever',
  isChosen: true,
  ...more,
})
/** The lip of the worked example with another pressure under it. */
const lipAt = (pressure: number) =>
  DEVICES.map((device) =>
    device.id === 'splitter'
      ? {
          ...device,
          notches: device.notches.map((notch) => ({
            ...notch,
            values: notch.values.map((value) => ({ ...value, estimate: { of: 'splitter', widthM: 1.6, lipM: 0.2, pressure, pressureSd: 0.2 } })),
          })),
        }
      : device,
  )

describe('panels of a stage', () => {
  it('stand in the pressure that their device was estimated with; one of no device in the usual', () => {
    const car = carWith({ aeroDevices: lipAt(0.95), panels: [panel()] })
    const usual = panelPressure(car)
    expect(usual).toMatchObject({ coefficient: 0.65, isOwn: false })
    const [usualTip, ownTip] = [0.65, 0.95].map((at) => panelsAtStage(carWith({ aeroDevices: lipAt(at), panels: [panel()] }), LAST)[0]?.answer?.air.tipM ?? 0)
    // Bending is in step with the load.
    expect((ownTip ?? 0) / (usualTip ?? 1)).toBeCloseTo(0.95 / 0.65, 9)
  })
  test.each([
    ['a sheet that holds', panel(), []],
    ['one that is too thin', panel({ thicknessM: 0.003 }), [{ code: 'panel-fails', name: 'splitter', isRods: false }]],
    ['one that is too thin and only kept', panel({ thicknessM: 0.003, isChosen: false }), []],
    [
      'rods that are rated too low',
      panel({ support: 'clampedRod', rodAtM: 0.15, rods: { count: 2, angleRad: 1, diameterM: 0.006, lengthM: 0.25, ratedN: 5 } }),
      [{ code: 'panel-fails', isRods: true }],
    ],
  ])('What next of %s', (_, own, expected) => {
    const { next } = makeBoard(carWith({ panels: [own] }), '2026-06-01')
    expect(next.filter(({ code }) => code === 'panel-fails')).toMatchObject(expected)
  })
})
