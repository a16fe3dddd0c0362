import { Writable } from 'node:stream'
import { pino } from 'pino'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { makeOwner, PASSWORD, type Signed, TestBrowser } from '../../test/people.ts'
import { buildBody, startTestServer, type TestServer } from '../../test/test-server.ts'
import { until } from '../../test/until.ts'
import { LiveHub } from '../live/hub.ts'
import { WorkPool } from '../workers/pool.ts'
import { Metrics } from './metrics.ts'
import { routeOf, type Watched } from './request-watch.ts'

const lines: string[] = []
const logger = pino(
  { level: 'info' },
  new Writable({
    write: (chunk, _encoding, done) => {
      lines.push(String(chunk))
      done()
    },
  }),
)
const counted: Watched[] = []
let isStopping = false
let server: TestServer
beforeAll(async () => {
  server = await startTestServer({ logger, count: (watched) => counted.push(watched), isStopping: () => isStopping })
})
afterAll(() => server.stop())

test.each([
  ['GET', '/api/builds/9f/board', '/builds/:buildId/board'],
  ['POST', '/api/builds', '/builds'],
  ['GET', '/api/what/ever', 'unknown'],
  ['DELETE', '/api/builds', 'unknown'],
  ['GET', '/assets/index-1.js', 'asset'],
  ['GET', '/builds/9f/weight', 'page'],
])('%s %s is counted as %s', (method, path, route) => {
  expect(routeOf(method, path)).toBe(route)
})

describe('a log of requests', () => {
  let owner: Signed & { garageId: string }
  it('has a line of JSON for each, by address template, and the id that the refusal bears', async () => {
    const answer = await fetch(`http://127.0.0.1:${server.port}/api/builds/00000000-0000-4000-8000-000000000000/board`, {
      headers: { 'x-request-id': 'forged-by-somebody' },
    })
    const problem = (await answer.json()) as { requestId: string }
    expect(answer.headers.get('x-request-id')).toBe(problem.requestId)
    expect(problem.requestId).toMatch(/^[0-9a-f-]{36}$/)
    const line = await until(() => lines.map((text) => JSON.parse(text)).find(({ id }) => id === problem.requestId))
    expect(line).toMatchObject({ level: 30, method: 'GET', route: '/builds/:buildId/board', status: 404, code: 'not-found', msg: 'request' })
    expect(counted.at(-1)).toMatchObject({ route: '/builds/:buildId/board', status: 404, code: 'not-found' })
  })
  it('holds no name, password, cookie, secret or body of anybody', async () => {
    owner = await makeOwner(server)
    const build = { ...buildBody(), name: 'a name nobody else reads' }
    await owner.browser.call('POST', '/api/builds', build)
    await owner.browser.call('POST', '/api/sign-in', { login: 'ilse', password: 'not the right one' })
    const { token } = (await owner.browser.call('POST', `/api/garages/${owner.garageId}/invitations`, { role: 'crew' })).body
    await new TestBrowser(server).call('POST', '/api/join', { token, name: 'Tomas', login: 'tomas', password: PASSWORD })
    const link = (await owner.browser.call('POST', `/api/builds/${build.id}/links`, {})).body
    await new TestBrowser(server).call('GET', '/api/shared', undefined, { 'x-link': link.token })
    await until(() => lines.filter((line) => line.includes('/shared')).length > 0)
    const all = lines.join('')
    const cookie = owner.browser.cookie.split('=')[1] as string
    for (const secret of ['Ilse', 'ilse', 'Tomas', build.id, build.name, PASSWORD, 'not the right', token, link.token, cookie])
      expect(all).not.toContain(secret)
  })
})

describe('health', () => {
  const ask = (path: string) => server.call('GET', `/api/health${path}`)
  it('is live and ready, also for whoever is not signed in', async () => {
    expect((await ask('/live')).body).toEqual({ status: 'live' })
    expect((await ask('/ready')).body).toEqual({ status: 'ready' })
    expect((await ask('')).body).toEqual({ status: 'ready' })
  })
  it('is not ready while it stops, or while the database waits for an upgrade; a newer one is no reason', async () => {
    isStopping = true
    const stopping = await ask('/ready')
    expect([stopping.status, stopping.body]).toEqual([503, { status: 'not ready', why: ['It is stopping.'] }])
    expect((await ask('/live')).status).toBe(200)
    isStopping = false
    await server.knex('migrations').insert({ name: '0099-later', batch: 9, migrationTime: new Date() })
    expect((await ask('/ready')).status).toBe(200)
    const last = await server.knex('migrations').where({ name: '0001-create-records' }).first()
    await server.knex('migrations').where({ name: '0001-create-records' }).delete()
    expect((await ask('/ready')).body.why).toEqual(['The database waits for an upgrade.'])
    await server.knex('migrations').insert(last)
    expect((await ask('/ready')).status).toBe(200)
  })
})

/** Names, types and samples of a text as Prometheus reads it: a sample belongs to a family that was declared before it. */
function families(text: string): Map<string, { type: string; samples: string[] }> {
  const found = new Map<string, { type: string; samples: string[] }>()
  for (const line of text.split('\n').filter((each) => each !== '' && !each.startsWith('# HELP'))) {
    const declared = /^# TYPE (\S+) (counter|gauge|histogram|summary)$/.exec(line)
    if (declared) found.set(declared[1] as string, { type: declared[2] as string, samples: [] })
    else {
      const sample = /^([a-z_\d]+)(\{.*\})? (-?[\d.e+-]+|NaN|Nan|\+Inf)$/.exec(line)
      expect(sample, line).not.toBeNull()
      const name = (sample as RegExpExecArray)[1] as string
      const family = found.get(name) ?? found.get(name.replace(/_(bucket|sum|count)$/, ''))
      expect(family, line).toBeDefined()
      family?.samples.push(line)
    }
  }
  return found
}

describe('metrics', () => {
  it('are told on loopback alone, count answers by address template and refusals by kind, and say nothing that is not known', async () => {
    const url = new URL(process.env.DATABASE_URL as string)
    url.pathname = `/${server.databaseName}`
    const live = new LiveHub(url.href)
    const pool = new WorkPool()
    const metrics = new Metrics({ knex: server.knex, pool, live, copyAgeS: async () => undefined })
    const stop = await metrics.serve(9400 + Math.floor(Math.random() * 500))
    metrics.count({ method: 'GET', route: '/builds/:buildId/board', status: 200, seconds: 0.004, code: null })
    metrics.count({ method: 'GET', route: '/builds/:buildId/board', status: 404, seconds: 0.004, code: 'not-found' })
    const text = await metrics.registry.metrics()
    const known = families(text)
    expect(known.get('bold_ballast_request_seconds')?.samples).toContain(
      'bold_ballast_request_seconds_bucket{le="0.005",method="GET",route="/builds/:buildId/board",status="2xx"} 1',
    )
    expect(known.get('bold_ballast_refusals_total')?.samples).toEqual(['bold_ballast_refusals_total{code="not-found"} 1'])
    // What is not known is not told to be nothing.
    for (const unknown of ['copy_age_seconds', 'notify_lag_seconds']) expect(known.get(`bold_ballast_${unknown}`)?.samples).toEqual([])
    for (const [name, { type }] of known) if (name.endsWith('_total')) expect(type, name).toBe('counter')
    expect(known.get('bold_ballast_streams')?.samples).toEqual(['bold_ballast_streams 0'])
    expect(known.get('bold_ballast_nodejs_eventloop_lag_seconds')?.samples).toHaveLength(1)
    expect(known.get('bold_ballast_connections_free')?.samples).toHaveLength(1)
    await stop()
    await live.close()
    await pool.close()
  })
  it('know how long the servers take to hear each other, once somebody listens', async () => {
    const url = new URL(process.env.DATABASE_URL as string)
    url.pathname = `/${server.databaseName}`
    const live = new LiveHub(url.href)
    expect(await live.lagS()).toBeUndefined()
    const unlisten = await live.listen(() => undefined)
    const lag = await live.lagS()
    expect(lag).toBeGreaterThan(0)
    expect(lag).toBeLessThan(2)
    expect([live.streamCount, live.isAway]).toEqual([1, false])
    unlisten()
    await live.close()
  })
})
