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
  coolantK: null,
  fuelPressurePa: null,
})
const two = [sample(1, 0), sample(1, 0.02)]
const first = { pullId: 'a', samples: two }
const longer = { pullId: 'a', samples: [...two, sample(1, 0.04)] }
const fresh = { pullId: 'b', samples: [sample(1, 0)] }

test.each([
  ['the first of a pull', [], first, [first]],
  ['more of it', [first], { pullId: 'a', samples: [sample(1, 0.04)] }, [longer]],
  ['all of it again, after the stream was lost', [first], longer, [longer]],
  ['another pull, of the same number since the dyno was switched on again', [first], fresh, [first, fresh]],
  ['the rest of an earlier pull, told late', [first, fresh], longer, [longer, fresh]],
  ['nothing', [first], { pullId: 'a', samples: [] }, [first]],
])('%s', (_, before, more, expected) => {
  expect(joinSamples(before, more)).toEqual(expected)
})

test('more than the server keeps are not kept', () => {
  const many = Array.from({ length: 20 }, (_, i) => ({ pullId: `pull ${i}`, samples: [sample(i + 1, 0)] }))
  const kept = many.reduce(joinSamples, [] as ReturnType<typeof joinSamples>)
  expect(kept.map(({ pullId }) => pullId)).toEqual(many.slice(-12).map(({ pullId }) => pullId))
})
