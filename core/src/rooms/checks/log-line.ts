import { attempt } from '../../attempt.ts'
import type { Check } from '../../records/check-kinds.ts'
import { logColumns } from '../../tracklog/log-channels.ts'
import { formatNumber } from '../../units/format-number.ts'
import type { DecimalMark } from '../../units/parse-number.ts'
import { findUnit, fromSi, quantityOf, toSi } from '../../units/units.ts'
import { meantReading, type ReadingCheck, SHORT } from './stop-line.ts'

/** What a logger read, as the line of a stop. */
export interface LineOfLog {
  readonly line: string
  /** Readings that are asked and that it has no channel for. */
  readonly missing: readonly string[]
}

/** Words that mean this reading and no other: its channel's short word, else its name. */
function wordsFor(check: ReadingCheck, checks: readonly ReadingCheck[]): string | null {
  const words = [...(SHORT[check.reading.role ?? ''] ?? []).slice(0, 1), check.name]
  return words.find((word) => /^[^\d+-]+$/.test(word) && (attempt(() => meantReading(word, checks)) as Partial<Check>).id === check.id) ?? null
}

/**
 * The readings of a stop out of what a logger told, as the line that a person would type: the highest of each channel, the lowest where only a low limit stands. Values
 * are of each row in the order of the channels; null where one was not sampled.
 * @example lineOfLog([COOLANT], [{ name: 'Coolant', unit: '°C' }], [[93.2], [92.8]], { mark: '.', units: { temperature: '°C' } }).line // 'coolant 93.2'
 */
export function lineOfLog(
  checks: readonly Check[],
  channels: readonly { readonly name: string; readonly unit: string }[],
  rows: readonly (readonly (number | null)[])[],
  { mark, units }: { readonly mark: DecimalMark; readonly units: Readonly<Record<string, string>> },
): LineOfLog {
  const readings = checks.filter((check): check is ReadingCheck => check.reading !== null)
  const columns = logColumns(
    channels.map(({ name }) => name),
    channels.map(({ unit }) => unit),
    [],
  )
  const found = readings.map((check) => {
    const { role, quantity, warnHigh, stopHigh, warnLow, stopLow } = check.reading
    const column = role === null ? undefined : columns.find((each) => each.role === role)
    const words = wordsFor(check, readings)
    if (!column || words === null || !findUnit(quantity, column.unit)) return { check, text: null }
    const values = rows.flatMap((row) => row[column.index] ?? [])
    if (values.length === 0) return { check, text: null }
    const isLow = warnHigh === null && stopHigh === null && (warnLow !== null || stopLow !== null)
    const worst = isLow ? Math.min(...values) : Math.max(...values)
    const shown = fromSi(quantity, toSi(quantity, worst, column.unit), units[quantity] ?? quantityOf(quantity).metric)
    return {
      check,
      text: `${words} ${formatNumber(shown, Math.max(1, quantityOf(quantity).decimals), { mark })
        .replace(/[^\d.,−-]/g, '')
        .replace('−', '-')}`,
    }
  })
  return { line: found.flatMap(({ text }) => text ?? []).join(' '), missing: found.flatMap(({ check, text }) => (text === null ? check.name : [])) }
}
