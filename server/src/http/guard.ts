import type { NextFunction, Request, Response } from 'express'
import { AppError } from './problem.ts'

function wantedTypes(path: string): readonly string[] {
  if (path.endsWith('/pull-files') || path.endsWith('/log-files')) return ['text/csv']
  if (path.endsWith('/photo-files')) return ['image/']
  return path === '/api/build-files' ? ['application/zip', 'application/json'] : ['application/json']
}

/** How the server is reached from outside: plain on loopback; encrypted by itself; or behind a proxy that has one address. */
export interface Front {
  readonly isTls: boolean
  readonly publicUrl: URL | null
  /** Whether others than this machine can reach it, by itself or through a proxy. */
  readonly isOutside: boolean
}

export const LOOPBACK_FRONT: Front = { isTls: false, publicUrl: null, isOutside: false }

/** The origin that a page of ours has which was asked for under a host; undefined: that host is not ours. */
function ownOrigin({ isTls, publicUrl }: Front, host: string, port: number | undefined): string | undefined {
  if (publicUrl) return host === publicUrl.host ? publicUrl.origin : undefined
  // Under another name than its certificate's no browser talks to it.
  if (isTls) return `https://${host}`
  return [`127.0.0.1:${port}`, `localhost:${port}`, `[::1]:${port}`].includes(host) ? `http://${host}` : undefined
}

/** Only our own page under our own address may talk to the server; a write that bears a cookie must say which page it comes from. */
export function guardOrigin(front: Front) {
  return (request: Request, _response: Response, next: NextFunction): void => {
    guard(front, request)
    next()
  }
}

function guard(front: Front, request: Request): void {
  const own = ownOrigin(front, request.headers.host ?? '', request.socket.localPort)
  const isHealth = front.publicUrl !== null && request.path.startsWith('/api/health')
  if (own === undefined && !isHealth) throw new AppError('not-allowed', 'This server answers only under its own address.')
  const { origin } = request.headers
  if (origin !== undefined && origin !== own) throw new AppError('not-allowed', 'Requests from another origin are refused.')
  const site = request.headers['sec-fetch-site']
  if (site === 'cross-site' || site === 'same-site') throw new AppError('not-allowed', 'Requests from another site are refused.')
  const isWrite = !['GET', 'HEAD', 'OPTIONS'].includes(request.method)
  const wanted = wantedTypes(request.path)
  const sent = (request.headers['content-type'] ?? '').toLowerCase()
  if (isWrite && !wanted.some((type) => sent.startsWith(type))) throw new AppError('not-allowed', `Writes are sent as ${wanted.join(' or ')}.`)
  if (isWrite && request.headers.cookie !== undefined && origin === undefined && site === undefined)
    throw new AppError('not-allowed', 'A write with a sign-in must say which page it comes from.')
}

/** The name a person typed once per browser; it goes with every write. */
export function personOf(request: Request): string {
  const raw = request.get('x-person') ?? ''
  try {
    // Control characters name nobody, and cannot be stored.
    return (
      decodeURIComponent(raw)
        .replaceAll(/\p{Cc}/gu, '')
        .trim()
        .slice(0, 80) || 'nobody named'
    )
  } catch {
    return 'nobody named'
  }
}
