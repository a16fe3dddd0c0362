import { ROLES, type Role } from '@bold-ballast/contract'
import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { LEASTS } from '../http/access.ts'
import { isEnough, type Membership, strongest } from './roles.ts'

const GARAGES = ['g1', 'g2']
const BUILDS = ['b1', 'b2']
const role = fc.constantFrom(...ROLES)
const place = fc.oneof(
  fc.constantFrom(...GARAGES).map((garageId) => ({ garageId, buildId: null })),
  fc.constantFrom(...BUILDS).map((buildId) => ({ garageId: null, buildId })),
)
const membership = fc.record({ place, role }).map(({ place: at, role: held }): Membership => ({ ...at, role: held, until: null, changedAt: '' }))
const rank = (held: Role | undefined) => (held === undefined ? -1 : ROLES.indexOf(held))

describe('a role', () => {
  it('that is higher only adds: what a lower one may, it may too', () => {
    fc.assert(
      fc.property(role, role, fc.constantFrom(...LEASTS), fc.constantFrom('crew', 'owners'), (one, other, least, goalsBy) => {
        const [low, high] = rank(one) <= rank(other) ? [one, other] : [other, one]
        if (isEnough(low, least, goalsBy)) expect(isEnough(high, least, goalsBy)).toBe(true)
      }),
    )
  })
  it('is never taken away by one more membership, and comes from this garage or this build alone', () => {
    fc.assert(
      fc.property(
        fc.array(membership, { maxLength: 6 }),
        membership,
        fc.constantFrom(...GARAGES),
        fc.constantFrom(...BUILDS),
        (held, more, garageId, buildId) => {
          const before = strongest(held, { garageId, buildId })
          const after = strongest([...held, more], { garageId, buildId })
          expect(rank(after?.role)).toBeGreaterThanOrEqual(rank(before?.role))
          if (after) expect(after.garageId === garageId || after.buildId === buildId).toBe(true)
        },
      ),
    )
  })
})

test.each<[Role, 'crew' | 'owners', boolean]>([
  ['crew', 'crew', true],
  ['crew', 'owners', false],
  ['owner', 'owners', true],
  ['viewer', 'crew', false],
])('%s moves goals that are moved by %s: %s', (held, goalsBy, may) => expect(isEnough(held, 'goals', goalsBy)).toBe(may))
