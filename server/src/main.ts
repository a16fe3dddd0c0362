import { readFileSync } from 'node:fs'
import http from 'node:http'
import https from 'node:https'
import type { Knex } from 'knex'
import { type Logger, pino } from 'pino'
import { Mode } from './access/mode.ts'
import { makeApp } from './app.ts'
import { CopyKeeper, type KeepOptions } from './copies/keeper.ts'
import { openDatabase } from './database/open.ts'
import { Serving } from './database/serving.ts'
import { DeviceService } from './devices/service.ts'
import { type ReachWish, reachOf } from './http/reach.ts'
import { LiveHub } from './live/hub.ts'
import { drain, listen } from './operation/listen.ts'
import { Metrics } from './operation/metrics.ts'
import { loadOnce, migrateDatabase, type PrepareOptions } from './operation/prepare.ts'
import { sessionSecrets } from './sign-in/secrets.ts'
import { makeSessions } from './sign-in/sessions.ts'
import { WorkPool } from './workers/pool.ts'

export { grantTo } from './database/grants.ts'
export { migrateDatabase } from './operation/prepare.ts'
export { runAtTerminal, TerminalRefusal } from './people/terminal.ts'

export interface RunningServer {
  readonly address: string
  readonly stop: () => Promise<void>
  /** What the crew of the demo signs in with, the first time it is loaded. */
  readonly passwords: ReadonlyMap<string, string> | null
}

const USUAL_PORT = 4600
/** How many ports are tried where none was asked for. */
const PORTS_TRIED = 20

interface ServerOptions extends Omit<PrepareOptions, 'beforeMigration'> {
  /** Where copies are kept, and by which program; left out: others keep them. */
  readonly copies?: KeepOptions | undefined
  readonly reach?: ReachWish
  /** Secrets that sign session cookies, with commas between; else a file that keeps one. */
  readonly sessionSecret?: string | undefined
  readonly secretFile?: string | undefined
  readonly port?: number | undefined
  readonly metricsPort?: number | undefined
  readonly webRoot?: string | undefined
  /** Where devices are looked for; those of the protocol where left out. */
  readonly devicePorts?: { readonly first: number; readonly last: number } | undefined
  /** False where another server of the same database has them. */
  readonly hasDevices?: boolean | undefined
  /** How long a balancer is told to send nobody before requests are refused, seconds. */
  readonly drainS?: number | undefined
  readonly logLevel?: string | undefined
}

const keeperOf = ({ copies, databaseUrl, databaseOwnerUrl }: ServerOptions, knex: Knex, logger: Logger) =>
  new CopyKeeper({ ...(copies as KeepOptions), knex, logger, databaseUrl: databaseOwnerUrl ?? databaseUrl })

/** Before tables with builds in them are changed, there is a copy of them; where that fails, nothing is changed. */
async function copyBefore(options: ServerOptions, logger: Logger): Promise<void> {
  if (!options.copies) return
  const knex = openDatabase(options.databaseOwnerUrl ?? options.databaseUrl)
  try {
    await keeperOf(options, knex, logger).takeNext()
  } catch (error) {
    throw new Error(`The copy before the upgrade failed, so nothing was changed. ${(error as Error).message}`)
  } finally {
    await knex.destroy()
  }
}

/** Migrates, loads the demo on first run, and serves. Throws a plain sentence where it could be reached as it must not be. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const { port, databaseUrl, webRoot, devicePorts } = options
  const logger = pino({ level: options.logLevel ?? 'warn' })
  await migrateDatabase({ ...options, beforeMigration: () => copyBefore(options, logger) })
  const knex = openDatabase(databaseUrl)
  const serving = new Serving(databaseUrl)
  await serving.begin()
  const { host, front, tls, trustProxy } = reachOf(options.reach ?? {}, await new Mode(knex).isClosed())
  const passwords = await loadOnce(knex, options)
  const devices = options.hasDevices === false ? null : new DeviceService(devicePorts)
  const pool = new WorkPool()
  const sessions = makeSessions({ databaseUrl, secrets: sessionSecrets(options.sessionSecret, options.secretFile) })
  const live = new LiveHub(databaseUrl)
  const keeper = options.copies ? keeperOf(options, knex, logger) : null
  let isStopping = false
  const metrics = options.metricsPort === undefined ? null : new Metrics({ knex, pool, live, copyAgeS: async () => keeper?.ageS() })
  const counting = metrics ? { count: metrics.count } : {}
  const app = makeApp({ knex, logger, webRoot, devices, pool, sessions, live, keeper, front, trustProxy, isStopping: () => isStopping, ...counting })
  const server = tls ? https.createServer({ cert: readFileSync(tls.cert), key: readFileSync(tls.key) }, app) : http.createServer(app)
  // A port that somebody asked for is that one or none.
  const usedPort = await listen(server, host, port ?? USUAL_PORT, port === undefined ? PORTS_TRIED : 1)
  const stopMetrics = await metrics?.serve(options.metricsPort as number)
  keeper?.begin()
  void pool.ready().catch(() => undefined)
  return {
    address: front.publicUrl?.origin ?? `http${tls ? 's' : ''}://${host.includes(':') ? `[${host}]` : host}:${usedPort}`,
    passwords,
    stop: async () => {
      isStopping = true
      await new Promise((done) => setTimeout(done, (options.drainS ?? 0) * 1000))
      keeper?.end()
      devices?.close()
      await live.close()
      await drain(server)
      await stopMetrics?.()
      await pool.close()
      await sessions.close()
      await serving.end()
      await knex.destroy()
    },
  }
}
