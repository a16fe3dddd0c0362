import { attempt, CalculationError, coastFile, findDelimiter, type QuantityKind, thinRun } from '@bold-ballast/core'
import { runText } from './test-form.ts'

/** A file that was chosen: its run as lines for the form and what was made of it, or why it cannot be read. */
export type ReadRun = { readonly name: string; readonly text: string; readonly told: string } | { readonly name: string; readonly refused: string }

const seconds = (value: number) => `${value.toFixed(0)} s`

/** A run of a coast-down out of a logger's file, as the lines of the form. */
export async function readRunFile(file: Pick<File, 'name' | 'text'>, units: Readonly<Record<QuantityKind, string>>): Promise<ReadRun> {
  const { default: Papa } = await import('papaparse')
  const text = await file.text()
  const found = attempt(() => {
    const delimiter = findDelimiter(text.slice(0, 4096))
    return coastFile(Papa.parse<string[]>(text, { delimiter, skipEmptyLines: 'greedy' }).data, delimiter, units.speed)
  })
  if (found instanceof CalculationError) return { name: file.name, refused: found.message }
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
