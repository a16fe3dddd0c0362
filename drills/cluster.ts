// @ts-expect-error a script without types
import { startPostgres } from '../scripts/postgres.mjs'

/** A PostgreSQL of a test's own, in a folder that goes with it. */
export interface Cluster {
  /** Of the role that owns the database, not of the superuser. */
  readonly url: string
  readonly database: string
  readonly port: number
  readonly pid: number
  readonly dataDir: string
  /** Asked as the superuser. */
  readonly psql: (sql: string, database?: string) => string
  /** A fresh, empty database of the same role; answers its address. */
  readonly createDatabase: (name: string) => string
  readonly stop: () => Promise<void>
}

export async function startCluster(): Promise<Cluster> {
  const database = 'bold_ballast'
  return { ...(await startPostgres({ temporary: true, fast: true, database, role: 'bold_ballast' })), database }
}
