import { CalculationError, requireFinite, requireWithin } from '../errors.ts'

/** A reading over the paces that were driven, against its limits. */
export interface PaceReading {
  readonly name: string
  /** Of each pace, in the order of the paces. */
  readonly values: readonly number[]
  readonly sd: number
  readonly warn: number | null
  readonly stop: number | null
}

export type GateWord = 'go' | 'watch' | 'again' | 'no'

export interface GateReading {
  readonly name: string
  /** At the next pace, carried on straight; null: fewer than two paces behind it. */
  readonly next: number | null
  readonly nextSd: number | null
  readonly word: GateWord
}

const BADNESS: readonly GateWord[] = ['go', 'watch', 'again', 'no']

function gateOf({ name, values, sd, warn, stop }: PaceReading, paces: readonly number[], nextPace: number): GateReading {
  const now = values.at(-1)
  if (now === undefined || values.length !== paces.length)
    throw new CalculationError('missing', 'readings', `${name} has no reading at the last pace. Read it, or drive the pace again.`)
  requireWithin(sd, 0, 1e6, `${name}, spread`)
  if (stop !== null && now > stop) return { name, next: null, nextSd: null, word: 'no' }
  const warned: GateWord = warn !== null && now > warn ? 'again' : 'go'
  const before = values.at(-2)
  if (before === undefined) return { name, next: null, nextSd: null, word: warned }
  const [p1, p2] = [paces.at(-2) as number, paces.at(-1) as number]
  const r = (nextPace - p2) / (p2 - p1)
  const next = now + (now - before) * r
  const nextSd = sd * Math.hypot(1 + r, r)
  if (warned === 'again' || (stop !== null && next + nextSd > stop)) return { name, next, nextSd, word: 'again' }
  return { name, next, nextSd, word: warn !== null && next > warn ? 'watch' : 'go' }
}

/**
 * Whether the next pace may be driven: each reading goes on straight over the pace, X = x2 + (x2 − x1) r, r = (p3 − p2)/(p2 − p1), spread s √((1 + r)² + r²). Over
 * its stop now: no. Over its warning, or on over its stop within a spread: again at this pace. On over its warning: watch. The worst of them decides. Paces as
 * shares of full pace, rising. Rejects a gate with no reading, and paces that do not rise. It is no proof that the car is safe.
 * @example paceGate({ paces: [0.65, 0.8], nextPace: 1, readings: [{ name: 'oil', values: [112, 121], sd: 1, warn: null, stop: 130 }] }).word // 'again'
 */
export function paceGate(input: { paces: readonly number[]; nextPace: number; readings: readonly PaceReading[] }): {
  word: GateWord
  readings: readonly GateReading[]
} {
  const { paces, nextPace, readings } = input
  if (readings.length === 0) throw new CalculationError('missing', 'readings', 'A gate with no reading says nothing. Read coolant, oil and pressure at least.')
  const all = [...paces, nextPace]
  for (let i = 1; i < all.length; i++)
    if (!(requireFinite(all[i] as number, 'paces') > (all[i - 1] as number)))
      throw new CalculationError('inconsistent', 'paces', 'Paces rise from step to step. Put them in order.')
  const found = readings.map((reading) => gateOf(reading, paces, nextPace))
  const worst = found.reduce((rank, { word }) => Math.max(rank, BADNESS.indexOf(word)), 0)
  return { word: BADNESS[worst] ?? 'no', readings: found }
}
