import type { DynoSample } from '@bold-ballast/contract'
import { expect, test } from 'vitest'
import { joinSamples } from './use-stream.ts'

const sample = (pull: number, timeS: number): DynoSample => ({
  type: 'sample',
  pull,
  timeS,
  speedRpm: 3000 + timeS,
  torqueNm: 300,
  powerW: 1e5,
  boostPa: null,
  lambda: null,
  intakeK: null,
})
const one = [sample(1, 0), sample(1, 0.02)]

test.each([
  ['the first of a pull', [], one, one],
  ['more of it', one, [sample(1, 0.04)], [...one, sample(1, 0.04)]],
  ['all of it again, after the stream was lost', one, [...one, sample(1, 0.04)], [...one, sample(1, 0.04)]],
  ['another pull', one, [sample(2, 0)], [sample(2, 0)]],
  ['nothing', one, [], one],
])('%s', (_, before, more, expected) => {
  expect(joinSamples(before, more)).toEqual(expected)
})
