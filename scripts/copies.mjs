// What npm run backup and npm run restore have in common: where copies lie, PostgreSQL's programs, and a server of its own for a trial.
import path from 'node:path'
import { buildAll, installPackages } from './install.mjs'
import { findProgram, startPostgres } from './postgres.mjs'
import { dataFolder } from './settings.mjs'

export const copiesFolder = () => path.resolve(process.env.COPIES_DIR ?? path.join(dataFolder(), 'copies'))

export const tools = () => ({
  programs: { pg_dump: findProgram('pg_dump'), pg_restore: findProgram('pg_restore') },
  startTrial: () => startPostgres({ temporary: true, fast: true, database: 'trial', role: 'trial' }),
})

/** The built part of the server that takes, checks and restores. */
export async function loadCopies() {
  installPackages()
  buildAll()
  return import('../server/dist/copies/index.js')
}

/** The database of the settings; else the project's own, started for as long as it is needed. */
export async function openOwn() {
  const given = process.env.DATABASE_OWNER_URL ?? process.env.DATABASE_URL
  if (given) return { url: given, stop: async () => {} }
  return startPostgres({ dataDir: path.join(dataFolder(), 'postgres'), database: 'bold_ballast', role: 'bold_ballast' })
}

export const megabytes = (bytes) => `${(bytes / 1e6).toFixed(1)} MB`
