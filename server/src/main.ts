import { existsSync } from 'node:fs'
import http from 'node:http'
import { pino } from 'pino'
import { makeApp } from './app.ts'
import { openDatabase } from './database/open.ts'
import { loadDemoOnce } from './demo/load-demo.ts'
import { DeviceService } from './devices/service.ts'
import { rebuildOldCurves } from './pull-files/rebuild-curves.ts'
import { WorkPool } from './workers/pool.ts'

const LOOPBACK = ['127.0.0.1', '::1', 'localhost']

export interface RunningServer {
  readonly address: string
  readonly stop: () => Promise<void>
}

/** How long requests that run may still take once the server is told to stop. */
const DRAIN_MS = 10_000
const USUAL_PORT = 4600

/** Listens on the port, or the next free one of so many. */
function listen(server: http.Server, host: string, port: number, tries: number): Promise<number> {
  return new Promise((resolve, reject) => {
    const onError = (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE' && tries > 1) resolve(listen(server, host, port + 1, tries - 1))
      else if (error.code === 'EADDRINUSE') reject(new Error(`PORT ${port} is taken. Stop what uses it, or give another one.`))
      else reject(error)
    }
    server.once('error', onError).listen(port, host, () => {
      server.off('error', onError)
      resolve(port)
    })
  })
}

/** Takes no more requests, lets those that run end, and cuts what is left after a while. */
async function drain(server: http.Server): Promise<void> {
  const closed = new Promise((resolve) => server.close(resolve))
  server.closeIdleConnections()
  const cut = setTimeout(() => server.closeAllConnections(), DRAIN_MS)
  await closed
  clearTimeout(cut)
}

/** Migrates, loads the demo on first run, and serves. Throws a plain sentence for a host that is not loopback. */
export async function startServer(options: {
  databaseUrl: string
  host?: string | undefined
  port?: number | undefined
  webRoot?: string | undefined
  demoRoot?: string | undefined
  /** Where devices are looked for; those of the protocol where left out. */
  devicePorts?: { readonly first: number; readonly last: number } | undefined
}): Promise<RunningServer> {
  const { host = '127.0.0.1', port, databaseUrl, webRoot, demoRoot, devicePorts } = options
  if (!LOOPBACK.includes(host)) throw new Error(`HOST is "${host}"; until sign-in exists it may only be 127.0.0.1, ::1 or localhost.`)
  const logger = pino({ level: process.env.LOG_LEVEL ?? 'warn' })
  const knex = openDatabase(databaseUrl)
  await knex.migrate.latest()
  await rebuildOldCurves(knex)
  if (demoRoot && existsSync(demoRoot)) await loadDemoOnce(knex, demoRoot)
  const devices = new DeviceService(devicePorts)
  const pool = new WorkPool()
  const server = http.createServer(makeApp({ knex, logger, webRoot, devices, pool }))
  // A port that somebody asked for is that one or none.
  const usedPort = await listen(server, host, port ?? USUAL_PORT, port === undefined ? 20 : 1)
  void pool.ready().catch(() => undefined)
  return {
    address: `http://${host.includes(':') ? `[${host}]` : host}:${usedPort}`,
    stop: async () => {
      devices.close()
      await drain(server)
      await pool.close()
      await knex.destroy()
    },
  }
}
