import type { Response } from 'express'
import { accessOf } from './actor.ts'

/** Who asks for a sum, and whether anybody still waits for it. */
export interface Asker {
  /** Null as long as nobody signs in. */
  readonly personId: string | null
  /** Aborted when the page has left. */
  readonly signal: AbortSignal
}

export function askerOf(response: Response): Asker {
  const left = new AbortController()
  response.once('close', () => left.abort())
  return { personId: accessOf(response).personId, signal: left.signal }
}
