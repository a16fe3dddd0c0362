// npm start: installs what is missing, starts the project's own PostgreSQL, migrates, loads the demo once, builds and serves.
import path from 'node:path'
import { buildAll, installPackages, Refusal, root } from './install.mjs'
import { PgError, startPostgres } from './postgres.mjs'

async function main() {
  const { HOST: host, TLS_CERT: tlsCert, TLS_KEY: tlsKey, PUBLIC_URL: publicUrl, TRUST_PROXY: trustProxy } = process.env
  const port = process.env.PORT === undefined ? undefined : Number(process.env.PORT)
  if (port !== undefined && (!Number.isInteger(port) || port < 1 || port > 65_535))
    throw new Refusal(`PORT is "${process.env.PORT}"; give a number from 1 to 65535.`)
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
  const withCrew = process.env.DEMO === 'crew'
  const options = { dataDir: path.join(root, '.data', 'postgres'), database: withCrew ? 'bold_ballast_crew' : 'bold_ballast', role: 'bold_ballast' }
  if (!process.env.DATABASE_URL) database = await startPostgres(options)
  buildAll()
  if (stopping) return
  const { startServer } = await import('../server/dist/main.js')
  running = await startServer({
    databaseUrl: process.env.DATABASE_URL ?? database.url,
    reach: { host, tlsCert, tlsKey, publicUrl, trustProxy },
    sessionSecret: process.env.SESSION_SECRET,
    secretFile: path.join(root, '.data', 'session-secret'),
    port,
    webRoot: path.join(root, 'web', 'dist'),
    withCrew,
    demoRoot: process.env.DEMO === 'none' ? undefined : path.join(root, 'demo'),
  })
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

main().catch((error) => {
  console.error(
    error instanceof Refusal || error instanceof PgError || /^(HOST is|PORT |TLS_|PUBLIC_URL|SESSION_SECRET|Others would)/.test(error.message)
      ? error.message
      : error,
  )
  process.exit(1)
})
