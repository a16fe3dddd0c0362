import { expect, test } from 'vitest'
import { livePullFile, niceTicks, thinned } from '../live/live-file.ts'
import { rawCurve } from './use-raw-samples.ts'

const channel = (role: string, unit: string, values: (number | null)[]) => ({ role, name: role, unit, values })

test('raw samples are in SI, gaps left out, and power comes from torque where there is none', () => {
  const speed = channel('speed', 'rpm', [3000, 3100, null, 3300])
  expect(rawCurve('p', { channels: [speed, channel('power', 'kW', [80, null, 90, 100])] })).toEqual({
    pullId: 'p',
    speedRpm: [3000, 3300],
    powerW: [80_000, 100_000],
  })
  const found = rawCurve('p', { channels: [speed, channel('torque', 'lb·ft', [200, 200, 200, 200])] })
  // 200 lb·ft are 271.16 N·m (NIST SP 811, exact factors); P = T π n/30.
  expect(found?.powerW[0]).toBeCloseTo((271.1635896628 * Math.PI * 3000) / 30, 3)
  expect(rawCurve('p', { channels: [speed] })).toBeUndefined()
})

test.each([
  [5, 10, 5],
  [1000, 300, 300],
  [300, 300, 300],
])('%d samples thinned to at most %d keep both ends', (count, most, expected) => {
  const samples = Array.from({ length: count }, (_, i) => i)
  const drawn = thinned(samples, most)
  expect(drawn).toHaveLength(expected)
  expect([drawn[0], drawn.at(-1)]).toEqual([0, count - 1])
})

test('a live pull becomes a file with its units, gaps empty', async () => {
  const text = await livePullFile([
    {
      type: 'sample',
      pull: 3,
      timeS: 0,
      speedRpm: 2500,
      torqueNm: 300,
      powerW: 78_540,
      boostPa: null,
      lambda: 0.85,
      intakeK: 310,
      coolantK: 362,
      fuelPressurePa: null,
    },
  ]).text()
  expect(text).toBe('Time [s];Engine speed [rpm];Power [W];Torque [N·m];Boost [Pa];Lambda;Intake temp [K]\r\n0;2500;78540;300;;0.85;310\r\n')
})

test.each([
  [52.5, [0, 20, 40, 60]],
  [330, [0, 100, 200, 300, 400]],
  [7500, [0, 2000, 4000, 6000, 8000]],
  [1000, [0, 200, 400, 600, 800, 1000]],
])('ticks up to %d are round', (most, expected) => {
  expect(niceTicks(most)).toEqual(expected)
})
