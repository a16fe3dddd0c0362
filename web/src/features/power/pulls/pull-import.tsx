import type { PullColumns, PullPreview, RecordsAnswer } from '@bold-ballast/contract'
import { type ColumnMapping, FIRST_SETTING } from '@bold-ballast/core'
import { useEffect, useRef, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { useSender } from '../../../data/use-sender.ts'
import { ColumnTable } from '../../../shared/column-table.tsx'
import { SettingSelect } from '../../../shared/fields/setting-select.tsx'
import { Panel } from '../../../ui/dialog.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { PULL_ROLES } from './pull-roles.ts'
import { SheetReader } from './sheet-reader.tsx'
import { typedCurveFile } from './typed-curve.ts'

/** A file that was chosen: what it holds once it was read, and whether it is stored. */
interface Chosen {
  readonly file: File
  readonly importId: string
  readonly report: PullPreview | null
  readonly isStored: boolean
}

const NO_COLUMNS: Pick<PullColumns, 'columns' | 'firstRows'> = { columns: [], firstRows: [] }
const asMapping = (columns: PullColumns['columns']): ColumnMapping[] => columns.map(({ heading, role, unit }) => ({ heading, role, unit }))

/** Files read as a preview first: pulls found, rows cut, lines refused, which column is what; then each stored whole, or not at all. */
export function PullImport({ records, session, onClose }: { records: RecordsAnswer; session: RecordsAnswer['sessions'][number]; onClose: () => void }) {
  const buildId = records.build.id
  const remembered = records.dynoMappings.find(({ dynoName }) => dynoName.toLowerCase() === session.dynoName.toLowerCase())
  const [chosen, setChosen] = useState<readonly Chosen[]>([])
  /** What a person said here; null: nothing, what is remembered of this dyno holds. */
  const [told, setTold] = useState<ColumnMapping[] | null>(null)
  const mapping = told ?? [...(remembered?.columns ?? [])]
  const [isOpen, setIsOpen] = useState(false)
  const [found, setFound] = useState(NO_COLUMNS)
  const [preview] = api.usePreviewPullsMutation()
  const [importPulls] = api.useImportPullsMutation()
  const [readColumns] = api.usePullColumnsMutation()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const [refusal, setRefusal] = useState<string | null>(null)
  const [isReading, setIsReading] = useState(false)
  const latest = useRef(0)
  const sender = useSender()
  const [settingId, setSettingId] = useState(session.settings.at(-1)?.id ?? FIRST_SETTING)
  const isBusy = sender.state.status === 'sending' || sender.state.status === 'waiting'
  const query = ({ file, importId }: Chosen, columns: readonly ColumnMapping[]) => ({
    buildId,
    sessionId: session.id,
    importId,
    file,
    mapping: columns,
    settingId,
  })
  const readAll = async (files: readonly Chosen[], columns: readonly ColumnMapping[]) => {
    const fresh = files.map((entry) => ({ ...entry, report: null }))
    const turn = ++latest.current
    // What was asked before and answers late is not taken for an answer to this.
    const isLate = () => turn !== latest.current
    setChosen(fresh)
    setRefusal(null)
    setIsReading(true)
    const first = fresh[0]
    const seen = first && (await readColumns(query(first, columns)))
    if (isLate()) return
    setFound(seen?.data ?? NO_COLUMNS)
    for (const [i, entry] of fresh.entries()) {
      const { data: report, error } = await preview(query(entry, columns))
      if (isLate()) return
      if (error) {
        setRefusal(`${fresh.length > 1 ? `${entry.file.name}: ` : ''}${readFailure(error).message}`)
        break
      }
      setChosen((now) => now.map((other, at) => (at === i ? { ...other, report: report ?? null } : other)))
    }
    setIsReading(false)
  }
  const take = (files: readonly File[]) =>
    void readAll(
      files.map((file) => ({ file, importId: crypto.randomUUID(), report: null, isStored: false })),
      mapping,
    )
  const change = (columns: ColumnMapping[]) => {
    setTold(columns)
    void readAll(chosen, columns)
  }
  const store = async () => {
    for (const [i, entry] of chosen.entries()) {
      if (entry.isStored) continue
      const stored = await sender.send(() => importPulls(query(entry, mapping)).unwrap())
      if (!stored) return
      setChosen((now) => now.map((other, at) => (at === i ? { ...other, isStored: true } : other)))
    }
    if (told) {
      const body = { dynoName: session.dynoName, columns: told }
      if (remembered) await patch({ buildId, resource: 'dyno-mappings', id: remembered.id, body: { ...body, version: remembered.version } })
      else await create({ buildId, resource: 'dyno-mappings', body: { id: crypto.randomUUID(), ...body } })
    }
    onClose()
  }
  // What is remembered may come in after the files: then they are read by it.
  const readWith = useRef(remembered?.version)
  useEffect(() => {
    if (readWith.current === remembered?.version) return
    readWith.current = remembered?.version
    if (!told && chosen.length > 0 && !chosen.some(({ isStored }) => isStored)) void readAll(chosen, mapping)
  })
  const isWhole = chosen.length > 0 && chosen.every(({ report }) => report !== null)
  const pullCount = chosen.reduce((sum, { report }) => sum + (report?.pulls.length ?? 0), 0)
  // What was said last stands, also while the file is still being read by it.
  const columns = asMapping(found.columns).map((column) => mapping.find(({ heading }) => heading === column.heading) ?? column)
  return (
    <Panel title={`Pulls of ${session.dynoName}, ${dayText(session.at)}`} onClose={onClose} focusOn="pull-file">
      <SettingSelect settings={session.settings} value={settingId} onPick={setSettingId} label="They ran on" />
      <label htmlFor="pull-file" className="mb-1 block font-semibold">
        CSV files
      </label>
      <input
        id="pull-file"
        name="pull-file"
        type="file"
        multiple
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        className="w-full"
        onChange={(event) => take([...(event.target.files ?? [])])}
      />
      <p className="mt-1 text-xs text-quiet">
        Comma, semicolon or tab, columns in any order, with lines before the heading or without; one pull or many in a file, below or beside each other, several
        files at once; up to 100 MB each.
        {remembered && ` Columns are read as they were for ${remembered.dynoName} before.`}
      </p>
      <TypedCurve read={(file) => take([file])} />
      <SheetReader records={records} session={session} read={(file) => take([file])} />
      {columns.length > 0 && (
        <details className="mt-3" open={isOpen || refusal !== null} onToggle={(event) => setIsOpen(event.currentTarget.open)}>
          <summary className="min-h-6 cursor-pointer font-semibold">Which column is what</summary>
          <ColumnTable columns={columns} firstRows={found.firstRows} change={change} roles={PULL_ROLES} />
          <p className="text-xs text-quiet">What you say here is remembered for {session.dynoName}.</p>
        </details>
      )}
      <div className="mt-3">
        {isReading && <p role="status">Reading …</p>}
        {sender.state.status === 'sending' && <p role="status">Storing …</p>}
        {refusal && <Alert>{refusal}</Alert>}
        {sender.state.status === 'waiting' && <p role="status">{sender.state.message}</p>}
        {sender.state.status === 'failed' && (
          <Alert>
            {chosen.length > 1 && `${chosen.find(({ isStored }) => !isStored)?.file.name}: `}
            {sender.state.failure.message}
          </Alert>
        )}
        {chosen.map(
          ({ file, report, importId, isStored }) =>
            report && <Report key={importId} name={chosen.length > 1 ? file.name : null} report={report} isStored={isStored} />,
        )}
        {isWhole && (
          <button type="button" className="button button-strong mt-4" disabled={isBusy} onClick={() => void store()}>
            Store {pullCount} {pullCount === 1 ? 'pull' : 'pulls'}
            {chosen.length > 1 && ` of ${chosen.length} files`}
          </button>
        )}
      </div>
    </Panel>
  )
}

/** A curve typed point by point from a printed sheet: engine speed, power and, where it stands there, torque. */
function TypedCurve({ read }: { read: (file: File) => void }) {
  const { units } = useQuantities()
  const [text, setText] = useState('')
  return (
    <details className="mt-3">
      <summary className="min-h-6 cursor-pointer font-semibold">Or type the curve from a printed sheet</summary>
      <label htmlFor="typed-curve" className="mt-2 mb-1 block">
        One point a line: engine speed in rpm, power in {units.power}, torque in {units.torque} if you have it; blanks between; ten points or more
      </label>
      <textarea
        id="typed-curve"
        rows={6}
        value={text}
        onChange={(event) => setText(event.target.value)}
        placeholder={'3000 82.5\n3250 91'}
        className="w-full font-mono text-[12.5px]"
      />
      <button type="button" className="button mt-1" disabled={text.trim() === ''} onClick={() => read(typedCurveFile(text, units))}>
        Read what was typed
      </button>
    </details>
  )
}

function Report({ name, report, isStored }: { name: string | null; report: PullPreview; isStored: boolean }) {
  return (
    <section className="mt-2">
      {name && (
        <h3 className="font-semibold">
          {name}
          {isStored && <span className="font-normal text-quiet">, stored</span>}
        </h3>
      )}
      <p>
        Separated by {report.delimiter};{' '}
        {report.columns.map((column) => `${column.name}${column.unit && column.unit !== column.name ? ` in ${column.unit}` : ''}`).join(', ')}.
        {report.crossCheckRatio !== null && ` Power fits torque and speed (ratio ${report.crossCheckRatio.toFixed(3)}).`}
      </p>
      <table className="my-2 w-full">
        <thead>
          <tr>
            <th>Pull</th>
            <th className="text-right">Rows</th>
            <th className="text-right">Falling, cut</th>
            <th className="text-right">Peak power</th>
            <th className="text-right">Peak torque</th>
          </tr>
        </thead>
        <tbody>
          {report.pulls.map((pull) => (
            <tr key={pull.label} className="border-t border-line">
              <td className="py-1">{pull.label}</td>
              <td className="text-right">{pull.rowCount}</td>
              <td className="text-right">{pull.cutRowCount}</td>
              <td className="text-right">
                <Figure kind="power" value={pull.peakPowerW} decimals={1} />
              </td>
              <td className="text-right">
                <Figure kind="torque" value={pull.peakTorqueNm} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {report.notes.map((note) => (
        <p key={note}>{note}</p>
      ))}
      {report.refusedLineCount > 0 && (
        <div className="mt-2 border-l-4 border-wait pl-3">
          <p>{report.refusedLineCount} lines were left out:</p>
          <ul>
            {report.refusedLines.slice(0, 10).map((line) => (
              <li key={line.line}>
                line {line.line}: {line.reason}
              </li>
            ))}
          </ul>
        </div>
      )}
    </section>
  )
}
