import { CalculationError, requireFinite } from '../errors.ts'
import { smallestGainFound } from './compare-pulls.ts'

export type PlannedStep =
  | { readonly kind: 'setUp' | 'firstPulls' | 'base' | 'return'; readonly fromS: number; readonly toS: number; readonly pulls: number }
  | { readonly kind: 'change' | 'changePulls'; readonly name: string; readonly fromS: number; readonly toS: number; readonly pulls: number }

export interface PlannedHours {
  readonly steps: readonly PlannedStep[]
  /** Changes that the hours do not hold, in order; they are left whole for another day. */
  readonly leftOut: readonly string[]
  readonly spareS: number
  readonly pulls: number
  /** The gain that the fewest pulls of a set would find 8 times in 10; null without a spread, or with one pull a set. */
  readonly smallestGainW: number | null
}

export interface PullPlanInput {
  readonly bookedS: number
  readonly setUpS: number
  readonly pullS: number
  readonly coolingS: number
  readonly firstPulls: number
  readonly basePulls: number
  readonly changes: readonly { readonly name: string; readonly setUpS: number; readonly pulls: number }[]
  readonly returnsToBase: boolean
  readonly pullSdW?: number | null | undefined
}

/**
 * An order of pulls for the hours that are booked: set up, first pulls at the lowest boost, the baseline, one change at a time in the order given, and
 * back to the baseline, whose time is kept free before any change is taken. A change that does not fit whole is left out, and later shorter ones may
 * still fit. Times in s. Source: order is common practice, no source; the gain found is that of dyno.compare.
 * Rejects hours that do not hold the baseline, and times under zero.
 * @example planPulls({ bookedS: 7200, setUpS: 1800, pullS: 60, coolingS: 180, firstPulls: 2, basePulls: 3, changes: [], returnsToBase: true }).spareS // 3480
 */
export function planPulls(input: PullPlanInput): PlannedHours {
  const { bookedS, setUpS, pullS, coolingS, firstPulls, basePulls, changes, returnsToBase, pullSdW } = input
  for (const [field, value] of Object.entries({
    bookedS,
    setUpS,
    pullS,
    coolingS,
    ...Object.fromEntries(changes.map((change, i) => [`changes.${i}.setUpS`, change.setUpS])),
  }))
    if (requireFinite(value, field) < 0) throw new CalculationError('out-of-range', field, `${field} is under zero. Give a time.`)
  if (!(pullS > 0)) throw new CalculationError('out-of-range', 'pullS', 'A pull takes time. Give it, from rolling to coasted down.')
  const pullsS = (count: number) => count * (pullS + coolingS)
  const fixedS = setUpS + pullsS(firstPulls) + pullsS(basePulls) * (returnsToBase ? 2 : 1)
  if (fixedS > bookedS)
    throw new CalculationError(
      'inconsistent',
      'bookedS',
      `Set-up, first pulls and the baseline${returnsToBase ? ' with its return' : ''} alone take ${Math.ceil(fixedS / 60)} minutes of the ${Math.floor(bookedS / 60)} that are booked. Book longer, or plan fewer pulls.`,
    )
  const steps: PlannedStep[] = []
  let now = 0
  const put = (step: { kind: PlannedStep['kind']; name?: string; pulls: number }, seconds: number) => {
    if (seconds === 0) return
    steps.push({ ...step, fromS: now, toS: now + seconds } as PlannedStep)
    now += seconds
  }
  put({ kind: 'setUp', pulls: 0 }, setUpS)
  put({ kind: 'firstPulls', pulls: firstPulls }, pullsS(firstPulls))
  put({ kind: 'base', pulls: basePulls }, pullsS(basePulls))
  let free = bookedS - fixedS
  const leftOut: string[] = []
  for (const { name, setUpS: changeS, pulls } of changes) {
    const needed = changeS + pullsS(pulls)
    if (needed > free) {
      leftOut.push(name)
      continue
    }
    free -= needed
    put({ kind: 'change', name, pulls: 0 }, changeS)
    put({ kind: 'changePulls', name, pulls }, pullsS(pulls))
  }
  if (returnsToBase) put({ kind: 'return', pulls: basePulls }, pullsS(basePulls))
  const fewest = Math.min(basePulls, ...steps.flatMap((step) => (step.kind === 'changePulls' ? [step.pulls] : [])))
  return {
    steps,
    leftOut,
    spareS: free,
    pulls: steps.reduce((sum, step) => sum + step.pulls, 0),
    smallestGainW: pullSdW && fewest >= 2 ? smallestGainFound(pullSdW, fewest) : null,
  }
}
