import type { DecimalMark } from '@bold-ballast/core'
import { usePreferences } from '../../data/store.ts'
import { saveFile } from './save-file.ts'

export interface CsvTable {
  /** With the unit of each column in its head. */
  readonly head: readonly string[]
  readonly rows: readonly (readonly (string | number | null)[])[]
}

/** What a spreadsheet would run as a formula when a text cell starts with it, in full width too. */
const FORMULA_START = /^[=+\-@\t\r\0＝＋－＠]/

/**
 * A table as CSV by RFC 4180: CRLF, quotes doubled, every row as wide as the head. Texts that a spreadsheet would run are guarded with an apostrophe;
 * numbers stand in full and unguarded. Decimal comma: columns are parted by semicolons.
 */
export async function tableCsv(table: CsvTable, mark: DecimalMark): Promise<string> {
  const { default: Papa } = await import('papaparse')
  const cell = (value: string | number | null) => {
    if (value === null) return ''
    if (typeof value === 'number') return mark === ',' ? String(value).replace('.', ',') : String(value)
    return FORMULA_START.test(value) ? `'${value}` : value
  }
  const rows = [table.head.map(cell), ...table.rows.map((row) => table.head.map((_, i) => cell(row[i] ?? null)))]
  return `${Papa.unparse(rows as string[][], { delimiter: mark === ',' ? ';' : ',', newline: '\r\n', quotes: needsQuotes(rows) })}\r\n`
}

/** Guarded cells are quoted too, so that no reader takes the apostrophe for part of a number. */
const needsQuotes = (rows: readonly (readonly unknown[])[]) =>
  (rows[0] ?? []).map((_, i) => rows.some((row) => typeof row[i] === 'string' && (row[i] as string).startsWith("'")))

/** Saves a table of the page as a file; the decimal mark is the picked one. */
export function CsvButton({ name, table }: { name: string; table: () => CsvTable }) {
  const { decimalMark } = usePreferences()
  const save = async () => {
    saveFile(name, 'csv', 'text/csv;charset=utf-8;header=present', await tableCsv(table(), decimalMark))
  }
  const how = decimalMark === ',' ? 'semicolons, decimal comma' : 'commas, decimal point'
  return (
    <button type="button" className="word-link no-print" onClick={() => void save()} title={`This table as a file: ${how}`}>
      CSV<span className="sr-only"> of this table, {how}</span>
    </button>
  )
}
