import type { BuildFileReport, FileChange } from '@bold-ballast/contract'
import { recordWord } from '@bold-ballast/core'
import { useState } from 'react'
import { useNavigate } from 'react-router'
import { api, type BuildFileArguments, readFailure } from '../../data/api.ts'
import { fieldWord, valueText } from '../../shared/fields/field-words.ts'
import { Alert } from '../../ui/states.tsx'

type Picked = BuildFileArguments & { readonly file: File }

const KIND_WORDS: Record<FileChange['kind'], string> = { added: 'adds', changed: 'changes', deleted: 'deletes', putBack: 'puts back' }
const MOST_LISTED = 60

/** A build file in: chosen, read, shown with what it would do, and only then stored. */
export function OpenFilePage() {
  const [picked, setPicked] = useState<Picked | null>(null)
  const [report, setReport] = useState<BuildFileReport | null>(null)
  const [failure, setFailure] = useState('')
  const [preview, reading] = api.usePreviewBuildFileMutation()
  const [take, storing] = api.useImportBuildFileMutation()
  const navigate = useNavigate()
  const look = async (next: Picked) => {
    setPicked(next)
    setFailure('')
    const answer = await preview(next)
    setReport(answer.data ?? null)
    if (answer.error) setFailure(readFailure(answer.error).message)
  }
  const choose = (file: File | undefined) => {
    if (!file) return
    const isArchive = !/\.json$/i.test(file.name)
    void look({ file, isArchive, as: 'new', importId: crypto.randomUUID(), missing: 'keep' })
  }
  const store = async () => {
    if (!picked) return
    const answer = await take(picked)
    if (answer.error) setFailure(readFailure(answer.error).message)
    else void navigate(`/builds/${answer.data.buildId}/board`)
  }
  const isBusy = reading.isLoading || storing.isLoading
  return (
    <main id="page" tabIndex={-1} className="mx-auto w-full max-w-[900px] px-5 pt-6 pb-10 outline-none">
      <title>Open a build file · Bold Ballast</title>
      <h1 className="mb-1">Open a build file</h1>
      <p className="mb-4 max-w-[70ch] text-quiet">
        The archive that an export made, or its build.json alone (then without the samples of its pulls). Nothing is stored until you have seen what it does.
      </p>
      <label htmlFor="build-file" className="mb-1 block font-semibold">
        Build file, .zip or .json
      </label>
      <input
        id="build-file"
        type="file"
        accept=".zip,.json,application/zip,application/json"
        onChange={(event) => choose(event.target.files?.[0])}
        disabled={isBusy}
      />
      <div aria-live="polite" className="mt-4">
        {reading.isLoading && <p role="status">Reading {picked?.file.name} …</p>}
        {failure && <Alert>{failure} Nothing was stored.</Alert>}
        {picked && report && !failure && !reading.isLoading && (
          <>
            {report.isHere && <Choices picked={picked} look={(next) => void look(next)} />}
            <Preview report={report} />
            <button
              type="button"
              className="button button-strong mt-4"
              onClick={() => void store()}
              disabled={isBusy || (report.as === 'update' && report.changes.length === 0)}
            >
              {storing.isLoading ? 'Storing …' : report.as === 'new' ? `Add ${report.name} to the Garage` : `Change ${report.name} so`}
            </button>
          </>
        )}
      </div>
    </main>
  )
}

function Choices({ picked, look }: { picked: Picked; look: (next: Picked) => void }) {
  const options = [
    { words: 'Add it as a build of its own', next: { ...picked, as: 'new', missing: 'keep' } },
    { words: 'Update the build that is here; keep what the file lacks', next: { ...picked, as: 'update', missing: 'keep' } },
    { words: 'Update the build that is here; delete what the file lacks', next: { ...picked, as: 'update', missing: 'delete' } },
  ] as const
  return (
    <fieldset className="mb-4">
      <legend className="mb-1 font-semibold">This build is in the Garage already</legend>
      {options.map(({ words, next }) => (
        <label key={words} className="flex min-h-8 items-center gap-2">
          <input type="radio" name="as" checked={picked.as === next.as && picked.missing === next.missing} onChange={() => look(next)} />
          {words}
        </label>
      ))}
    </fieldset>
  )
}

function Preview({ report }: { report: BuildFileReport }) {
  const { counts, changes } = report
  if (report.as === 'new')
    return (
      <>
        <h2>{report.name}</h2>
        <p>
          {counts.stages} stages, {counts.changes} ledger lines, {counts.weighings} weighings, {counts.sessions} dyno sessions with {counts.pulls} pulls (
          {report.sampleCount} samples), {counts.targets} targets, {counts.limits} limits.
        </p>
        {report.getsNewIds && <p className="text-quiet">It gets ids of its own, because a build of the same ids is here.</p>}
      </>
    )
  return (
    <>
      <h2>
        {changes.length === 0
          ? `${report.name} is already as the file says`
          : `${report.name}: ${changes.length} ${changes.length === 1 ? 'record' : 'records'} differ`}
        , {report.unchangedCount} alike
      </h2>
      <ul className="mt-2">
        {changes.slice(0, MOST_LISTED).map((change) => (
          <li key={change.id} className="border-t border-line py-1.5">
            {KIND_WORDS[change.kind]} {recordWord(change.list === 'build' ? 'builds' : change.list)} <strong>{change.name}</strong>
            {change.changedHere && <span className="font-semibold text-wait"> changed here since the file was written</span>}
            {change.fields.map(({ field, before, after }) => (
              <span key={field} className="block text-xs text-quiet">
                {fieldWord(field)}: {valueText(before)} → {valueText(after)}
              </span>
            ))}
          </li>
        ))}
      </ul>
      {changes.length > MOST_LISTED && <p className="text-quiet">and {changes.length - MOST_LISTED} more</p>}
    </>
  )
}
