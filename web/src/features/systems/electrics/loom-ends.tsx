import { type Circuit, loomView } from '@bold-ballast/core'
import { useMemo } from 'react'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { pinsTable } from '../tables.ts'

/** The loom by its ends: what is on each pin, and what a strip must leave in. */
export function LoomEnds({ circuits, name }: { circuits: readonly Circuit[]; name: string }) {
  const view = useMemo(() => loomView(circuits), [circuits])
  const { connectors, splices, stays, goes } = view
  if (circuits.length === 0) return null
  return (
    <div className="mt-2 grid gap-5 min-[900px]:grid-cols-2">
      <section>
        <h2 className="mb-1">Pins</h2>
        {connectors.length === 0 ? (
          <p className="text-quiet">No circuit names its ends yet: connector, pin, colour, splice in its form. What else is on a pin is told here.</p>
        ) : (
          <ScrollBox label="Pins and what is on them">
            <table className="w-full border-collapse">
              <thead>
                <tr>
                  <th className="text-left">Connector</th>
                  <th className="pl-3 text-left">Pin</th>
                  <th className="pl-3 text-left">Colour</th>
                  <th className="pl-3 text-left">On it</th>
                </tr>
              </thead>
              <tbody>
                {connectors.flatMap(({ name: connector, pins }) =>
                  pins.map(({ pin, colour, circuits: on }, i) => (
                    <tr key={`${connector} ${pin}`} className="border-t border-line align-baseline">
                      <td className="py-1 font-semibold">{i === 0 ? connector : ''}</td>
                      <td className="py-1 pl-3">{pin ?? '–'}</td>
                      <td className="py-1 pl-3 text-quiet">{colour ?? ''}</td>
                      <td className={`py-1 pl-3 ${on.length > 1 && pin !== null ? 'font-semibold text-wait' : ''}`}>{on.join(', ')}</td>
                    </tr>
                  )),
                )}
                {splices.map(({ name: splice, circuits: on }) => (
                  <tr key={`splice ${splice}`} className="border-t border-line align-baseline">
                    <td className="py-1 font-semibold">Splice {splice}</td>
                    <td />
                    <td />
                    <td className={`py-1 pl-3 ${on.length > 1 ? 'font-semibold text-wait' : ''}`}>{on.join(', ')}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </ScrollBox>
        )}
        {connectors.length > 0 && <CsvButton name={`${name} pins`} table={() => pinsTable(view)} />}
      </section>
      <section>
        <h2 className="mb-1">If the loom is stripped</h2>
        <p>
          <b>Stays in:</b>{' '}
          {stays.length === 0
            ? 'nothing is called vital yet.'
            : stays.map((own) => (own.with === null ? own.name : `${own.name} (joined to ${own.with})`)).join(', ')}
        </p>
        <p className="mt-1">
          <b>May come out:</b> {goes.length === 0 ? 'nothing.' : goes.join(', ')}
        </p>
        <p className="mt-1 text-[13px] text-quiet">
          By what is called vital and by shared pins and splices that were named; lights, horn and wipers as the rules of the class want them.
        </p>
      </section>
    </div>
  )
}
