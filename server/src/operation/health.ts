import { Router } from 'express'
import type { Knex } from 'knex'
import { madeMigrations } from '../database/migrate.ts'
import { migrations } from '../database/migrations/index.ts'
import type { LiveHub } from '../live/hub.ts'

interface HealthParts {
  readonly knex: Knex
  readonly live: LiveHub
  /** Whether it was told to stop: a balancer sends nobody any more. */
  readonly isStopping: () => boolean
}

/** What keeps a server from being sent anybody; nothing where it is ready. A database that a newer program upgraded is no reason. */
async function whyNotReady({ knex, live, isStopping }: HealthParts): Promise<string[]> {
  if (isStopping()) return ['It is stopping.']
  try {
    const made = new Set(await madeMigrations(knex))
    const waiting = Object.keys(migrations).filter((name) => !made.has(name))
    return [...(waiting.length > 0 ? ['The database waits for an upgrade.'] : []), ...(live.isAway ? ['What the servers tell each other is not heard.'] : [])]
  } catch {
    return ['The database does not answer.']
  }
}

/** Whether the program runs, and whether it can be sent people; asked by machines, before anybody's sign-in is looked at. */
export function healthRoutes(parts: HealthParts): Router {
  const router = Router()
  router.get('/health/live', (_request, response) => void response.json({ status: 'live' }))
  router.get('/health/ready', async (_request, response) => {
    const why = await whyNotReady(parts)
    response.status(why.length === 0 ? 200 : 503).json(why.length === 0 ? { status: 'ready' } : { status: 'not ready', why })
  })
  return router
}
