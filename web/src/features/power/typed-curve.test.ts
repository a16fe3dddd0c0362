import { expect, test } from 'vitest'
import { typedCurveFile } from './typed-curve.ts'

const units = { power: 'hp', torque: 'lb·ft' }

test.each([
  ['3000 110\n\n 3250   121,5 ', 'rpm;power hp\r\n3000;110\r\n3250;121,5\r\n'],
  ['3000\t110\t192', 'rpm;power hp;torque lb·ft\r\n3000;110;192\r\n'],
  ['3000;110', 'rpm;power hp\r\n3000;110\r\n'],
])('%j becomes a file of a dyno', async (text, expected) => {
  expect(await typedCurveFile(text, units).text()).toBe(expected)
})
