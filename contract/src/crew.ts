import { z } from '@bold-ballast/core'

export const ROLES = ['viewer', 'crew', 'owner'] as const
export type Role = (typeof ROLES)[number]
/** Who moves goals and limits: everybody who writes, or owners alone. */
export const GOALS_BY = ['crew', 'owners'] as const
export type GoalsBy = (typeof GOALS_BY)[number]

/** Stands on every answer as soon as people sign in, so that a page knows without asking. */
export const CLOSED_HEADER = 'x-closed'
/** What whoever asks is over the build he asks about. */
export const ROLE_HEADER = 'x-role'

const name = z.string().trim().min(1).max(80)
const login = z.string().trim().min(1).max(80)
// What a password must be is said in words of its own, by whoever keeps it.
const secret = z.string().max(1024)
const code = z.string().regex(/^\d{4,8}$/, 'must be 4 to 8 digits')
const token = z.string().min(20).max(100)

export const signInSchema = z.strictObject({ login, password: secret })
export const ownerSchema = z.strictObject({ name, login, password: secret })
export const joinSchema = z.strictObject({ token, name: name.optional(), login: login.optional(), password: secret.optional() })
export const handOverSchema = z.strictObject({ personId: z.uuid(), code: secret.optional(), password: secret.optional() })
export const passwordSchema = z.strictObject({ old: secret, new: secret })
/** Null takes the code away. */
export const codeSchema = z.strictObject({ password: secret, code: code.nullable() })

const role = z.enum(ROLES)
const until = z.iso.datetime({ offset: true }).nullable()
export const garagePatchSchema = z.strictObject({ name: name.optional(), goalsBy: z.enum(GOALS_BY).optional() })
export const invitationSchema = z.strictObject({
  role,
  /** Left out: the whole garage. */
  buildId: z.uuid().optional(),
  until: until.optional(),
  days: z.int().min(1).max(30).default(7),
  /** For a person who is here: the link sets a new password. */
  personId: z.uuid().optional(),
})
export const membershipSchema = z.strictObject({ personId: z.uuid(), role: z.enum(['viewer', 'crew']), until: until.optional() })
export const membershipPatchSchema = z.strictObject({ role: role.optional(), until: until.optional() })
export const personPatchSchema = z.strictObject({ state: z.enum(['active', 'off']).optional(), endEverywhere: z.literal(true).optional() })
export const claimSchema = z.strictObject({ name, personId: z.uuid() })
export const seenSchema = z.strictObject({ entryId: z.int().min(0) })
export const auditQuerySchema = z.strictObject({ before: z.coerce.number().int().positive().optional() })

/** A person on this browser: who is signed in, and those who may take over. */
export interface SeatEntry {
  readonly personId: string
  readonly name: string
  readonly hasCode: boolean
}

/** A garage or a build that one is in, and as what. */
export interface GarageMembership {
  readonly garageId: string
  readonly name: string
  readonly role: Role
  readonly goalsBy: GoalsBy
}
export interface BuildMembership {
  readonly buildId: string
  readonly role: Role
  readonly until: string | null
}

export interface MeAnswer {
  readonly mode: 'open' | 'closed'
  readonly person: { readonly id: string; readonly name: string; readonly login: string; readonly hasCode: boolean } | null
  readonly seats: readonly SeatEntry[]
  readonly garages: readonly GarageMembership[]
  readonly builds: readonly BuildMembership[]
}

export interface MemberEntry {
  readonly membershipId: string
  /** Null: the whole garage. */
  readonly buildId: string | null
  readonly buildName: string | null
  readonly role: Role
  readonly until: string | null
}
export interface PersonEntry {
  readonly id: string
  readonly name: string
  readonly login: string | null
  readonly state: 'invited' | 'active' | 'off'
  readonly hereAt: string | null
  readonly memberships: readonly MemberEntry[]
}
export interface InvitationEntry {
  readonly id: string
  readonly role: Role
  readonly buildId: string | null
  readonly buildName: string | null
  /** Of a link that sets a new password: whose. */
  readonly personName: string | null
  readonly madeAt: string
  readonly expiresAt: string
  readonly usedAt: string | null
  readonly withdrawnAt: string | null
}
/** A link as it is made; its secret is shown this once. */
export interface MadeLink {
  readonly id: string
  readonly token: string
  readonly expiresAt: string | null
}
/** A name that stands in old lines of the log, and whose it is. */
export interface ClaimEntry {
  readonly name: string
  readonly lineCount: number
  readonly claim: { readonly id: string; readonly personId: string; readonly personName: string } | null
}

export const AUDIT_ACTIONS = [
  'owner made',
  'signed in',
  'sign-in refused',
  'signed out',
  'ended everywhere',
  'took over',
  'take-over refused',
  'password changed',
  'password set anew',
  'code changed',
  'invited',
  'invitation withdrawn',
  'joined',
  'role changed',
  'membership ended',
  'switched off',
  'switched on',
  'name claimed',
  'claim taken back',
  'garage changed',
  'link made',
  'link withdrawn',
  'opened again',
  'copy taken',
  'copy restored',
] as const
export type AuditAction = (typeof AUDIT_ACTIONS)[number]
export interface AuditEntry {
  readonly id: number
  readonly at: string
  readonly person: string | null
  readonly action: AuditAction
  readonly subject: string
  readonly build: string | null
  readonly address: string | null
  readonly outcome: 'done' | 'refused'
}
export interface AuditPage {
  readonly entries: readonly AuditEntry[]
  readonly nextBefore: number | null
}

/** What a refusal for want of a role says beside its sentence. */
export interface MayNot {
  readonly buildName: string | null
  readonly role: Role
  readonly since: string
  readonly owner: string | null
}

/** Where a person left a build; null: never said. */
export interface SeenAnswer {
  readonly seen: { readonly entryId: number; readonly at: string } | null
}

export const liveQuerySchema = z.strictObject({
  /** Ids of builds with commas between. */
  builds: z
    .string()
    .max(2000)
    .transform((text) => text.split(',').filter(Boolean))
    .pipe(z.array(z.uuid()).min(1).max(20)),
})

/** Where somebody is: a page of a browser, its room, and the record that is open in a form. */
export const hereSchema = z.strictObject({ page: z.uuid(), room: z.string().min(1).max(40), recordId: z.uuid().nullable().optional() })

export interface HereEntry {
  readonly personId: string
  readonly name: string
  readonly room: string
  readonly recordId: string | null
}

/** What a stream tells: a build was written to; who is at it; what one is over it now; it is over. */
export type LiveEvent =
  | { readonly type: 'changed'; readonly buildId: string; readonly entryId: number; readonly personId: string | null; readonly isFirst: boolean }
  | { readonly type: 'here'; readonly buildId: string; readonly people: readonly HereEntry[] }
  | { readonly type: 'role'; readonly buildId: string; readonly role: Role | null }
  | { readonly type: 'bye' }

/** A copy of everything on a server; a problem says what is wrong with it, or why none was taken. */
export interface CopyEntry {
  readonly id: string
  readonly takenAt: string
  readonly path: string
  /** With the bytes that it shares with other copies. */
  readonly bytes: number
  /** The last line of the log that is in it. */
  readonly entryId: number
  /** When it was last restored on trial and found whole. */
  readonly checkedAt: string | null
  readonly problem: string | null
}
export interface CopiesAnswer {
  /** Where they lie; null: others keep the copies of this database. */
  readonly folder: string | null
  readonly isRunning: boolean
  readonly copies: readonly CopyEntry[]
}
