import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { buildBody, changeBody, makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

const AT_ONCE = 20

describe('one id', () => {
  test.each(['a build', 'a line'])('of %s, sent twenty times at once, makes one record that all are told', async (what) => {
    const build = await makeBuild(server)
    const body = what === 'a build' ? buildBody() : changeBody(build.stageOne)
    const path = what === 'a build' ? '/api/builds' : `${build.path}/changes`
    const answers = await Promise.all(Array.from({ length: AT_ONCE }, () => server.call('POST', path, body)))
    expect(answers.map(({ status }) => status).sort()).toEqual([...Array(AT_ONCE - 1).fill(200), 201])
    expect(new Set(answers.map(({ body: made }) => `${made.id} ${made.createdAt}`)).size).toBe(1)
  })
  it('in capitals is the same', async () => {
    const { path, stageOne } = await makeBuild(server)
    const body = changeBody(stageOne)
    const first = await server.call('POST', `${path}/changes`, body)
    const again = await server.call('POST', `${path}/changes`, { ...body, id: body.id.toUpperCase(), stageId: stageOne.toUpperCase() })
    expect([first.status, again.status, again.body.id]).toEqual([201, 200, body.id])
    expect((await server.call('GET', `${path}/changes/${body.id.toUpperCase()}`)).status).toBe(200)
  })
  it('names one record of a build, of whatever kind; in another build it is free', async () => {
    const [{ path, stageOne }, other] = [await makeBuild(server), await makeBuild(server)]
    const body = changeBody(stageOne)
    await server.call('POST', `${path}/changes`, body)
    const zone = { id: body.id, name: 'cabin' }
    expect(await server.call('POST', `${path}/zones`, zone)).toMatchObject({ status: 409, body: { code: 'duplicate' } })
    const batch = { batchId: randomUUID(), writes: [{ kind: 'create', resource: 'zones', body: zone }] }
    expect((await server.call('POST', `${path}/batches`, batch)).status).toBe(409)
    expect((await server.call('POST', `${other.path}/zones`, zone)).status).toBe(201)
  })
  it('of a batch counts for one build', async () => {
    const [first, other] = [await makeBuild(server), await makeBuild(server)]
    const batchId = randomUUID()
    const send = (build: typeof first) =>
      server.call('POST', `${build.path}/batches`, { batchId, writes: [{ kind: 'create', resource: 'changes', body: changeBody(build.stageOne) }] })
    const [one, two] = [await send(first), await send(other)]
    expect([one.status, two.status]).toEqual([200, 200])
    expect(one.body[0].id).not.toBe(two.body[0].id)
    expect((await server.call('GET', `${other.path}/changes`)).body).toHaveLength(1)
  })
})

describe('a time that no clock shows', () => {
  test.each([
    ['an offset of nearly a day', '2026-03-01T10:00:00+23:59'],
    ['the year 0', '0000-03-01T10:00:00Z'],
  ])('%s is refused in words', async (_, doneAt) => {
    const { path, stageOne } = await makeBuild(server)
    const answer = await server.call('POST', `${path}/changes`, { ...changeBody(stageOne), doneAt })
    expect(answer).toMatchObject({ status: 422, body: { errors: [{ path: 'doneAt', message: expect.stringMatching(/\.$/) }] } })
  })
})

it('the making of a build is taken back by the order of its log, also where the clock was set back since', async () => {
  const { buildId, path, stageOne } = await makeBuild(server)
  const [made] = await server.knex('history').where({ buildId, resource: 'builds', action: 'create' })
  await server.call('POST', `${path}/changes`, changeBody(stageOne))
  await server.knex('history').where({ buildId }).where('id', '>', made.id).whereNot('at', made.at).update({ at: '2020-01-01T00:00:00Z' })
  expect(await server.call('POST', `${path}/log/${made.id}/undo`, {})).toMatchObject({
    status: 422,
    body: { detail: expect.stringMatching(/worked on since/) },
  })
})

it('a write moves the revision that other pages look at', async () => {
  const { path, stageOne } = await makeBuild(server)
  const revision = async () => (await server.call('GET', `${path}/revision`)).body.revision
  const before = await revision()
  expect(await revision()).toBe(before)
  await server.call('POST', `${path}/changes`, changeBody(stageOne))
  expect(await revision()).toBeGreaterThan(before)
})

it('a Garage of sixty builds is answered to four who ask at once', async () => {
  for (let i = 0; i < 60; i++) await server.call('POST', '/api/builds', buildBody())
  const answers = await Promise.all(Array.from({ length: 4 }, () => server.call('GET', '/api/builds')))
  for (const { status, body } of answers) expect([status, body.length]).toEqual([200, 50])
})
