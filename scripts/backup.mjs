// npm run backup [-- --to FILE.tar | --check PATH]: takes a copy of everything and tries it out; packs it into one file; or tries out one that was taken.
import { spawnSync } from 'node:child_process'
import os from 'node:os'
import path from 'node:path'
import { copiesFolder, loadCopies, megabytes, openOwn, tools } from './copies.mjs'
import { Refusal } from './install.mjs'
import { PgError } from './postgres.mjs'
import { endWith } from './settings.mjs'

const USAGE = 'npm run backup, npm run backup -- --to FILE.tar, or npm run backup -- --check PATH'
const LOWEST_PRIORITY = 19

/** Runs the program of COPY_DONE with the path of a copy; it carries the copy elsewhere. */
function tellDone(folder) {
  const program = process.env.COPY_DONE
  if (!program) return
  const { status, error } = spawnSync(program, [folder], { stdio: 'inherit' })
  if (status !== 0)
    throw new Refusal(`The copy is taken and whole. COPY_DONE "${program}" ${error ? `could not be run: ${error.message}` : `ended with ${status}`}.`)
}

async function take(copies, { file, waits }) {
  const database = await openOwn()
  const begun = performance.now()
  try {
    const { folder, bytes, boards, manifest } = await copies.backUp({ databaseUrl: database.url, copiesDir: copiesFolder(), waits, ...tools() })
    const seconds = ((performance.now() - begun) / 1000).toFixed(1)
    console.log(`${folder}: ${megabytes(bytes)}, up to entry ${manifest.entryId}; restored on trial, every row the same, ${boards} Boards open (${seconds} s).`)
    if (file) {
      await copies.packLast(copiesFolder(), path.resolve(file))
      console.log(`Packed into ${path.resolve(file)}.`)
    }
    tellDone(folder)
  } finally {
    await database.stop()
  }
}

async function check(copies, place) {
  const { entryId, boards } = await copies.checkAgain(path.resolve(place), {
    ...tools(),
    databaseUrl: process.env.DATABASE_OWNER_URL ?? process.env.DATABASE_URL,
  })
  console.log(`${place} is whole, up to entry ${entryId}: restored on trial, every row the same, ${boards} Boards open.`)
}

async function main([flag, place]) {
  if (flag === '--low') os.setPriority(LOWEST_PRIORITY)
  else if (flag !== undefined && flag !== '--next' && (!['--to', '--check'].includes(flag) || !place)) throw new Refusal(`Say ${USAGE}.`)
  const copies = await loadCopies()
  try {
    if (flag === '--check') await check(copies, place)
    else await take(copies, { file: flag === '--to' ? place : undefined, waits: flag === '--next' })
  } catch (error) {
    endWith(error, [copies.CopyRefusal, PgError])
  }
}

main(process.argv.slice(2)).catch((error) => endWith(error, [PgError]))
