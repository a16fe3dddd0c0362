// npm run restore -- PATH: puts a copy, a folder or one file, in the place of what the database holds; what stood there stays beside it.
import path from 'node:path'
import { loadCopies, openOwn, tools } from './copies.mjs'
import { Refusal } from './install.mjs'
import { PgError } from './postgres.mjs'
import { endWith } from './settings.mjs'

async function main([place]) {
  if (!place) throw new Refusal('Say which copy: npm run restore -- PATH.')
  const copies = await loadCopies()
  const database = await openOwn()
  try {
    const begun = performance.now()
    const { former, boards, entryId } = await copies.restoreFrom(path.resolve(process.env.INIT_CWD ?? '.', place), { databaseUrl: database.url, ...tools() })
    const seconds = ((performance.now() - begun) / 1000).toFixed(1)
    console.log(`Restored up to entry ${entryId}: every row the same, ${boards} Boards open (${seconds} s). What stood there is kept as ${former}.`)
    console.log('Everybody signs in again; links and invitations of the copy are withdrawn.')
  } catch (error) {
    await database.stop()
    endWith(error, [copies.CopyRefusal, PgError])
  }
  await database.stop()
}

main(process.argv.slice(2)).catch((error) => endWith(error, [PgError]))
