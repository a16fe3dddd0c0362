import type { DecimalMark } from './parse-number.ts'

const NARROW_SPACE = '\u202f'
const MINUS = '\u2212'

/**
 * Decimals that show a spread to two digits; never more than six and never rounding before the decimal mark.
 * @example decimalsForSpread(1.82) // 1
 */
export function decimalsForSpread(sd: number): number {
  if (!(sd > 0) || !Number.isFinite(sd)) return 1
  return Math.min(6, Math.max(0, 1 - Math.floor(Math.log10(Number(sd.toPrecision(2))))))
}

/**
 * A number for reading: real minus, narrow no-break space between thousands, the picked decimal mark, a sign when asked.
 * @example formatNumber(1234.56, 1) // '1\u202f234.6'
 */
export function formatNumber(value: number, decimals: number, options: { sign?: boolean; mark?: DecimalMark } = {}): string {
  const rounded = Math.abs(value).toFixed(decimals)
  const [whole = '0', fraction] = rounded.split('.')
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, NARROW_SPACE)
  const isZero = Number(rounded) === 0
  const sign = value < 0 && !isZero ? MINUS : options.sign && !isZero ? '+' : ''
  return `${sign}${grouped}${fraction ? `${options.mark ?? '.'}${fraction}` : ''}`
}

/**
 * A chance in words: "8 in 10", finer near the ends, and never certain: over 99 % is "over 99 in 100".
 * @example formatChance(0.57) // '6 in 10'
 */
export function formatChance(chance: number): string {
  if (chance > 0.99) return 'over 99 in 100'
  if (chance < 0.01) return 'under 1 in 100'
  if (chance < 0.075) return `1 in ${Math.round(1 / chance)}`
  if (chance > 0.925) return `${Math.round(chance * 100)} in 100`
  // Between the tenths at which a verdict changes (0.2 and 0.8) a rounded tenth would contradict the verdict.
  if (chance > 0.75 && chance < 0.8) return '3 in 4'
  if (chance >= 0.2 && chance < 0.25) return chance >= 0.225 ? '1 in 4' : '2 in 10'
  if (chance > 0.15 && chance < 0.2) return '1 in 6'
  return `${Math.round(chance * 10)} in 10`
}
