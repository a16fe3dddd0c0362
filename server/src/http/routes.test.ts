import { randomUUID } from 'node:crypto'
import { KINDS } from '@bold-ballast/core'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { buildBody, makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'
import { toAppError, toProblem } from './problem.ts'

let server: TestServer
let away: TestServer
let path = ''
const RESOURCE_NAMES = KINDS.map((kind) => kind.address)
beforeAll(async () => {
  server = await startTestServer()
  away = await startTestServer()
  path = (await makeBuild(server)).path
  await server.knex.raw(`DROP DATABASE ${away.databaseName} WITH (FORCE)`)
})
afterAll(async () => {
  await server.stop()
  await away.stop()
})

const nowhere = '/api/builds/0a3aee49-6666-4879-938d-000000000000'
/** Nothing of the inside may be sent: no stack, SQL or path. */
const expectClean = (text: string) => expect(text).not.toMatch(/\n\s+at |select |insert |update "|node_modules|\.ts|\/server|\/core|knex|password/i)

const BUILD_ROUTES = ['records', 'board', 'weight', 'power', 'log', ...RESOURCE_NAMES]
const WRITES: [method: string, path: string][] = [
  ['POST', '/api/builds'],
  ['PATCH', 'BUILD'],
  ['DELETE', 'BUILD'],
  ['POST', 'BUILD/restore'],
  ['PUT', 'BUILD/stage-order'],
  ['POST', 'BUILD/batches'],
  ...RESOURCE_NAMES.flatMap((name): [string, string][] => [
    ['POST', `BUILD/${name}`],
    ['PATCH', `BUILD/${name}/${randomUUID()}`],
    ['DELETE', `BUILD/${name}/${randomUUID()}`],
    ['POST', `BUILD/${name}/${randomUUID()}/restore`],
  ]),
]

describe.each(WRITES)('%s %s', (method, route) => {
  const at = (build: string) => route.replace('BUILD', build)
  it('refuses malformed JSON', async () => {
    const answer = await server.call(method, at(path), '{"id":')
    expect(answer).toMatchObject({ status: 400, type: expect.stringContaining('application/problem+json'), body: { status: 400, code: 'malformed' } })
    expectClean(answer.text)
  })
  it('refuses an unknown field by its name', async () => {
    const answer = await server.call(method, at(path), { version: 1, surprise: true })
    expect(answer.status).toBe(422)
    expect(answer.text).toMatch(/surprise/)
    expectClean(answer.text)
  })
  it('answers that the database is away', async () => {
    const body = route === '/api/builds' ? buildBody() : route.endsWith('stage-order') ? { stages: [{ id: randomUUID(), version: 1 }] } : { version: 1 }
    const answer = await away.call(method, at(nowhere), body)
    // Whether anybody must sign in is asked before the body is looked at.
    expect(answer).toMatchObject({ status: 503, body: { code: 'database-away' }, headers: { 'retry-after': '2' } })
    expectClean(answer.text)
  })
  it('finds nothing under a wrong id', async () => {
    if (route === '/api/builds') return
    const answer = await server.call(method, at('/api/builds/not-an-id'), { version: 1 })
    expect([404, 422]).toContain(answer.status)
    expectClean(answer.text)
  })
})

describe.each(BUILD_ROUTES)('GET builds/…/%s', (name) => {
  it('answers for a build that is there and 404 for one that is not', async () => {
    expect((await server.call('GET', `${path}/${name}`)).status).toBe(200)
    const missing = await server.call('GET', `${nowhere}/${name}`)
    expect(missing).toMatchObject({ status: 404, body: { code: 'not-found' } })
    expectClean(missing.text)
  })
})

describe('who may talk to the server', () => {
  test.each([
    ['another host', { host: 'evil.example:80' }],
    ['another port', { host: '127.0.0.1:1' }],
    ['another origin', { origin: 'http://evil.example' }],
    ['a cross-site request', { 'sec-fetch-site': 'cross-site' }],
    ['a same-site request', { 'sec-fetch-site': 'same-site' }],
    ['a form post', { 'content-type': 'application/x-www-form-urlencoded' }],
  ])('refuses %s', async (_, headers) => {
    expect((await server.call('POST', '/api/builds', buildBody(), headers as unknown as Record<string, string>)).status).toBe(403)
  })
  it('takes our own origin', async () => {
    const answer = await server.call('POST', '/api/builds', buildBody(), { origin: `http://127.0.0.1:${server.port}`, 'sec-fetch-site': 'same-origin' })
    expect(answer.status).toBe(201)
  })
  it('sends the headers that keep the page to itself', async () => {
    const { headers } = await server.call('GET', '/api/health')
    expect(headers['content-security-policy']).toContain("script-src 'self' 'wasm-unsafe-eval'")
    expect(headers['x-content-type-options']).toBe('nosniff')
    expect(headers['cache-control']).toBe('no-store')
    expect(headers['x-powered-by']).toBeUndefined()
  })
  it('refuses what is too large', async () => {
    const answer = await server.call('POST', '/api/builds', { ...buildBody(), name: 'x'.repeat(300_000) })
    expect(answer).toMatchObject({ status: 413, body: { code: 'too-large', detail: expect.stringMatching(/256 kB/) } })
    const batch = await server.call('POST', `${path}/batches`, { batchId: 'x'.repeat(5 * 1024 * 1024) })
    expect(batch).toMatchObject({ status: 413, body: { detail: expect.stringMatching(/4 MB/) } })
  })
})

describe('calculations over HTTP', () => {
  it('lists them with schemas', async () => {
    const { body } = await server.call('GET', '/api/calc')
    for (const entry of body)
      expect(entry).toMatchObject({
        name: expect.any(String),
        formula: expect.any(String),
        sources: expect.any(Array),
        input: { type: 'object' },
        output: { type: 'object' },
      })
    expect(body.map((entry: { name: string }) => entry.name)).toEqual(
      expect.arrayContaining(['air.density', 'build.mass-at-stage', 'build.power-at-stage', 'mass.forecast', 'dyno.correction']),
    )
  })
  it('answers and refuses', async () => {
    const good = await server.call('POST', '/api/calc/dyno.power-torque', { speedRpm: 6500, torqueNm: 400 })
    expect(good.body.value.powerW).toBeCloseTo(272_271.36, 1)
    const bad = await server.call('POST', '/api/calc/dyno.power-torque', { speedRpm: 0, torqueNm: 400 })
    expect(bad).toMatchObject({ status: 422, body: { ok: false, error: { code: 'out-of-range', field: 'speedRpm' } } })
    const dead = await server.call('POST', '/api/calc/mass.corners', { pads: { LF: { massKg: 322.5 }, RF: { massKg: 311 }, LR: { massKg: 286.5 }, RR: null } })
    expect(dead.body.value.figures).toBeNull()
    expect(dead.body.value.refusal).toMatch(/right rear pad.*Three readings are kept/)
    expect((await server.call('POST', '/api/calc/no.such', {})).status).toBe(404)
  })
})

describe('what a request can meet outside of our code', () => {
  it.each([
    [Object.assign(new Error('no space left'), { code: 'ENOSPC' }), 'disk-full', 507],
    [Object.assign(new Error('precondition failed'), { status: 412 }), 'precondition-failed', 412],
    [Object.assign(new Error('too large'), { type: 'entity.too.large', limit: 2 * 1024 * 1024 }), 'too-large', 413],
  ])('%s is %s', (thrown, code, status) => {
    expect(toProblem(toAppError(thrown))).toMatchObject({ code, status, detail: expect.stringMatching(/\.$/) })
  })
})

describe('requests that are wrong in themselves', () => {
  const send = (method: string, path: string, body: string, headers: Record<string, string>) => server.call(method, path, body, headers)
  it.each<[string, string, string, string, Record<string, string>, number]>([
    ['a NUL in a text', 'POST', 'zones', JSON.stringify({ id: '7f1d3c52-51a2-4a1e-9c35-2a6f5a5e0a99', name: 'a\u0000b' }), {}, 422],
    ['an unknown character set', 'POST', 'zones', '{}', { 'content-type': 'application/json; charset=klingon' }, 415],
    ['an unknown encoding', 'POST', 'zones', '{}', { 'content-encoding': 'foo' }, 415],
    ['a NUL in a name of a person', 'POST', 'zones', JSON.stringify({ id: '7f1d3c52-51a2-4a1e-9c35-2a6f5a5e0a98', name: 'ab' }), { 'x-person': 'a%00b' }, 201],
  ])('%s is answered in words', async (_, method, list, body, headers, status) => {
    const build = await makeBuild(server)
    const answer = await send(method, `${build.path}/${list}`, body, headers)
    expect(answer.status, answer.text).toBe(status)
    if (status >= 400) expect(answer.body.detail).toMatch(/\.$/)
  })
  it('outside the API is a problem too', async () => {
    expect(await send('POST', '/', '{}', {})).toMatchObject({ status: 404, type: expect.stringMatching(/problem\+json/) })
  })
})
