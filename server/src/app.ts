import path from 'node:path'
import { LOG_ENTRY_HEADER } from '@bold-ballast/contract'
import express, { type Express, type NextFunction, type Request, type Response, Router } from 'express'
import staticPacked from 'express-static-gzip'
import helmet from 'helmet'
import type { Knex } from 'knex'
import type { Logger } from 'pino'
import { gate } from './access/gate.ts'
import { Mode } from './access/mode.ts'
import { batchRoutes } from './batches/routes.ts'
import { BatchService } from './batches/service.ts'
import { buildFileRoutes } from './build-files/routes.ts'
import { Garage } from './builds/garage.ts'
import { massGuard } from './builds/guard-mass.ts'
import { KeptResults } from './builds/kept-results.ts'
import { LateValues } from './builds/late-values.ts'
import { OpenBuilds } from './builds/open-builds.ts'
import { buildRoutes } from './builds/routes.ts'
import { RowMaker } from './builds/row-maker.ts'
import { BuildService } from './builds/service.ts'
import { calculationRoutes } from './calculations/routes.ts'
import type { CopyKeeper } from './copies/keeper.ts'
import { copyRoutes } from './copies/routes.ts'
import { deviceRoutes } from './devices/routes.ts'
import type { DeviceService } from './devices/service.ts'
import { today } from './http/actor.ts'
import { type Front, guardOrigin, LOOPBACK_FRONT } from './http/guard.ts'
import { AppError, toAppError, toProblem } from './http/problem.ts'
import { linkRoutes } from './links/routes.ts'
import type { LiveHub } from './live/hub.ts'
import { liveRoutes } from './live/routes.ts'
import { logRoutes } from './log/routes.ts'
import { healthRoutes } from './operation/health.ts'
import { type Watched, watchRequests } from './operation/request-watch.ts'
import { peopleRoutes } from './people/routes.ts'
import { photoRoutes } from './photos/routes.ts'
import { pullFileRoutes } from './pull-files/routes.ts'
import { recordRoutes } from './records/routes.ts'
import { RecordService } from './records/service.ts'
import { shelfRoutes } from './shelf/routes.ts'
import { Hasher } from './sign-in/hashing.ts'
import { signInRoutes } from './sign-in/routes.ts'
import { SignInService } from './sign-in/service.ts'
import { type Sessions, seatOf } from './sign-in/sessions.ts'
import { Tries } from './sign-in/tries.ts'
import { trackLogRoutes } from './track-logs/routes.ts'
import type { WorkPool } from './workers/pool.ts'

const CONTENT_SECURITY = {
  useDefaults: false,
  directives: {
    defaultSrc: ["'self'"],
    scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
    styleSrc: ["'self'", "'unsafe-inline'"],
    imgSrc: ["'self'", 'data:', 'blob:'],
    workerSrc: ["'self'"],
    objectSrc: ["'none'"],
    baseUri: ["'none'"],
    frameAncestors: ["'none'"],
  },
}

interface AppParts {
  readonly knex: Knex
  readonly logger: Logger
  readonly webRoot?: string | undefined
  /** Null: another server of the same database has them. */
  readonly devices: DeviceService | null
  readonly pool: WorkPool
  readonly sessions: Sessions
  readonly live: LiveHub
  /** Who looks after copies; null: nobody does here. */
  readonly keeper?: CopyKeeper | null
  /** How it is reached from outside; plain on loopback where left out. */
  readonly front?: Front
  /** Which proxies may say whose address a request came from. */
  readonly trustProxy?: string | undefined
  /** Told of each request once it is answered. */
  readonly count?: (watched: Watched) => void
  readonly isStopping?: () => boolean
}

/** The whole HTTP application on an open database; `webRoot` is the built web, or undefined where only the API is asked for. */
export function makeApp(parts: AppParts): Express {
  const { logger, webRoot, front = LOOPBACK_FRONT, trustProxy, count = () => undefined } = parts
  const app = express()
  app.disable('x-powered-by')
  // Answers are never kept by browsers, so a digest of each would be work for nothing.
  app.disable('etag')
  app.use(watchRequests(logger, trustProxy !== undefined, count))
  app.use(helmet({ contentSecurityPolicy: CONTENT_SECURITY, strictTransportSecurity: false }))
  app.use((_request, response, next) => {
    response.setHeader('Permissions-Policy', 'camera=(), geolocation=(), microphone=()')
    next()
  })
  if (trustProxy !== undefined) app.set('trust proxy', trustProxy)
  app.use(guardOrigin(front))
  app.use('/api', api(parts))
  if (webRoot) serveWeb(app, webRoot)
  app.use(() => {
    throw new AppError('not-found', 'There is no such address, or it takes no such request.')
  })
  app.use((thrown: unknown, request: Request, response: Response, _next: NextFunction) => {
    const error = toAppError(thrown)
    const requestId = response.locals.requestId as string
    response.locals.refusal = error.code
    if (error.code === 'unexpected') logger.error({ id: requestId, err: thrown, method: request.method, route: request.path }, 'unexpected error')
    if (response.headersSent) return void response.end()
    const problem = { ...toProblem(error), requestId }
    if (error.retryAfterS !== undefined) response.setHeader('Retry-After', String(error.retryAfterS))
    response.status(problem.status).type('application/problem+json').send(JSON.stringify(problem))
  })
  return app
}

/** Asked by whoever makes sign-in begin; all else reads a session only once it has begun. */
const BEGINNERS = new Set(['/owner', '/join'])

function api({ knex, logger, devices, pool, sessions, live, keeper = null, front = LOOPBACK_FRONT, isStopping = () => false }: AppParts): Router {
  const router = Router()
  const records = new RecordService(knex)
  const late = new LateValues(pool, new KeptResults(knex))
  const open = new OpenBuilds(knex, records, late)
  const garage = new Garage(knex, open, new RowMaker(pool, late))
  const batches = new BatchService(knex)
  router.use((_request, response, next) => {
    response.setHeader('Cache-Control', 'no-store')
    next()
  })
  router.use(healthRoutes({ knex, live, isStopping }))
  const mode = new Mode(knex)
  router.use(async (request, response, next) => {
    if (BEGINNERS.has(request.path) || (await mode.isClosed())) return sessions.read(request, response, next)
    next()
  })
  router.use(gate({ knex, mode, seatOf, isOutside: front.isOutside }))
  const tries = new Tries(knex)
  router.use(signInRoutes(new SignInService(knex, { hasher: new Hasher(), tries, mode }), mode))
  router.get('/health', async (_request, response) => {
    await knex.raw('select 1')
    response.json({ status: 'ready' })
  })
  router.use('/builds/:buildId', (request, response, next) => {
    response.once('finish', () => response.hasHeader(LOG_ENTRY_HEADER) && garage.written(request.params.buildId, today()))
    next()
  })
  router.use(calculationRoutes(pool))
  router.use(pullFileRoutes(knex, records, pool))
  router.use(trackLogRoutes(knex, records, batches, pool))
  router.use(buildFileRoutes(knex, open, pool))
  router.use(photoRoutes(knex, records))
  router.use(massGuard(open))
  router.use(batchRoutes(batches))
  router.use(express.json({ limit: '256kb' }))
  router.use(buildRoutes(new BuildService(knex), garage, open))
  router.use(logRoutes(knex, open, pool))
  router.use(deviceRoutes(devices))
  router.use(copyRoutes(knex, keeper, logger))
  router.use(peopleRoutes(knex, keeper !== null))
  router.use(linkRoutes(knex, open, tries))
  router.use(liveRoutes(knex, live))
  router.use(shelfRoutes(knex))
  router.use(recordRoutes(records))
  router.use(() => {
    throw new AppError('not-found', 'There is no such address.')
  })
  return router
}

/** The addresses that a page of ours stands at. */
const PAGES = /^\/($|open\/?$|new\/?$|copies\/?$|join\/?$|shared\/?$|formulas(\/[^/]*)?\/?$|builds\/[^/]+(\/[a-z]+)?\/?$)/

function serveWeb(app: Express, webRoot: string): void {
  // Each file lies there packed as well, made when the page was built.
  const packed = { enableBrotli: true, orderPreference: ['br'], index: false as const }
  app.use('/assets', staticPacked(path.join(webRoot, 'assets'), { ...packed, serveStatic: { immutable: true, maxAge: '1y', fallthrough: false } }))
  app.use(staticPacked(webRoot, packed))
  app.get('/{*any}', (request, response) => {
    response.setHeader('Cache-Control', 'no-cache')
    // What a secret link leads to stands in no index.
    if (/^\/(shared|join)\/?$/.test(request.path)) response.setHeader('X-Robots-Tag', 'noindex')
    // The page itself says that an address leads nowhere.
    response.status(PAGES.test(request.path) ? 200 : 404).sendFile('index.html', { root: webRoot })
  })
}
