// npm run people: who signs in, from the terminal. The last resort of whoever can start the server.
import path from 'node:path'
import { buildAll, installPackages } from './install.mjs'
import { PgError, startPostgres } from './postgres.mjs'
import { dataFolder, endWith } from './settings.mjs'

async function main() {
  installPackages()
  buildAll()
  const { runAtTerminal, TerminalRefusal } = await import('../server/dist/main.js')
  const given = process.env.DATABASE_OWNER_URL ?? process.env.DATABASE_URL
  const database = given ? undefined : await startPostgres({ dataDir: path.join(dataFolder(), 'postgres'), database: 'bold_ballast', role: 'bold_ballast' })
  const base = process.env.PUBLIC_URL ?? `http://127.0.0.1:${process.env.PORT ?? 4600}`
  let failure
  try {
    console.log(await runAtTerminal(given ?? database.url, process.argv.slice(2), base.replace(/\/$/, '')))
  } catch (error) {
    failure = error
  }
  await database?.stop()
  if (failure) endWith(failure, [TerminalRefusal, PgError])
}

main().catch((error) => endWith(error, [PgError]))
