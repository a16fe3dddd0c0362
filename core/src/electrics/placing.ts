import { CalculationError, requirePositive, requireWithin } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import type { MilpAnswer, MilpProblem, SolveMilp } from '../solver/milp.ts'

export interface PlacedCircuit {
  readonly name: string
  readonly currentA: number
  /** How many times its current it draws as it starts. */
  readonly startFactor: number
  /** What is switched together may share an output. */
  readonly group: string
  readonly isVital: boolean
  /** The output it stays on; null: any. */
  readonly pinned: string | null
}

export interface BoxRules {
  /** An output carries so much of its rating for good. */
  readonly loadShare: number
  /** So much of it for a start; null: starts are not checked. */
  readonly peakShare: number | null
  /** How many outputs of a rating stay free, by the rating in A. */
  readonly keepFree: Readonly<Record<string, number>>
  readonly vitalAlone: boolean
}

export interface BoxProblem {
  readonly outputs: readonly { readonly key: string; readonly ratedA: number }[]
  readonly circuits: readonly PlacedCircuit[]
  readonly rules: BoxRules
}

export interface Placing {
  readonly outputs: readonly {
    readonly key: string
    readonly ratedA: number
    readonly circuits: readonly string[]
    readonly loadA: number
    readonly headroom: number
  }[]
  /** Ratings of the outputs that are used, added up, A. */
  readonly usedA: number
  /** The least share of an output's rating that stays free on those that are used. */
  readonly leastHeadroom: number
  /** Outputs that stay free, by rating. */
  readonly free: readonly { readonly ratedA: number; readonly count: number }[]
  /** No placing uses less, and none of those that use as little has more headroom. */
  readonly isProven: boolean
}

/** Outputs that are alike: of one rating, or the one that circuits are pinned to. */
interface Slot {
  readonly ratedA: number
  readonly pinnedKey: string | null
  readonly count: number
}

/** Some circuits of one group on an output of a kind. */
interface Column {
  readonly slot: number
  readonly circuits: readonly number[]
  readonly headroom: number
}

const MOST_COLUMNS = 20_000
const SLACK = 1e-9

function slotsOf({ outputs, circuits, rules }: BoxProblem): Slot[] {
  const pinned = new Set(circuits.flatMap((circuit) => circuit.pinned ?? []))
  for (const key of pinned)
    if (!outputs.some((output) => output.key === key)) throw new CalculationError('unknown', 'pinned', `There is no output ${key}. Pin to one of the box.`)
  const free = new Map<number, number>()
  for (const { key, ratedA } of outputs) if (!pinned.has(key)) free.set(ratedA, (free.get(ratedA) ?? 0) + 1)
  return [
    ...[...free].map(([ratedA, count]) => ({ ratedA, pinnedKey: null, count: Math.max(0, count - (rules.keepFree[String(ratedA)] ?? 0)) })),
    ...outputs.filter(({ key }) => pinned.has(key)).map(({ key, ratedA }) => ({ ratedA, pinnedKey: key, count: 1 })),
  ]
}

/** Whether circuits may run on an output of a rating together. */
function fits(own: readonly PlacedCircuit[], ratedA: number, { loadShare, peakShare, vitalAlone }: BoxRules): boolean {
  const load = own.reduce((sum, { currentA }) => sum + currentA, 0)
  if (load > loadShare * ratedA + SLACK) return false
  if (vitalAlone && own.length > 1 && own.some(({ isVital }) => isVital)) return false
  return peakShare === null || own.every(({ currentA, startFactor }) => load + (startFactor - 1) * currentA <= peakShare * ratedA + SLACK)
}

/** Every set of circuits of one group on every kind of output that it fits; a pinned output holds all that is pinned to it. */
function columnsOf(problem: BoxProblem, slots: readonly Slot[]): Column[] {
  const { circuits, rules } = problem
  const columns: Column[] = []
  const groups = new Map<string, number[]>()
  circuits.forEach(({ group }, i) => {
    groups.set(group, [...(groups.get(group) ?? []), i])
  })
  for (const [at, { ratedA, pinnedKey }] of slots.entries()) {
    for (const members of groups.values()) {
      const must = members.filter((i) => pinnedKey !== null && itemAt(circuits, i).pinned === pinnedKey)
      if (pinnedKey !== null && must.length !== circuits.filter(({ pinned }) => pinned === pinnedKey).length) continue
      const may = members.filter((i) => itemAt(circuits, i).pinned === null)
      const grow = (chosen: readonly number[], from: number): void => {
        const own = chosen.map((i) => itemAt(circuits, i))
        if (chosen.length > 0 && !fits(own, ratedA, rules)) return
        if (chosen.length > 0) {
          const load = own.reduce((sum, { currentA }) => sum + currentA, 0)
          columns.push({ slot: at, circuits: chosen, headroom: 1 - load / ratedA })
          if (columns.length > MOST_COLUMNS)
            throw new CalculationError(
              'too-long',
              'circuits',
              'Too many circuits of one group could share an output. Part them into what is switched together.',
            )
        }
        for (let next = from; next < may.length; next++) grow([...chosen, itemAt(may, next)], next + 1)
      }
      grow(must, 0)
    }
  }
  return columns
}

function cover(problem: BoxProblem, slots: readonly Slot[], columns: readonly Column[], mostUsedA: number | null): MilpProblem {
  const ratedOf = ({ slot }: Column) => itemAt(slots, slot).ratedA
  return {
    variables: columns.map((column, i) => ({ name: `c${i}`, cost: mostUsedA === null ? ratedOf(column) : 0, low: 0, high: 1, isWhole: true })),
    rows: [
      ...problem.circuits.map((_, circuit) => ({
        name: `once${circuit}`,
        low: 1,
        high: 1,
        coefficients: columns.flatMap((column, i) => (column.circuits.includes(circuit) ? [[i, 1] as const] : [])),
      })),
      ...slots.map(({ count }, slot) => ({
        name: `slot${slot}`,
        low: 0,
        high: count,
        coefficients: columns.flatMap((column, i) => (column.slot === slot ? [[i, 1] as const] : [])),
      })),
      ...(mostUsedA === null
        ? []
        : [{ name: 'used', low: 0, high: mostUsedA + SLACK, coefficients: columns.map((column, i) => [i, ratedOf(column)] as const) }]),
    ],
  }
}

type Picked = { readonly columns: readonly Column[]; readonly answer: MilpAnswer }

function pick(
  problem: BoxProblem,
  slots: readonly Slot[],
  columns: readonly Column[],
  mostUsedA: number | null,
  tools: { solve: SolveMilp; limitS: number },
): Picked | null {
  // A circuit that no set holds has no placing, and the solver need not be asked.
  if (problem.circuits.some((_, i) => !columns.some((column) => column.circuits.includes(i)))) return null
  const answer = tools.solve(cover(problem, slots, columns, mostUsedA), tools.limitS)
  if (answer.status === 'infeasible' || answer.status === 'none') return null
  return { answer, columns: columns.filter((_, i) => (answer.values[i] ?? 0) > 0.5) }
}

/** Of the placings that use as little, one whose fullest output has the most room: the headrooms there are, tried by halving. */
function mostHeadroom(
  problem: BoxProblem,
  slots: readonly Slot[],
  columns: readonly Column[],
  first: Picked,
  usedA: number,
  tools: { solve: SolveMilp; limitS: number },
): Picked {
  const levels = [...new Set(columns.map(({ headroom }) => headroom))].sort((a, b) => a - b)
  let best = first
  const leastOf = ({ columns: own }: Picked) => Math.min(...own.map(({ headroom }) => headroom))
  let [low, high] = [levels.indexOf(leastOf(first)) + 1, levels.length - 1]
  while (low <= high) {
    const middle = (low + high) >> 1
    const found = pick(
      problem,
      slots,
      columns.filter(({ headroom }) => headroom >= itemAt(levels, middle) - SLACK),
      usedA,
      tools,
    )
    if (found) {
      best = found
      low = levels.indexOf(leastOf(found)) + 1
    } else high = middle - 1
  }
  return best
}

const LET_GO: readonly { readonly words: string; readonly rules: (rules: BoxRules) => BoxRules }[] = [
  { words: 'with no output kept free', rules: (rules) => ({ ...rules, keepFree: {} }) },
  { words: 'with vital circuits sharing outputs', rules: (rules) => ({ ...rules, vitalAlone: false }) },
  { words: 'with starts not checked', rules: (rules) => ({ ...rules, peakShare: null }) },
  { words: 'with outputs loaded to their rating', rules: (rules) => ({ ...rules, loadShare: 1 }) },
]

/** Why there is no placing, and which one rule let go would make one. */
function refusalOf(problem: BoxProblem, tools: { solve: SolveMilp; limitS: number }): CalculationError {
  const slots = slotsOf(problem)
  const columns = columnsOf(problem, slots)
  const homeless = problem.circuits.find((_, i) => !columns.some((column) => column.circuits.includes(i)))
  const cure = LET_GO.find(({ rules }) => {
    const freed = { ...problem, rules: rules(problem.rules) }
    const own = slotsOf(freed)
    return pick(freed, own, columnsOf(freed, own), null, tools) !== null
  })
  const why = homeless ? `${homeless.name}, ${homeless.currentA} A, fits no output under these rules` : 'The outputs do not go round'
  return new CalculationError('inconsistent', 'outputs', `${why}. ${cure ? `It would go ${cure.words}.` : 'A larger box, or fewer circuits, is needed.'}`)
}

function answerOf({ outputs }: BoxProblem, slots: readonly Slot[], picked: Picked, isProven: boolean, circuits: readonly PlacedCircuit[]): Placing {
  const taken = new Set<string>()
  const pinnedKeys = new Set(slots.flatMap(({ pinnedKey }) => pinnedKey ?? []))
  const placed = new Map<string, Column>()
  for (const column of picked.columns) {
    const { ratedA, pinnedKey } = itemAt(slots, column.slot)
    const key = pinnedKey ?? outputs.find((output) => output.ratedA === ratedA && !taken.has(output.key) && !pinnedKeys.has(output.key))?.key ?? ''
    taken.add(key)
    placed.set(key, column)
  }
  const free = new Map<number, number>()
  for (const { key, ratedA } of outputs) if (!taken.has(key)) free.set(ratedA, (free.get(ratedA) ?? 0) + 1)
  return {
    outputs: outputs.map(({ key, ratedA }) => {
      const column = placed.get(key)
      return {
        key,
        ratedA,
        circuits: column?.circuits.map((i) => itemAt(circuits, i).name) ?? [],
        loadA: column ? (1 - column.headroom) * ratedA : 0,
        headroom: column?.headroom ?? 1,
      }
    }),
    usedA: picked.columns.reduce((sum, { slot }) => sum + itemAt(slots, slot).ratedA, 0),
    leastHeadroom: Math.min(...picked.columns.map(({ headroom }) => headroom)),
    free: [...free].map(([ratedA, count]) => ({ ratedA, count })).sort((a, b) => b.ratedA - a.ratedA),
    isProven,
  }
}

/**
 * Circuits placed on the outputs of a power box: each once; an output under its load share for good and its peak share at a start; one group an output; a vital one
 * alone; outputs kept free; pinned ones stay. The least sum of ratings used, so that big ones stay spare, then the greatest least headroom; both proven. Posed as a
 * cover with a column for every set of one group and every rating that it fits. Rejects what cannot be placed, with the circuit or the one rule that stands in the way.
 * Source: set partitioning by branch and cut.
 * @example placeCircuits({ outputs: [{ key: '1', ratedA: 20 }], circuits: [{ name: 'pump', currentA: 14.8, startFactor: 1, group: 'run', isVital: true, pinned: null }], rules: { loadShare: 0.8, peakShare: null, keepFree: {}, vitalAlone: true } }, SOLVER).usedA // 20
 */
export function placeCircuits(problem: BoxProblem, solve: SolveMilp, limitS = 5): Placing {
  const { outputs, circuits, rules } = problem
  if (outputs.length === 0) throw new CalculationError('missing', 'outputs', 'The box has no output. Type its outputs with their ratings.')
  if (circuits.length === 0) throw new CalculationError('missing', 'circuits', 'Nothing is to be placed. Type the circuits.')
  if (new Set(outputs.map(({ key }) => key)).size < outputs.length)
    throw new CalculationError('inconsistent', 'outputs', 'One output is named twice. Give one another name.')
  for (const { key, ratedA } of outputs) requirePositive(ratedA, `${key}, rating`)
  for (const { name, currentA, startFactor } of circuits) {
    if (!(currentA > 0)) throw new CalculationError('out-of-range', 'circuits', `${name}: 0 A draws nothing. Type what it draws.`)
    requireWithin(startFactor, 1, 12, `${name}, start`)
  }
  requireWithin(rules.loadShare, 0.1, 1, 'loadShare')
  const tools = { solve, limitS }
  const slots = slotsOf(problem)
  const columns = columnsOf(problem, slots)
  const first = pick(problem, slots, columns, null, tools)
  if (!first) throw refusalOf(problem, tools)
  const usedA = first.columns.reduce((sum, { slot }) => sum + itemAt(slots, slot).ratedA, 0)
  const best = mostHeadroom(problem, slots, columns, first, usedA, tools)
  return answerOf(problem, slots, best, first.answer.status === 'optimal' && best.answer.status === 'optimal', circuits)
}
