import type { Yardstick } from '../../drivetrain/yardsticks.ts'
import { CalculationError } from '../../errors.ts'
import { SURFACES, type Surface, TIMINGS, type Timing } from '../../records/drive-kinds.ts'
import type { DecimalMark } from '../../units/parse-number.ts'
import { parseQuantity } from '../../units/parse-quantity.ts'

/** Words of a yardstick in a typed line; the first is how it is written back. */
const METRIC_WORDS: readonly (readonly [Yardstick, readonly string[]])[] = [
  ['from100To200', ['100-200', '100 to 200']],
  ['zeroTo100', ['0-100', '0 to 100']],
  ['zeroTo60Mph', ['0-60 mph', '0 to 60 mph', '0-60']],
  ['sixtyFoot', ['60 ft', '60ft', 'sixty foot']],
  ['quarterMileSpeed', ['quarter mile speed', 'trap speed', 'trap']],
  ['quarterMile', ['quarter mile', '1/4 mile', 'quarter', '402 m']],
  ['topSpeed', ['top speed', 'top']],
]

export interface ReadTimed {
  readonly metric: Yardstick
  readonly value: number
  readonly sd: number | null
  readonly timing: Timing | null
  readonly surface: Surface
  readonly typed: string
}

/**
 * Reads a timed line: what was timed, its number, then how and on what: `timed 0-100 4.83 beacon`, `60 ft 1.95 ± 0.02 gps damp`, `trap speed 182 km/h`.
 * Times in s, speeds in the unit that is handed in. Rejects what names no yardstick, and times no car makes.
 * @example parseTimedLine('timed 0-100 4.83 beacon', { decimalMark: '.', speedUnit: 'km/h' }).value // 4.83
 */
export function parseTimedLine(text: string, { decimalMark, speedUnit }: { decimalMark: DecimalMark; speedUnit: string }): ReadTimed {
  let rest = text
    .trim()
    .replace(/^timed\s+/i, '')
    .replace(/\s+/g, ' ')
  const found = METRIC_WORDS.flatMap(([metric, words]) => words.map((word) => ({ metric, word }))).find(({ word }) => rest.toLowerCase().startsWith(`${word} `))
  if (!found)
    throw new CalculationError(
      'unknown',
      'line',
      `Begin with what was timed: ${METRIC_WORDS.map(([, words]) => words[0]).join(', ')}; such as timed 0-100 4.83 beacon.`,
    )
  rest = rest.slice(found.word.length).trim()
  const take = <Each extends string>(list: readonly Each[]): Each | null => {
    const hit = list.find((each) => new RegExp(`\\b${each}\\b`, 'i').test(rest))
    if (hit)
      rest = rest
        .replace(new RegExp(`\\b${hit}\\b`, 'i'), ' ')
        .replace(/\s+/g, ' ')
        .trim()
    return hit ?? null
  }
  const [timing, surface] = [take(TIMINGS), take(SURFACES) ?? 'dry']
  const isSpeed = found.metric === 'quarterMileSpeed' || found.metric === 'topSpeed'
  const { value, sd } = parseQuantity(rest, isSpeed ? 'speed' : 'lapTime', { defaultUnit: isSpeed ? speedUnit : 's', decimalMark, field: found.word })
  if (!(value > (isSpeed ? 5 : 0.5) && value < (isSpeed ? 150 : 120)))
    throw new CalculationError(
      'out-of-range',
      'line',
      isSpeed ? 'A speed lies from 18 to 540 km/h. Check the number and its unit.' : 'A time lies from 0.5 to 120 s. Check the number and its unit.',
    )
  return { metric: found.metric, value, sd: sd ?? null, timing, surface, typed: text.trim() }
}
