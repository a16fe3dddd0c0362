import { expect, test } from 'vitest'
import { auditNetwork, tryNetwork } from './addresses.ts'
import { isFreeName, shapeOf } from './names.ts'
import { requirePassword } from './passwords.ts'

test.each([
  ['Аnna', 'Anna', true],
  ['TОMАS', 'tomas', true],
  ['Wen ', 'wen', true],
  ['I1se', 'Ilse', true],
  ['Jörg', 'Jorg', false],
])('%s looks like %s: %s', (one, other, same) => expect(shapeOf(one) === shapeOf(other)).toBe(same))

test.each(['demo', 'Nobody  named', 'DEMО', ' ', 'a\u0007b'])('"%s" is nobody’s name', (name) => expect(isFreeName(name)).toBe(false))

test.each([
  ['short', /Use 12 characters/],
  ['passwordpassword', /lists of common/],
  ['123456123456', /lists of common/],
  ['aaaaaaaaaaaaaa', /lists of common/],
  ['Ilse van Oord', /name that others know/],
  ['x'.repeat(257), /256 characters or fewer/],
])('the password %s is refused', async (password, said) => {
  await expect(requirePassword(password, ['Ilse van Oord'])).rejects.toThrow(said)
})
test.each(['four words do it', 'ünglückliche straße', 'a b c d e f g h i'])('the password %s will do', async (password) => {
  await requirePassword(password, ['Ilse'])
})

test.each([
  ['203.0.113.7', '203.0.113.7', '203.0.113.0/24'],
  ['::ffff:203.0.113.7', '203.0.113.7', '203.0.113.0/24'],
  ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2::/64', '2001:db8:1::/48'],
  ['nonsense', 'unknown', 'unknown'],
])('%s counts as %s and is kept as %s', (address, tried, kept) => expect([tryNetwork(address), auditNetwork(address)]).toEqual([tried, kept]))
