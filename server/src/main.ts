import { existsSync, readFileSync } from 'node:fs'
import http from 'node:http'
import https from 'node:https'
import { pino } from 'pino'
import { Mode } from './access/mode.ts'
import { makeApp } from './app.ts'
import { openDatabase } from './database/open.ts'
import { loadCrewOnce } from './demo/load-crew.ts'
import { loadDemoOnce } from './demo/load-demo.ts'
import { DeviceService } from './devices/service.ts'
import { type ReachWish, reachOf } from './http/reach.ts'
import { LiveHub } from './live/hub.ts'
import { rebuildOldCurves } from './pull-files/rebuild-curves.ts'
import { forgetOldAudit } from './sign-in/audit.ts'
import { sessionSecrets } from './sign-in/secrets.ts'
import { makeSessions } from './sign-in/sessions.ts'
import { WorkPool } from './workers/pool.ts'

export interface RunningServer {
  readonly address: string
  readonly stop: () => Promise<void>
  /** What the crew of the demo signs in with, the first time it is loaded. */
  readonly passwords: ReadonlyMap<string, string> | null
}

/** How long requests that run may still take once the server is told to stop. */
const DRAIN_MS = 10_000
const USUAL_PORT = 4600
const DAY_MS = 86_400_000

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

/** Migrates, loads the demo on first run, and serves. Throws a plain sentence where it could be reached as it must not be. */
export async function startServer(options: {
  databaseUrl: string
  reach?: ReachWish
  /** Secrets that sign session cookies, with commas between; else a file that keeps one. */
  sessionSecret?: string | undefined
  secretFile?: string | undefined
  port?: number | undefined
  webRoot?: string | undefined
  demoRoot?: string | undefined
  /** Whether four people have worked on the demo for a week. */
  withCrew?: boolean | undefined
  /** Where devices are looked for; those of the protocol where left out. */
  devicePorts?: { readonly first: number; readonly last: number } | undefined
}): Promise<RunningServer> {
  const { port, databaseUrl, webRoot, demoRoot, devicePorts } = options
  const logger = pino({ level: process.env.LOG_LEVEL ?? 'warn' })
  const knex = openDatabase(databaseUrl)
  await knex.migrate.latest()
  const { host, front, tls, trustProxy } = reachOf(options.reach ?? {}, await new Mode(knex).isClosed())
  await forgetOldAudit(knex)
  await rebuildOldCurves(knex)
  const weekAgo = Math.floor(Date.now() / DAY_MS - 7) * DAY_MS
  if (demoRoot && existsSync(demoRoot)) await loadDemoOnce(knex, demoRoot, options.withCrew ? weekAgo - DAY_MS : undefined)
  const passwords = options.withCrew ? await loadCrewOnce(knex, weekAgo) : null
  const devices = new DeviceService(devicePorts)
  const pool = new WorkPool()
  const sessions = makeSessions({ databaseUrl, secrets: sessionSecrets(options.sessionSecret, options.secretFile) })
  const live = new LiveHub(databaseUrl)
  const app = makeApp({ knex, logger, webRoot, devices, pool, sessions, live, front, trustProxy })
  const server = tls ? https.createServer({ cert: readFileSync(tls.cert), key: readFileSync(tls.key) }, app) : http.createServer(app)
  // A port that somebody asked for is that one or none.
  const usedPort = await listen(server, host, port ?? USUAL_PORT, port === undefined ? 20 : 1)
  void pool.ready().catch(() => undefined)
  return {
    address: front.publicUrl?.origin ?? `http${tls ? 's' : ''}://${host.includes(':') ? `[${host}]` : host}:${usedPort}`,
    passwords,
    stop: async () => {
      devices.close()
      await live.close()
      await drain(server)
      await pool.close()
      await sessions.close()
      await knex.destroy()
    },
  }
}
