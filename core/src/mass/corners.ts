import { CalculationError, requireFinite } from '../errors.ts'

export const PAD_NAMES = ['LF', 'RF', 'LR', 'RR'] as const
export type PadName = (typeof PAD_NAMES)[number]

/** One reading; null where the pad gave none. */
export interface PadReading {
  readonly massKg: number
  readonly sdKg: number
}
export type Pads = Record<PadName, PadReading | null>

export interface ShareWithSpread {
  readonly value: number
  readonly sd: number
}

export interface CornerFigures {
  readonly totalKg: ShareWithSpread
  readonly frontShare: ShareWithSpread
  readonly leftShare: ShareWithSpread
  /** (RF + LR)/total. */
  readonly crossShareRfLr: ShareWithSpread
  /** (LF + RR)/total, the other convention. */
  readonly crossShareLfRr: ShareWithSpread
  /** LR − RR. */
  readonly wedgeKg: ShareWithSpread
}

export const PAD_WORDS: Record<PadName, string> = { LF: 'left front', RF: 'right front', LR: 'left rear', RR: 'right rear' }

const MISSING_SENTENCE = 'Three readings are kept; total, front share, left share and cross need a second placement, because any fourth reading would fit them.'

/** The sentence that refuses what a dead pad makes unknown. */
export function missingPadsSentence(missing: readonly PadName[]): string {
  const names = missing.map((name) => PAD_WORDS[name]).join(' and ')
  return missing.length === 1
    ? `No reading from the ${names} pad. ${MISSING_SENTENCE}`
    : `No reading from the ${names} pads. Total and shares are unknown until each corner has been read.`
}

export const missingPads = (pads: Pads): PadName[] => PAD_NAMES.filter((name) => pads[name] === null)

/**
 * Total and shares of four pads with their spreads: u_S = √((1 − S)² Σ_in u² + S² Σ_out u²)/W.
 * Source: first-order propagation, closed form; cross conventions are common practice, so both diagonals are given by name.
 * Rejects a missing pad, a reading under zero, a total of zero; shares outside 0.2 to 0.8 are for the caller to warn about.
 */
export function cornerFigures(pads: Pads): CornerFigures {
  const missing = missingPads(pads)
  if (missing.length > 0) throw new CalculationError('missing', `pads.${missing[0]}`, missingPadsSentence(missing))
  const read = pads as Record<PadName, PadReading>
  for (const name of PAD_NAMES) {
    requireFinite(read[name].massKg, `pads.${name}.massKg`)
    if (read[name].massKg < 0) {
      throw new CalculationError('out-of-range', `pads.${name}.massKg`, `The ${PAD_WORDS[name]} pad reads under zero. Zero the pads and read again.`)
    }
  }
  const total = PAD_NAMES.reduce((sum, name) => sum + read[name].massKg, 0)
  if (total <= 0) throw new CalculationError('out-of-range', 'pads', 'The pads add up to nothing. Type the four readings.')
  const share = (inside: readonly PadName[]): ShareWithSpread => {
    const value = inside.reduce((sum, name) => sum + read[name].massKg, 0) / total
    const variance = PAD_NAMES.reduce((sum, name) => sum + ((inside.includes(name) ? 1 - value : value) * read[name].sdKg) ** 2, 0)
    return { value, sd: Math.sqrt(variance) / total }
  }
  return {
    totalKg: { value: total, sd: Math.hypot(...PAD_NAMES.map((name) => read[name].sdKg)) },
    frontShare: share(['LF', 'RF']),
    leftShare: share(['LF', 'LR']),
    crossShareRfLr: share(['RF', 'LR']),
    crossShareLfRr: share(['LF', 'RR']),
    wedgeKg: { value: read.LR.massKg - read.RR.massKg, sd: Math.hypot(read.LR.sdKg, read.RR.sdKg) },
  }
}

/** What one placement with one dead pad still tells: one axle, one side and one diagonal. Rejects readings with other than one pad missing. */
export function knownWithOneDeadPad(pads: Pads): { label: string; massKg: number; sdKg: number }[] {
  const missing = missingPads(pads)
  if (missing.length !== 1) throw new CalculationError('inconsistent', 'pads', 'This is for one placement with exactly one pad missing.')
  const pairs: [string, PadName, PadName][] = [
    ['front axle', 'LF', 'RF'],
    ['rear axle', 'LR', 'RR'],
    ['left side', 'LF', 'LR'],
    ['right side', 'RF', 'RR'],
    ['diagonal RF + LR', 'RF', 'LR'],
    ['diagonal LF + RR', 'LF', 'RR'],
  ]
  return pairs.flatMap(([label, first, second]) => {
    const [a, b] = [pads[first], pads[second]]
    return a && b ? [{ label, massKg: a.massKg + b.massKg, sdKg: Math.hypot(a.sdKg, b.sdKg) }] : []
  })
}
