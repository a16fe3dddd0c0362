import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { buildBody, changeBody, makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'
import { until } from '../../test/until.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

const look = (query = '') => server.call('GET', `/api/builds?day=2026-11-30${query}`)
const rowOf = async (buildId: string) =>
  (await server.knex('garageRows').where({ buildId }).first()) as { entryId: number; day: string; madeBy: number } | undefined
const lastEntry = async (buildId: string) => Number((await server.knex('history').where({ buildId }).max('id as id').first())?.id)
const entryOf = async (buildId: string, query = '') => (await look(query)).body.find(({ build }: { build: { id: string } }) => build.id === buildId)

describe('a row of the Garage', () => {
  it('is kept with the line and the day it is true of, and made anew for another', async () => {
    const { buildId, path, stageOne } = await makeBuild(server)
    expect((await entryOf(buildId)).stageCount).toBe(2)
    expect(await rowOf(buildId)).toMatchObject({ entryId: await lastEntry(buildId), day: '2026-11-30' })
    // What is kept is what is told: planted, it shows.
    await server
      .knex('garageRows')
      .where({ buildId })
      .update({ entry: server.knex.raw(`jsonb_set(entry, '{stageCount}', '77')`) })
    expect((await entryOf(buildId)).stageCount).toBe(77)
    await server.call('POST', `${path}/changes`, changeBody(stageOne))
    expect((await entryOf(buildId)).stageCount).toBe(2)
    await server
      .knex('garageRows')
      .where({ buildId })
      .update({ day: '2026-11-29', entry: server.knex.raw(`jsonb_set(entry, '{stageCount}', '78')`) })
    expect((await entryOf(buildId)).stageCount).toBe(2)
    await server
      .knex('garageRows')
      .where({ buildId })
      .update({ madeBy: 0, entry: server.knex.raw(`jsonb_set(entry, '{stageCount}', '79')`) })
    expect((await entryOf(buildId)).stageCount).toBe(2)
  })
  it('is made by itself once nobody writes for a moment', async () => {
    const { buildId, path, stageOne } = await makeBuild(server)
    expect(await rowOf(buildId)).toBeUndefined()
    await server.call('POST', `${path}/changes`, changeBody(stageOne))
    const made = await until(async () => (await rowOf(buildId)) ?? false)
    expect(made.entryId).toBe(await lastEntry(buildId))
  })
  it('of a build that learns from others is true until any of them is written to', async () => {
    const learner = await makeBuild(server)
    const { version } = (await server.call('GET', `${learner.path}/records`)).body.build
    expect((await server.call('PATCH', learner.path, { version, guessPairsFrom: 'garage' })).status).toBe(200)
    await entryOf(learner.buildId)
    await server
      .knex('garageRows')
      .where({ buildId: learner.buildId })
      .update({ entry: server.knex.raw(`jsonb_set(entry, '{stageCount}', '77')`) })
    expect((await entryOf(learner.buildId)).stageCount).toBe(77)
    const other = await makeBuild(server)
    await server.call('POST', `${other.path}/changes`, changeBody(other.stageOne))
    expect((await entryOf(learner.buildId)).stageCount).toBe(2)
  })
  it('that a later line was kept for is not written over by an earlier one', async () => {
    const { buildId } = await makeBuild(server)
    await entryOf(buildId)
    await server.knex('garageRows').where({ buildId }).update({ entryId: 1e9, day: '2026-11-30' })
    await entryOf(buildId)
    expect((await rowOf(buildId))?.entryId).toBe(1e9)
  })
  it('of a long ledger is waited for by nobody: the one before is told to be worked out anew', async () => {
    const { buildId, path, stageOne } = await makeBuild(server)
    await entryOf(buildId)
    const writes = Array.from({ length: 301 }, () => ({ kind: 'create', resource: 'changes', body: changeBody(stageOne) }))
    expect((await server.call('POST', `${path}/batches`, { batchId: randomUUID(), writes })).status).toBe(200)
    expect(await entryOf(buildId)).toMatchObject({ stageCount: 2, isWaiting: true })
    await until(async () => (await entryOf(buildId)).isWaiting === undefined)
    expect(await rowOf(buildId)).toMatchObject({ entryId: await lastEntry(buildId) })
  })
  it('goes with its build, and comes back with it', async () => {
    const { buildId, path } = await makeBuild(server)
    const { version } = (await server.call('GET', `${path}/records`)).body.build
    await server.call('DELETE', path, { version })
    expect(await entryOf(buildId)).toBeUndefined()
    await server.call('POST', `${path}/restore`, { version: version + 1 })
    expect(await entryOf(buildId)).toMatchObject({ stageCount: 2 })
  })
})

describe('many builds', () => {
  const names = ['Plain', '100 % done', 'under_score', 'back\\slash', 'Ünal']
  beforeAll(async () => {
    for (const name of names) await server.call('POST', '/api/builds', { ...buildBody(), name })
    for (let i = 0; i < 110; i++) await server.call('POST', '/api/builds', { ...buildBody(randomUUID()), name: `Many ${i}` })
  })
  it('stand fifty on a page, each once, with how many there are', async () => {
    const first = await look('&name=many')
    expect([first.body.length, first.headers['x-total']]).toEqual([50, '110'])
    const all = [...first.body, ...(await look('&name=many&page=2')).body, ...(await look('&name=many&page=3')).body]
    expect(new Set(all.map(({ build }) => build.id)).size).toBe(110)
    expect((await look('&name=many&page=4')).body).toEqual([])
  })
  it('that are missing for long are told to be worked out, and are there a little later', async () => {
    await server.knex('garageRows').delete()
    const waits = async () => (await look('&name=many&page=2')).body.filter((entry: { isWaiting?: boolean }) => entry.isWaiting).length
    await until(async () => (await waits()) === 0)
    expect((await look('&name=many&page=2')).body[7]).toMatchObject({ stageCount: 1, problem: null })
  })
  test.each([
    ['PLAIN', ['Plain']],
    ['100 %', ['100 % done']],
    ['%', ['100 % done']],
    ['r_s', ['under_score']],
    ['k\\s', ['back\\slash']],
    ['ünal', ['Ünal']],
    ["'; DROP TABLE builds; --", []],
  ])('are found by %s as it is written', async (name, found) => {
    const { body } = await look(`&name=${encodeURIComponent(name)}`)
    expect(body.map(({ build }: { build: { name: string } }) => build.name)).toEqual(found)
  })
  test.each(['0', '-1', 'x', '1e9'])('on page %s are refused with the field', async (page) => {
    expect((await look(`&page=${page}`)).body).toMatchObject({ code: 'bad-input', errors: [{ path: 'page' }] })
  })
})
