import type pg from 'pg'
import { connectAlone } from './address.ts'

/** Held, beside each other, by every server of a database for as long as it serves it. */
const SERVING_LOCK = 7_423_403
const AGAIN_MS = 1000

/** Shows others that a database is served: one connection that stays, made anew when it is cut. */
export class Serving {
  private readonly databaseUrl: string
  private client: pg.Client | undefined
  private again: NodeJS.Timeout | undefined
  private isOver = false

  constructor(databaseUrl: string) {
    this.databaseUrl = databaseUrl
  }

  async begin(): Promise<void> {
    const client = await connectAlone(this.databaseUrl)
    await client.query('SELECT pg_advisory_lock_shared($1)', [SERVING_LOCK])
    if (this.isOver) return void (await client.end())
    this.client = client
    client.once('end', () => this.later())
  }

  private later(): void {
    if (this.isOver) return
    this.again = setTimeout(() => void this.begin().catch(() => this.later()), AGAIN_MS)
    this.again.unref()
  }

  async end(): Promise<void> {
    this.isOver = true
    clearTimeout(this.again)
    await this.client?.end().catch(() => undefined)
  }
}

/** Whether some server serves the database of a connection. */
export async function isServed(client: pg.ClientBase): Promise<boolean> {
  const { rows } = await client.query('SELECT pg_try_advisory_lock($1) AS free', [SERVING_LOCK])
  if (!(rows[0] as { free: boolean }).free) return true
  await client.query('SELECT pg_advisory_unlock($1)', [SERVING_LOCK])
  return false
}
