import { type ChildProcess, spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { test as base } from '@playwright/test'
import knexPackage from 'knex'
import pg from 'pg'

const root = fileURLToPath(new URL('..', import.meta.url))

export interface Served {
  readonly address: string
  readonly kill: () => Promise<void>
  readonly start: () => Promise<void>
  readonly databaseName: string
  /** Straight to the database, for what no interface allows. */
  readonly query: (text: string, values: readonly string[]) => Promise<void>
}

/** Ports of the servers of this worker, apart from those of workers that run beside it; the last ten are for devices. */
let nextPort = 0

async function serve(worker: number, copiesFolder: string): Promise<Served & { stop: () => Promise<void> }> {
  const url = new URL(process.env.DATABASE_URL as string)
  const admin = knexPackage.knex({ client: 'pg', connection: url.href })
  const databaseName = `interface_${randomUUID().replaceAll('-', '')}`
  await admin.raw(`CREATE DATABASE ${databaseName}`)
  url.pathname = `/${databaseName}`
  nextPort ||= 4800 + 40 * (worker % 20)
  const port = nextPort++
  let child: ChildProcess | undefined
  const start = () =>
    new Promise<void>((resolve, reject) => {
      child = spawn(process.execPath, [path.join(root, 'scripts', 'serve-for-test.mjs')], {
        env: { ...process.env, DATABASE_URL: url.href, PORT: String(port), DEVICE_PORT: String(4830 + 40 * (worker % 20)), COPIES_DIR: copiesFolder },
        stdio: ['ignore', 'pipe', 'inherit'],
      })
      child.stdout?.once('data', () => resolve())
      child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)))
    })
  const kill = () =>
    new Promise<void>((resolve) => {
      child?.removeAllListeners('exit')
      child?.once('exit', () => resolve())
      child?.kill('SIGKILL')
    })
  await start()
  return {
    address: `http://127.0.0.1:${port}`,
    start,
    kill,
    databaseName,
    query: async (text, values) => {
      const client = new pg.Client(url.href)
      await client.connect()
      await client.query(text, [...values])
      await client.end()
    },
    stop: async () => {
      await kill()
      await admin.raw(`DROP DATABASE IF EXISTS ${databaseName} WITH (FORCE)`)
      await admin.destroy()
    },
  }
}

/** The real server on a database of its own, with the demo, once a file. */
export const test = base.extend<object, { served: Served; copiesFolder: string }>({
  /** Where a file of tests has the server keep its copies; others keep none. */
  copiesFolder: ['', { option: true, scope: 'worker' }],
  served: [
    async ({ copiesFolder }, use, { workerIndex }) => {
      const served = await serve(workerIndex, copiesFolder)
      await use(served)
      await served.stop()
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ served }, use) => {
    await use(served.address)
  },
})
export { expect } from '@playwright/test'
