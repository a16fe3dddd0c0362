import { expect, test } from 'vitest'
import { checkKind } from '../../records/check-kinds.ts'
import { z } from '../../zod.ts'
import { usualChecks } from './usual.ts'

test.each(['timeAttack', 'track', 'drift'] as const)('the usual list of %s: 26 checks of different names, most of the rounds covered', (discipline) => {
  const list = usualChecks({ discipline, wheelbaseM: 2.6, trackFrontM: 1.5, trackRearM: 1.5 })
  expect([list.length, new Set(list.map(({ name }) => name)).size]).toEqual([26, 26])
  for (const [i, body] of list.entries()) expect(z.object(checkKind.fields).safeParse({ id: `u${i}`, ...body }).success).toBe(true)
  expect(new Set(list.flatMap(({ rounds }) => rounds)).size).toBeGreaterThanOrEqual(6)
})
