// npm start: installs what is missing, starts the project's own PostgreSQL, migrates, loads the demo once, builds and serves.
import path from 'node:path'
import { buildAll, installPackages } from './install.mjs'
import { PgError, startPostgres } from './postgres.mjs'
import { dataFolder, endWith, serverSettings } from './settings.mjs'

async function main() {
  const settings = serverSettings()
  installPackages()
  let database
  let running
  let stopping = false
  const stop = async (code) => {
    if (stopping) return
    stopping = true
    clearInterval(watch)
    await running?.stop().catch(() => {})
    await database?.stop().catch(() => {})
    process.exit(code)
  }
  let watch
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0))
  const name = settings.withCrew ? 'bold_ballast_crew' : 'bold_ballast'
  const options = { dataDir: path.join(dataFolder(), 'postgres'), database: name, role: 'bold_ballast' }
  if (!process.env.DATABASE_URL) database = await startPostgres(options)
  buildAll()
  if (stopping) return
  const { startServer } = await import('../server/dist/main.js')
  running = await startServer({ ...settings, databaseUrl: process.env.DATABASE_URL ?? database.url })
  // A database that was killed comes back on the same port, and the server's pool finds it again.
  watch = setInterval(async () => {
    if (!database || stopping || database.isAlive()) return
    try {
      database = await startPostgres({ ...options, port: database.port })
    } catch (error) {
      console.error(error.message)
    }
  }, 500)
  for (const [login, password] of running.passwords ?? []) console.log(`${login} signs in with: ${password}`)
  console.log(`Bold Ballast is ready on ${running.address}  (Ctrl C stops it)`)
}

main().catch((error) => endWith(error, [PgError]))
