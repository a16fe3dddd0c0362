import type { Part, PartUse } from '../../records/part-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'

const kindKeys = new WeakMap<Part, string>()
/** The kind of a part however it is written; worked out once for each part. */
function kindKeyOf(part: Part): string {
  const key = kindKeys.get(part) ?? kindKey(part.kind)
  kindKeys.set(part, key)
  return key
}
const kindKey = (kind: string) => kind.trim().toLowerCase()

/**
 * Parts of the same kind as another: what replaces it, or is replaced by it.
 * @example partsOfKind([PART], 'Clutch').length // 1
 */
export function partsOfKind(parts: readonly Part[], kind: string): Part[] {
  const key = kindKey(kind)
  return parts.filter((part) => kindKeyOf(part) === key)
}

/**
 * Position of the stage at which a part goes in; one that is worn out was there from the start; infinite where that is not decided.
 * @example stageOfPart(WITH_PLAN, { ...PART, stageId: null, status: 'fitted' }) // 0
 */
export function stageOfPart({ stages }: Pick<BuildRecords, 'stages'>, part: Part): number {
  if (part.stageId === null) return part.status === 'fitted' || part.status === 'wornOut' ? 0 : Number.POSITIVE_INFINITY
  return stages.find((stage) => stage.id === part.stageId)?.position ?? Number.POSITIVE_INFINITY
}

/**
 * The parts of the car at a stage: of each kind those with the latest stage up to it; a fitted part without a stage is there from the start.
 * Wanted parts without a stage are only thought about. A worn-out one keeps its place in the stages before what came after it, and until then.
 * @example partsAtStage(WITH_PLAN, 0).map((part) => part.name) // ['disc']
 */
export function partsAtStage(records: Pick<BuildRecords, 'parts' | 'stages'>, position: number): Part[] {
  const there = records.parts.map((part) => ({ part, at: stageOfPart(records, part) })).filter(({ at }) => at <= position)
  const latestOf = new Map<string, number>()
  for (const { part, at } of there) latestOf.set(kindKeyOf(part), Math.max(at, latestOf.get(kindKeyOf(part)) ?? at))
  const latest = there.filter(({ part, at }) => at === latestOf.get(kindKeyOf(part))).map(({ part }) => part)
  // A fresh part of the same stage has taken the place of a worn-out one.
  const fresh = new Set(latest.filter(({ status }) => status !== 'wornOut').map(kindKeyOf))
  return latest.filter((part) => part.status !== 'wornOut' || !fresh.has(kindKeyOf(part)))
}

/**
 * What all pieces of a part carry by one of its ratings.
 * @example ratedLimit(PART, { ...PART.ratings[0], isEach: true }) // 900
 */
export const ratedLimit = (part: Part, rating: Part['ratings'][number]): number => rating.limit * (rating.isEach ? part.count : 1)

/**
 * What a part costs with all that has to be bought with it; null where nothing is known of it.
 * @example wholeCost(PART) // 312
 */
export function wholeCost(part: Part): number | null {
  const known = [part.cost, ...part.extras.map((extra) => extra.cost)].filter((cost) => cost !== null)
  return known.length === 0 ? null : known.reduce((sum, cost) => sum + cost, 0)
}

/**
 * Mass of all pieces with what has to come with them, kg; null where the part's own is not known.
 * @example wholeMassKg(PART) // 3.2
 */
export function wholeMassKg(part: Part): number | null {
  if (!part.mass) return null
  return part.extras.reduce((sum, extra) => sum + (extra.massKg ?? 0), part.count * part.mass.massKg)
}

export interface PartLife {
  readonly used: number
  readonly left: number
  readonly share: number
}

/**
 * How much of a part's life is used up by the uses that were logged since it was last rebuilt; null for a part whose life nobody gave.
 * @example lifeOf(PART, [{ partId: 'disc', kind: 'use', at: '2026-03-01T10:00:00Z', amount: 5 }]) // { used: 5, left: 15, share: 0.25 }
 */
export function lifeOf(part: Part, uses: readonly PartUse[]): PartLife | null {
  if (!part.life) return null
  const used = sinceRebuilt(uses.filter(({ partId }) => partId === part.id)).reduce((sum, use) => (use.kind === 'use' ? sum + use.amount : sum), 0)
  return { used, left: part.life.amount - used, share: used / part.life.amount }
}

/** What happened to one part since it was last made as new. */
function sinceRebuilt(own: readonly PartUse[]): readonly PartUse[] {
  const rebuiltMs = Math.max(Number.NEGATIVE_INFINITY, ...own.filter(({ kind }) => kind === 'rebuilt').map(({ at }) => Date.parse(at)))
  return own.filter(({ at }) => Date.parse(at) > rebuiltMs)
}

/** From here on a life is nearly used up (common practice, no source). */
const NEARLY = 0.75

/**
 * Fitted parts three quarters of whose life are gone, or all of it.
 * @example wornParts(EXAMPLE).length // 0
 */
export function wornParts({ parts, partUses }: Pick<BuildRecords, 'parts' | 'partUses'>): { readonly part: Part; readonly life: PartLife }[] {
  return parts.flatMap((part) => {
    const life = part.status === 'fitted' ? lifeOf(part, partUses) : null
    return life && life.share >= NEARLY ? [{ part, life }] : []
  })
}
