import { randomUUID } from 'node:crypto'
import http from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Express } from 'express'
import knexPackage, { type Knex } from 'knex'
import { pino } from 'pino'
import { makeApp } from '../src/app.ts'
import { openDatabase } from '../src/database/open.ts'
import { DeviceService } from '../src/devices/service.ts'
import { LiveHub } from '../src/live/hub.ts'
import { makeSessions } from '../src/sign-in/sessions.ts'
import { WorkPool } from '../src/workers/pool.ts'
import { TEMPLATE } from './global-setup.ts'

const REQUEST_ID = /,"requestId":"[\w-]+"/

export interface Answer {
  readonly status: number
  readonly type: string
  // biome-ignore lint/suspicious/noExplicitAny: bodies are asserted on, field by field
  readonly body: any
  readonly text: string
  readonly headers: http.IncomingHttpHeaders
}

export interface TestServer {
  readonly app: Express
  readonly knex: Knex
  readonly port: number
  readonly databaseName: string
  readonly call: (method: string, path: string, body?: unknown, headers?: Record<string, string>) => Promise<Answer>
  /** The body of an answer as it came, for files. */
  readonly callForBytes: (method: string, path: string) => Promise<Buffer>
  readonly stop: () => Promise<void>
}

interface TestOptions extends Partial<Pick<Parameters<typeof makeApp>[0], 'front' | 'trustProxy' | 'logger' | 'count' | 'isStopping'>> {
  /** A database that stands already; it is left standing. */
  readonly databaseUrl?: string
}

/** The real application on a fresh clone of the template database. */
export async function startTestServer({ databaseUrl, ...more }: TestOptions = {}): Promise<TestServer> {
  const base = databaseUrl ?? (process.env.DATABASE_URL as string)
  const admin = knexPackage.knex({ client: 'pg', connection: base })
  const url = new URL(base)
  const databaseName = databaseUrl === undefined ? `test_${randomUUID().replaceAll('-', '')}` : url.pathname.slice(1)
  if (databaseUrl === undefined) await admin.raw(`CREATE DATABASE ${databaseName} TEMPLATE ${TEMPLATE}`)
  url.pathname = `/${databaseName}`
  const knex = openDatabase(url.href)
  // Ports of its own, so that tests beside each other do not find each other's devices.
  const first = 20_000 + Math.floor(Math.random() * 20_000)
  const devices = new DeviceService({ first, last: first + 2 })
  const pool = new WorkPool()
  const sessions = makeSessions({ databaseUrl: url.href, secrets: [randomUUID()] })
  const live = new LiveHub(url.href)
  const app = makeApp({ knex, logger: pino({ level: 'silent' }), devices, pool, sessions, live, ...more })
  const server = http.createServer(app)
  // Server and asker share a thread here: after long sums the one would close, for idle, a connection on which the other has just asked.
  server.keepAliveTimeout = 0
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const { port } = server.address() as AddressInfo
  const call: TestServer['call'] = (method, path, body, headers = {}) =>
    new Promise((resolve, reject) => {
      const payload = body === undefined || typeof body === 'string' || body instanceof Buffer ? body : JSON.stringify(body)
      const length: Record<string, string> = payload === undefined ? {} : { 'content-length': String(Buffer.byteLength(payload)) }
      const request = http.request(
        // A request that lies about its length ruins its connection, so it gets one of its own.
        {
          host: '127.0.0.1',
          port,
          method,
          path,
          headers: { 'content-type': 'application/json', ...length, ...headers },
          ...('content-length' in headers ? { agent: false } : {}),
        },
        (response) => {
          const chunks: Buffer[] = []
          response.on('data', (chunk) => chunks.push(chunk))
          response.on('end', () => {
            // Two refusals alike are told apart by nothing but the ids that the log has them under.
            const text = Buffer.concat(chunks).toString('utf8').replace(REQUEST_ID, '')
            const type = String(response.headers['content-type'] ?? '')
            resolve({ status: response.statusCode ?? 0, type, text, body: type.includes('json') ? JSON.parse(text) : text, headers: response.headers })
          })
        },
      )
      request.on('error', reject)
      request.end(payload)
    })
  const callForBytes: TestServer['callForBytes'] = async (method, path) =>
    Buffer.from(await (await fetch(`http://127.0.0.1:${port}${path}`, { method })).arrayBuffer())
  return {
    app,
    knex,
    port,
    databaseName,
    call,
    callForBytes,
    stop: async () => {
      devices.close()
      await live.close()
      await pool.close()
      server.closeAllConnections()
      await new Promise((resolve) => server.close(resolve))
      await sessions.close()
      await knex.destroy()
      if (databaseUrl === undefined) await admin.raw(`DROP DATABASE IF EXISTS ${databaseName} WITH (FORCE)`)
      await admin.destroy()
    },
  }
}

export const buildBody = (id: string = randomUUID()) => ({
  id,
  name: 'Tern',
  discipline: 'drift',
  drivenAxles: 'rear',
  wheelbaseM: 2.57,
  trackFrontM: 1.5,
  trackRearM: 1.52,
  reference: { driverKg: 80, fuelL: 20, fuelKgPerL: 0.745 },
  powerBasis: { place: 'hub', standard: 'SAE J1349', boostSchool: 'none' },
})

export const changeBody = (stageId: string, id: string = randomUUID()) => ({
  id,
  stageId,
  kind: 'off',
  name: 'bench',
  values: [{ massKg: 18.6, proof: 'measured', typed: '18.6 kg', at: '2026-03-01T10:00:00Z' }],
  state: 'done',
})

/** A build with one stage after the first; answers the ids. */
export async function makeBuild(server: TestServer): Promise<{ buildId: string; stageZero: string; stageOne: string; path: string }> {
  const build = buildBody()
  await server.call('POST', '/api/builds', build)
  const path = `/api/builds/${build.id}`
  const stageOne = randomUUID()
  await server.call('POST', `${path}/stages`, { id: stageOne, position: 1, name: 'Strip' })
  const stages = await server.call('GET', `${path}/stages`)
  return { buildId: build.id, stageZero: stages.body[0].id, stageOne, path }
}
