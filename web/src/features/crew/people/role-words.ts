import { ROLES, type Role } from '@bold-ballast/contract'

export const ROLE_WORDS: Record<Role, string> = { viewer: 'look', crew: 'write', owner: 'own' }

/** Owners own a garage whole: of one build one may look or write. */
export const roleOptions = (isOfBuild: boolean): readonly Role[] => (isOfBuild ? ROLES.filter((role) => role !== 'owner') : ROLES)

/** The end of a local day, as an instant; nothing for no day. */
export function endOfDay(day: string): string | undefined {
  return day === '' ? undefined : new Date(`${day}T23:59:59`).toISOString()
}
