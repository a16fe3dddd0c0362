import type { GarageEntry } from '@bold-ballast/contract'
import { sayNext } from '@bold-ballast/core'
import { Link, useSearchParams } from 'react-router'
import { api, type GarageBuilds } from '../../data/api.ts'
import { useAskAgain } from '../../data/use-later.ts'
import { useAdviceWords } from '../../shared/advice-words.ts'
import { Figure } from '../../ui/figure.tsx'
import { CsvButton } from '../../ui/files/csv-button.tsx'
import { localTime } from '../../ui/forms/form-reader.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { Empty, LoadError, Loading } from '../../ui/states.tsx'
import { DISCIPLINE_WORDS, DRIVE_WORDS, dayText } from '../../ui/words.ts'
import { SmallTrail } from './small-trail.tsx'
import { garageTable } from './tables.ts'

/** As many as an answer holds. */
const BUILDS_A_PAGE = 50

function garageTitle({ entries, total }: GarageBuilds, name: string): string {
  if (total === 0) return name === '' ? 'The Garage is empty' : 'No such build'
  const broken = entries.filter((entry) => entry.brokenLimits > 0).length
  const where = total > entries.length ? ' on this page' : ''
  return `${total === 1 ? 'One build' : `${total} builds`}, ${broken === 0 ? `no limit broken${where}` : `${broken} with a limit broken${where}`}`
}

interface FinderProps {
  readonly name: string
  readonly page: number
  readonly total: number
  readonly ask: (next: { readonly name: string; readonly page: number }) => void
}

/** Many builds: by a part of their name, fifty at a time. */
function GarageFinder({ name, page, total, ask }: FinderProps) {
  const pages = Math.max(1, Math.ceil(total / BUILDS_A_PAGE))
  return (
    <div className="no-print mb-3 flex flex-wrap items-center gap-4">
      <input
        type="search"
        aria-label="Builds whose name holds"
        placeholder="a part of a name"
        defaultValue={name}
        onChange={({ target }) => ask({ name: target.value.trim(), page: 1 })}
      />
      {pages > 1 && (
        <>
          <button type="button" className="word-link" disabled={page <= 1} onClick={() => ask({ name, page: page - 1 })}>
            earlier
          </button>
          <span>
            page {page} of {pages}
          </span>
          <button type="button" className="word-link" disabled={page >= pages} onClick={() => ask({ name, page: page + 1 })}>
            later
          </button>
        </>
      )}
    </div>
  )
}

/** Every build: how far it is, what it weighs and makes, and what is broken or late. */
export function GaragePage() {
  const [asked, setAsked] = useSearchParams()
  const [name, page] = [asked.get('name') ?? '', Number(asked.get('page') ?? 1)]
  const wish = name === '' && page === 1 ? undefined : { name, page }
  const { data: answer, error, refetch, fulfilledTimeStamp } = api.useGarageQuery(wish)
  const { units } = useQuantities()
  useAskAgain(answer?.entries.some(({ isWaiting }) => isWaiting) === true, refetch, fulfilledTimeStamp)
  if (error) return <LoadError error={error} retry={refetch} />
  if (!answer) return <Loading what="the Garage" />
  const { entries: data, total } = answer
  const ask = (next: { readonly name: string; readonly page: number }) =>
    setAsked({ ...(next.name ? { name: next.name } : {}), ...(next.page > 1 ? { page: String(next.page) } : {}) }, { replace: true })
  const title = garageTitle(answer, name)
  return (
    <main id="page" tabIndex={-1} className="mx-auto w-full max-w-[1240px] px-5 pt-6 outline-none">
      <title>Garage · Bold Ballast</title>
      <div className="mb-5 flex flex-wrap items-center justify-between gap-3">
        <h1>{title}</h1>
        <span className="flex items-center gap-3">
          {data.length > 0 && <CsvButton name="garage" table={() => garageTable(data, units)} />}
          <Link to="/copies" className="word-link">
            Copies
          </Link>
          <Link to="/open" className="button">
            Open a build file
          </Link>
          <Link to="/new" className="button button-strong">
            New build
          </Link>
        </span>
      </div>
      {(total > BUILDS_A_PAGE || name !== '') && <GarageFinder name={name} page={page} total={total} ask={ask} />}
      {data.length === 0 && name !== '' ? (
        <p className="text-quiet">No build has that in its name. Try a shorter part of it.</p>
      ) : data.length === 0 ? (
        <Empty title="A build is one car and its stages" why="Everything else hangs on it: what came off, what goes on, the scales, the dyno.">
          <Link to="/new" className="button">
            Make the first one
          </Link>
        </Empty>
      ) : (
        <table className="w-full border-collapse max-[759px]:block">
          <thead className="max-[759px]:sr-only">
            <tr className="text-[12.5px]">
              <th className="py-1.5 pr-3">Build</th>
              <th className="px-3 py-1.5">Trail</th>
              <th className="px-3 py-1.5">It is at</th>
              <th className="px-3 py-1.5 text-right">Mass</th>
              <th className="px-3 py-1.5 text-right">Power to weight</th>
              <th className="px-3 py-1.5">Next date</th>
              <th className="py-1.5 pl-3">What presses</th>
            </tr>
          </thead>
          <tbody className="max-[759px]:block">
            {data.map((entry) => (
              <GarageRow key={entry.build.id} entry={entry} />
            ))}
          </tbody>
        </table>
      )}
    </main>
  )
}

function GarageRow({ entry }: { entry: GarageEntry }) {
  const { build, mass, powerToMass, stages } = entry
  const words = useAdviceWords(build.id, stages)
  const said = entry.next && sayNext(entry.next, words)
  // What is said below stands for one of them.
  const isMore = entry.brokenLimits + entry.limitsThatWouldBreak > 1
  const today = localTime(new Date()).slice(0, 10)
  const next = stages.find(({ date, isDone }) => date !== null && !isDone && date >= today)
  const trouble = [
    entry.brokenLimits > 0 && `${entry.brokenLimits === 1 ? 'one limit' : `${entry.brokenLimits} limits`} broken`,
    entry.limitsThatWouldBreak > 0 && `${entry.limitsThatWouldBreak === 1 ? 'one limit' : `${entry.limitsThatWouldBreak} limits`} would break`,
  ].filter(Boolean)
  const late = [
    entry.lateStages > 0 && `${entry.lateStages} late ${entry.lateStages === 1 ? 'stage' : 'stages'}`,
    entry.lateTargets > 0 && `${entry.lateTargets} late ${entry.lateTargets === 1 ? 'target' : 'targets'}`,
  ].filter(Boolean)
  const cell = 'px-3 py-3.5 max-[759px]:block max-[759px]:px-0 max-[759px]:py-0.5'
  return (
    <tr data-build={build.name} className="border-t border-line align-top max-[759px]:block max-[759px]:py-3">
      <th scope="row" className="w-[210px] py-3.5 pr-3 font-normal text-ink max-[759px]:block max-[759px]:w-full max-[759px]:py-0">
        <Link to={`/builds/${build.id}/board`} className="text-lg font-bold underline decoration-line decoration-2 underline-offset-4">
          {build.name}
        </Link>
        <span className="block text-sm text-quiet">
          {[DISCIPLINE_WORDS[build.discipline], DRIVE_WORDS[build.drivenAxles], build.className].filter(Boolean).join(', ')}
        </span>
      </th>
      <td className={cell}>
        <SmallTrail points={entry.trail} name={build.name} />
      </td>
      <td className={cell}>
        {entry.isWaiting && entry.stageCount === 0 ? (
          <span className="text-quiet">being worked out</span>
        ) : entry.reachedPosition === null ? (
          <span className="text-quiet">nothing measured yet</span>
        ) : (
          <>
            {entry.reachedPosition} of {entry.stageCount - 1}, {entry.reachedName}
            <span className="block text-xs text-quiet">{entry.reachedState}</span>
          </>
        )}
      </td>
      <td className={`${cell} text-right text-lg whitespace-nowrap`}>
        {mass ? (
          <Figure kind="mass" value={mass.value} sd={mass.sd} proof={mass.proof} className="font-bold" />
        ) : (
          <span className="text-sm text-quiet">no mass yet</span>
        )}
      </td>
      <td className={`${cell} text-right text-lg whitespace-nowrap`}>
        {powerToMass ? (
          <>
            <Figure kind="powerToMass" value={powerToMass.value} sd={powerToMass.sd} proof={powerToMass.proof} className="font-bold" />
            <span className="block text-xs text-quiet">{basisText(build)}</span>
          </>
        ) : (
          <span className="text-sm text-quiet">no power yet</span>
        )}
      </td>
      <td className={cell}>
        {next ? (
          <>
            <time dateTime={next.date ?? ''} className="whitespace-nowrap">
              {dayText(next.date ?? '')}
            </time>
            <span className="block text-xs text-quiet">{next.name}</span>
          </>
        ) : (
          <span className="text-quiet">none set</span>
        )}
      </td>
      <td className={`${cell} pr-0`}>
        {entry.problem && <p className="font-semibold text-danger">{entry.problem}</p>}
        {isMore && <p className="font-semibold text-danger">{trouble.join(', ')}</p>}
        {late.length > 0 && <p className="text-wait">{late.join(', ')}</p>}
        {said ? (
          <Link to={said.to} className={`underline decoration-line underline-offset-4 ${said.isDanger ? 'text-danger' : ''}`}>
            {said.head}
          </Link>
        ) : (
          !entry.problem && <span className="text-quiet">nothing</span>
        )}
      </td>
    </tr>
  )
}

/** On which basis power is counted, so that two builds are never ranked without it. */
const basisText = ({ powerBasis: { place, standard } }: GarageEntry['build']) =>
  `${{ hub: 'hubs', roller: 'rollers', engine: 'engine' }[place]}, ${standard === 'none' ? 'observed' : standard === 'asPrinted' ? 'as printed' : standard}`
