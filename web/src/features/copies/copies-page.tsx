import type { CopiesAnswer, CopyEntry } from '@bold-ballast/contract'
import { readFailure } from '../../data/api.ts'
import { crewApi } from '../../data/crew/crew-api.ts'
import { ScrollBox } from '../../ui/scroll-box.tsx'
import { Alert, LoadError, Loading } from '../../ui/states.tsx'
import { timeText } from '../../ui/words.ts'

/** How often the list is looked at again while a copy is being taken. */
const LOOK_MS = 1500
const DAY_MS = 86_400_000
const MB = 1e6
const sizeText = (bytes: number) => `${(bytes / MB).toFixed(bytes < 10 * MB ? 1 : 0)} MB`

/** Every build on one disk can be lost with it: what copies there are, and whether they open. */
export function CopiesPage() {
  const { data: me, error, refetch } = crewApi.useMeQuery()
  const garageId = me?.garages.find(({ role }) => role === 'owner')?.garageId
  return (
    <main id="page" tabIndex={-1} className="mx-auto w-full max-w-[960px] px-5 pt-6 outline-none">
      <title>Copies · Bold Ballast</title>
      {error ? (
        <LoadError error={error} retry={refetch} />
      ) : !me ? (
        <Loading what="the copies" />
      ) : garageId === undefined ? (
        <>
          <h1 className="mb-2">Copies are for owners</h1>
          <p className="max-w-xl text-quiet">A copy holds everything that stands on this server, of every garage. Ask an owner.</p>
        </>
      ) : (
        <Copies garageId={garageId} />
      )}
    </main>
  )
}

function title({ copies, folder, isRunning }: CopiesAnswer): string {
  const last = copies.find(({ problem, checkedAt }) => problem === null && checkedAt !== null)
  if (isRunning) return 'A copy is being taken, or tried out'
  if (folder === null) return 'Others keep the copies of this database'
  if (!last) return copies.length === 0 ? 'No copy was taken yet' : 'No copy here is whole'
  const days = Math.floor((Date.now() - Date.parse(last.takenAt)) / DAY_MS)
  return `The last whole copy is ${days === 0 ? 'less than a day old' : days === 1 ? 'a day old' : `${days} days old`}`
}

function Copies({ garageId }: { garageId: string }) {
  const running = crewApi.useCopiesQuery(garageId, { selectFromResult: ({ data }) => ({ isRunning: data?.isRunning === true }) }).isRunning
  const { data, error, refetch } = crewApi.useCopiesQuery(garageId, { pollingInterval: running ? LOOK_MS : 0 })
  const [take, taking] = crewApi.useTakeCopyMutation()
  const [check, checking] = crewApi.useCheckCopyMutation()
  if (error) return <LoadError error={error} retry={refetch} />
  if (!data) return <Loading what="the copies" />
  const failure = taking.error ?? checking.error
  return (
    <>
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-3">
        <h1>{title(data)}</h1>
        {data.folder !== null && (
          <button type="button" className="button button-strong no-print" disabled={data.isRunning || taking.isLoading} onClick={() => void take(garageId)}>
            Take a copy now
          </button>
        )}
      </div>
      {failure !== undefined && <Alert className="mb-3">{readFailure(failure).message}</Alert>}
      {data.folder === null ? (
        <p className="max-w-xl text-quiet">
          Whoever runs the database takes them. With COPIES_DIR this server keeps copies of its own as well; docs/running.md tells how.
        </p>
      ) : (
        <>
          <p className="mb-4 max-w-2xl text-quiet">
            One a day, and before each upgrade. Each was restored on trial: every row held against the original, every Board opened. They lie in{' '}
            <code className="break-all">{data.folder}</code>, on the disk of this server: carry one elsewhere, with <code>npm run backup -- --to FILE.tar</code>{' '}
            or COPY_DONE.
          </p>
          <CopyTable data={data} onCheck={(id) => void check({ garageId, id })} />
        </>
      )}
    </>
  )
}

function CopyTable({ data, onCheck }: { data: CopiesAnswer; onCheck: (id: string) => void }) {
  if (data.copies.length === 0) return null
  return (
    <ScrollBox label="Copies">
      <table className="lined w-full">
        <thead>
          <tr>
            <th>Taken</th>
            <th className="text-right">Size</th>
            <th className="text-right">Up to entry</th>
            <th className="pl-8">Tried out</th>
            <th className="no-print">
              <span className="sr-only">Try again</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {data.copies.map((copy) => (
            <CopyRow key={copy.id} copy={copy} isBusy={data.isRunning} onCheck={onCheck} />
          ))}
        </tbody>
      </table>
    </ScrollBox>
  )
}

function CopyRow({ copy, isBusy, onCheck }: { copy: CopyEntry; isBusy: boolean; onCheck: (id: string) => void }) {
  const { id, takenAt, bytes, entryId, checkedAt, problem } = copy
  // One that failed was let go: there is nothing to try out.
  const isThere = bytes > 0
  return (
    <tr>
      <td className="whitespace-nowrap">{timeText(takenAt)}</td>
      <td className="text-right whitespace-nowrap">{isThere ? sizeText(bytes) : ''}</td>
      <td className="text-right">{isThere ? entryId : ''}</td>
      <td className={`pl-8 ${problem ? 'text-danger' : ''}`}>{problem ?? (checkedAt ? `whole, ${timeText(checkedAt)}` : 'not yet')}</td>
      <td className="no-print text-right">
        {isThere && (
          <button
            type="button"
            className="word-link"
            disabled={isBusy}
            aria-label={`Try out again the copy of ${timeText(takenAt)}`}
            onClick={() => onCheck(id)}
          >
            try out again
          </button>
        )}
      </td>
    </tr>
  )
}
