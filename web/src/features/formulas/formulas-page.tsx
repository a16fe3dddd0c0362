import type { CalculationDescription } from '@bold-ballast/contract'
import { Link, NavLink, useParams } from 'react-router'
import { api } from '../../data/api.ts'
import { LoadError, Loading } from '../../ui/states.tsx'
import { Formula, SymbolTable } from './formula.tsx'
import { TryForm } from './try-form.tsx'

const SUBJECT_WORDS: Record<string, string> = { air: 'Air', dyno: 'Dyno', engine: 'Engine', mass: 'Mass', build: 'The car at a stage' }
const subjectOf = (name: string) => name.split('.')[0] ?? ''

/** Every registered calculation: formula, units, range, sources and schools, and a form to try it. */
export function FormulasPage() {
  const { name } = useParams()
  const { data, error, refetch } = api.useCalculationsQuery()
  if (error) return <LoadError error={error} retry={refetch} />
  if (!data) return <Loading what="the formulas" />
  const picked = data.find((entry) => entry.name === name)
  const subjects = [...new Set(data.map((entry) => subjectOf(entry.name)))]
  return (
    <div className="flex flex-1 flex-col min-[900px]:flex-row">
      <title>{`${picked?.title ?? 'Formulas'} · Bold Ballast`}</title>
      <nav aria-label="Calculations" className="no-print border-line bg-page p-3 min-[900px]:w-[260px] min-[900px]:shrink-0 min-[900px]:border-r">
        {subjects.map((subject) => (
          <section key={subject} className="mb-3">
            <h2 className="px-2 text-xs text-quiet">{SUBJECT_WORDS[subject] ?? subject}</h2>
            {data
              .filter((entry) => subjectOf(entry.name) === subject)
              .map((entry) => (
                <NavLink
                  key={entry.name}
                  to={`/formulas/${entry.name}`}
                  className={({ isActive }) =>
                    `flex min-h-8 items-center rounded px-2 font-semibold ${isActive ? 'bg-bar text-white' : 'text-quiet hover:text-ink'}`
                  }
                >
                  {entry.title}
                </NavLink>
              ))}
          </section>
        ))}
      </nav>
      <main id="page" tabIndex={-1} className="min-w-0 flex-1 px-5 pt-4 pb-10 outline-none">
        {picked ? (
          <Calculation key={picked.name} calculation={picked} />
        ) : name ? (
          <>
            <h1>No calculation has this name</h1>
            <p className="my-3">
              <Link to="/formulas" className="word-link">
                All formulas
              </Link>
            </p>
          </>
        ) : (
          <Overview calculations={data} />
        )}
      </main>
    </div>
  )
}

function Overview({ calculations }: { calculations: readonly CalculationDescription[] }) {
  return (
    <>
      <h1 className="mb-1">{calculations.length} calculations, each with its formula and source</h1>
      <p className="mb-4 max-w-[70ch] text-quiet">
        Whatever number the screens show was worked out by one of these. Pick one to read it and to try it with numbers of your own.
      </p>
      <dl className="max-w-[90ch]">
        {calculations.map(({ name, title, formula }) => (
          <div key={name} className="grid gap-x-6 border-t border-line py-2 sm:grid-cols-[260px_1fr]">
            <dt>
              <Link to={`/formulas/${name}`} className="word-link">
                {title}
              </Link>
            </dt>
            <dd className="min-w-0 text-quiet">{formula}</dd>
          </div>
        ))}
      </dl>
    </>
  )
}

function Calculation({ calculation }: { calculation: CalculationDescription }) {
  const { name, title, formula, validRange, schools, sources, assumptions } = calculation
  const lists = [
    { head: 'It would be wrong if these did not hold', items: assumptions },
    { head: 'Schools', items: schools },
    { head: 'Sources', items: sources },
  ].filter(({ items }) => items.length > 0)
  return (
    <>
      <h1>{title}</h1>
      <p className="mb-4 font-mono text-xs text-quiet">{name}</p>
      <div className="grid gap-x-10 gap-y-6 min-[1180px]:grid-cols-[minmax(0,1fr)_420px]">
        <div>
          <Formula lines={calculation.typeset.lines} plain={formula} />
          <SymbolTable symbols={calculation.typeset.symbols} />
          <h2>Where it holds</h2>
          <p className="mb-4">{validRange}.</p>
          {lists.map(({ head, items }) => (
            <section key={head} className="mb-4">
              <h2>{head}</h2>
              <ul className="list-disc pl-4">
                {items.map((item) => (
                  <li key={item}>{item}</li>
                ))}
              </ul>
            </section>
          ))}
        </div>
        <TryForm calculation={calculation} />
      </div>
    </>
  )
}
