import { readdirSync } from 'node:fs'
import { KINDS } from '@bold-ballast/core'
import { describe, expect, it } from 'vitest'
import { startTestServer } from '../../test/test-server.ts'
import { migrations } from './migrations/index.ts'

const files = readdirSync(new URL('./migrations/', import.meta.url)).filter((name) => /^\d{4}-/.test(name))

describe('migrations', () => {
  it('are all listed, under the names of their files and in their order', () => {
    expect(Object.keys(migrations).map((name) => `${name}.ts`)).toEqual(files.toSorted())
  })

  it('are numbered without a gap', () => {
    expect(files.toSorted().map((name) => Number(name.slice(0, 4)))).toEqual(files.map((_, i) => i + 1))
  })

  it.each(Object.entries(migrations))('%s only goes forward', async (_, { down }) => {
    await expect(down?.({} as never)).rejects.toThrow('only go forward')
  })

  it('have all been made, and made a table of every kind of record, once', async () => {
    const server = await startTestServer()
    try {
      const made = await server.knex('migrations').orderBy('id').pluck('name')
      expect(made).toEqual(Object.keys(migrations))
      const tables = (await server.knex.raw(`SELECT table_name AS name FROM information_schema.tables WHERE table_schema = 'public'`)).rows
      expect(tables.map(({ name }: { name: string }) => name)).toEqual(expect.arrayContaining(KINDS.map(({ table }) => table)))
    } finally {
      await server.stop()
    }
  })
})
