/**
 * A time written as minutes and seconds ("1:24.90"), s; undefined for a text of another shape. Seconds run from 0 to under 60.
 * @example readClock('1:24.90') // 84.9
 */
export function readClock(text: string): number | undefined {
  const parts = /^(\d{1,3}):([0-5]?\d(?:[.,]\d+)?)$/.exec(text.trim())
  return parts ? Number(parts[1]) * 60 + Number((parts[2] ?? '').replace(',', '.')) : undefined
}

/**
 * A time of 0 s or more as minutes and seconds; under a minute as seconds alone. Rounded before it is parted, so that it never says 60 seconds.
 * @example clockText(84.9, 2) // '1:24.90'
 */
export function clockText(timeS: number, decimals: number): string {
  const rounded = Number(timeS.toFixed(decimals))
  const minutes = Math.floor(rounded / 60)
  const seconds = (rounded - 60 * minutes).toFixed(decimals)
  return minutes === 0 ? seconds : `${minutes}:${seconds.padStart(decimals > 0 ? decimals + 3 : 2, '0')}`
}
