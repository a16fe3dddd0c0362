import type { RecordsAnswer } from '@bold-ballast/contract'
import { CalculationError } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'
import { type ReadPart, readPartsCsv } from './parts-csv.ts'

/** Parts of a CSV file: read first, with a reason for each row that is left out, then stored as one entry of the log. */
export function PartsImport({ records, onClose }: { records: RecordsAnswer; onClose: () => void }) {
  const { units, decimalMark } = useQuantities()
  const [found, setFound] = useState<{ rows: readonly ReadPart[]; unknown: readonly string[] } | null>(null)
  const [failure, setFailure] = useState<string | null>(null)
  const [batchId, setBatchId] = useState(() => crypto.randomUUID())
  const [write, { isLoading }] = api.useBatchMutation()
  const buildId = records.build.id
  const read = async (file: File) => {
    setFound(null)
    setFailure(null)
    setBatchId(crypto.randomUUID())
    try {
      setFound(await readPartsCsv(await file.text(), { units, decimalMark, stages: records.stages, parts: records.parts }))
    } catch (error) {
      if (!(error instanceof CalculationError)) throw error
      setFailure(error.message)
    }
  }
  const good = found?.rows.filter(({ body }) => body !== null) ?? []
  const refused = found?.rows.filter(({ refusal }) => refusal !== null) ?? []
  const store = async () => {
    const writes = good.map(({ body }) => ({ kind: 'create' as const, resource: 'parts' as const, body: body as Record<string, unknown> }))
    const answer = await write({ buildId, batchId, writes })
    if (answer.error) setFailure(`${readFailure(answer.error).message} Nothing was stored.`)
    else onClose()
  }
  return (
    <Panel title="Parts from a CSV file" onClose={onClose}>
      <p className="mb-3 text-quiet">
        The first line names the columns: Kind, Part, Status, Stage, Pieces, Mass of one, Ratings, Cost, Life and so on, in any order; only Kind and Part must
        be there. Several ratings in one cell are parted by a bar: gearbox torque 480 N·m | power 350 kW.
      </p>
      <label>
        <span className="mb-1 block font-semibold">CSV file</span>
        <input
          type="file"
          accept=".csv,.tsv,.txt,text/csv,text/plain"
          onChange={(event) => {
            const file = event.target.files?.[0]
            if (file) void read(file)
          }}
        />
      </label>
      <p role="status" className="my-2">
        {found && `${good.length} of ${found.rows.length} parts can be read.`}
        {found && found.unknown.length > 0 && ` Columns that are not known were left out: ${found.unknown.join(', ')}.`}
      </p>
      {refused.length > 0 && (
        <ul className="mb-3 max-h-[180px] overflow-y-auto border-l-4 border-danger pl-3">
          {refused.slice(0, 50).map((row) => (
            <li key={row.line} className="py-1">
              Line {row.line}, {row.name || 'no name'}: {row.refusal}
            </li>
          ))}
        </ul>
      )}
      {failure && <Alert className="mb-2">{failure}</Alert>}
      <button type="button" className="button button-strong" disabled={good.length === 0 || isLoading} onClick={() => void store()}>
        {isLoading ? 'Storing …' : `Store ${good.length} ${good.length === 1 ? 'part' : 'parts'}${refused.length > 0 ? `, leave out ${refused.length}` : ''}`}
      </button>
    </Panel>
  )
}
