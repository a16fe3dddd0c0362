import type { GarageEntry } from '@bold-ballast/contract'
import { Link } from 'react-router'
import { api } from '../../data/api.ts'
import { CsvButton } from '../../ui/csv-button.tsx'
import { Figure } from '../../ui/figure.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { Empty, LoadError, Loading } from '../../ui/states.tsx'
import { DISCIPLINE_WORDS, DRIVE_WORDS } from '../../ui/words.ts'
import { garageTable } from './tables.ts'

/** Every build: how far it is, what it weighs and makes, and what is broken or late. */
export function GaragePage() {
  const { data, error, refetch } = api.useGarageQuery()
  const { units } = useQuantities()
  if (error) return <LoadError error={error} retry={refetch} />
  if (!data) return <Loading what="the Garage" />
  const broken = data.filter((entry) => entry.brokenLimits > 0).length
  const title =
    data.length === 0
      ? 'The Garage is empty'
      : `${data.length === 1 ? 'One build' : `${data.length} builds`}, ${broken === 0 ? 'no limit broken' : `${broken} with a limit broken`}`
  return (
    <main id="page" tabIndex={-1} className="mx-auto w-full max-w-[1100px] px-5 pt-6 outline-none">
      <title>Garage · Bold Ballast</title>
      <div className="mb-5 flex flex-wrap items-center justify-between gap-3">
        <h1>{title}</h1>
        <span className="flex items-center gap-3">
          {data.length > 0 && <CsvButton name="garage" table={() => garageTable(data, units)} />}
          <Link to="/open" className="button">
            Open a build file
          </Link>
          <Link to="/new" className="button button-strong">
            New build
          </Link>
        </span>
      </div>
      {data.length === 0 ? (
        <Empty title="A build is one car and its stages" why="Everything else hangs on it: what came off, what goes on, the scales, the dyno.">
          <Link to="/new" className="button">
            Make the first one
          </Link>
        </Empty>
      ) : (
        <ul>
          {data.map((entry) => (
            <GarageRow key={entry.build.id} entry={entry} />
          ))}
        </ul>
      )}
    </main>
  )
}

function GarageRow({ entry }: { entry: GarageEntry }) {
  const { build, mass, powerToMass } = entry
  const trouble = [
    entry.brokenLimits > 0 && `${entry.brokenLimits === 1 ? 'one limit' : `${entry.brokenLimits} limits`} broken`,
    entry.limitsThatWouldBreak > 0 && `${entry.limitsThatWouldBreak === 1 ? 'one limit' : `${entry.limitsThatWouldBreak} limits`} would break`,
  ].filter(Boolean)
  const late = [
    entry.lateStages > 0 && `${entry.lateStages} late ${entry.lateStages === 1 ? 'stage' : 'stages'}`,
    entry.lateTargets > 0 && `${entry.lateTargets} late ${entry.lateTargets === 1 ? 'target' : 'targets'}`,
  ].filter(Boolean)
  return (
    <li className="grid items-baseline gap-x-6 gap-y-1 border-t border-line py-4 sm:grid-cols-[1.3fr_1fr_auto_auto]">
      <div>
        <Link to={`/builds/${build.id}/board`} className="text-lg font-bold underline decoration-line decoration-2 underline-offset-4">
          {build.name}
        </Link>
        <p className="text-quiet">{[DISCIPLINE_WORDS[build.discipline], DRIVE_WORDS[build.drivenAxles], build.className].filter(Boolean).join(', ')}</p>
      </div>
      <div>
        <p>
          {entry.reachedPosition === null
            ? 'nothing measured yet'
            : `stage ${entry.reachedPosition} of ${entry.stageCount - 1}, ${entry.reachedName}, ${entry.reachedState}`}
        </p>
        {entry.problem && <p className="font-semibold text-danger">{entry.problem}</p>}
        {trouble.length > 0 && <p className="font-semibold text-danger">{trouble.join(', ')}</p>}
        {late.length > 0 && <p className="text-wait">{late.join(', ')}</p>}
        {!entry.problem && trouble.length === 0 && late.length === 0 && <p className="text-quiet">nothing broken or late</p>}
      </div>
      <p className="text-right text-lg">
        {mass ? (
          <Figure kind="mass" value={mass.value} sd={mass.sd} proof={mass.proof} className="font-bold" />
        ) : (
          <span className="text-sm text-quiet">no mass yet</span>
        )}
      </p>
      <p className="text-right text-lg">
        {powerToMass ? (
          <Figure kind="powerToMass" value={powerToMass.value} sd={powerToMass.sd} proof={powerToMass.proof} className="font-bold" />
        ) : (
          <span className="text-sm text-quiet">no power to weight yet</span>
        )}
      </p>
    </li>
  )
}
