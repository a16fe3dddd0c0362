import { createHash, randomBytes } from 'node:crypto'

/** A secret that stands behind the # of a link, so that no log and no preview has it; only its hash is kept. */
export const makeToken = (): string => randomBytes(32).toString('base64url')
export const hashOfToken = (token: string): string => createHash('sha256').update(token).digest('hex')
