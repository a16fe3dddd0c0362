// npm run migrate [-- --grants ROLE]: brings the database of DATABASE_OWNER_URL (else DATABASE_URL) to this program; gives a role what serving needs.
import { buildAll, installPackages, Refusal } from './install.mjs'
import { endWith } from './settings.mjs'

async function main([flag, role]) {
  if (flag !== undefined && (flag !== '--grants' || !role)) throw new Refusal('Say npm run migrate, or npm run migrate -- --grants ROLE.')
  const databaseUrl = process.env.DATABASE_OWNER_URL ?? process.env.DATABASE_URL
  if (!databaseUrl) throw new Refusal('Give DATABASE_OWNER_URL, as the role that owns the tables.')
  installPackages()
  buildAll()
  const { grantTo, migrateDatabase } = await import('../server/dist/main.js')
  const made = await migrateDatabase({ databaseUrl }, role === undefined ? undefined : (owner) => grantTo(owner, role))
  console.log(made.length === 0 ? 'Nothing waited.' : `Upgraded: ${made.join(', ')}.`)
  if (role !== undefined) console.log(`${role} may serve: it reads and writes records, and neither alters nor removes a line of log or audit.`)
}

main(process.argv.slice(2)).catch((error) => endWith(error))
