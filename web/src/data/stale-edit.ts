type Fields = Readonly<Record<string, unknown>>

/** What becomes of an edit that met another one: both are kept, or a person has to choose. */
export type StaleEdit =
  | { readonly kind: 'both'; readonly body: Fields; readonly theirFields: readonly string[] }
  | { readonly kind: 'choice'; readonly fields: readonly string[] }

const META = new Set(['id', 'buildId', 'version', 'createdAt', 'createdBy', 'updatedAt', 'updatedBy', 'deletedAt'])
const isSame = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null)

/**
 * An edit whose record was changed by somebody else since it was read: where they changed other fields, mine alone are sent onto theirs and both are kept; where they
 * changed the same one to something else, or nobody knows how it stood, a person chooses. A record that was deleted meanwhile is a choice too.
 */
export function mergeStale({ mine, base, theirs }: { readonly mine: Fields; readonly base: Fields | null; readonly theirs: Fields }): StaleEdit {
  const own = Object.keys(mine).filter((field) => !META.has(field))
  const met = own.filter((field) => !isSame(mine[field], theirs[field]) && (base === null || !isSame(base[field], theirs[field])))
  const isGone = (theirs.deletedAt ?? null) !== null
  if (met.length > 0 || isGone) return { kind: 'choice', fields: met }
  const changed = base === null ? [] : Object.keys(base).filter((field) => !META.has(field) && field in theirs && !isSame(base[field], theirs[field]))
  return { kind: 'both', body: { ...Object.fromEntries(own.map((field) => [field, mine[field]])), version: theirs.version }, theirFields: changed }
}

/** What is said where both were kept. */
export const keptBothWords = (theirs: Fields): string => `${String(theirs.updatedBy ?? 'Somebody')} had changed something else of it meanwhile: both are kept.`
