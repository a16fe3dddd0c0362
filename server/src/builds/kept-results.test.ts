import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'
import { openDatabase } from '../database/open.ts'
import { KeptResults } from './kept-results.ts'

let server: TestServer
let buildId = ''
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())
beforeEach(async () => {
  buildId = (await makeBuild(server)).buildId
})

/** A sum that counts how often it was worked out. */
function sum(...answers: unknown[]) {
  let count = 0
  return {
    work: async () => answers[count++],
    count: () => count,
  }
}
const rows = () => server.knex('keptResults').where({ buildId })

describe('results that are kept', () => {
  it('are found by another server and the next start, as they were: with what is not there, and without an end', async () => {
    const answer = [{ value: 61.25, sd: Number.POSITIVE_INFINITY }, undefined, { value: -0 }]
    const { work, count } = sum(answer)
    const here = new KeptResults(server.knex, 'one')
    const place = { buildId, name: 'lapTime', hash: here.hashOf({ massKg: 1200 }) }
    expect(await here.of(place, work)).toBe(answer)
    const there = new KeptResults(server.knex, 'one')
    expect(await there.of({ ...place, hash: there.hashOf({ massKg: 1200 }) }, work)).toEqual(answer)
    expect(count()).toBe(1)
  })

  it.each([
    ['of another program', 'two', { massKg: 1200 }, 'lapTime'],
    ['of other inputs', 'one', { massKg: 1201 }, 'lapTime'],
    ['of another name', 'one', { massKg: 1200 }, 'topSpeed'],
  ])('are not taken for those %s', async (_what, program, input, name) => {
    const { work, count } = sum(1, 2)
    const first = new KeptResults(server.knex, 'one')
    await first.of({ buildId, name: 'lapTime', hash: first.hashOf({ massKg: 1200 }) }, work)
    const other = new KeptResults(server.knex, program)
    expect(await other.of({ buildId, name, hash: other.hashOf(input) }, work)).toBe(2)
    expect(count()).toBe(2)
  })

  it('stay in the build that they are of', async () => {
    const { work } = sum(1, 2)
    const kept = new KeptResults(server.knex, 'one')
    const hash = kept.hashOf({})
    await kept.of({ buildId, name: 'lapTime', hash }, work)
    expect(await kept.of({ buildId: (await makeBuild(server)).buildId, name: 'lapTime', hash }, work)).toBe(2)
  })

  it('are the twenty latest of a name', async () => {
    const kept = new KeptResults(server.knex, 'one')
    for (let i = 0; i < 25; i++) await kept.of({ buildId, name: 'lapTime', hash: kept.hashOf(i) }, async () => i)
    await kept.of({ buildId, name: 'topSpeed', hash: kept.hashOf(0) }, async () => 0)
    expect(await rows().where({ name: 'lapTime' })).toHaveLength(20)
    expect(await rows().where({ name: 'topSpeed' })).toHaveLength(1)
    const { work, count } = sum('anew')
    expect(await kept.of({ buildId, name: 'lapTime', hash: kept.hashOf(24) }, work)).toBe(24)
    expect(await kept.of({ buildId, name: 'lapTime', hash: kept.hashOf(0) }, work)).toBe('anew')
    expect(count()).toBe(1)
  })

  it('that cannot be read are worked out again and kept anew', async () => {
    const kept = new KeptResults(server.knex, 'one')
    const place = { buildId, name: 'lapTime', hash: kept.hashOf(1) }
    await kept.of(place, async () => 'first')
    await rows().update({ result: Buffer.from('no result') })
    expect(await kept.of(place, async () => 'second')).toBe('second')
    expect(await kept.of(place, async () => 'third')).toBe('second')
  })

  it('are worked out where the database is away, and what cannot be worked out is not kept', async () => {
    const url = new URL(process.env.DATABASE_URL as string)
    url.pathname = `/none_${randomUUID().slice(0, 8)}`
    const away = openDatabase(url.href)
    try {
      const kept = new KeptResults(away, 'one')
      expect(await kept.of({ buildId, name: 'lapTime', hash: kept.hashOf(1) }, async () => 7)).toBe(7)
    } finally {
      await away.destroy()
    }
    const kept = new KeptResults(server.knex, 'one')
    const place = { buildId, name: 'lapTime', hash: kept.hashOf(1) }
    await expect(
      kept.of(place, async () => {
        throw new Error('no lap')
      }),
    ).rejects.toThrow('no lap')
    expect(await rows()).toHaveLength(0)
  })
})
