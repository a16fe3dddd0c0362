import { attempt, CalculationError, coastFile, findDelimiter, type QuantityKind, type ToldColumn, thinRun } from '@bold-ballast/core'
import { runText } from './test-form.ts'

/** A file that was chosen: its run as lines for the form and what was made of it, or why it cannot be read. */
export type ReadRun =
  | { readonly name: string; readonly text: string; readonly told: string }
  /** Without columns that can be guessed: its headings with the first cells below them, for a person to say. */
  | { readonly name: string; readonly refused: string; readonly headings?: readonly string[]; readonly firstRows?: readonly (readonly string[])[] }

const seconds = (value: number) => `${value.toFixed(0)} s`

/** A run of a coast-down out of a logger's file, as the lines of the form. */
export async function readRunFile(
  file: Pick<File, 'name' | 'text'>,
  units: Readonly<Record<QuantityKind, string>>,
  columns: readonly ToldColumn[] = [],
): Promise<ReadRun> {
  const { default: Papa } = await import('papaparse')
  const text = await file.text()
  const delimiter = attempt(() => findDelimiter(text.slice(0, 4096)))
  if (delimiter instanceof CalculationError) return { name: file.name, refused: delimiter.message }
  const rows = Papa.parse<string[]>(text, { delimiter, skipEmptyLines: 'greedy' }).data
  const found = attempt(() => coastFile(rows, delimiter, units.speed, columns))
  if (found instanceof CalculationError) {
    const at = rows.findIndex((cells) => cells.length > 1)
    const named = at < 0 ? {} : { headings: (rows[at] ?? []).map((cell) => cell.trim()), firstRows: rows.slice(at + 1, at + 4) }
    return { name: file.name, refused: found.message, ...(found.code === 'missing' || found.code === 'unknown-unit' ? named : {}) }
  }
  const { run, timeHeading, speedHeading, namedUnit, cutBeforeS, cutAfterS } = found
  const cut = [cutBeforeS >= 0.5 ? `${seconds(cutBeforeS)} before it` : '', cutAfterS >= 0.5 ? `${seconds(cutAfterS)} behind it` : ''].filter(Boolean)
  return {
    name: file.name,
    text: runText(thinRun(run), units),
    told: [
      `${run.timeS.length} points, by "${timeHeading}" and "${speedHeading}"${namedUnit ? '' : `, read as ${units.speed}`}`,
      ...(cut.length > 0 ? [`cut off ${cut.join(' and ')}`] : []),
    ].join('; '),
  }
}
