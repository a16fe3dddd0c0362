import type { Problem } from '@bold-ballast/contract'
import { CalculationError, issueField, sayIssue, type z } from '@bold-ballast/core'

/** Every kind of refusal and its status: one table, exhaustive by type. */
const STATUS = {
  malformed: 400,
  'not-allowed': 403,
  'not-found': 404,
  'method-not-allowed': 405,
  stale: 409,
  duplicate: 409,
  'too-large': 413,
  'precondition-failed': 412,
  unsupported: 415,
  'no-such-range': 416,
  'bad-input': 422,
  'rule-broken': 422,
  'calculation-refused': 422,
  'signed-out': 401,
  'may-not': 403,
  gone: 410,
  'too-many': 429,
  'too-busy': 503,
  'database-away': 503,
  'disk-full': 507,
  unexpected: 500,
} as const

export type ProblemCode = keyof typeof STATUS

/** What is over soon by itself. */
const USUAL_RETRY_S: Partial<Record<ProblemCode, number>> = { 'too-busy': 2, 'database-away': 2 }

const TITLES: Record<ProblemCode, string> = {
  malformed: 'The request cannot be read',
  'not-allowed': 'The request is not allowed',
  'not-found': 'There is no such thing',
  'method-not-allowed': 'That cannot be done here',
  stale: 'Somebody changed it in the meantime',
  duplicate: 'It exists already',
  'too-large': 'It is too large',
  'precondition-failed': 'It is not as the request wants it',
  unsupported: 'The body cannot be read as it is written',
  'no-such-range': 'There is no such range',
  'bad-input': 'A field needs another value',
  'rule-broken': 'A rule forbids it',
  'calculation-refused': 'The calculation refuses this input',
  'signed-out': 'Nobody is signed in',
  'may-not': 'Your role does not reach that far',
  gone: 'It is used up or too old',
  'too-many': 'Too many tries',
  'too-busy': 'The server has its hands full',
  'database-away': 'The database does not answer',
  'disk-full': 'There is no room left',
  unexpected: 'Something went wrong',
}

/** The one error of the server; everything else is answered with a fixed text. */
export class AppError extends Error {
  readonly code: ProblemCode
  readonly errors: readonly { path: string; message: string }[]
  readonly current: unknown
  /** After how long it is worth another try. */
  readonly retryAfterS: number | undefined

  constructor(
    code: ProblemCode,
    detail: string,
    more: { errors?: readonly { path: string; message: string }[]; current?: unknown; retryAfterS?: number } = {},
  ) {
    super(detail)
    this.code = code
    this.errors = more.errors ?? []
    this.current = more.current
    this.retryAfterS = more.retryAfterS ?? USUAL_RETRY_S[code]
  }
}

/** Zod's issues as one sentence and a list by field. */
export function badInput(error: z.ZodError): AppError {
  const errors = error.issues.flatMap((issue) =>
    issue.code === 'unrecognized_keys'
      ? issue.keys.map((key) => ({ path: [...issue.path, key].join('.'), message: sayIssue(issue) }))
      : [{ path: issueField(issue), message: sayIssue(issue) }],
  )
  const [first] = errors
  return new AppError('bad-input', first ? `${first.path || 'The body'} ${first.message}` : 'The body cannot be read. Send its fields.', { errors })
}

export function toProblem(error: AppError): Problem {
  return {
    type: 'about:blank',
    title: TITLES[error.code],
    status: STATUS[error.code],
    detail: error.message,
    code: error.code,
    ...(error.errors.length > 0 ? { errors: error.errors } : {}),
    ...(error.current === undefined ? {} : { current: error.current }),
  }
}

interface DatabaseError {
  code?: string
  constraint?: string
}

const AWAY_CODES = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'ENOTFOUND',
  'EPIPE',
  '57P01',
  '57P02',
  '57P03',
  '08006',
  '08001',
  '08003',
  '53300',
  '3D000',
  '55000',
])

interface Thrown {
  readonly name?: string
  readonly message?: string
  readonly type?: string
  readonly status?: number
  readonly limit?: number
}

const sizeText = (bytes: number) => (bytes >= 1024 * 1024 ? `${Math.round(bytes / 1024 / 1024)} MB` : `${Math.round(bytes / 1024)} kB`)

/** What the parts that read a request answer by a status of their own. */
const SENT_WRONG = {
  400: () => new AppError('malformed', 'The address or the body cannot be read. Send it as the documents say.'),
  404: () => new AppError('not-found', 'There is no such address.'),
  412: () => new AppError('precondition-failed', 'The file is another one than the request wants. Ask without a condition.'),
  415: () => new AppError('unsupported', 'The body is written in a character set or an encoding that is not read here. Send UTF-8 without compression.'),
  416: () => new AppError('no-such-range', 'The range asked for lies outside of the file. Ask without one.'),
} as const

/** Any thrown thing as an AppError; what is unknown becomes a fixed text, so that no stack, SQL or path is ever sent. */
export function toAppError(thrown: unknown): AppError {
  if (thrown instanceof AppError) return thrown
  if (thrown instanceof CalculationError)
    return new AppError('calculation-refused', thrown.message, { errors: [{ path: thrown.field, message: thrown.message }] })
  // The record models wrap what the driver threw.
  const { code = '', constraint = '' } = ((thrown as { nativeError?: DatabaseError } | null)?.nativeError ?? thrown ?? {}) as DatabaseError
  const { name = '', message = '', type = '', status, limit = 0 } = (thrown ?? {}) as Thrown
  if (type === 'entity.too.large') return new AppError('too-large', `The request is larger than ${sizeText(limit)}. Send less at once.`)
  if (type === 'entity.parse.failed') return new AppError('malformed', 'The body is not JSON. Send one JSON object.')
  if (status !== undefined && status in SENT_WRONG) return SENT_WRONG[status as keyof typeof SENT_WRONG]()
  const isAway = AWAY_CODES.has(code) || name === 'KnexTimeoutError' || /Connection terminated|ECONNREFUSED|Connection ended|not queryable/.test(message)
  if (isAway) return new AppError('database-away', 'The database does not answer. Nothing was stored; send it again in a moment.')
  if (code === '23505') {
    const what = constraint.includes('target')
      ? 'A target for this metric and due stage exists already. Change that one.'
      : 'A record like this exists already. Change that one.'
    return new AppError('duplicate', what)
  }
  if (code === '23503') return new AppError('rule-broken', 'It names a record that this build does not have, or another record still needs it.')
  if (code === '23514' || code === '23502') return new AppError('rule-broken', 'A value lies outside what can be stored. Check its number and unit.')
  if (code === '22021' || code === '22P05') return new AppError('bad-input', 'A text holds a character that cannot be stored (a NUL). Type it anew.')
  if (code === 'ENOSPC' || code === 'EDQUOT')
    return new AppError('disk-full', 'The disk of the server is full. Make room and send it again; nothing was stored.')
  if (code === '53100') return new AppError('disk-full', 'The disk of the database is full. Make room and send it again; nothing was stored.')
  if (code === '22P02' || code === '22003') return new AppError('bad-input', 'A value has the wrong shape for its field.')
  return new AppError('unexpected', 'Something went wrong on our side. Nothing was stored; what you typed is still in the form.')
}
