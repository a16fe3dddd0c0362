import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { smallBuildFile } from '../../test/random-build.ts'
import { changeBody, makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'
import { until } from '../../test/until.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

type Made = Awaited<ReturnType<typeof makeBuild>>
const line = async ({ path, stageOne }: Made, name = 'bench') => (await server.call('POST', `${path}/changes`, { ...changeBody(stageOne), name })).body
const rename = async ({ path }: Made, id: string, version: number, name: string, person = 'Ilse') =>
  (await server.call('PATCH', `${path}/changes/${id}`, { version, name }, { 'x-person': person })).body
const log = async ({ path }: Made, query = '') => (await server.call('GET', `${path}/log${query}`)).body
const undo = ({ path }: Made, entryId: number, person = 'Ilse') => server.call('POST', `${path}/log/${entryId}/undo`, {}, { 'x-person': person })
const names = async ({ path }: Made) => (await server.call('GET', `${path}/changes`)).body.map((entry: { name: string }) => entry.name)

describe('the log', () => {
  it('tells who did what, when, before and after, newest first', async () => {
    const build = await makeBuild(server)
    const made = await line(build)
    await rename(build, made.id, 1, 'rear bench')
    const { entries, nextBefore } = await log(build)
    expect(nextBefore).toBeNull()
    expect(entries.map(({ action, resource, name, by }: Record<string, string>) => [action, resource, name, by])).toEqual([
      ['update', 'changes', 'rear bench', 'Ilse'],
      ['create', 'changes', 'bench', 'nobody named'],
      ['create', 'stages', 'Strip', 'nobody named'],
      ['create', 'stages', 'As bought', 'nobody named'],
      ['create', 'builds', 'Tern', 'nobody named'],
    ])
    expect(entries[0]).toMatchObject({ fields: [{ field: 'name', before: 'bench', after: 'rear bench' }], undoneBy: null, keptBecause: null })
    expect(entries[1].keptBecause).toMatch(/Ilse has changed "rear bench" since/)
  })

  it('comes in pages', async () => {
    const build = await makeBuild(server)
    const made = await line(build)
    for (let i = 1; i < 8; i++) await rename(build, made.id, i, `name ${i}`)
    const first = await log(build, '?limit=4')
    const second = await log(build, `?limit=4&before=${first.nextBefore}`)
    const ids = [...first.entries, ...second.entries].map((entry: { id: number }) => entry.id)
    expect(ids).toEqual([...ids].sort((a, b) => b - a))
    expect(new Set(ids).size).toBe(8)
  })

  it('tells in the header which line a write made', async () => {
    const build = await makeBuild(server)
    const answer = await server.call('POST', `${build.path}/changes`, changeBody(build.stageOne))
    expect(Number(answer.headers['x-log-entry'])).toBe((await log(build)).entries[0].id)
  })

  it('tells when an entry was typed that waited in a browser, and nothing of one that did not', async () => {
    const build = await makeBuild(server)
    const ago = (ms: number) => new Date(Date.now() - ms).toISOString()
    const typed = ago(3 * 3_600_000)
    for (const at of [typed, ago(1000), 'this morning', ago(-3_600_000)])
      await server.call('POST', `${build.path}/changes`, changeBody(build.stageOne), { 'x-typed-at': at })
    const { entries } = await log(build)
    expect(entries.slice(0, 4).map(({ typedAt }: { typedAt: string | null }) => typedAt)).toEqual([null, null, null, typed])
  })

  test.each([
    ['a limit that is no number', '?limit=many', 422],
    ['a field nobody knows', '?colour=red', 422],
  ])('refuses %s', async (_, query, status) => {
    const { path } = await makeBuild(server)
    expect((await server.call('GET', `${path}/log${query}`)).status).toBe(status)
  })
})

describe('undo', () => {
  it('takes back each kind of entry, as a new entry, and that one again', async () => {
    const build = await makeBuild(server)
    const made = await line(build)
    const renamed = await rename(build, made.id, 1, 'rear bench')
    await server.call('DELETE', `${build.path}/changes/${made.id}`, { version: renamed.version })
    const [removed, changed, created] = (await log(build)).entries
    expect((await undo(build, removed.id)).body).toMatchObject({ action: 'restore', name: 'rear bench' })
    expect(await names(build)).toEqual(['rear bench'])
    await undo(build, changed.id)
    expect(await names(build)).toEqual(['bench'])
    await undo(build, created.id)
    expect(await names(build)).toEqual([])
    const { entries } = await log(build)
    expect(entries.slice(0, 3).map((entry: { undoes: number }) => entry.undoes)).toEqual([created.id, changed.id, removed.id])
    expect(entries.find((entry: { id: number }) => entry.id === changed.id).undoneBy).toBe(entries[1].id)
    expect((await undo(build, entries[0].id)).body.action).toBe('restore')
    expect(await names(build)).toEqual(['bench'])
  })

  it('goes 25 steps back on one record and across records', async () => {
    const build = await makeBuild(server)
    const [a, b] = [await line(build, 'a0'), await line(build, 'b0')]
    for (let i = 1; i <= 13; i++) {
      await rename(build, a.id, i, `a${i}`)
      await rename(build, b.id, i, `b${i}`)
    }
    const steps = (await log(build, '?limit=26')).entries
    for (const entry of steps) expect((await undo(build, entry.id)).status).toBe(200)
    expect((await names(build)).sort()).toEqual(['a0', 'b0'])
  })

  it('is refused with the newer version where somebody built on it, and nothing changes', async () => {
    const build = await makeBuild(server)
    const made = await line(build)
    await rename(build, made.id, 1, 'mine', 'Ilse')
    const mine = (await log(build)).entries[0]
    await rename(build, made.id, 2, 'theirs', 'Odd')
    const before = (await log(build)).entries.length
    const answer = await undo(build, mine.id)
    expect(answer).toMatchObject({
      status: 409,
      body: { code: 'stale', current: { name: 'theirs', version: 3 }, detail: expect.stringMatching(/Odd has changed "theirs" since/) },
    })
    expect((await log(build)).entries).toHaveLength(before)
  })

  it('cannot take a stage from under its lines', async () => {
    const build = await makeBuild(server)
    const stage = (await log(build)).entries.find((entry: { name: string }) => entry.name === 'Strip')
    await line(build)
    expect((await undo(build, stage.id)).body.detail).toMatch(/ledger lines/)
  })

  it('takes back a new order of stages as one entry', async () => {
    const build = await makeBuild(server)
    const two = randomUUID()
    await server.call('POST', `${build.path}/stages`, { id: two, position: 2, name: 'Aero' })
    const order = async () => (await server.call('GET', `${build.path}/stages`)).body.map((stage: { id: string }) => stage.id)
    const stages = [build.stageZero, two, build.stageOne].map((id) => ({ id, version: 1 }))
    await server.call('PUT', `${build.path}/stage-order`, { stages })
    const [moved] = (await log(build)).entries
    expect(moved).toMatchObject({ action: 'reorder', recordCount: 2 })
    expect((await undo(build, moved.id)).status).toBe(200)
    expect(await order()).toEqual([build.stageZero, build.stageOne, two])
  })

  it('takes back an imported build while it is untouched, and not after', async () => {
    const importOne = async () => {
      const file = smallBuildFile()
      await server.call('POST', `/api/build-files?mode=import&as=new&importId=${randomUUID()}`, file)
      return { path: `/api/builds/${file.build.id}`, stageOne: file.stages[1]?.id ?? '', stageZero: '', buildId: file.build.id }
    }
    const fresh = await importOne()
    expect((await undo(fresh, (await log(fresh)).entries[0].id)).body).toMatchObject({ action: 'remove', name: 'Tern' })
    expect((await server.call('GET', `${fresh.path}/board`)).status).toBe(404)
    const used = await importOne()
    const [entry] = (await log(used)).entries
    await line(used)
    expect(await undo(used, entry.id)).toMatchObject({ status: 422, body: { detail: expect.stringMatching(/worked on since/) } })
  })

  test.each([
    ['an entry of another build', '999999', 404],
    ['no number', 'last', 404],
  ])('refuses %s', async (_, entry, status) => {
    const { path } = await makeBuild(server)
    expect((await server.call('POST', `${path}/log/${entry}/undo`, {})).status).toBe(status)
  })
})

/** What the Garage says of a build, once it is worked out. */
const garageEntry = (buildId: string) =>
  until(async () => {
    const entries = (await server.call('GET', '/api/builds')).body as { build: { id: string }; isWaiting?: true; problem: string | null }[]
    const entry = entries.find(({ build }) => build.id === buildId)
    return entry && !entry.isWaiting ? entry : false
  })

describe('a build with a broken record', () => {
  it('is shown without it, names it, and exports what can be read', async () => {
    const build = await makeBuild(server)
    const [good, bad] = [await line(build, 'seat'), await line(build, 'bench')]
    await server
      .knex('changes')
      .where({ id: bad.id })
      .update({ values: JSON.stringify([{ massKg: -1 }]) })
    await line(build, 'tray')
    const records = await server.call('GET', `${build.path}/records`)
    expect(records.body.broken).toEqual([{ list: 'changes', id: bad.id, name: 'bench', reason: expect.stringMatching(/^values.0.massKg is too small/) }])
    expect(records.body.changes.map((entry: { name: string }) => entry.name)).toEqual([good.name, 'tray'])
    for (const room of ['board', 'weight', 'power']) expect((await server.call('GET', `${build.path}/${room}`)).status).toBe(200)
    const entry = await garageEntry(build.buildId)
    expect(entry.problem).toBe('One record is broken and left out.')
    expect((await server.callForBytes('GET', `${build.path}/file`)).length).toBeGreaterThan(500)
  })

  it('whose own numbers cannot be opens all the same, with them named, and can be mended', async () => {
    const build = await makeBuild(server)
    await server
      .knex('builds')
      .where({ id: build.buildId })
      .update({ reference: JSON.stringify({ driverKg: -4, fuelL: 20, fuelKgPerL: 0.7 }) })
    expect((await garageEntry(build.buildId)).problem).toMatch(/One record is broken/)
    for (const room of ['board', 'weight', 'power']) expect((await server.call('GET', `${build.path}/${room}`)).status, room).toBe(200)
    const { broken, build: stored } = (await server.call('GET', `${build.path}/records`)).body
    expect(broken).toEqual([expect.objectContaining({ list: 'build', reason: expect.stringMatching(/^reference\.driverKg is too small/) })])
    const mended = await server.call('PATCH', build.path, { version: stored.version, reference: { driverKg: 80, fuelL: 20, fuelKgPerL: 0.745 } })
    expect(mended.status, mended.text).toBe(200)
    expect((await server.call('GET', `${build.path}/records`)).body.broken).toEqual([])
  })
})
