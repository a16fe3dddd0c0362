import type { Row } from '../../records/define-record.ts'
import { findKind, type RecordList, recordName } from '../../records/kinds.ts'
import type { MovedLine, MovedPair } from './put-back.ts'

/** What a spell was about. */
export type SpellKind = 'masses' | 'power' | 'places' | 'goals' | 'other'

const KIND_OF: Partial<Record<RecordList, SpellKind>> = {
  changes: 'masses',
  weighings: 'masses',
  inCars: 'masses',
  boxes: 'masses',
  sessions: 'power',
  pulls: 'power',
  standings: 'power',
  expectations: 'power',
  enginePlans: 'power',
  pullPlans: 'power',
  zones: 'places',
  sites: 'places',
  lifts: 'places',
  ballastAims: 'places',
  balanceSteps: 'places',
  targets: 'goals',
  limits: 'goals',
  ruleBooks: 'goals',
}
const META = new Set(['version', 'updatedAt', 'updatedBy', 'createdAt', 'createdBy', 'deletedAt', 'buildId'])
const PLACES = new Set(['place', 'zone'])

const isSame = (a: unknown, b: unknown) => JSON.stringify(a ?? null) === JSON.stringify(b ?? null)
const isGone = (row: Row | null) => row === null || (row.deletedAt ?? null) !== null

/** The fields in which a record that stayed was changed. */
const changedFields = (before: Row, after: Row): string[] =>
  [...new Set([...Object.keys(before), ...Object.keys(after)])].filter((field) => !META.has(field) && !isSame(before[field], after[field]))

/** What a change of one record was about: of a part or a line that stayed, by the fields that moved. */
function kindOfPair({ resource, before, after }: MovedPair): SpellKind {
  const list = findKind(resource)?.list
  if (list === undefined) return 'other'
  if ((list === 'changes' || list === 'parts') && before !== null && !isGone(before) && !isGone(after)) {
    const fields = changedFields(before, after)
    if (fields.length > 0 && fields.every((field) => PLACES.has(field))) return 'places'
    if (list === 'parts' && fields.includes('mass')) return 'masses'
  }
  return KIND_OF[list] ?? 'other'
}

/**
 * What a line of the log was about: of many records, the first that is of the car's masses, power, places or goals.
 * @example kindOfLine({ pairs: [{ resource: 'targets', before: null, after: { id: 't' } }] }) // 'goals'
 */
export const kindOfLine = ({ pairs }: Pick<MovedLine, 'pairs'>): SpellKind => pairs.map(kindOfPair).find((kind) => kind !== 'other') ?? 'other'

/** Lines of one person that belong together, oldest first. */
export interface Spell {
  readonly kind: SpellKind
  readonly by: string
  readonly lines: readonly MovedLine[]
}

const LONGEST_GAP_MS = 15 * 60_000
export const MOST_SPELLS = 40

/**
 * Lines of the log, oldest first, as spells: consecutive ones of one person and one kind, no more than 15 minutes apart (common practice, no source). At most 40: what
 * is earlier is joined into the first.
 * @example spellsOf([]) // []
 */
export function spellsOf(lines: readonly MovedLine[]): Spell[] {
  const spells: { kind: SpellKind; by: string; lines: MovedLine[] }[] = []
  for (const line of lines) {
    const kind = kindOfLine(line)
    const last = spells.at(-1)
    const gapMs = Date.parse(line.at) - Date.parse(last?.lines.at(-1)?.at ?? line.at)
    if (last && last.by === line.by && last.kind === kind && gapMs <= LONGEST_GAP_MS) last.lines.push(line)
    else spells.push({ kind, by: line.by, lines: [line] })
  }
  if (spells.length <= MOST_SPELLS) return spells
  const early = spells.splice(0, spells.length - MOST_SPELLS + 1)
  const kinds = new Set(early.map(({ kind }) => kind))
  const people = [...new Set(early.map(({ by }) => by))]
  return [{ kind: kinds.size === 1 ? (early[0]?.kind ?? 'other') : 'other', by: people.join(', '), lines: early.flatMap((spell) => spell.lines) }, ...spells]
}

/** What became of one record in a spell. */
export interface SpellItem {
  readonly list: RecordList | 'build'
  readonly id: string
  readonly name: string
  /** Weighed: its mass is measured now and was not before. */
  readonly did: 'added' | 'weighed' | 'changed' | 'removed'
  /** Of a part or a line whose mass moved: one of it, kg. */
  readonly massKg: { readonly before: number; readonly after: number } | null
  /** Of a goal that moved. */
  readonly goal: { readonly before: number; readonly after: number } | null
  readonly fields: readonly string[]
}

type Mass = { readonly massKg: number; readonly proof: string }
const massIn = (row: Row | null): Mass | undefined =>
  (row?.values as readonly Mass[] | undefined)?.at(-1) ?? (row?.mass as Mass | null | undefined) ?? undefined

function itemOf(resource: string, before: Row | null, after: Row): SpellItem | null {
  const list = resource === 'builds' ? 'build' : findKind(resource)?.list
  if (list === undefined) return null
  const [wasGone, isGoneNow] = [isGone(before), isGone(after)]
  if (wasGone && isGoneNow) return null
  const fields = before === null || wasGone || isGoneNow ? [] : changedFields(before, after)
  if (!wasGone && !isGoneNow && fields.length === 0) return null
  const [was, now] = [massIn(before), massIn(after)]
  const moved = !wasGone && !isGoneNow
  const isWeighed = moved && now?.proof === 'measured' && was?.proof !== 'measured'
  const goals = moved && (list === 'targets' || list === 'limits') && before !== null && !isSame(before.value, after.value)
  return {
    list,
    id: String(after.id),
    name: list === 'build' ? String(after.name) : recordName(resource, after),
    did: wasGone ? 'added' : isGoneNow ? 'removed' : isWeighed ? 'weighed' : 'changed',
    massKg: moved && was && now && was.massKg !== now.massKg ? { before: was.massKg, after: now.massKg } : null,
    goal: goals ? { before: before.value as number, after: after.value as number } : null,
    fields,
  }
}

/**
 * What became of each record in a spell, from before its first line to behind its last; what was made and taken back in it is none.
 * @example itemsOf({ lines: [] }) // []
 */
export function itemsOf({ lines }: Pick<Spell, 'lines'>): SpellItem[] {
  const byRecord = new Map<string, { resource: string; before: Row | null; after: Row }>()
  for (const { resource, before, after } of lines.flatMap(({ pairs }) => pairs)) {
    const key = `${resource} ${after.id}`
    const known = byRecord.get(key)
    if (known) known.after = after
    else byRecord.set(key, { resource, before, after })
  }
  return [...byRecord.values()].flatMap(({ resource, before, after }) => itemOf(resource, before, after) ?? [])
}
