import { createHash } from 'node:crypto'
import connectPg from 'connect-pg-simple'
import type { Request, RequestHandler } from 'express'
import session from 'express-session'
import pg from 'pg'
import type { SeatTaken } from '../access/gate.ts'

/** A person signed in on a browser. */
export interface Seat extends SeatTaken {
  readonly at: number
}

declare module 'express-session' {
  interface SessionData {
    seats: Seat[]
    /** Whose seat is taken; null: nobody's. */
    current: string | null
    /** Who ever signed in on this browser. */
    known: string[]
    madeAt: number
    usedOn: string
  }
}

export const COOKIE = '__Host-ballast'
export const MOST_SEATS = 6
const DAY_MS = 86_400_000
const IDLE_MS = 14 * DAY_MS
const LONGEST_MS = 90 * DAY_MS

export interface Sessions {
  /** Reads the browser's session, and keeps it alive by the day. */
  readonly read: RequestHandler
  readonly close: () => Promise<void>
}

/** How long a session may still be kept: a fortnight from its last day of use, a quarter of a year in all. */
const lifeLeft = (madeAt: number, now: number) => Math.max(0, Math.min(IDLE_MS, madeAt + LONGEST_MS - now))

function keepAlive(request: Request, now = Date.now()): void {
  const { session: kept } = request
  if (!kept.seats) return
  const today = new Date(now).toISOString().slice(0, 10)
  if (kept.usedOn === today) return
  kept.usedOn = today
  kept.cookie.maxAge = lifeLeft(kept.madeAt ?? now, now)
}

/** Sessions in the database, known to a browser by a cookie that no script reads and no other site sends. */
export function makeSessions({ databaseUrl, secrets }: { databaseUrl: string; secrets: readonly string[] }): Sessions {
  const pool = new pg.Pool({ connectionString: databaseUrl, max: 4 })
  // A connection that was cut is made anew for the next question.
  pool.on('error', () => undefined)
  const Store = connectPg(session)
  // Asked with every request: named by its text, so that the database plans it once a connection.
  const named = { query: (text: string, values?: unknown[]) => pool.query({ name: createHash('md5').update(text).digest('hex'), text, values }) } as pg.Pool
  const store = new Store({ pool: named, tableName: 'sign_ins', disableTouch: true, pruneSessionInterval: 15 * 60, errorLog: () => undefined })
  const handle = session({
    name: COOKIE,
    secret: [...secrets],
    store,
    resave: false,
    saveUninitialized: false,
    cookie: { secure: true, httpOnly: true, sameSite: 'strict', path: '/', maxAge: IDLE_MS },
  })
  return {
    read: (request, response, next) => {
      // Only loopback, where a browser holds plain http for safe, or what is encrypted comes this far.
      Object.defineProperty(request, 'secure', { value: true, configurable: true })
      handle(request, response, (error?: unknown) => {
        if (error) return next(error)
        keepAlive(request)
        next()
      })
    },
    close: async () => {
      store.close()
      await pool.end()
    },
  }
}

/** The seat that is taken on the browser of a request. */
export function seatOf(request: Request): Seat | null {
  const { seats = [], current = null } = request.session ?? {}
  return seats.find(({ personId }) => personId === current) ?? null
}

/** Gives the browser a new session id, with these seats; whoever held the old id holds nothing. */
export async function takeSeats(request: Request, seats: readonly Seat[], current: string | null): Promise<void> {
  const { known = [], madeAt = Date.now() } = request.session
  await new Promise<void>((resolve, reject) => request.session.regenerate((error) => (error ? reject(error) : resolve())))
  const { session: fresh } = request
  fresh.seats = [...seats]
  fresh.current = current
  fresh.known = [...new Set([...known, ...seats.map(({ personId }) => personId)])]
  fresh.madeAt = seats.length > 0 ? madeAt : Date.now()
  fresh.usedOn = new Date().toISOString().slice(0, 10)
  fresh.cookie.maxAge = lifeLeft(fresh.madeAt, Date.now())
  await new Promise<void>((resolve, reject) => fresh.save((error) => (error ? reject(error) : resolve())))
}
