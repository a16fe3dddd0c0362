// npm run serve: serves what was built, on the database that DATABASE_URL names; installs, builds and starts nothing.
import fs from 'node:fs'
import path from 'node:path'
import { Refusal, root } from './install.mjs'
import { endWith, serverSettings } from './settings.mjs'

async function main() {
  const settings = serverSettings()
  const databaseUrl = process.env.DATABASE_URL
  if (!databaseUrl) throw new Refusal('Give DATABASE_URL, the database to serve. npm start brings one of its own.')
  const built = path.join(root, 'server', 'dist', 'main.js')
  if (!fs.existsSync(built) || !fs.existsSync(path.join(settings.webRoot, 'index.html'))) throw new Refusal('Nothing is built here. Run npm run build first.')
  const { startServer } = await import(built)
  let running
  let stopping = false
  const stop = async () => {
    if (stopping) return
    stopping = true
    await running?.stop()
    process.exit(0)
  }
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop())
  running = await startServer({ ...settings, databaseUrl, logLevel: settings.logLevel ?? 'info', demoRoot: process.env.DEMO ? settings.demoRoot : undefined })
  console.log(JSON.stringify({ level: 30, time: Date.now(), msg: `ready on ${running.address}` }))
}

main().catch((error) => endWith(error))
