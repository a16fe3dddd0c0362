import { CalculationError } from '../../errors.ts'
import type { TapeMetric } from '../../records/metric-keys.ts'
import type { DecimalMark } from '../../units/parse-number.ts'
import { parseQuantity } from '../../units/parse-quantity.ts'

/** Words of what is read in a typed line; the first is how it is written back. */
const METRIC_WORDS: readonly (readonly [TapeMetric, readonly string[]])[] = [
  ['wingOverRoof', ['wing over roof', 'wing over the roof', 'wing']],
  ['wingChord', ['chord', 'wing chord']],
  ['wingSpan', ['span', 'wing span']],
  ['wingElements', ['elements', 'wing elements']],
  ['reachFront', ['beyond front', 'beyond the front', 'front', 'splitter out']],
  ['reachRear', ['beyond rear', 'beyond the rear', 'rear']],
  ['reachSide', ['beyond side', 'beyond the side', 'side']],
  ['groundHeight', ['ground', 'over the ground', 'lowest edge']],
  ['noise', ['noise', 'sound']],
]
/** Longer words first, so that "wing chord" is no wing. */
const WORDS = METRIC_WORDS.flatMap(([metric, words]) => words.map((word) => ({ metric, word }))).sort((a, b) => b.word.length - a.word.length)

export interface ReadTaped {
  readonly metric: TapeMetric
  readonly value: number
  readonly sd: number | null
  /** How far off noise was read, m. */
  readonly atM: number | null
  readonly typed: string
}

const WHOLE = /^\d{1,2}$/

function readCount(text: string): number {
  if (!WHOLE.test(text)) throw new CalculationError('out-of-range', 'line', 'Elements are counted: type a whole number, such as elements 2.')
  return Number(text)
}

function readNoise(rest: string, decimalMark: DecimalMark): Pick<ReadTaped, 'value' | 'sd' | 'atM'> {
  const [level = '', distance] = rest.split(/\s+(?:at|from)\s+/i)
  if (distance === undefined) throw new CalculationError('missing', 'atM', 'Say how far off it was read, such as noise 98.5 dB at 0.5 m.')
  const { value, sd } = parseQuantity(level, 'sound', { defaultUnit: 'dB(A)', decimalMark, field: 'Noise' })
  const { value: atM } = parseQuantity(distance, 'distance', { defaultUnit: 'm', decimalMark, field: 'The distance' })
  if (!(value >= 30 && value <= 150)) throw new CalculationError('out-of-range', 'line', 'A car is read from 30 to 150 dB(A). Check the number.')
  if (!(atM > 0 && atM <= 200)) throw new CalculationError('out-of-range', 'line', 'Noise is read over 0 and up to 200 m off. Check the distance.')
  return { value, sd: sd ?? null, atM }
}

/**
 * Reads a line of what was read on the car with a tape or a meter: what, its number, and for noise how far off: `wing over roof -12 mm`, `front 148 ± 3`,
 * `elements 1`, `noise 98.5 dB at 0.5 m`. A wing under the roof is less than nothing. Rejects what names nothing that is read, and numbers no car has.
 * @example parseTapedLine('noise 98.5 dB at 0.5 m', { decimalMark: '.', lengthUnit: 'mm' }).atM // 0.5
 */
export function parseTapedLine(text: string, { decimalMark, lengthUnit }: { decimalMark: DecimalMark; lengthUnit: string }): ReadTaped {
  const typed = text.trim()
  const line = typed.replace(/^taped\s+/i, '').replace(/\s+/g, ' ')
  const found = WORDS.find(({ word }) => line.toLowerCase().startsWith(`${word} `))
  if (!found)
    throw new CalculationError(
      'unknown',
      'line',
      `Begin with what was read: ${METRIC_WORDS.map(([, words]) => words[0]).join(', ')}; such as wing over roof -12 mm.`,
    )
  const { metric, word } = found
  const rest = line.slice(word.length).trim()
  if (metric === 'noise') return { metric, typed, ...readNoise(rest, decimalMark) }
  if (metric === 'wingElements') return { metric, typed, value: readCount(rest), sd: null, atM: null }
  const { value, sd } = parseQuantity(rest, 'length', { defaultUnit: lengthUnit, decimalMark, field: word })
  if (value < 0 && metric !== 'wingOverRoof')
    throw new CalculationError('out-of-range', 'line', 'A reach inside of the body is read as 0. Only a wing under the roof is read below zero.')
  if (Math.abs(value) > 5) throw new CalculationError('out-of-range', 'line', 'That is over 5 m. Check the number and its unit.')
  return { metric, typed, value, sd: sd ?? null, atM: null }
}
