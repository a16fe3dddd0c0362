import type { Check } from '../../records/check-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { type LifeAhead, livesAhead } from '../parts/lives-ahead.ts'
import { type DamageSeen, damageSeen } from './damage.ts'
import { checksInCar, type DueAsked, marksByCheck } from './states.ts'

/** What goes into the van, and why. */
export interface TakeItem {
  readonly key: string
  readonly name: string
  readonly why: 'packed' | 'spare' | 'fluid' | 'tool'
  readonly count: number
  /** Its check, where somebody made one. */
  readonly check: Check | null
  /** It was not there last time. */
  readonly wasMissing: boolean
  /** Ticked for this event. */
  readonly isPacked: boolean
  /** Of a tool: checks that need it. */
  readonly neededBy: readonly string[]
  /** Of a spare: the part that may end. */
  readonly life: LifeAhead | null
  /** Of a spare: what broke before. */
  readonly damage: DamageSeen | null
}

export interface TakeList {
  readonly items: readonly TakeItem[]
  /** Tools that checks name and no check packs. */
  readonly unpacked: readonly { readonly tool: string; readonly neededBy: readonly string[] }[]
}

type Records = Parameters<typeof checksInCar>[0] & Parameters<typeof livesAhead>[0] & Pick<BuildRecords, 'marks' | 'events'>

const key = (text: string) => text.trim().toLowerCase()
const byWhy = { tool: 0, packed: 1, spare: 2, fluid: 3 } as const

/** Tools that checks of the car name, each with the checks that need it. */
function toolsOf(checks: readonly Check[]): Map<string, { readonly tool: string; readonly neededBy: string[] }> {
  const tools = new Map<string, { readonly tool: string; readonly neededBy: string[] }>()
  for (const { tool, name, kind } of checks) {
    if (!tool || kind === 'take') continue
    const known = tools.get(key(tool)) ?? { tool, neededBy: [] }
    known.neededBy.push(name)
    tools.set(key(tool), known)
  }
  return tools
}

/**
 * What to take along: what is to be packed, the tools that checks need, spares of what may end, fluids. What was missing last time stands first, then tools that nobody packs.
 * @example takeAlong(CHECKED, { event: null, position: 1, today: '2027-03-01', round: null }).items // []
 */
export function takeAlong(records: Records, { event, position, today }: DueAsked): TakeList {
  const checks = checksInCar(records, position)
  const marks = marksByCheck(records.marks)
  const packs = checks.filter(({ kind }) => kind === 'take')
  const packing = (name: string) => packs.find((check) => key(check.name) === key(name) || key(check.name).includes(key(name)))
  const state = (check: Check | null): Pick<TakeItem, 'check' | 'wasMissing' | 'isPacked'> => {
    const own = check ? (marks.get(check.id) ?? []) : []
    const here = event ? own.find(({ eventId }) => eventId === event.id) : own[0]
    const before = own.find((mark) => mark !== here)
    return { check, wasMissing: here?.result !== 'ok' && (here ?? before)?.result === 'bad', isPacked: here?.result === 'ok' || here?.result === 'fixed' }
  }
  const none = { neededBy: [], life: null, damage: null }
  const tools = toolsOf(checks)
  const ending = livesAhead(records, today).filter(({ mayEnd, isPast }) => mayEnd !== null || isPast)
  const broken = damageSeen({ ...records, checks }, today).filter(({ spares }) => spares > 0)
  const fluids = [...new Map(checks.flatMap(({ level }) => (level ? [[key(level.fluid), level.fluid] as const] : []))).values()]
  const neededBy = (check: Check) => [...tools.values()].find(({ tool }) => packing(tool)?.id === check.id)?.neededBy ?? []
  const items: TakeItem[] = [
    ...[...tools.values()]
      .filter(({ tool }) => !packing(tool))
      .map((tool): TakeItem => ({ ...none, ...state(null), key: `tool ${key(tool.tool)}`, name: tool.tool, why: 'tool', count: 1, neededBy: tool.neededBy })),
    ...packs.map(
      (check): TakeItem => ({
        ...none,
        ...state(check),
        key: check.id,
        name: check.name,
        why: 'packed',
        count: check.take?.count ?? 1,
        neededBy: neededBy(check),
      }),
    ),
    ...ending.map(
      (life): TakeItem => ({
        ...none,
        ...state(packing(life.part.name) ?? null),
        key: `spare ${life.part.id}`,
        name: life.part.name,
        why: 'spare',
        count: 1,
        life,
      }),
    ),
    ...broken.map(
      (damage): TakeItem => ({
        ...none,
        ...state(packing(damage.check.name) ?? null),
        key: `broken ${damage.check.id}`,
        name: damage.check.name,
        why: 'spare',
        count: damage.spares,
        damage,
      }),
    ),
    ...fluids
      .filter((fluid) => !packing(fluid))
      .map((fluid): TakeItem => ({ ...none, ...state(null), key: `fluid ${key(fluid)}`, name: fluid, why: 'fluid', count: 1 })),
  ]
  return {
    items: items.sort((a, b) => Number(b.wasMissing) - Number(a.wasMissing) || byWhy[a.why] - byWhy[b.why]),
    unpacked: [...tools.values()].filter(({ tool }) => !packing(tool)),
  }
}
