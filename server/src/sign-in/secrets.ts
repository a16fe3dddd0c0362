import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'

/**
 * What session cookies are signed with, the first for new ones: those that were given, else one kept in a file that its owner alone reads.
 * Without a file it lasts as long as the program.
 */
export function sessionSecrets(given: string | undefined, file: string | undefined): string[] {
  const listed = (given ?? '').split(',').flatMap((secret) => (secret.trim() === '' ? [] : [secret.trim()]))
  if (listed.some((secret) => secret.length < 32)) throw new Error('SESSION_SECRET is too short. Give 32 characters or more, several with commas between.')
  if (listed.length > 0) return listed
  if (file === undefined) return [randomBytes(32).toString('base64url')]
  if (!existsSync(file)) {
    mkdirSync(path.dirname(file), { recursive: true })
    writeFileSync(file, randomBytes(32).toString('base64url'), { mode: 0o600, flag: 'wx' })
  }
  return [readFileSync(file, 'utf8').trim()]
}
