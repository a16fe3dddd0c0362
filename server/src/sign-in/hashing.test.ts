import { hash, hashRaw } from '@node-rs/argon2'
import { expect, it, test } from 'vitest'
import { Hasher } from './hashing.ts'

// Argon2id, version 19, of the tests beside the reference implementation (from memory; RFC 9106's own vector has associated data, which the library takes none of).
test.each([
  ['password', 'somesalt', 65_536, 2, '09316115d5cf24ed5a15a31a3ba326e5cf32edc24702987c02b6566f61913cf7'],
  ['password', 'somesalt', 256, 2, '9dfeb910e80bad0311fee20f9c0e2b12c17987b4cac90c2ef54d5b3021c68bfe'],
  ['differentpassword', 'somesalt', 65_536, 2, '0b84d652cf6b0c4beaef0dfe278ba6a80df6696281d7e0d2891b817d8c458fde'],
])('the hash of %s with %s at %d KiB is the published one', async (secret, salt, memoryCost, timeCost, hex) => {
  const made = await hashRaw(secret, { algorithm: 2, memoryCost, timeCost, parallelism: 1, outputLen: 32, salt: Buffer.from(salt) })
  expect(made.toString('hex')).toBe(hex)
})

it('keeps a text that tells its costs, takes one way to write each letter, and knows no secret where none is kept', async () => {
  const hasher = new Hasher()
  const kept = await hasher.hash('fo\u0301ur words')
  expect(kept).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/)
  expect(await hasher.isRight(kept, 'f\u00f3ur words')).toBe(true)
  expect(await hasher.isRight(kept, 'four words')).toBe(false)
  expect(await hasher.isRight(null, 'nobody has this')).toBe(false)
  expect(await hasher.isRight(await hash('x'), 'x')).toBe(true)
})
