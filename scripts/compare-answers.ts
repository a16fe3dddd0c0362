// Stores everything the server answers about the demos and a large build, or compares with what was stored before a change:
//
//   npm run answers -- store FILE      before a change that shall change no answer
//   npm run answers -- compare FILE    after it; prints what differs and ends with 1 where anything does
//
// Two runs compare within one day, because what is late depends on it.
import { readFileSync, writeFileSync } from 'node:fs'
import http from 'node:http'
import type { AddressInfo } from 'node:net'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import type { Knex } from 'knex'
import { pino } from 'pino'
import yauzl from 'yauzl'
import { buildFileJsonSchema } from '../contract/src/index.ts'
import { WORKING_SUBJECTS } from '../core/src/index.ts'
import { makeApp } from '../server/src/app.ts'
import { BuildFileService } from '../server/src/build-files/service.ts'
import { jsonSource } from '../server/src/build-files/source.ts'
import { bringUp } from '../server/src/database/migrate.ts'
import { openDatabase } from '../server/src/database/open.ts'
import { loadDemoOnce } from '../server/src/demo/load-demo.ts'
import { DeviceService } from '../server/src/devices/service.ts'
import { OPEN_ACCESS } from '../server/src/http/access.ts'
import { LiveHub } from '../server/src/live/hub.ts'
import { makeSessions } from '../server/src/sign-in/sessions.ts'
import { WorkPool } from '../server/src/workers/pool.ts'
import { routesOf } from '../server/test/routes-of.ts'
import { makeLargeBuild } from './large-build.mjs'
// @ts-expect-error a script without types
import { startPostgres } from './postgres.mjs'

const root = fileURLToPath(new URL('..', import.meta.url))
const startedMs = Date.now() - 1000
type Answers = Record<string, unknown>
interface WithId {
  readonly id: string
}

/** Which records a working may be asked of. */
const WORKING_LISTS: Record<string, readonly string[]> = {
  target: ['targets'],
  limit: ['limits', 'parts'],
  weighing: ['weighings'],
  unexplained: ['weighings'],
  centre: ['weighings'],
  height: ['weighings'],
  session: ['sessions'],
  pull: ['pulls'],
}

/** The time of this run, wherever it stands, as one word; keys in one order. */
function steady(value: unknown): unknown {
  if (typeof value === 'string') return /^\d{4}-\d\d-\d\dT/.test(value) && Date.parse(value) >= startedMs ? 'now' : value
  if (Array.isArray(value)) return value.map(steady)
  if (value && typeof value === 'object') {
    const entries = Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1))
    return Object.fromEntries(entries.map(([key, item]) => [key, steady(item)]))
  }
  return value
}

async function readArchive(bytes: Buffer): Promise<Answers> {
  const zip = await new Promise<yauzl.ZipFile>((resolve, reject) =>
    yauzl.fromBuffer(bytes, { lazyEntries: true }, (error, opened) => (error ? reject(error) : resolve(opened))),
  )
  const files: Answers = {}
  await new Promise<void>((resolve, reject) => {
    zip.on('end', resolve)
    zip.on('error', reject)
    zip.on('entry', (entry: yauzl.Entry) => {
      zip.openReadStream(entry, (error, stream) => {
        if (error) return reject(error)
        const chunks: Buffer[] = []
        stream.on('data', (chunk: Buffer) => chunks.push(chunk))
        stream.on('end', () => {
          const text = Buffer.concat(chunks).toString('utf8')
          files[entry.fileName] = entry.fileName.endsWith('.json') ? JSON.parse(text) : text
          zip.readEntry()
        })
      })
    })
    zip.readEntry()
  })
  return files
}

async function tablesOf(knex: Knex): Promise<Answers> {
  const columns = await knex.raw(
    `SELECT table_name, column_name, data_type, is_nullable, column_default FROM information_schema.columns WHERE table_schema = 'public' ORDER BY 1, 2`,
  )
  const constraints = await knex.raw(
    `SELECT conrelid::regclass::text AS on_table, conname, pg_get_constraintdef(oid) AS text FROM pg_constraint WHERE connamespace = 'public'::regnamespace ORDER BY 1, 2`,
  )
  const indexes = await knex.raw(`SELECT indexname, indexdef FROM pg_indexes WHERE schemaname = 'public' ORDER BY 1`)
  return { columns: columns.rows, constraints: constraints.rows, indexes: indexes.rows }
}

async function loadBuilds(knex: Knex): Promise<void> {
  await loadDemoOnce(knex, path.join(root, 'demo'))
  const { file, samples } = makeLargeBuild({ pullCount: 12, sampleCount: 400 })
  const service = new BuildFileService(knex)
  const source = jsonSource(Buffer.from(JSON.stringify(file)))
  const withSamples = {
    ...source,
    has: (name: string) => source.has(name) || samples.has(name),
    open: async (name: string) => (samples.has(name) ? jsonSource(Buffer.from(samples.get(name) ?? '')).open('build.json') : source.open(name)),
  }
  const wish = { mode: 'import', as: 'new', importId: '00000000-0000-4000-8000-000000000001', missing: 'keep' } as const
  await service.take({ person: 'large', access: OPEN_ACCESS, now: new Date().toISOString() }, withSamples, wish)
}

async function collect(knex: Knex, port: number): Promise<Answers> {
  const answers: Answers = {}
  const address = `http://127.0.0.1:${port}/api`
  const ask = async (route: string, body?: unknown) => {
    const options = body === undefined ? {} : { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }
    const answer = await fetch(`${address}${route}`, options)
    const found = await answer.json()
    answers[body === undefined ? route : `POST ${route}`] = { status: answer.status, body: found }
    return found
  }
  for (const { name, example } of await ask('/calc')) await ask(`/calc/${name}`, example)
  for (const list of ['parts', 'rule-books', 'lessons']) await ask(`/shelf/${list}`)
  for (const { build } of await ask('/builds')) {
    const at = `/builds/${build.id}`
    const records = await ask(`${at}/records`)
    for (const room of ['board', 'weight', 'power', 'log?limit=100']) await ask(`${at}/${room}`)
    for (const of of WORKING_SUBJECTS)
      for (const list of WORKING_LISTS[of] ?? ['stages']) for (const { id } of records[list] as readonly WithId[]) await ask(`${at}/working?of=${of}&id=${id}`)
    answers[`${at}/file`] = await readArchive(Buffer.from(await (await fetch(`${address}${at}/file`)).arrayBuffer()))
  }
  answers['build file schema'] = buildFileJsonSchema()
  answers.tables = await tablesOf(knex)
  return answers
}

/** Every place where two values differ, as a path and both values. */
function differences(before: unknown, after: unknown, at: string): string[] {
  if (JSON.stringify(before) === JSON.stringify(after)) return []
  const both = before && after && typeof before === 'object' && typeof after === 'object'
  if (!both || Array.isArray(before) !== Array.isArray(after)) {
    const text = (value: unknown) => (JSON.stringify(value) ?? 'nothing').slice(0, 160)
    return [`${at}: ${text(before)} → ${text(after)}`]
  }
  const [was, is] = [before as Answers, after as Answers]
  const keys = [...new Set([...Object.keys(was), ...Object.keys(is)])]
  return keys.flatMap((key) => differences(was[key], is[key], `${at} › ${key}`))
}

async function main([verb, file]: readonly string[]): Promise<number> {
  if ((verb !== 'store' && verb !== 'compare') || !file) {
    console.error('Say "store FILE" or "compare FILE".')
    return 2
  }
  const database = await startPostgres({ temporary: true, fast: true })
  const knex = openDatabase(database.url)
  const devices = new DeviceService({ first: 46_990, last: 46_991 })
  const pool = new WorkPool()
  const sessions = makeSessions({ databaseUrl: database.url, secrets: ['answers'] })
  const app = makeApp({ knex, logger: pino({ level: 'error' }), devices, pool, sessions, live: new LiveHub(database.url) })
  const server = http.createServer(app)
  try {
    await bringUp({ knex, databaseUrl: database.url })
    await loadBuilds(knex)
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
    const found = await collect(knex, (server.address() as AddressInfo).port)
    found.routes = routesOf(app).sort()
    const answers = steady(found) as Answers
    if (verb === 'store') {
      writeFileSync(file, JSON.stringify(answers))
      console.log(`${Object.keys(answers).length} answers stored in ${file}`)
      return 0
    }
    const stored = JSON.parse(readFileSync(file, 'utf8')) as Answers
    const unlike = differences(stored, answers, 'answers')
    for (const line of unlike.slice(0, 200)) console.log(line)
    console.log(`${Object.keys(answers).length} answers compared, ${unlike.length} differences`)
    return unlike.length > 0 ? 1 : 0
  } finally {
    server.closeAllConnections()
    server.close()
    devices.close()
    await pool.close()
    await knex.destroy()
    await database.stop()
  }
}

process.exitCode = await main(process.argv.slice(2))
