import { randomUUID } from 'node:crypto'
import { appendFileSync, chmodSync, cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { sumsOf } from '../server/src/copies/tables.ts'
import { takeCopy } from '../server/src/copies/take.ts'
import { openDatabase } from '../server/src/database/open.ts'
import { buildBody, changeBody } from '../server/test/test-server.ts'
import { type Cluster, startCluster } from './cluster.ts'
import { ask, type Ran, runScript, type Served, serve } from './served.ts'
import { SPOILED, type Spoil } from './spoiled.ts'

let cluster: Cluster
let folder: string
let environment: Record<string, string>
const build = buildBody()
const at = `/builds/${build.id}`
let stageId = ''
beforeAll(async () => {
  cluster = await startCluster()
  folder = mkdtempSync(path.join(tmpdir(), 'drill-'))
  environment = { DATABASE_URL: cluster.url, DATA_DIR: folder, COPIES_DIR: path.join(folder, 'copies'), DEMO: 'some' }
  const server = await serve(environment)
  await ask(server.address, 'POST', '/builds', build)
  stageId = randomUUID()
  await ask(server.address, 'POST', `${at}/stages`, { id: stageId, position: 1, name: 'Strip' })
  await end(server)
})
afterAll(async () => {
  await cluster?.stop()
  rmSync(folder, { recursive: true, force: true })
})

async function end(server: Served): Promise<void> {
  server.signal('SIGTERM')
  expect(await server.ended).toBe(0)
}

const copies = () =>
  readdirSync(environment.COPIES_DIR as string)
    .filter((name) => name !== 'bytes')
    .sort()
const lastCopy = () => path.join(environment.COPIES_DIR as string, copies().at(-1) as string)
const backup = (...args: string[]) => runScript('backup.mjs', args, environment)
const restore = (place: string, more = {}): Promise<Ran> => runScript('restore.mjs', [place], { ...environment, ...more })
async function sums(url = cluster.url) {
  const client = new pg.Client(url)
  await client.connect()
  const found = await sumsOf(client)
  await client.end()
  return found
}

describe('a copy', () => {
  it('taken while others write holds one moment, restored row for row', async () => {
    const server = await serve(environment)
    let isOver = false
    const acknowledged: string[] = []
    const writing = (async () => {
      while (!isOver) {
        const change = changeBody(stageId)
        const answer = await ask(server.address, 'POST', `${at}/changes`, change)
        if (answer?.status === 201) acknowledged.push(change.id)
      }
    })()
    const taken = await backup()
    isOver = true
    await writing
    expect(taken.code, taken.err).toBe(0)
    expect(taken.out).toMatch(/restored on trial, every row the same, 4 Boards open/)
    expect(acknowledged.length).toBeGreaterThan(20)
    const manifest = JSON.parse(readFileSync(path.join(lastCopy(), 'manifest.json'), 'utf8'))
    expect(Number(manifest.tables.changes.count)).toBeGreaterThan(0)
    expect(manifest.byteFiles).toBeGreaterThan(0)
    expect(manifest.tables).not.toHaveProperty('sign_ins')
    // Neither is it changed by what comes later.
    const board = await ask(server.address, 'GET', `${at}/board?day=2026-11-30`)
    await end(server)
    const before = await sums()
    const restored = await restore(lastCopy())
    expect(restored.code, restored.err).toBe(0)
    const after = await sums()
    const differ = Object.keys(before).filter((name) => JSON.stringify(before[name]) !== JSON.stringify(after[name]))
    // The copy itself, what it was noted by, and who could come in again are of another moment; so is what was written while it was taken.
    expect(differ.filter((name) => !['copies', 'audit', 'changes', 'history', 'garages', 'people'].includes(name))).toEqual([])
    expect(after.changes?.count).toBe(manifest.tables.changes.count)
    const again = await serve(environment)
    expect((await ask(again.address, 'GET', `${at}/board?day=2026-11-30`))?.body.stages).toEqual(board?.body.stages)
    await end(again)
  })

  it('packed into one file is restored where the disk was lost', async () => {
    const file = path.join(folder, 'away.tar')
    const packed = await backup('--to', file)
    expect(packed.code, packed.err).toBe(0)
    const wanted = await sums()
    const other = cluster.createDatabase('after_the_loss')
    const restored = await restore(file, { DATABASE_URL: other, COPIES_DIR: path.join(folder, 'nothing-here') })
    expect(restored.code, restored.err).toBe(0)
    const found = await sums(other)
    for (const table of ['changes', 'history', 'pulls', 'pull_channels', 'photos', 'photo_bytes', 'log_blocks', 'builds', 'stages'])
      expect(found[table], table).toEqual(wanted[table])
    const server = await serve({ ...environment, DATABASE_URL: other })
    expect((await ask(server.address, 'GET', '/builds'))?.body).toHaveLength(4)
    await end(server)
  })

  it('is carried on by the program of COPY_DONE, told where it lies and read by no shell', async () => {
    const program = path.join(folder, 'carry; touch nothing')
    writeFileSync(program, `#!/bin/sh\nprintf '%s' "$1" > "${folder}/carried"\n`)
    chmodSync(program, 0o755)
    const done = await runScript('backup.mjs', [], { ...environment, COPY_DONE: program })
    expect(done.code, done.err).toBe(0)
    expect(readFileSync(path.join(folder, 'carried'), 'utf8')).toBe(lastCopy())
    const failed = await runScript('backup.mjs', [], { ...environment, COPY_DONE: '/nowhere/at/all' })
    expect([failed.code, failed.err]).toEqual([1, expect.stringMatching(/^The copy is taken and whole\. COPY_DONE "\/nowhere\/at\/all" could not be run/)])
  })

  it('is refused where one is being taken, but before an upgrade waits for it; leaves nothing where it was killed', async () => {
    const client = new pg.Client(cluster.url)
    await client.connect()
    await client.query('SELECT pg_advisory_lock(7423402)')
    expect((await backup()).err).toBe('Another copy is being taken. Wait until it is done.')
    const waiting = runScript('backup.mjs', ['--next'], environment)
    const isWaiting = async () => (await client.query("SELECT 1 FROM pg_locks WHERE locktype = 'advisory' AND objid = 7423402 AND NOT granted")).rowCount === 1
    while (!(await isWaiting())) await new Promise((done) => setTimeout(done, 50))
    await client.end()
    expect((await waiting).code).toBe(0)
    mkdirSync(path.join(environment.COPIES_DIR as string, '20260101T000000Z.partial'))
    expect((await backup()).code).toBe(0)
    expect(copies().some((name) => name.endsWith('.partial'))).toBe(false)
  })

  it('needs room, and a folder it may write to; the one before stays', async () => {
    const before = copies()
    const options = {
      databaseUrl: cluster.url,
      copiesDir: environment.COPIES_DIR as string,
      programs: { pg_dump: '', pg_restore: '' },
      check: async () => undefined,
    }
    await expect(takeCopy({ ...options, freeBytes: async () => 120e6 })).rejects.toThrow(/^120 MB are free, a copy needs 20\d\. The copy of \d+ \w+ stays\.$/)
    await expect(takeCopy({ ...options, copiesDir: '/dev/null/none' })).rejects.toThrow(
      'COPIES_DIR "/dev/null/none" cannot be written. Give a folder that this program may write to.',
    )
    await expect(takeCopy({ ...options, programs: { pg_dump: '/nowhere', pg_restore: '' } })).rejects.toThrow(/^\/nowhere could not be run/)
    expect(copies()).toEqual(before)
    const client = new pg.Client(cluster.url)
    await client.connect()
    const { rows } = await client.query('SELECT problem FROM copies WHERE problem IS NOT NULL ORDER BY taken_at')
    await client.end()
    expect(rows.map(({ problem }) => problem.slice(0, 12))).toEqual(expect.arrayContaining(['120 MB are f', 'COPIES_DIR "', '/nowhere cou']))
  })
})

describe('a copy that is not whole is refused, and nothing is changed', () => {
  /** A copy of the copies, to be spoiled. */
  const spoiled = (spoil: Spoil) => {
    const place = mkdtempSync(path.join(folder, 'spoiled-'))
    cpSync(environment.COPIES_DIR as string, place, { recursive: true })
    const copy = path.join(place, copies().at(-1) as string)
    spoil({ copy, bytes: path.join(place, 'bytes') })
    return copy
  }
  test.each(SPOILED)('%s', async (_, spoil, sentence) => {
    const before = await sums()
    const copy = spoiled(spoil)
    const refused = await restore(copy)
    expect([refused.code, refused.err]).toEqual([1, expect.stringMatching(sentence)])
    expect(await sums()).toEqual(before)
    expect(cluster.psql(`SELECT count(*) FROM pg_database WHERE datname LIKE '%restoring'`)).toBe('0')
  })
  it('nor is one restored that is not there, or a file that is none', async () => {
    expect((await restore('/nowhere')).err).toBe('There is no copy at /nowhere. Nothing was changed.')
    const file = path.join(folder, 'none.tar')
    writeFileSync(file, 'this is no copy at all')
    expect((await restore(file)).err).toMatch(/none\.tar is no file of a copy, or not whole.*Nothing was changed\.$/)
  })
})

describe('a restore', () => {
  it('is refused while a server uses the database, even one that has nothing to do', async () => {
    const server = await serve(environment)
    const refused = await restore(lastCopy())
    expect([refused.code, refused.err]).toEqual([1, 'A server uses it. Stop it first. Nothing was changed.'])
    await end(server)
  })

  it('lets nobody in again who was let out: sign-ins, links and invitations end, who was switched off stays off; what stood there stays beside', async () => {
    const person = randomUUID()
    const garage = cluster.psql('SELECT id FROM garages', cluster.database)
    cluster.psql(
      `INSERT INTO people (id, garage_id, name, name_shape, login, login_key, state) VALUES ('${person}', '${garage}', 'Maro', 'maro', 'maro', 'maro', 'active');
       INSERT INTO sign_ins (sid, sess, expire) VALUES ('s', '{}', now() + interval '1 day');
       INSERT INTO share_links (build_id, id, token_hash) VALUES ('${build.id}', '${randomUUID()}', 'h');
       INSERT INTO invitations (id, token_hash, garage_id, role, expires_at) VALUES ('${randomUUID()}', 'i', '${garage}', 'crew', now() + interval '7 days');`,
      cluster.database,
    )
    expect((await backup()).code).toBe(0)
    cluster.psql(`UPDATE people SET state = 'off' WHERE id = '${person}'`, cluster.database)
    const done = await restore(lastCopy())
    expect(done.code, done.err).toBe(0)
    const read = (sql: string) => cluster.psql(sql, cluster.database)
    expect(read(`SELECT state || ' ' || epoch FROM people WHERE id = '${person}'`)).toBe('off 1')
    expect(read('SELECT count(*) FROM sign_ins')).toBe('0')
    expect(read('SELECT count(*) FROM share_links WHERE withdrawn_at IS NULL')).toBe('0')
    expect(read('SELECT count(*) FROM invitations WHERE withdrawn_at IS NULL AND used_at IS NULL')).toBe('0')
    expect(read('SELECT action FROM audit ORDER BY id DESC LIMIT 1')).toBe('copy restored')
    const former = /kept as (\S+)\./.exec(done.out)?.[1] as string
    expect(former).toMatch(/^bold_ballast_before_\d{14}$/)
    expect(cluster.psql(`SELECT state FROM people WHERE id = '${person}'`, former)).toBe('off')
  })

  it('passes the check of every index and table of PostgreSQL', async () => {
    cluster.psql('CREATE EXTENSION IF NOT EXISTS amcheck', cluster.database)
    const bad = cluster.psql(
      `SELECT count(*) FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace, LATERAL verify_heapam(c.oid) v WHERE n.nspname = 'public' AND c.relkind = 'r'`,
      cluster.database,
    )
    expect(bad).toBe('0')
    cluster.psql(
      `SELECT bt_index_check(i.indexrelid, true) FROM pg_index i JOIN pg_class c ON c.oid = i.indrelid JOIN pg_namespace n ON n.oid = c.relnamespace
       JOIN pg_class x ON x.oid = i.indexrelid JOIN pg_am a ON a.oid = x.relam WHERE n.nspname = 'public' AND a.amname = 'btree' AND c.relpersistence = 'p'`,
      cluster.database,
    )
    cluster.psql('DROP EXTENSION amcheck', cluster.database)
  })
})

/** A database as the program of so many migrations left it, with a build in it. */
async function olderDatabase(migrationCount: number): Promise<string> {
  const url = cluster.createDatabase('older')
  const knex = openDatabase(url)
  for (let i = 0; i < migrationCount; i++) await knex.migrate.up()
  const { id: garageId } = (await knex('garages').first('id')) as { id: string }
  const made = { createdAt: new Date(), createdBy: 'x', updatedAt: new Date(), updatedBy: 'x', version: 1 }
  const car = { name: 'Old', discipline: 'track', drivenAxles: 'rear', wheelbaseM: 2.5, trackFrontM: 1.5, trackRearM: 1.5, reference: '{}', powerBasis: '{}' }
  const id = randomUUID()
  await knex('builds').insert({ id, garageId, ...car, ...made })
  await knex('stages').insert({ id: randomUUID(), buildId: id, position: 0, name: 'As bought', ...made })
  await knex.destroy()
  return url
}

describe('copies of a server', () => {
  it('are taken and tried out from the page, and told with when they were found whole', async () => {
    const server = await serve(environment)
    const garageId = (await ask(server.address, 'GET', '/me'))?.body.garages[0].garageId as string
    const list = async () => (await ask(server.address, 'GET', `/garages/${garageId}/copies`))?.body
    const before = (await list()).copies.length
    const asked = await ask(server.address, 'POST', `/garages/${garageId}/copies`, {})
    expect([asked?.status, asked?.body.isRunning]).toEqual([202, true])
    expect((await ask(server.address, 'POST', `/garages/${garageId}/copies`, {}))?.body).toMatchObject({
      code: 'too-busy',
      detail: expect.stringMatching(/^A copy is being taken, or tried out/),
    })
    await expect.poll(async () => (await list()).isRunning, { timeout: 60_000 }).toBe(false)
    const { copies: found, folder: told } = await list()
    expect(told).toBe(environment.COPIES_DIR)
    expect(found).toHaveLength(before + 1)
    expect(found[0]).toMatchObject({ problem: null, checkedAt: expect.any(String), bytes: expect.any(Number) })
    appendFileSync(path.join(found[0].path, 'database.dump'), 'x')
    expect((await ask(server.address, 'POST', `/garages/${garageId}/copies/${found[0].id}/check`, {}))?.status).toBe(202)
    await expect.poll(async () => (await list()).copies[0].problem, { timeout: 60_000 }).toMatch(/^database\.dump is not the file/)
    // What was found is noted before the program that looked ends.
    await expect.poll(async () => (await list()).isRunning, { timeout: 60_000 }).toBe(false)
    expect((await ask(server.address, 'POST', `/garages/${garageId}/copies/${randomUUID()}/check`, {}))?.status).toBe(404)
    await end(server)
  })
  it('of a database that others keep are told to be theirs', async () => {
    const { COPIES_DIR: _, ...others } = environment
    const server = await serve(others)
    const garageId = (await ask(server.address, 'GET', '/me'))?.body.garages[0].garageId as string
    expect((await ask(server.address, 'GET', `/garages/${garageId}/copies`))?.body).toEqual({ folder: null, isRunning: false, copies: [] })
    expect((await ask(server.address, 'POST', `/garages/${garageId}/copies`, {}))?.body).toMatchObject({ code: 'rule-broken' })
    await end(server)
  })
  it('stand before an upgrade of tables with builds, and one that fails stops it', async () => {
    const older = await olderDatabase(22)
    const copiesDir = path.join(folder, 'older')
    const at = { ...environment, DATABASE_URL: older, COPIES_DIR: copiesDir, DEMO: 'none' }
    const failing = serve({ ...at, COPIES_DIR: '/dev/null/none' })
    await expect(failing).rejects.toThrow(/The copy before the upgrade failed, so nothing was changed\. COPIES_DIR "\/dev\/null\/none" cannot be written/)
    const server = await serve(at)
    const [taken, ...others] = readdirSync(copiesDir).filter((name) => name !== 'bytes')
    expect(others).toEqual([])
    const copy = path.join(copiesDir, taken as string)
    expect(JSON.parse(readFileSync(path.join(copy, 'manifest.json'), 'utf8')).migrations.at(-1)).toBe('0022-crew')
    await end(server)
    const back = await runScript('restore.mjs', [copy], at)
    expect(back.code, back.err).toBe(0)
    expect(existsSync(copy)).toBe(true)
  })
})
