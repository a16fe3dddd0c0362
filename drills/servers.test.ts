import { execFileSync, spawnSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { buildBody, changeBody } from '../server/test/test-server.ts'
import { Balancer } from './balancer.ts'
import { type Cluster, startCluster } from './cluster.ts'
import { ask, freePort, runScript, type Served, serve } from './served.ts'

const PASSWORD = 'four words do it'
let cluster: Cluster
let folder: string
let environment: Record<string, string>
const build = buildBody()
const stageId = randomUUID()
beforeAll(async () => {
  cluster = await startCluster()
  folder = mkdtempSync(path.join(tmpdir(), 'servers-'))
  environment = { DATABASE_URL: cluster.url, DATA_DIR: folder, SESSION_SECRET: 'x'.repeat(40) }
})
afterAll(async () => {
  await cluster?.stop()
  rmSync(folder, { recursive: true, force: true })
})

async function end(...servers: Served[]): Promise<void> {
  for (const server of servers) server.signal('SIGTERM')
  await Promise.all(servers.map(({ ended }) => ended))
}
const inLog = (id: string) => cluster.psql(`SELECT count(*) FROM history WHERE record_id = '${id}'`, cluster.database)

/** Writes one line after the other as a browser would: again and again with the same id until it is acknowledged. */
async function writeUntilAcknowledged(address: string, count: number, headers: Record<string, string> = {}): Promise<{ ids: string[]; tries: number }> {
  const ids: string[] = []
  let tries = 0
  for (let i = 0; i < count; i++) {
    const change = changeBody(stageId)
    for (;;) {
      tries++
      const answer = await ask(address, 'POST', `/builds/${build.id}/changes`, change, headers)
      if (answer && answer.status < 300) break
      expect(answer === undefined || answer.status >= 500, JSON.stringify(answer?.body)).toBe(true)
      await new Promise((done) => setTimeout(done, 50))
    }
    ids.push(change.id)
  }
  return { ids, tries }
}

describe('servers of one database', () => {
  it('two that start at once on an empty one both serve, with the demo once', async () => {
    const [one, two] = await Promise.all([serve({ ...environment, DEMO: 'some' }), serve({ ...environment, DEMO: 'some' })])
    for (const { address } of [one, two]) expect((await ask(address, 'GET', '/builds'))?.body).toHaveLength(3)
    expect((await ask(one.address, 'POST', '/builds', build))?.status).toBe(201)
    expect((await ask(two.address, 'POST', `/builds/${build.id}/stages`, { id: stageId, position: 1, name: 'Strip' }))?.status).toBe(201)
    expect((await ask(one.address, 'GET', `/builds/${build.id}/board`))?.body.stages).toHaveLength(2)
    await end(one, two)
  })

  it('a database that is killed in mid-write and comes back: every acknowledged line is in the log once', async () => {
    const server = await serve(environment)
    const writing = writeUntilAcknowledged(server.address, 120)
    await new Promise((done) => setTimeout(done, 400))
    for (let i = 0; i < 2; i++) {
      cluster.psql(`SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = '${cluster.database}' AND pid <> pg_backend_pid()`)
      await new Promise((done) => setTimeout(done, 300))
    }
    const { ids, tries } = await writing
    expect(ids).toHaveLength(120)
    expect(tries).toBeGreaterThanOrEqual(120)
    for (const id of ids) expect(inLog(id)).toBe('1')
    expect((await ask(server.address, 'GET', '/health/ready'))?.status).toBe(200)
    await end(server)
  })

  it('two behind a balancer, one killed in mid-write: nobody is signed out, every acknowledged line is in the log once', async () => {
    const behind = { ...environment, PUBLIC_URL: 'https://cars.example', TRUST_PROXY: 'loopback' }
    const link = await runScript('people.mjs', ['owner', 'Ilse'], behind)
    const token = link.out.split('/join#')[1]
    expect(link.out, link.err).toContain('https://cars.example/join#')
    const [one, two] = await Promise.all([serve(behind), serve(behind)])
    const balancer = new Balancer([one.port, two.port], 'cars.example')
    const address = `http://127.0.0.1:${await balancer.listen()}`
    const joined = await ask(address, 'POST', '/join', { token, name: 'Ilse', login: 'ilse', password: PASSWORD })
    expect(joined?.status, JSON.stringify(joined?.body)).toBe(200)
    const headers = { cookie: joined?.headers.getSetCookie()[0]?.split(';')[0] as string }
    // Each of the two knows who it is, and tells where the request came from.
    for (let i = 0; i < 4; i++) expect((await ask(address, 'GET', '/me', undefined, headers))?.body.person.name).toBe('Ilse')
    const writing = writeUntilAcknowledged(address, 100, headers)
    await new Promise((done) => setTimeout(done, 300))
    one.signal('SIGKILL')
    const { ids } = await writing
    for (const id of ids) expect(inLog(id)).toBe('1')
    expect(cluster.psql(`SELECT DISTINCT "by" FROM history WHERE record_id = '${ids.at(-1)}'`, cluster.database)).toBe('Ilse')
    expect(Math.min(...[one, two].map(({ port }) => balancer.served.get(port) ?? 0))).toBeGreaterThan(2)
    expect(cluster.psql(`SELECT DISTINCT address FROM audit WHERE address IS NOT NULL`, cluster.database)).toBe('203.0.113.0/24')
    await balancer.close()
    await end(two)
    await runScript('people.mjs', ['open'], environment)
  })

  it('one told to stop says so to a balancer first, lets requests end, and ends by itself', async () => {
    const server = await serve({ ...environment, DRAIN_S: '1' })
    server.signal('SIGTERM')
    await expect.poll(async () => (await ask(server.address, 'GET', '/health/ready'))?.status).toBe(503)
    const answer = await ask(server.address, 'GET', `/builds/${build.id}/board`)
    expect(answer?.status).toBe(200)
    expect(await server.ended).toBe(0)
  })

  it('one whose port is taken takes no other, and says so', async () => {
    const port = await freePort()
    const taken = createServer()
    await new Promise<void>((done) => taken.listen(port, '127.0.0.1', done))
    await expect(serve({ ...environment, PORT: String(port) })).rejects.toThrow(`PORT ${port} is taken. Stop what uses it, or give another one.`)
    await new Promise((done) => taken.close(done))
  })

  it('one of an older program is refused by a newer database; one that runs goes on', async () => {
    const server = await serve(environment)
    cluster.psql(
      `ALTER TABLE changes ADD COLUMN later text; CREATE TABLE later_kind (build_id uuid, id uuid, PRIMARY KEY (build_id, id)); INSERT INTO migrations (name, batch, migration_time) VALUES ('0099-later', 99, now())`,
      cluster.database,
    )
    const { ids } = await writeUntilAcknowledged(server.address, 5)
    expect(inLog(ids[4] as string)).toBe('1')
    expect((await ask(server.address, 'GET', '/health/ready'))?.status).toBe(200)
    await expect(serve(environment)).rejects.toThrow('A newer Bold Ballast upgraded it (0099). Start that one, or restore the copy taken before.')
    cluster.psql(`ALTER TABLE changes DROP COLUMN later; DROP TABLE later_kind; DELETE FROM migrations WHERE name = '0099-later'`, cluster.database)
    await end(server)
  })

  it('one without devices says where they are, and one with them lists them', async () => {
    const [without, has] = await Promise.all([serve({ ...environment, DEVICES: 'off' }), serve({ ...environment, DEVICES: 'on' })])
    expect((await ask(without.address, 'GET', '/devices'))?.body).toMatchObject({
      code: 'rule-broken',
      detail: expect.stringMatching(/^The devices hang on another server/),
    })
    expect((await ask(has.address, 'GET', '/devices'))?.body).toEqual([])
    await end(without, has)
    await expect(serve({ ...environment, DEVICES: 'some' })).rejects.toThrow('DEVICES is "some"; give on or off.')
  })

  it('metrics are told on their own port, and each request is a line of JSON', async () => {
    const metricsPort = await freePort()
    const server = await serve({ ...environment, METRICS_PORT: String(metricsPort) })
    await ask(server.address, 'GET', '/builds')
    const text = await (await fetch(`http://127.0.0.1:${metricsPort}/metrics`)).text()
    expect(text).toMatch(/bold_ballast_request_seconds_count\{method="GET",route="\/builds",status="2xx"\} 1/)
    expect((await fetch(`http://127.0.0.1:${metricsPort}/`)).status).toBe(404)
    await end(server)
    const [line] = server.lines.map((each) => JSON.parse(each)).filter(({ route }) => route === '/builds')
    expect(line).toMatchObject({ method: 'GET', status: 200, msg: 'request' })
  })
})

const mounts: string[] = []
/** A disk of so many megabytes; null where this user may not make one. */
function smallDisk(megabytes: number): string | null {
  const place = mkdtempSync(path.join(tmpdir(), 'disk-'))
  if (spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m,mode=0755`, 'tmpfs', place]).status !== 0) return null
  mounts.push(place)
  return place
}
afterAll(() => {
  for (const place of mounts) spawnSync('umount', ['-l', place])
})
const mayMount = (() => {
  const place = smallDisk(1)
  return place !== null
})()

describe.skipIf(!mayMount)('a disk that is full', () => {
  it('during a copy leaves the one before, and no half of another', async () => {
    const disk = smallDisk(3) as string
    const { takeCopy } = await import('../server/src/copies/take.ts')
    const { tools } = await import('../scripts/copies.mjs' as string)
    const options = {
      databaseUrl: cluster.url,
      copiesDir: path.join(disk, 'copies'),
      programs: tools().programs,
      check: async () => undefined,
      freeBytes: async () => 1e12,
    }
    const first = await takeCopy({ ...options, now: new Date('2026-11-01T03:00:00Z') })
    execFileSync('sh', ['-c', `head -c 10000000 /dev/zero > "${disk}/full" || true`], { stdio: 'ignore' })
    await expect(takeCopy({ ...options, now: new Date('2026-11-02T03:00:00Z') })).rejects.toThrow(/No space left|ENOSPC/)
    const left = execFileSync('ls', [path.join(disk, 'copies')], { encoding: 'utf8' })
      .trim()
      .split('\n')
    expect(left).toEqual(['20261101T030000Z', 'bytes'])
    expect(first.folder).toBe(path.join(disk, 'copies', '20261101T030000Z'))
    rmSync(path.join(disk, 'full'))
    expect((await takeCopy({ ...options, now: new Date('2026-11-03T03:00:00Z') })).bytes).toBeGreaterThan(0)
  })

  it('during writes refuses them with the reason, keeps what was acknowledged, and takes them again once there is room', async () => {
    const disk = smallDisk(160) as string
    // @ts-expect-error a script without types
    const { startPostgres } = await import('../scripts/postgres.mjs')
    mkdirSync(path.join(disk, 'db'), { mode: 0o755 })
    const small = await startPostgres({ dataDir: path.join(disk, 'db', 'data'), database: 'bold_ballast', role: 'bold_ballast' })
    const server = await serve({ ...environment, DATABASE_URL: small.url })
    const own = buildBody()
    await ask(server.address, 'POST', '/builds', own)
    const stage = randomUUID()
    await ask(server.address, 'POST', `/builds/${own.id}/stages`, { id: stage, position: 1, name: 'Strip' })
    execFileSync('sh', ['-c', `head -c 200000000 /dev/zero > "${disk}/full" || true`], { stdio: 'ignore' })
    const acknowledged: string[] = []
    const refused = new Set<string>()
    const source = 'x'.repeat(120)
    for (let i = 0; i < 3000 && refused.size === 0; i++) {
      const change = { ...changeBody(stage), name: source }
      const answer = await ask(server.address, 'POST', `/builds/${own.id}/changes`, change)
      if (answer?.status === 201) acknowledged.push(change.id)
      else refused.add(`${answer?.body.code}: ${answer?.body.detail}`)
    }
    expect(
      [...refused].every((code) => code.startsWith('disk-full') || code.startsWith('database-away')),
      [...refused].join(),
    ).toBe(true)
    expect(refused.size).toBeGreaterThan(0)
    rmSync(path.join(disk, 'full'))
    const late = changeBody(stage)
    await expect.poll(async () => (await ask(server.address, 'POST', `/builds/${own.id}/changes`, late))?.status, { timeout: 30_000 }).toBe(201)
    for (const id of [...acknowledged, late.id]) expect(small.psql(`SELECT count(*) FROM history WHERE record_id = '${id}'`, 'bold_ballast')).toBe('1')
    await end(server)
    await small.stop()
  })
})
