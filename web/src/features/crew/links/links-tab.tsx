import type { MadeLink } from '@bold-ballast/contract'
import { useState } from 'react'
import { readFailure } from '../../../data/api.ts'
import { crewApi } from '../../../data/crew/crew-api.ts'
import { useAppSelector } from '../../../data/store.ts'
import { Alert, Loading } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import type { CrewTabProps } from '../crew-tab.ts'
import { SecretLink } from '../people/secret-link.tsx'

/** Links that show the Board or one stage to whoever holds them, without sign-in and without anything else of the build. */
export function LinksTab({ buildId, records, position, tabs }: CrewTabProps) {
  const isClosed = useAppSelector((state) => state.seat.isClosed)
  const role = useAppSelector((state) => state.seat.roles[buildId])
  const what = isClosed
    ? role === 'owner'
      ? null
      : 'Links are made and withdrawn by owners of the garage.'
    : 'Nobody signs in here, so a link could not be held back. Make an owner first, under People.'
  return (
    <div className="grid gap-4">
      {what === null ? (
        <OwnLinks buildId={buildId} stage={records.stages[position]} tabs={tabs} />
      ) : (
        <>
          <h1>No link leads here</h1>
          {tabs}
          <p className="max-w-xl text-quiet">{what}</p>
        </>
      )}
    </div>
  )
}

const DAYS = { 7: 'a week', 30: 'a month', 365: 'a year', 0: 'until it is withdrawn' } as const

function OwnLinks({ buildId, stage, tabs }: { buildId: string; stage: { readonly id: string; readonly name: string } | undefined; tabs: React.ReactNode }) {
  const { data: links } = crewApi.useLinksQuery(buildId)
  const [make, making] = crewApi.useMakeLinkMutation()
  const [withdraw] = crewApi.useWithdrawLinkMutation()
  const [ofStage, setOfStage] = useState(false)
  const [days, setDays] = useState('30')
  const [made, setMade] = useState<MadeLink | null>(null)
  if (!links) return <Loading what="the links" />
  const open = links.filter(({ withdrawnAt, expiresAt }) => !withdrawnAt && (expiresAt === null || Date.parse(expiresAt) > Date.now()))
  return (
    <>
      <h1>{open.length === 0 ? 'No link leads here' : open.length === 1 ? 'One link leads here' : `${open.length} links lead here`}</h1>
      {tabs}
      <p className="max-w-xl text-quiet">
        Whoever holds one sees numbers with their spread and proof, goals with their verdict, stages with their dates. No people, parts, notes, costs, log or
        pictures; nothing can be written.
      </p>
      <form
        className="no-print flex flex-wrap items-center gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          void make({ buildId, ...(ofStage && stage ? { stageId: stage.id } : {}), days: days === '0' ? null : Number(days) })
            .unwrap()
            .then(setMade)
            .catch(() => setMade(null))
        }}
      >
        <select aria-label="What the link shows" value={ofStage ? 'stage' : 'board'} onChange={({ target }) => setOfStage(target.value === 'stage')}>
          <option value="board">the whole Board</option>
          {stage && <option value="stage">{stage.name} alone</option>}
        </select>
        <label className="flex items-center gap-2">
          for
          <select value={days} onChange={({ target }) => setDays(target.value)}>
            {Object.entries(DAYS).map(([count, words]) => (
              <option key={count} value={count}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="button button-strong" disabled={making.isLoading}>
          Make the link
        </button>
      </form>
      {making.error !== undefined && <Alert>{readFailure(making.error).message}</Alert>}
      {made && <SecretLink path="/shared" token={made.token} expiresAt={made.expiresAt} what="Whoever has this link sees it." />}
      {links.length > 0 && (
        <table className="lined max-w-3xl">
          <thead>
            <tr>
              <th>Shows</th>
              <th>Made</th>
              <th>Until</th>
              <th className="text-right">Opened</th>
              <th>
                <span className="sr-only">What can be done</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {links.map(({ id, stageName, madeAt, expiresAt, withdrawnAt, opens }) => {
              const isOpen = open.some((each) => each.id === id)
              return (
                <tr key={id} className={isOpen ? '' : 'text-quiet'}>
                  <td>{stageName ?? 'the whole Board'}</td>
                  <td>{dayText(madeAt)}</td>
                  <td>{withdrawnAt ? `withdrawn ${dayText(withdrawnAt)}` : expiresAt ? dayText(expiresAt) : 'withdrawn'}</td>
                  <td className="text-right">{opens}</td>
                  <td className="no-print pl-5">
                    {isOpen && (
                      <button type="button" className="word-link" onClick={() => void withdraw({ buildId, id })}>
                        withdraw
                      </button>
                    )}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      )}
    </>
  )
}
