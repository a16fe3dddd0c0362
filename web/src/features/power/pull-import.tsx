import type { PullPreview, StoredRecords } from '@bold-ballast/contract'
import { useState } from 'react'
import { api } from '../../api/api.ts'
import { useSender } from '../../api/use-sender.ts'
import { Panel } from '../../ui/dialog.tsx'
import { Figure } from '../../ui/figure.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { dayText } from '../../ui/words.ts'
import { typedCurveFile } from './typed-curve.ts'

const UNITS = { powerUnit: ['', 'kW', 'hp', 'PS', 'W'], torqueUnit: ['', 'N·m', 'lb·ft', 'kgf·m'] } as const

/** A CSV file read as a preview first: pulls found, rows cut, lines refused; then stored all at once, or not at all. */
export function PullImport({ buildId, session, onClose }: { buildId: string; session: StoredRecords['sessions'][number]; onClose: () => void }) {
  const [file, setFile] = useState<File | null>(null)
  const [importId, setImportId] = useState(() => crypto.randomUUID())
  const [picked, setPicked] = useState({ powerUnit: '', torqueUnit: '' })
  const [report, setReport] = useState<PullPreview | null>(null)
  const [preview] = api.usePreviewPullsMutation()
  const [importPulls] = api.useImportPullsMutation()
  const sender = useSender()
  const isBusy = sender.state.status === 'sending' || sender.state.status === 'waiting'
  const query = (chosen: File, units: typeof picked) => ({
    buildId,
    sessionId: session.id,
    importId,
    file: chosen,
    ...(units.powerUnit ? { powerUnit: units.powerUnit } : {}),
    ...(units.torqueUnit ? { torqueUnit: units.torqueUnit } : {}),
  })
  const readFile = async (chosen: File, units: typeof picked) => {
    setReport(null)
    setReport(await sender.send(() => preview(query(chosen, units)).unwrap()))
  }
  const store = async () => {
    if (!file) return
    const stored = await sender.send(() => importPulls(query(file, picked)).unwrap())
    if (stored) onClose()
  }
  const pick = (name: keyof typeof picked, unit: string) => {
    const units = { ...picked, [name]: unit }
    setPicked(units)
    if (file) void readFile(file, units)
  }
  return (
    <Panel title={`Pulls of ${session.dynoName}, ${dayText(session.at)}`} onClose={onClose}>
      <label htmlFor="pull-file" className="mb-1 block font-semibold">
        CSV file
      </label>
      <input
        id="pull-file"
        type="file"
        accept=".csv,.txt,.tsv,text/csv,text/plain"
        className="w-full"
        onChange={(event) => {
          const chosen = event.target.files?.[0] ?? null
          setFile(chosen)
          setImportId(crypto.randomUUID())
          if (chosen) void readFile(chosen, picked)
        }}
      />
      <p className="mt-1 text-xs text-quiet">Comma, semicolon or tab; a heading line such as “rpm, power kW, torque Nm”; up to 100 MB.</p>
      <TypedCurve
        read={(typed) => {
          setFile(typed)
          setImportId(crypto.randomUUID())
          void readFile(typed, picked)
        }}
      />
      <div className="my-3 grid grid-cols-2 gap-4">
        {(['powerUnit', 'torqueUnit'] as const).map((name) => (
          <div key={name}>
            <label htmlFor={name} className="mb-1 block font-semibold">
              {name === 'powerUnit' ? 'Power is in' : 'Torque is in'}
            </label>
            <select id={name} value={picked[name]} onChange={(event) => pick(name, event.target.value)} className="w-full">
              {UNITS[name].map((unit) => (
                <option key={unit} value={unit}>
                  {unit || 'as the file says'}
                </option>
              ))}
            </select>
          </div>
        ))}
      </div>
      {sender.state.status === 'sending' && <p role="status">Reading {file?.name} …</p>}
      {sender.state.status === 'waiting' && <p role="status">{sender.state.message}</p>}
      {sender.state.status === 'failed' && (
        <p role="alert" className="border-l-4 border-danger py-1 pl-3">
          {sender.state.failure.message}
        </p>
      )}
      {report && <Report report={report} />}
      {report && (
        <button type="button" className="button button-strong mt-4" disabled={isBusy} onClick={() => void store()}>
          Store {report.pulls.length} {report.pulls.length === 1 ? 'pull' : 'pulls'}
        </button>
      )}
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

function Report({ report }: { report: PullPreview }) {
  return (
    <>
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
    </>
  )
}
