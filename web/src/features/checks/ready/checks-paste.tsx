import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, type ReadCheck, readCheckLine } from '@bold-ballast/core'
import { useId, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { localDay } from '../../../data/local-day.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'

interface PastedCheck {
  readonly line: string
  readonly number: number
  readonly read: ReadCheck | CalculationError
}

/** Lines of checks, or the first column of a table of them, each read by itself. */
export const readPasted = (text: string, read: (line: string) => ReadCheck): PastedCheck[] =>
  text.split('\n').flatMap((raw, i) => {
    const line = (raw.split('\t')[0] ?? '').trim().replace(/^"(.*)"$/, '$1')
    return line === '' ? [] : [{ line, number: i + 1, read: attempt(() => read(line)) }]
  })

/** Many checks at once, a line each; what stands there already under its name is left as it is. */
export function ChecksPaste({ records }: { records: RecordsAnswer }) {
  const id = useId()
  const { units, decimalMark } = useQuantities()
  const [text, setText] = useState('')
  const [said, setSaid] = useState<string | null>(null)
  const [batchId, setBatchId] = useState(() => crypto.randomUUID())
  const [write, { isLoading }] = api.useBatchMutation()
  const found = readPasted(text, (line) => readCheckLine(line, { today: localDay(), mark: decimalMark, units, geometry: records.build }))
  const names = new Set(records.checks.map(({ name }) => name.toLowerCase()))
  const good = found.flatMap(({ read }) => (read instanceof CalculationError || names.has(read.check.name.toLowerCase()) ? [] : [read.check]))
  const bad = found.filter(({ read }) => read instanceof CalculationError)
  const store = async () => {
    const writes = good.map((check) => ({ kind: 'create', resource: 'checks', body: { id: crypto.randomUUID(), ...check } }))
    const answer = await write({ buildId: records.build.id, batchId, writes: writes as never })
    if (answer.error) return setSaid(readFailure(answer.error).message)
    setBatchId(crypto.randomUUID())
    setSaid(`${good.length} stored.`)
    setText(bad.map(({ line }) => line).join('\n'))
  }
  return (
    <div className="mt-3 max-w-2xl">
      <label htmlFor={id} className="font-semibold">
        Paste lines, or a column of a spreadsheet
      </label>
      <textarea id={id} value={text} onChange={(event) => setText(event.target.value)} rows={4} className="w-full" spellCheck={false} />
      {bad.map(({ number, read }) => (
        <p key={number} className="text-wait">
          Line {number}: {(read as CalculationError).message}
        </p>
      ))}
      {said && <Alert>{said}</Alert>}
      <button type="button" className="button mt-1" disabled={good.length === 0 || isLoading} onClick={() => void store()}>
        Store {good.length} {good.length === 1 ? 'check' : 'checks'}
      </button>
    </div>
  )
}
