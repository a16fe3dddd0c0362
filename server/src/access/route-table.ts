import { KINDS } from '@bold-ballast/core'
import type { Least } from '../http/access.ts'

/** Who may call an address at all: anyone, whoever is signed in, or somebody of a role over what the address names. */
export type Caller = 'anyone' | 'signedIn' | Least

export interface RouteRule {
  readonly method: 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'
  /** As the server's own addresses are written; `:buildId` and `:garageId` are what the role is held over. */
  readonly path: string
  readonly least: Caller
  /** Where the build's id stands that the role is held over: the service asks for it where it is not in the address. */
  readonly over: 'build' | 'garage' | 'file' | 'device' | 'nothing'
}

const GOALS = new Set(['targets', 'limits'])
type Line = readonly [method: RouteRule['method'], path: string, least: Caller]

const overOf = (path: string): RouteRule['over'] => {
  if (path.startsWith('/builds/:buildId')) return 'build'
  if (path.startsWith('/garages/:garageId')) return 'garage'
  if (path === '/build-files') return 'file'
  return path.startsWith('/devices') ? 'device' : 'nothing'
}

/** The same six of every kind below a build. */
const ofKind = (address: string): Line[] => {
  const base = `/builds/:buildId/${address}`
  const write = GOALS.has(address) ? 'goals' : 'crew'
  return [
    ['GET', base, 'viewer'],
    ['POST', base, write],
    ['GET', `${base}/:id`, 'viewer'],
    ['PATCH', `${base}/:id`, write],
    ['DELETE', `${base}/:id`, write],
    ['POST', `${base}/:id/restore`, write],
  ]
}

const ANSWERS = [
  'records',
  'board',
  'weight',
  'power',
  'aero',
  'drivetrain',
  'track',
  'jobs',
  'rules',
  'systems',
  'revision',
  'working',
  'log',
  'since',
  'seen',
]

const LINES: readonly Line[] = [
  ['GET', '/health', 'anyone'],
  ['GET', '/health/live', 'anyone'],
  ['GET', '/health/ready', 'anyone'],
  ['GET', '/me', 'anyone'],
  ['POST', '/owner', 'anyone'],
  ['POST', '/sign-in', 'anyone'],
  ['POST', '/hand-over', 'anyone'],
  ['POST', '/join', 'anyone'],
  ['POST', '/sign-out', 'anyone'],
  ['GET', '/shared', 'anyone'],
  ['POST', '/sign-out-everywhere', 'signedIn'],
  ['POST', '/password', 'signedIn'],
  ['POST', '/code', 'signedIn'],
  ['GET', '/calc', 'signedIn'],
  ['POST', '/calc/:name', 'signedIn'],
  ['GET', '/builds', 'signedIn'],
  ['POST', '/builds', 'signedIn'],
  ['GET', '/live', 'signedIn'],
  ['GET', '/shelf/:address', 'signedIn'],
  ['GET', '/build-files/schema', 'signedIn'],
  ['POST', '/build-files', 'signedIn'],
  ['GET', '/devices', 'crew'],
  ['POST', '/devices/find', 'crew'],
  ['POST', '/devices/stand-ins', 'crew'],
  ['DELETE', '/devices/stand-ins/:id', 'crew'],
  ['POST', '/devices/:id/commands', 'crew'],
  ['GET', '/devices/:id/stream', 'crew'],
  ['GET', '/garages/:garageId/people', 'owner'],
  ['PATCH', '/garages/:garageId/people/:personId', 'owner'],
  ['PATCH', '/garages/:garageId', 'owner'],
  ['GET', '/garages/:garageId/next', 'owner'],
  ['GET', '/garages/:garageId/invitations', 'owner'],
  ['POST', '/garages/:garageId/invitations', 'owner'],
  ['DELETE', '/garages/:garageId/invitations/:id', 'owner'],
  ['PATCH', '/garages/:garageId/memberships/:id', 'owner'],
  ['DELETE', '/garages/:garageId/memberships/:id', 'owner'],
  ['GET', '/garages/:garageId/claims', 'owner'],
  ['POST', '/garages/:garageId/claims', 'owner'],
  ['DELETE', '/garages/:garageId/claims/:id', 'owner'],
  ['GET', '/garages/:garageId/audit', 'owner'],
  ['GET', '/garages/:garageId/copies', 'owner'],
  ['POST', '/garages/:garageId/copies', 'owner'],
  ['POST', '/garages/:garageId/copies/:id/check', 'owner'],
  ['PATCH', '/builds/:buildId', 'crew'],
  ['DELETE', '/builds/:buildId', 'owner'],
  ['POST', '/builds/:buildId/restore', 'owner'],
  ...ANSWERS.map((name): Line => ['GET', `/builds/:buildId/${name}`, 'viewer']),
  // A viewer may copy what he reads; the file is more than that, because it opens as a build of one's own.
  ['GET', '/builds/:buildId/file', 'crew'],
  ['PUT', '/builds/:buildId/seen', 'viewer'],
  ['PUT', '/builds/:buildId/here', 'viewer'],
  ['POST', '/builds/:buildId/log/:entryId/undo', 'crew'],
  ['POST', '/builds/:buildId/batches', 'crew'],
  ['PUT', '/builds/:buildId/stage-order', 'crew'],
  ['POST', '/builds/:buildId/photo-files', 'crew'],
  ['GET', '/builds/:buildId/photos/:id/bytes', 'viewer'],
  ['POST', '/builds/:buildId/sessions/:sessionId/pull-files', 'crew'],
  ['GET', '/builds/:buildId/pulls/:pullId/samples', 'viewer'],
  ['POST', '/builds/:buildId/track-sessions/:sessionId/log-files', 'crew'],
  ['GET', '/builds/:buildId/track-logs/:logId/samples', 'viewer'],
  ['GET', '/builds/:buildId/memberships', 'owner'],
  ['POST', '/builds/:buildId/memberships', 'owner'],
  ['GET', '/builds/:buildId/links', 'owner'],
  ['POST', '/builds/:buildId/links', 'owner'],
  ['DELETE', '/builds/:buildId/links/:id', 'owner'],
  ...KINDS.flatMap(({ address }) => ofKind(address)),
]

/** Every address of the server, who may call it, and over what: the one table that access is decided by. */
export const ROUTES: readonly RouteRule[] = LINES.map(([method, path, least]) => ({ method, path, least, over: overOf(path) }))

const SPLIT = ROUTES.map((rule) => ({ rule, parts: rule.path.split('/') }))

/** The rule of a request and what its address names; undefined where no address is like it. */
export function findRoute(method: string, path: string): { readonly rule: RouteRule; readonly params: Readonly<Record<string, string>> } | undefined {
  const parts = path.replace(/\/$/, '').split('/')
  const wanted = method === 'HEAD' ? 'GET' : method
  const found = SPLIT.find(
    ({ rule, parts: known }) => rule.method === wanted && known.length === parts.length && known.every((part, i) => part.startsWith(':') || part === parts[i]),
  )
  if (!found) return undefined
  const params = Object.fromEntries(found.parts.flatMap((part, i) => (part.startsWith(':') ? [[part.slice(1), parts[i] as string]] : [])))
  return { rule: found.rule, params }
}
