import { GEAR_WORDS } from '../../drivetrain/drive-car.ts'
import { CalculationError } from '../../errors.ts'
import { LAP_KINDS, type LapKind } from '../../records/track/lap-kinds.ts'
import type { DecimalMark } from '../../units/parse-number.ts'
import { parseQuantity } from '../../units/parse-quantity.ts'
import { WHEEL_KEYS, type WheelKey } from './tyre-pairs.ts'

/** One thing said in the paddock. */
export type PaddockEntry =
  | { readonly is: 'laps'; readonly laps: readonly { readonly lapS: number; readonly kind: LapKind; readonly typed: string }[] }
  | { readonly is: 'pressures'; readonly when: 'hot' | 'cold'; readonly pa: readonly [number, number, number, number] }
  | { readonly is: 'tread'; readonly wheel: WheelKey; readonly treadK: readonly [number, number, number] }
  | { readonly is: 'set'; readonly what: string; readonly to: string }
  | { readonly is: 'say'; readonly words: string }
  | { readonly is: 'ease'; readonly ease: number }
  | { readonly is: 'pair' }
  | {
      readonly is: 'run'
      readonly entryMps: number | null
      readonly angleRad: number | null
      readonly gear: number | null
      readonly straightened: number
      readonly typed: string
    }

/** What a person may say of a lap, and what it is called. */
const LAP_WORDS: Readonly<Record<string, LapKind>> = Object.fromEntries([
  ...LAP_KINDS.map((kind) => [kind, kind]),
  ['yellow', 'flag'],
  ['red', 'flag'],
  ['off', 'mistake'],
  ['spin', 'mistake'],
])

const CURE = 'Begin with a lap (1:24.90), or with hot, cold, tread, set, say, ease, run or pair; such as: hot 1.98 1.96 1.90 1.88 bar.'

export interface PaddockOptions {
  readonly mark: DecimalMark
  /** Units that a bare number is in. */
  readonly pressureUnit: string
  readonly temperatureUnit: string
  readonly speedUnit: string
}

function readLaps(text: string, mark: DecimalMark): PaddockEntry {
  const laps: { lapS: number; kind: LapKind; typed: string }[] = []
  for (const word of text.split(/[\s,;]+/).filter((part) => part !== '')) {
    const kind = LAP_WORDS[word.toLowerCase()]
    const last = laps.at(-1)
    if (kind && last) {
      laps[laps.length - 1] = { ...last, kind, typed: `${last.typed} ${word}` }
      continue
    }
    if (!/^\d/.test(word)) throw new CalculationError('unreadable', 'line', `“${word}” is no lap. ${CURE}`)
    const { value } = parseQuantity(word, 'lapTime', { defaultUnit: 's', decimalMark: mark, field: 'lap' })
    if (!(value >= 5 && value <= 3600)) throw new CalculationError('out-of-range', 'lap', `${word} is no lap: 5 seconds to an hour.`)
    laps.push({ lapS: value, kind: 'clean', typed: word })
  }
  return { is: 'laps', laps }
}

/** So many numbers with a unit behind the last, or behind each. */
function readNumbers(text: string, count: number, kind: 'pressure' | 'temperature', unit: string, mark: DecimalMark, field: string): number[] {
  const unitBehind = /([a-z°/]+)\s*$/i.exec(text)?.[1]
  const words = text
    .replace(/([a-z°/]+)\s*$/i, '')
    .trim()
    .split(/[\s;]+/)
  if (words.length !== count || words.some((word) => !/^-?\d/.test(word)))
    throw new CalculationError(
      'unreadable',
      field,
      `Type ${count} numbers${count === 4 ? ': left front, right front, left rear, right rear' : ': inner edge, middle, outer edge'}.`,
    )
  return words.map((word) => parseQuantity(unitBehind ? `${word} ${unitBehind}` : word, kind, { defaultUnit: unit, decimalMark: mark, field }).value)
}

function readTread(rest: string, options: PaddockOptions): PaddockEntry {
  const [first = '', ...more] = rest.split(/\s+/)
  const wheel = WHEEL_KEYS.find((key) => key === first.toUpperCase())
  if (!wheel) throw new CalculationError('unreadable', 'tread', `Say which wheel: ${WHEEL_KEYS.join(', ')}; such as: tread LF 71 74 78.`)
  const treadK = readNumbers(more.join(' '), 3, 'temperature', options.temperatureUnit, options.mark, 'tread') as [number, number, number]
  return { is: 'tread', wheel, treadK }
}

const gearOf = (word: string): number | null => {
  const found = /^(\d)(?:st|nd|rd|th)$/i.exec(word)
  if (found) return Number(found[1])
  const named = (GEAR_WORDS as readonly string[]).indexOf(word.toLowerCase())
  return named < 0 ? null : named + 1
}

function readRun(rest: string, options: PaddockOptions): PaddockEntry {
  const run = { entryMps: null as number | null, angleRad: null as number | null, gear: null as number | null, straightened: 0 }
  const words = rest.split(/\s+/).filter((word) => word !== '')
  for (let i = 0; i < words.length; i++) {
    const word = words[i] as string
    const next = words[i + 1] ?? ''
    if (/^straight/i.test(word)) run.straightened += 1
    else if (gearOf(word) !== null) run.gear = gearOf(word)
    else if (/^(deg|°|degrees)$/i.test(next) && /^\d/.test(word)) {
      run.angleRad = parseQuantity(`${word} °`, 'angle', { defaultUnit: '°', decimalMark: options.mark, field: 'angle' }).value
      i++
    } else if (/^\d/.test(word) && run.entryMps === null) {
      const hasUnit = /^(km\/h|kmh|mph|m\/s)$/i.test(next)
      const text = hasUnit ? `${word} ${next.toLowerCase().replace('kmh', 'km/h')}` : word
      run.entryMps = parseQuantity(text, 'speed', { defaultUnit: options.speedUnit, decimalMark: options.mark, field: 'entry' }).value
      if (hasUnit) i++
    } else
      throw new CalculationError(
        'unreadable',
        'run',
        `“${word}” is nothing of a run: speed, angle in deg, gear as 3rd, straightened; such as: run 94 km/h 38 deg 3rd.`,
      )
  }
  return { is: 'run', ...run, typed: rest }
}

/** What was turned, and to what: behind "to", else from the first number on, else the last word. */
function readSet(text: string): { what: string; to: string } | null {
  const said = /^(.+?)\s+to\s+(.+)$/i.exec(text)
  if (said) return { what: said[1] as string, to: said[2] as string }
  const words = text.split(/\s+/).filter((word) => word !== '')
  if (words.length < 2) return null
  const number = words.findIndex((word, i) => i > 0 && /^[-+−]?[.,]?\d/.test(word))
  const at = number > 0 ? number : words.length - 1
  return { what: words.slice(0, at).join(' '), to: words.slice(at).join(' ') }
}

/**
 * Reads one line of the paddock: laps with what they were (`1:24.90 traffic`), pressures, a tread, what was set, what was said, a run, a used pair.
 * Bare numbers are in the units given. Rejects what cannot be read, with the words it takes.
 * @example parsePaddockLine('1:24.90 traffic', { mark: '.', pressureUnit: 'bar', temperatureUnit: '°C', speedUnit: 'km/h' }).laps[0].kind // 'traffic'
 */
export function parsePaddockLine(text: string, options: PaddockOptions): PaddockEntry {
  const line = text.trim()
  const [head = ''] = line.split(/\s+/)
  const rest = line.slice(head.length).trim()
  const missing = (what: string) => new CalculationError('missing', 'line', `Nothing stands behind “${head}”. Type ${what}.`)
  if (/^\d/.test(line)) return readLaps(line, options.mark)
  switch (head.toLowerCase()) {
    case 'hot':
    case 'cold':
      return {
        is: 'pressures',
        when: head.toLowerCase() as 'hot' | 'cold',
        pa: readNumbers(rest, 4, 'pressure', options.pressureUnit, options.mark, head.toLowerCase()) as [number, number, number, number],
      }
    case 'tread':
      return readTread(rest, options)
    case 'set': {
      const found = readSet(rest)
      if (!found) throw missing('what and to what: set rear bar soft, set ride height 62 mm, or set brake bar to two turns front')
      return { is: 'set', ...found }
    }
    case 'say':
      if (rest === '') throw missing('what was said')
      return { is: 'say', words: rest.replace(/^["“](.*)["”]$/, '$1') }
    case 'ease':
      if (!/^[1-5]$/.test(rest)) throw new CalculationError('out-of-range', 'ease', 'Ease is 1 to 5: 1 fought the car, 5 was at home in it.')
      return { is: 'ease', ease: Number(rest) }
    case 'pair':
      return { is: 'pair' }
    case 'run':
      return readRun(rest, options)
    default:
      throw new CalculationError('unreadable', 'line', `“${head}” is no word of the paddock. ${CURE}`)
  }
}
