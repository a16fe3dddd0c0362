import type { Request } from 'express'
import { AppError } from '../http/problem.ts'
import type { CsvLimit } from './csv-rows.ts'
import type { Refusable } from './read-for.ts'
import { type Spool, spoolBody } from './spool.ts'

/** The answer of a reader on its thread; its refusal as one of the request. */
export function answerOf<Answer>(found: Refusable<Answer>): Answer {
  if (found.ok) return found.answer
  throw new AppError('calculation-refused', found.message, { errors: [{ path: found.field, message: found.message }] })
}

/** Refuses a file that says it is too large before it is read. */
export function requireSize(request: Request, { mostBytes, tooLarge }: CsvLimit): void {
  if (Number(request.headers['content-length'] ?? 0) <= mostBytes) return
  // What still comes is read and thrown away, so that the answer arrives.
  request.resume()
  throw tooLarge()
}

/** The body as a file for as long as the work lasts; the work ends with the request. */
export async function withBody<Answer>(
  request: Request,
  { mostBytes, tooLarge }: CsvLimit,
  work: (spool: Spool, signal: AbortSignal) => Promise<Answer>,
): Promise<Answer> {
  const left = new AbortController()
  request.once('aborted', () => left.abort())
  const spool = await spoolBody(request, mostBytes, tooLarge)
  try {
    return await work(spool, left.signal)
  } finally {
    await spool.remove()
  }
}
