import { LOG_ENTRY_HEADER, TYPED_AT_HEADER } from '@bold-ballast/contract'
import { z } from '@bold-ballast/core'
import type { Request, Response } from 'express'
import { type Access, OPEN_ACCESS } from './access.ts'
import { personOf } from './guard.ts'

/** Who changes what, and when; `now` is passed so that one transaction has one time. */
export interface Actor {
  readonly person: string
  /** What this person may; asked again inside of each write. */
  readonly access: Access
  readonly now: string
  /** When it was typed, where it waited in a browser. */
  readonly typedAt?: string | null
  /** Told the number of each line written to the log, so that a caller can offer to take it back. */
  readonly noteEntry?: (entryId: number) => void
}

/** Shorter than this is no waiting. */
const LEAST_WAIT_MS = 60_000
const instant = z.iso.datetime({ offset: true })

/** When a write was typed that waited; what is no time, or lies ahead, says nothing. */
function typedAtOf(request: Request, now: number): string | null {
  const typed = instant.safeParse(request.get(TYPED_AT_HEADER))
  return typed.success && now - Date.parse(typed.data) >= LEAST_WAIT_MS ? new Date(typed.data).toISOString() : null
}

/** What whoever sent a request may do; it was found before the request came to its address. */
export const accessOf = (response: Pick<Response, 'locals'>): Access => (response.locals.access as Access | undefined) ?? OPEN_ACCESS

/** The last line of the log of the build that a request is about, where it was read with the rights over it, a moment ago. */
export const lastEntryOf = (response: Pick<Response, 'locals'>): number | undefined => (response.locals.lastEntryId as number | null | undefined) ?? undefined

/** The name of whoever is signed in; else the one that was typed in the browser. */
const nameOf = (request: Request): string => (request.res?.locals.signedInAs as string | undefined) ?? personOf(request)

/** Who writes, and the one time of the write; the answer's header tells which line of the log it made, the last where there are several. */
export const actorOf = (request: Request<never> | Request): Actor => ({
  person: nameOf(request as Request),
  access: accessOf((request as Request).res ?? { locals: {} }),
  now: new Date().toISOString(),
  typedAt: typedAtOf(request as Request, Date.now()),
  noteEntry: (entryId) => (request as Request).res?.setHeader(LOG_ENTRY_HEADER, String(entryId)),
})

/** The day it is in the server's zone, for what is late. */
export function today(): string {
  const now = new Date()
  return new Date(now.getTime() - now.getTimezoneOffset() * 60_000).toISOString().slice(0, 10)
}
