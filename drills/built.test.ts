import { readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import { beforeAll, expect, it } from 'vitest'
// @ts-expect-error a script without types
import { buildAll } from '../scripts/install.mjs'
import { root } from './served.ts'

beforeAll(() => buildAll())

it('what a test asks to be built is what people use, without what only developers are told', () => {
  const assets = path.join(root, 'web', 'dist', 'assets')
  const told = readdirSync(assets).filter(
    (name) => name.endsWith('.js') && readFileSync(path.join(assets, name), 'utf8').includes('Encountered two children with the same key'),
  )
  expect(told).toEqual([])
})
