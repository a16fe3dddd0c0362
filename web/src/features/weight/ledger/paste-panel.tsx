import { useEffect, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { readStored, writeStored } from '../../../data/stored.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'
import type { NamedLine } from './entry-body.ts'
import { LineReading } from './line-reading.tsx'
import { type PastedLine, readPasted } from './paste-lines.ts'

const MOST_LINES = 2000
const MOST_SHOWN = 200

interface Props {
  readonly buildId: string
  readonly stageId: string
  readonly changes: readonly NamedLine[]
  /** The time that new lines get. */
  readonly instant: () => string
  readonly onClose: () => void
}

/** Many lines at once: pasted from a spreadsheet or read from a CSV file, looked at first, then all stored as one entry of the log. */
export function PastePanel({ buildId, stageId, changes, instant, onClose }: Props) {
  const { units, decimalMark } = useQuantities()
  const key = `bold-ballast.draft.${buildId}.paste`
  const [text, setKept] = useState(() => readStored(key, ''))
  const setText = (next: string) => {
    setKept(next)
    writeStored(key, next === '' ? undefined : next)
  }
  const [lines, setLines] = useState<readonly PastedLine[]>([])
  const [batchId] = useState(() => crypto.randomUUID())
  const [failure, setFailure] = useState<string | null>(null)
  const [write, { isLoading }] = api.useBatchMutation()
  useEffect(() => {
    let isCurrent = true
    const context = { stageId, massUnit: units.mass, decimalMark, at: instant(), lines: changes }
    void readPasted(text, context).then((read) => isCurrent && setLines(read))
    return () => {
      isCurrent = false
    }
  }, [text, stageId, units.mass, decimalMark, changes, instant])
  const good = lines.filter((line) => line.body !== null)
  const refused = lines.filter((line) => line.refusal !== null)
  const isTooLong = good.length > MOST_LINES
  const store = async () => {
    const writes = good.map((line) => ({ kind: 'create' as const, resource: 'changes' as const, body: line.body as Record<string, unknown> }))
    const answer = await write({ buildId, batchId, writes })
    if (answer.error) return setFailure(readFailure(answer.error).message)
    writeStored(key, undefined)
    onClose()
  }
  return (
    <Panel title="Paste lines" onClose={onClose}>
      <p className="mb-2 text-quiet">
        From a spreadsheet with a heading row (kind, part, count, zone, mass, how known, cost, hours), or one typed line a row. Or choose a CSV file.
      </p>
      <label htmlFor="pasted" className="mb-1 block font-semibold">
        Lines
      </label>
      <textarea id="pasted" rows={7} value={text} onChange={(event) => setText(event.target.value)} className="w-full font-mono text-[12.5px]" />
      <label className="my-2 block">
        <span className="mb-1 block font-semibold">CSV file</span>
        <input
          type="file"
          accept=".csv,.tsv,.txt,text/csv,text/tab-separated-values,text/plain"
          onChange={(event) => void event.target.files?.[0]?.text().then(setText)}
        />
      </label>
      <div role="status" className="my-2">
        {lines.length > 0 && `${good.length} of ${lines.length} ${lines.length === 1 ? 'line' : 'lines'} can be read.`}
        {isTooLong && ` At most ${MOST_LINES} at once; paste fewer.`}
      </div>
      {lines.length > 0 && (
        <ol className="mb-3 max-h-[260px] overflow-y-auto border-y border-line" aria-label="How each line was read">
          {lines.slice(0, MOST_SHOWN).map((line) => (
            <li key={line.line} className={`border-b border-line py-1 pl-3 last:border-b-0 ${line.refusal === null ? '' : 'border-l-4 border-l-danger'}`}>
              <span className="text-quiet">{line.line}</span>{' '}
              {line.reading ? (
                <LineReading line={line.reading} box={null} />
              ) : (
                <>
                  <strong className="text-danger">left out:</strong> {line.refusal} <span className="block truncate text-xs text-quiet">{line.text}</span>
                </>
              )}
            </li>
          ))}
          {lines.length > MOST_SHOWN && <li className="py-1 pl-3 text-quiet">and {lines.length - MOST_SHOWN} more, read the same way</li>}
        </ol>
      )}
      {failure && <Alert className="mb-2">{failure} Nothing was stored.</Alert>}
      <button type="button" className="button button-strong" disabled={good.length === 0 || isTooLong || isLoading} onClick={() => void store()}>
        {isLoading ? 'Storing …' : `Store ${good.length} ${good.length === 1 ? 'line' : 'lines'}${refused.length > 0 ? `, leave out ${refused.length}` : ''}`}
      </button>
    </Panel>
  )
}
