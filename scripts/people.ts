// npm run people: who signs in, from the terminal. The last resort of whoever can start the server.
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { requireSafeDatabase } from '../server/src/database/address.ts'
import { bringUp } from '../server/src/database/migrate.ts'
import { openDatabase } from '../server/src/database/open.ts'
import { atTerminal, TerminalRefusal } from '../server/src/people/terminal.ts'
// @ts-expect-error a script without types
import { PgError, startPostgres } from './postgres.mjs'

const root = fileURLToPath(new URL('..', import.meta.url))

async function main(): Promise<void> {
  const database = process.env.DATABASE_URL
    ? undefined
    : await startPostgres({ dataDir: path.join(root, '.data', 'postgres'), database: 'bold_ballast', role: 'bold_ballast' })
  const databaseUrl = requireSafeDatabase(process.env.DATABASE_OWNER_URL ?? process.env.DATABASE_URL ?? (database?.url as string))
  const knex = openDatabase(databaseUrl)
  try {
    await bringUp({ knex, databaseUrl })
    const base = process.env.PUBLIC_URL ?? `http://127.0.0.1:${process.env.PORT ?? 4600}`
    console.log(await atTerminal(knex, process.argv.slice(2), base.replace(/\/$/, '')))
  } finally {
    await knex.destroy()
    await database?.stop()
  }
}

main().catch((error: unknown) => {
  console.error(error instanceof TerminalRefusal || (error instanceof Error && error instanceof PgError) ? (error as Error).message : error)
  process.exitCode = 1
})
