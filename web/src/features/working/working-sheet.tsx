import type { WorkingLine, WorkingSubject } from '@bold-ballast/core'
import { Link, useParams, useSearchParams } from 'react-router'
import { api, readFailure } from '../../data/api.ts'
import { Panel } from '../../ui/dialog.tsx'
import { Figure } from '../../ui/figure.tsx'
import { LoadError, Loading } from '../../ui/states.tsx'

/** The explanation of one number: formula, each input with where it came from, sources, assumptions. */
export function WorkingSheet() {
  const buildId = useParams().buildId as string
  const [search, setSearch] = useSearchParams()
  const [subject = '', id = ''] = (search.get('working') ?? '').split(':')
  const { data, error, refetch } = api.useWorkingQuery({ buildId, of: subject as WorkingSubject, id })
  // The server knows which numbers can be opened.
  const isUnknown = error !== undefined && readFailure(error).problem?.code === 'bad-input'
  const close = () => {
    const next = new URLSearchParams(search)
    next.delete('working')
    setSearch(next)
  }
  return (
    <Panel side title={data?.title ?? 'Working'} onClose={close}>
      {isUnknown ? (
        <p>The address names no number that has a working.</p>
      ) : error ? (
        <LoadError error={error} retry={refetch} />
      ) : !data ? (
        <Loading what="the working" />
      ) : (
        <div className="grid gap-4">
          <p className="text-2xl font-bold">
            <Line line={data.result} isResult />
          </p>
          <section>
            <h2 className="mb-1">What it rests on</h2>
            <table className="w-full">
              <tbody>
                {data.lines.map((line, i) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: two lines of a working may read alike; their place tells them apart
                  <tr key={`${line.label}${i}`} className="border-t border-line align-baseline">
                    <th scope="row" className="py-1.5 pr-3 font-normal text-ink">
                      {line.label}
                      {line.typed && <span className="block text-xs text-quiet">typed “{line.typed}”</span>}
                      {line.note && <span className="block text-xs text-quiet">{line.note}</span>}
                    </th>
                    <td className="py-1.5 text-right">
                      <Line line={line} />
                    </td>
                  </tr>
                ))}
              </tbody>
            </table>
          </section>
          {data.remarks.length > 0 && (
            <ul className="list-disc pl-4">
              {data.remarks.map((remark) => (
                <li key={remark}>{remark}</li>
              ))}
            </ul>
          )}
          <section>
            <h2 className="mb-1">Formula</h2>
            <p className="border-l-4 border-line pl-3">{data.formula}</p>
            <p className="mt-1 text-xs text-quiet">
              {data.sources.join('. ')}.{' '}
              <Link to={`/formulas/${data.calculation}`} className="word-link">
                Formula {data.calculation}
              </Link>
            </p>
          </section>
          <section>
            <h2 className="mb-1">It would be wrong if these did not hold</h2>
            <ul className="list-disc pl-4">
              {data.assumptions.map((assumption) => (
                <li key={assumption}>{assumption}</li>
              ))}
            </ul>
          </section>
        </div>
      )}
    </Panel>
  )
}

function Line({ line, isResult = false }: { line: WorkingLine; isResult?: boolean }) {
  if (line.value === null) return <span className="text-quiet">unknown</span>
  return (
    <Figure
      kind={line.kind}
      value={line.value}
      sd={line.sd}
      proof={line.proof}
      sign={line.isSigned ?? false}
      showSpread={line.sd !== undefined}
      className={isResult ? 'text-[28px]' : ''}
    />
  )
}
