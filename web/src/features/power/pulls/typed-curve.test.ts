import { expect, test } from 'vitest'
import { pointsFile, typedCurveFile } from './typed-curve.ts'

const units = { power: 'hp', torque: 'lb·ft' }

test.each([
  ['3000 110\n\n 3250   121,5 ', 'rpm;power hp\r\n3000;110\r\n3250;121,5\r\n'],
  ['3000\t110\t192', 'rpm;power hp;torque lb·ft\r\n3000;110;192\r\n'],
  ['3000;110', 'rpm;power hp\r\n3000;110\r\n'],
])('%j becomes a file of a dyno', async (text, expected) => {
  expect(await typedCurveFile(text, units).text()).toBe(expected)
})

test('points off a picture become one too, by rising speed', async () => {
  const points = [
    { speedRpm: 3250, value: 91_000.4 },
    { speedRpm: 3000, value: 82_500 },
  ]
  expect(await pointsFile(points, 'power', 'sheet').text()).toBe('rpm;power W\r\n3000.0;82500.00\r\n3250.0;91000.40\r\n')
  expect(await pointsFile(points.slice(1), 'torque', 'sheet').text()).toMatch(/^rpm;torque N·m\r\n/)
})
