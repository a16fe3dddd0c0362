import { CalculationError } from '../../errors.ts'
import type { Check, CheckReading } from '../../records/check-kinds.ts'
import type { DecimalMark } from '../../units/parse-number.ts'
import { parseQuantity } from '../../units/parse-quantity.ts'

export type ReadingCheck = Check & { readonly reading: CheckReading }

/** What was read at a stop. */
export interface StopReading {
  readonly checkId: string
  readonly name: string
  readonly value: number
  readonly quantity: CheckReading['quantity']
  readonly typed: string
}

/** Short words of a channel, as they are said over a shoulder. */
export const SHORT: Readonly<Record<string, readonly string[]>> = {
  coolant: ['coolant', 'water'],
  oilTemperature: ['oil', 'oil temp'],
  oilPressure: ['press', 'pressure', 'oil press', 'oil pressure'],
  fuelPressure: ['fuel', 'fuel pressure'],
  voltage: ['volts', 'voltage', 'supply'],
}

const LEAST_LETTERS = 2

/** The one reading that words mean: by a channel's short word, else by the beginning of a word of its name. Rejects words that mean none of them, or several. */
export function meantReading(words: string, checks: readonly ReadingCheck[]): ReadingCheck {
  const said = words.toLowerCase()
  const byName = checks.filter(({ name }) => name.toLowerCase() === said)
  const byRole = checks.filter(({ reading }) => reading.role !== null && SHORT[reading.role]?.includes(said))
  const byStart =
    said.length < LEAST_LETTERS
      ? []
      : checks.filter(
          ({ name }) =>
            name
              .toLowerCase()
              .split(/[\s,]+/)
              .some((word) => word.startsWith(said)) || name.toLowerCase().startsWith(said),
        )
  const found = [byName, byRole, byStart].find((list) => list.length > 0) ?? []
  const [only] = found
  if (only && found.length === 1) return only
  if (found.length > 1) throw new CalculationError('ambiguous', 'line', `“${words}” is ${found.map(({ name }) => name).join(' or ')}. Type more of the name.`)
  throw new CalculationError(
    'unknown',
    'line',
    `Nothing that is read is called “${words}”; there is ${checks.map(({ name }) => name).join(', ') || 'nothing yet'}.`,
  )
}

/**
 * Reads what was called out at a stop: names and numbers in turn, `coolant 93 oil 121 press 3.9`. Each stands once; what names no reading of the build is refused.
 * @example readStopLine('coolant 93', [COOLANT], { mark: '.', units: { temperature: '°C' } })[0].value // 366.15
 */
export function readStopLine(
  text: string,
  checks: readonly Check[],
  { mark, units }: { readonly mark: DecimalMark; readonly units: Readonly<Record<string, string>> },
): StopReading[] {
  const readings = checks.filter((check): check is ReadingCheck => check.reading !== null)
  const pieces = text.trim().match(/[^\d\s+-][^\d+-]*?\s+[+-]?[\d.,]+\s*(?:°C|°F|bar|psi|kPa|V|A|rpm|mm|km\/h|mph|kg|K)?(?=\s|$)/gi) ?? []
  const left = pieces.reduce((rest, piece) => rest.replace(piece, ' '), text).trim()
  if (pieces.length === 0 || left !== '')
    throw new CalculationError(
      'unreadable',
      'line',
      `${left === '' ? 'Nothing' : `“${left}”`} was not understood. Type names and numbers in turn: coolant 93 oil 121 press 3.9.`,
    )
  const found = pieces.map((piece): StopReading => {
    const [, words = '', number = ''] = /^(.*?)\s+([+-]?[\d.,]+.*)$/s.exec(piece.trim()) ?? []
    const { id: checkId, name, reading } = meantReading(words, readings)
    const { value } = parseQuantity(number, reading.quantity, { defaultUnit: units[reading.quantity] ?? '', decimalMark: mark, field: name })
    if (reading.quantity === 'temperature' && value <= 0)
      throw new CalculationError('out-of-range', name, `${name}: that lies at absolute zero or under it. Check the unit.`)
    return { checkId, name, value, quantity: reading.quantity, typed: number.trim() }
  })
  const twice = found.find(({ checkId }, i) => found.findIndex((other) => other.checkId === checkId) < i)
  if (twice) throw new CalculationError('inconsistent', 'line', `${twice.name} stands twice. Leave one out.`)
  return found
}
