import type { Request } from 'express'
import type { Actor } from '../records/history.ts'
import { personOf } from './guard.ts'

/** Who writes, and the one time of the write. */
export const actorOf = (request: Request<never> | Request): Actor => ({ person: personOf(request as Request), now: new Date().toISOString() })

/** The day it is, for what is late. */
export const today = (): string => new Date().toISOString().slice(0, 10)
