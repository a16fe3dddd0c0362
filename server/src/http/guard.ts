import type { NextFunction, Request, Response } from 'express'
import { AppError } from './problem.ts'

function wantedTypes(path: string): readonly string[] {
  if (path.endsWith('/pull-files') || path.endsWith('/log-files')) return ['text/csv']
  if (path.endsWith('/photo-files')) return ['image/']
  return path === '/api/build-files' ? ['application/zip', 'application/json'] : ['application/json']
}

/** Only our own page on our own loopback address may talk to the server, until sign-in exists. */
export function guardOrigin(request: Request, _response: Response, next: NextFunction): void {
  const port = request.socket.localPort
  const host = request.headers.host ?? ''
  if (![`127.0.0.1:${port}`, `localhost:${port}`, `[::1]:${port}`].includes(host)) {
    throw new AppError('not-allowed', 'This server answers only under its own loopback address.')
  }
  const { origin } = request.headers
  if (origin !== undefined && origin !== `http://${host}`) throw new AppError('not-allowed', 'Requests from another origin are refused.')
  const site = request.headers['sec-fetch-site']
  if (site === 'cross-site' || site === 'same-site') throw new AppError('not-allowed', 'Requests from another site are refused.')
  const isWrite = !['GET', 'HEAD', 'OPTIONS'].includes(request.method)
  const wanted = wantedTypes(request.path)
  const sent = (request.headers['content-type'] ?? '').toLowerCase()
  if (isWrite && !wanted.some((type) => sent.startsWith(type))) throw new AppError('not-allowed', `Writes are sent as ${wanted.join(' or ')}.`)
  next()
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
