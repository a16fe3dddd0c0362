import type { RoomTest } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { Figure } from '../../../ui/figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert } from '../../../ui/states.tsx'

/** Pairs of a test with what each says; one is set aside with its reason, and put back. */
export function PairsTable({ buildId, test }: { buildId: string; test: RoomTest }) {
  const { text } = useQuantities()
  const [patch] = api.usePatchRecordMutation()
  const [asked, setAsked] = useState<string | null>(null)
  const [reason, setReason] = useState('')
  const [failure, setFailure] = useState<string | null>(null)
  const put = async (runId: string, version: number, setAside: string | null) => {
    const answer = await patch({ buildId, resource: 'aero-runs', id: runId, body: { version, setAside } })
    setFailure(answer.error ? readFailure(answer.error).message : null)
    if (answer.error) return
    setAsked(null)
    setReason('')
  }
  return (
    <>
      {failure && <Alert className="my-2">{failure}</Alert>}
      <ScrollBox label="Pairs of the test">
        <table className="mt-3 w-full">
          <thead>
            <tr className="text-xs text-quiet">
              <th className="text-left font-normal">Pair</th>
              <th className="text-right font-normal">drag area</th>
              <th className="pl-3 text-right font-normal">rolling</th>
              <th className="pl-3 text-right font-normal">wind out</th>
              <th className="pl-3 text-right font-normal">slope out</th>
              <th className="pl-3 text-right font-normal">off the fit by</th>
              <th />
            </tr>
          </thead>
          <tbody>
            {test.pairs.map((pair) => (
              <tr key={pair.runId} className={`border-t border-line ${pair.setAside === null ? '' : 'text-quiet line-through decoration-1'}`}>
                <th scope="row" className="py-1 text-left font-normal">
                  {pair.position + 1}
                </th>
                <td className="py-1 text-right">
                  <Figure kind="area" value={pair.dragAreaM2} decimals={3} />
                </td>
                <td className="py-1 pl-3 text-right tabular-nums">{pair.rollingCoefficient.toFixed(4)}</td>
                <td className="py-1 pl-3 text-right">
                  <Figure kind="speed" value={pair.windMps} sign decimals={1} />
                </td>
                <td className="py-1 pl-3 text-right">
                  <Figure kind="share" value={pair.grade} sign decimals={2} />
                </td>
                <td className="py-1 pl-3 text-right">{text('speed', pair.residualMps, { decimals: 2 })}</td>
                <td className="py-1 pl-3 no-underline">
                  {pair.setAside !== null ? (
                    <button type="button" className="word-link" onClick={() => void put(pair.runId, pair.version, null)}>
                      put back
                    </button>
                  ) : asked === pair.runId ? (
                    <form
                      className="flex gap-2"
                      onSubmit={(event) => {
                        event.preventDefault()
                        if (reason.trim() === '') setFailure('Say why the pair is set aside, such as: a lorry passed.')
                        else void put(pair.runId, pair.version, reason.trim())
                      }}
                    >
                      <input
                        ref={(input) => input?.focus()}
                        aria-label={`Why pair ${pair.position + 1} is set aside`}
                        value={reason}
                        onChange={(event) => setReason(event.target.value)}
                      />
                      <button type="submit" className="button">
                        Set aside
                      </button>
                    </form>
                  ) : (
                    <button type="button" className="word-link" onClick={() => setAsked(pair.runId)}>
                      set aside
                    </button>
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollBox>
      {test.pairs.flatMap(({ runId, position, setAside }) =>
        setAside === null ? (
          []
        ) : (
          <p key={runId} className="text-xs text-quiet">
            Pair {position + 1} counts nowhere: {setAside}.
          </p>
        ),
      )}
    </>
  )
}
