// What keeping and growing cost: copies, restore, a start, many builds, two servers; part of the bench, on a database and servers of its own.
import { spawn, spawnSync } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { performance } from 'node:perf_hooks'
import autocannon from 'autocannon'
import { root } from './install.mjs'
import { freePort, startPostgres } from './postgres.mjs'

const LARGE = 10
const MANY = 300
const SHOOT_S = 8
const script = (name) => path.join(root, 'scripts', name)

async function serve(environment) {
  const port = await freePort()
  const child = spawn(process.execPath, [script('serve.mjs')], {
    env: { ...process.env, ...environment, LOG_LEVEL: 'warn', PORT: String(port) },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  await new Promise((resolve, reject) => {
    child.stdout.once('data', resolve)
    child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)))
  })
  child.removeAllListeners('exit')
  const stop = () =>
    new Promise((resolve) => {
      child.once('exit', resolve)
      child.kill('SIGTERM')
    })
  return { address: `http://127.0.0.1:${port}/api`, stop }
}

const seconds = async (work) => {
  const from = performance.now()
  await work()
  return (performance.now() - from) / 1000
}

async function send(address, archive, type) {
  const answer = await fetch(`${address}/build-files?mode=import&as=new&importId=${randomUUID()}`, {
    method: 'POST',
    headers: { 'content-type': type },
    body: archive,
  })
  if (!answer.ok) throw new Error(`${answer.status} ${await answer.text()}`)
  return answer.json()
}

/** Runs a script to its end; others write meanwhile, and the slowest of those writes is told. */
async function whileWriting(name, args, environment, address, line) {
  const child = spawn(process.execPath, [script(name), ...args], { env: { ...process.env, ...environment }, stdio: ['ignore', 'ignore', 'inherit'] })
  let isOver = false
  const ended = new Promise((resolve, reject) =>
    child.once('exit', (code) => (code === 0 ? resolve() : reject(new Error(`${name} ended with ${code}`)))),
  ).finally(() => {
    isOver = true
  })
  const writes = []
  while (!isOver) {
    const body = JSON.stringify({ ...line, id: randomUUID() })
    writes.push(
      await seconds(() => fetch(`${address}/builds/${line.buildId}/changes`, { method: 'POST', headers: { 'content-type': 'application/json' }, body })),
    )
    await new Promise((done) => setTimeout(done, 100))
  }
  await ended
  return Math.max(...writes)
}

async function copies(environment, archive, put) {
  let server = await serve(environment)
  for (let i = 0; i < LARGE; i++) await send(server.address, archive, 'application/zip')
  const [{ build }] = await (await fetch(`${server.address}/builds`)).json()
  const stages = await (await fetch(`${server.address}/builds/${build.id}/stages`)).json()
  const line = { stageId: stages[1].id, kind: 'off', name: 'bolt', values: [], state: 'planned', buildId: build.id }
  let slowest = 0
  const copyS = await seconds(async () => {
    slowest = await whileWriting('backup.mjs', ['--low'], environment, server.address, line)
  })
  put(`copy of ${LARGE} large builds, with its check`, copyS.toFixed(1), '', '< 60', 's')
  put('  slowest write meanwhile', (1000 * slowest).toFixed(0), '', '< 1000')
  await server.stop()
  const [last] = readdirSync(environment.COPIES_DIR)
    .filter((name) => name !== 'bytes')
    .sort()
    .reverse()
  const restoreS = await seconds(() => {
    const done = spawnSync(process.execPath, [script('restore.mjs'), path.join(environment.COPIES_DIR, last)], {
      env: { ...process.env, ...environment },
      stdio: ['ignore', 'ignore', 'inherit'],
    })
    if (done.status !== 0) throw new Error(`restore ended with ${done.status}`)
  })
  put('  restore of it, with its check', restoreS.toFixed(1), '', '< 30', 's')
  put(
    'start with nothing to migrate',
    (
      await seconds(async () => {
        server = await serve(environment)
      })
    ).toFixed(1),
    '',
    '< 10',
    's',
  )
  return server
}

async function garage(server, put, putTimes, times) {
  const small = readFileSync(path.join(root, 'demo', 'petrel', 'build.json'))
  const parsed = JSON.parse(small)
  for (let i = 0; i < MANY - LARGE; i++)
    await send(server.address, JSON.stringify({ ...parsed, pulls: [], build: { ...parsed.build, name: `Petrel ${i}` } }), 'application/json')
  const look = (query) => fetch(`${server.address}/builds${query}`).then((answer) => answer.json())
  let entries = []
  const cold = await times(1, async () => {
    entries = await look('?day=2026-12-24')
  })
  putTimes(`Garage of ${MANY} builds, none worked out`, cold, '< 300')
  put('  rows that came later', entries.filter(({ isWaiting }) => isWaiting).length, '', '', '')
  const begun = performance.now()
  for (let page = 1; page <= MANY / 50; page++)
    while ((await look(`?day=2026-12-24&page=${page}`)).some(({ isWaiting }) => isWaiting)) await new Promise((done) => setTimeout(done, 100))
  put('  until every page was whole', ((performance.now() - begun) / 1000).toFixed(1), '', '', 's')
  putTimes(
    '  the same again, by page and by name',
    await times(60, (i) => look(i % 2 ? `?day=2026-12-24&page=${1 + (i % 6)}` : `?day=2026-12-24&name=petrel 2`)),
    'p95 < 300',
  )
}

/** Boards a second of as many servers, asked beside each other; ten builds, so that each has its own to keep. */
async function boards(servers, ids) {
  const shots = servers.map(({ address }) =>
    autocannon({
      url: address,
      connections: 8,
      duration: SHOOT_S,
      requests: ids.map((id) => ({ method: 'GET', path: `/api/builds/${id}/board?day=2026-12-24` })),
    }),
  )
  const found = await Promise.all(shots)
  return found.reduce((sum, { requests, non2xx }) => sum + (non2xx > 0 ? Number.NaN : requests.average), 0)
}

export async function benchKeep({ archive, put, putTimes, times }) {
  const database = await startPostgres({ temporary: true, database: 'bold_ballast', role: 'bold_ballast' })
  const folder = mkdtempSync(path.join(tmpdir(), 'bench-keep-'))
  const environment = { DATABASE_URL: database.url, DATA_DIR: folder, COPIES_DIR: path.join(folder, 'copies') }
  try {
    const server = await copies(environment, archive, put)
    const ids = (await (await fetch(`${server.address}/builds`)).json()).map(({ build }) => build.id)
    await garage(server, put, putTimes, times)
    // Once before it counts: each server opens its builds.
    await boards([server], ids)
    const one = await boards([server], ids)
    const second = await serve(environment)
    await boards([second], ids)
    const two = await boards([server, second], ids)
    put('Boards a second of one server', one.toFixed(0), '', '', '1/s')
    put('  of two, on the same two cores', two.toFixed(0), '', `>= ${(1.6 * one).toFixed(0)}`, '1/s')
    await second.stop()
    await server.stop()
  } finally {
    await database.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}
