import { LOG_ENTRY_HEADER } from '@bold-ballast/contract'
import type { Request } from 'express'
import { personOf } from './guard.ts'

/** Who changes what, and when; `now` is passed so that one transaction has one time. */
export interface Actor {
  readonly person: string
  readonly now: string
  /** Told the number of each line written to the log, so that a caller can offer to take it back. */
  readonly noteEntry?: (entryId: number) => void
}

/** Who writes, and the one time of the write; the answer's header tells which line of the log it made, the last where there are several. */
export const actorOf = (request: Request<never> | Request): Actor => ({
  person: personOf(request as Request),
  now: new Date().toISOString(),
  noteEntry: (entryId) => (request as Request).res?.setHeader(LOG_ENTRY_HEADER, String(entryId)),
})

/** The day it is in the server's zone, for what is late. */
export function today(): string {
  const now = new Date()
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
}
