import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
let first: Awaited<ReturnType<typeof makeBuild>>
beforeAll(async () => {
  server = await startTestServer()
  first = await makeBuild(server)
})
afterAll(() => server.stop())

const partBody = (more: object = {}) => ({
  id: randomUUID(),
  kind: 'injectors',
  name: 'four-hole 1 000',
  count: 6,
  ratings: [{ of: 'fuelFlow', limit: 1.6667e-5, isEach: true, known: 'catalogue', ethanolShare: 0, typed: '1000 cc/min' }],
  life: { amount: 40, unit: 'hours' },
  extras: [{ name: 'loom adapters', massKg: 0.2, cost: 60 }],
  ...more,
})

describe('the shared shelf', () => {
  it('shows what any build shares, with its build, and nothing else', async () => {
    const second = await makeBuild(server)
    await server.call('POST', `${first.path}/parts`, partBody({ name: 'kept for itself' }))
    const shared = await server.call('POST', `${second.path}/parts`, partBody({ isShared: true }))
    expect(shared.status, shared.text).toBe(201)
    const seen = await server.call('GET', '/api/shelf/parts')
    expect(seen.body.map(({ record }: { record: { id: string } }) => record.id)).toEqual([shared.body.id])
    expect(seen.body[0].buildName).toEqual(expect.any(String))
    await server.call('DELETE', `${second.path}/parts/${shared.body.id}`, { version: 1 })
    expect((await server.call('GET', '/api/shelf/parts')).body).toEqual([])
  })
  test.each([
    ['rule-books', { name: 'Harbour Open', edition: '2027', rules: [{ key: 'mass', text: 'Least mass', sense: 'atLeast', metric: 'massReady', value: 1200 }] }],
    ['lessons', { text: 'Mark the bolts before the box goes in.', about: 'gearbox' }],
    ['tracks', { name: 'Lane', isClosed: false, segments: [{ lengthM: 400 }] }],
    ['courses', { name: 'Quay', corners: [{ name: 'Long quay', speedMps: 20 }] }],
  ])('%s too', async (resource, body) => {
    const { path } = await makeBuild(server)
    await server.call('POST', `${path}/${resource}`, { id: randomUUID(), ...body, ...(resource === 'lessons' ? { text: 'kept' } : { name: 'kept' }) })
    const shared = await server.call('POST', `${path}/${resource}`, { id: randomUUID(), ...body, isShared: true })
    expect(shared.status, shared.text).toBe(201)
    const seen = (await server.call('GET', `/api/shelf/${resource}`)).body as { record: { id: string } }[]
    expect(seen.filter(({ record }) => record.id === shared.body.id)).toHaveLength(1)
    expect(JSON.stringify(seen)).not.toContain('kept')
  })
  it('has nothing of what is never shared', async () => {
    for (const address of ['weighings', 'builds', 'constructor']) expect((await server.call('GET', `/api/shelf/${address}`)).status).toBe(404)
  })
})

describe('parts', () => {
  it('are stored with all that is known of them and their use, and go out and in with the build', async () => {
    const build = await makeBuild(server)
    const part = partBody({ stageId: build.stageOne, status: 'fitted', serial: 'B-17', mass: { massKg: 0.08, proof: 'measured', typed: '80 g' } })
    expect((await server.call('POST', `${build.path}/parts`, part)).body).toMatchObject(part)
    const use = { id: randomUUID(), partId: part.id, at: '2026-03-01T10:00:00Z', amount: 1.5 }
    expect((await server.call('POST', `${build.path}/part-uses`, use)).status).toBe(201)
    const file = await server.callForBytes('GET', `${build.path}/file`)
    const made = await server.call('POST', `/api/build-files?mode=import&as=new&importId=${randomUUID()}`, file, { 'content-type': 'application/zip' })
    const { parts, partUses } = (await server.call('GET', `/api/builds/${made.body.buildId}/records`)).body
    expect(parts).toMatchObject([{ name: part.name, ratings: part.ratings, life: part.life, extras: part.extras, serial: 'B-17' }])
    expect(partUses).toMatchObject([{ partId: parts[0].id, amount: 1.5 }])
  })
  test.each<[string, string, (ids: { partId: string; stageOne: string }) => object, RegExp]>([
    ['a part of no stage', 'parts', () => partBody({ stageId: randomUUID() }), /no such stage/],
    ['a duty over 100 %', 'parts', () => partBody({ ratings: [{ of: 'injectorDuty', limit: 85, known: 'catalogue' }] }), /share of the time/],
    ['a rating of nothing known', 'parts', () => partBody({ ratings: [{ of: 'courage', limit: 1, known: 'guess' }] }), /ratings.0.of/],
    [
      'a use of a part that is not there',
      'part-uses',
      () => ({ id: randomUUID(), partId: randomUUID(), at: '2026-03-01T10:00:00Z', amount: 1 }),
      /no such part/,
    ],
    [
      'a use of a part without a life',
      'part-uses',
      ({ partId }) => ({ id: randomUUID(), partId, at: '2026-03-01T10:00:00Z', amount: 1 }),
      /how long this part lives/,
    ],
    ['a second plan of a stage', 'pull-plans', ({ stageOne }) => planBody(stageOne), /exists already/],
    ['a plan of no stage', 'pull-plans', () => planBody(randomUUID()), /no such stage/],
  ])('refuses %s in words', async (_, resource, body, sentence) => {
    const { path, stageOne } = first
    const lifeless = await server.call('POST', `${path}/parts`, partBody({ life: null }))
    await server.call('POST', `${path}/pull-plans`, planBody(stageOne))
    const answer = await server.call('POST', `${path}/${resource}`, body({ partId: lifeless.body.id, stageOne }))
    expect([409, 422]).toContain(answer.status)
    expect(answer.body.detail).toMatch(sentence)
  })
  it('keep a stage from being deleted', async () => {
    const { path, stageOne } = await makeBuild(server)
    await server.call('POST', `${path}/parts`, partBody({ stageId: stageOne }))
    expect((await server.call('DELETE', `${path}/stages/${stageOne}`, { version: 1 })).body.detail).toMatch(/has parts/)
  })
})

const planBody = (stageId: string) => ({
  id: randomUUID(),
  stageId,
  bookedS: 7200,
  setUpS: 1200,
  pullS: 60,
  coolingS: 180,
  firstPulls: 2,
  basePulls: 3,
  stops: { lambdaOver: 0.9 },
})
