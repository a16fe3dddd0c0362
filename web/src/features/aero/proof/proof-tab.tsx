import type { RoomTest } from '@bold-ballast/core'
import { useMemo, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { Figure } from '../../../ui/figure.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert, Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import type { AeroTabProps } from '../tab-props.ts'
import { CoastPlanner } from './coast-plan.tsx'
import { CompareTests } from './compare-tests.tsx'
import { PairsTable } from './pairs-table.tsx'
import { RunsChart } from './runs-chart.tsx'
import { TestPanel } from './test-panel.tsx'
import { lanesOf, TestsFigure } from './tests-figure.tsx'

/** What a test told against what was said before it, in a sentence. */
function toldWords({ told }: RoomTest, percent: (share: number) => string): string | null {
  if (!told) return null
  const by = told.fromTest === null ? 'The devices by their own values' : `${told.fromTest} and the devices since`
  const off = Math.abs(told.highBy) < 0.005 ? 'the same' : `${percent(Math.abs(told.highBy))} too ${told.highBy > 0 ? 'high' : 'low'}`
  return `${by} said ${told.of} ${off}${told.isOff ? ', beyond the spread of both' : ', within the spread of both'}.`
}

/** One test: what came of it, its pairs, and whether it stands. */
function TestDetail({ buildId, test, isAtTyres, open }: { buildId: string; test: RoomTest; isAtTyres: boolean; open: () => void }) {
  const { text } = useQuantities()
  const [patch] = api.usePatchRecordMutation()
  const [failure, setFailure] = useState<string | null>(null)
  const told = toldWords(test, (share) => text('share', share, { decimals: 0 }))
  const put = async (setAside: string | null) => {
    const answer = await patch({ buildId, resource: 'aero-tests', id: test.id, body: { version: test.version, setAside } })
    setFailure(answer.error ? readFailure(answer.error).message : null)
  }
  return (
    <section aria-label="The test">
      <h2 className="mb-1">
        {test.name}, {dayText(test.at)}, stage {test.position}
      </h2>
      {failure && <Alert className="my-2">{failure}</Alert>}
      <dl className="flex flex-wrap gap-x-8 gap-y-2">
        {test.drag && (
          <>
            <div>
              <dt className="text-xs text-quiet">Drag area</dt>
              <dd className="text-[22px] font-bold">
                <Figure kind="area" value={test.drag.areaM2} sd={test.drag.sdM2} decimals={3} showSpread />
              </dd>
            </div>
            <div>
              <dt className="text-xs text-quiet">Rolling</dt>
              <dd className="text-[22px] font-bold tabular-nums">{test.drag.rollingCoefficient.toFixed(4)}</dd>
            </div>
          </>
        )}
        {test.loads &&
          (['front', 'rear'] as const).map((axle) => (
            <div key={axle}>
              <dt className="text-xs text-quiet">Down on the {axle} tyres</dt>
              <dd className="text-[22px] font-bold">
                <Figure kind="area" value={test.loads?.[`${axle}M2`] ?? 0} sd={test.loads?.[`${axle}SdM2`] ?? 0} decimals={3} showSpread />
              </dd>
            </div>
          ))}
      </dl>
      <p className="mt-1">
        {told ?? ''} Air {test.airDensityKgM3.toFixed(3)} kg/m³{test.hasAir ? '' : ', the build’s: this test has no air record'}.
      </p>
      {test.pitot && (
        <p className="mt-1">
          By the pitot tube, which reads {text('share', Math.abs(test.pitot.factor - 1), { decimals: 0 })} too {test.pitot.factor >= 1 ? 'much' : 'little'}:
          wind of {text('speed', Math.abs(test.pitot.headWindMps), { decimals: 1 })}, {test.pitot.headWindMps >= 0 ? 'against the way out' : 'with the way out'}
          . Loads stand over the speed of the air.
        </p>
      )}
      {test.kind === 'steady' && !isAtTyres && (
        <p className="border-l-4 border-wait pl-3">
          Loads are read at the tyres and this car quotes its balance by where downforce acts: the test stands for nothing until that is picked otherwise.
        </p>
      )}
      {test.setAside !== null && <p className="border-l-4 border-edge pl-3">Set aside: {test.setAside}.</p>}
      {test.whyNot && test.setAside === null && <p className="border-l-4 border-wait pl-3">{test.whyNot}</p>}
      {test.kind === 'coastDown' && test.pairs.length > 0 && <PairsTable buildId={buildId} test={test} />}
      <p className="mt-2 flex flex-wrap gap-4">
        <button type="button" className="word-link" onClick={open}>
          Edit it, or add runs
        </button>
        <button type="button" className="word-link" onClick={() => void put(test.setAside === null ? 'set aside by hand' : null)}>
          {test.setAside === null ? 'Set the whole test aside' : 'Let it count again'}
        </button>
      </p>
    </section>
  )
}

/** Tests of the whole car: what they gave against what was said, each pair, before and after, and what a test would tell. */
export function ProofTab({ records, room, made, position, stageId, totals }: AeroTabProps) {
  const address = useAddress()
  const [isTyping, setIsTyping] = useAsked('test')
  const [holder, width] = useWidth<HTMLDivElement>(680)
  const { tests } = room
  const drags = lanesOf(tests, 'coastDown')
  const loads = lanesOf(tests, 'steady')
  const picked = tests.find(({ id }) => id === address.get('test')) ?? tests.at(-1)
  const runs = useMemo(() => records.aeroRuns.filter(({ testId }) => testId === picked?.id), [records.aeroRuns, picked?.id])
  const edit = (id: string) => {
    address.set({ edit: id })
    setIsTyping(true)
  }
  return (
    <>
      {tests.length === 0 ? (
        <Empty
          title="Nothing was tested yet"
          why="Coast down both ways on a level road and the drag of the whole car stands in place of what its devices are thought to do. Hold three speeds with the ride height read, and its downforce does."
        >
          <button type="button" className="button button-strong" onClick={() => edit('')}>
            New test
          </button>
        </Empty>
      ) : (
        <div className="grid gap-x-8 gap-y-4 lg:grid-cols-[minmax(0,1fr)_minmax(0,520px)]">
          <div ref={holder} className="min-w-0">
            <div className="mb-2 flex flex-wrap items-center gap-3">
              <button type="button" className="button" onClick={() => edit('')}>
                New test
              </button>
              <label className="flex items-center gap-2 text-xs text-quiet">
                look at
                <select value={picked?.id ?? ''} onChange={(event) => address.set({ test: event.target.value })} className="text-sm text-ink">
                  {tests.map(({ id, name, at }) => (
                    <option key={id} value={id}>
                      {name}, {dayText(at)}
                    </option>
                  ))}
                </select>
              </label>
            </div>
            {[
              { lanes: drags, word: 'Drag area' },
              { lanes: loads, word: 'Downforce' },
            ].map(({ lanes, word }) =>
              lanes.length === 0 ? null : (
                <ScrollBox key={word} label={`${word} by test`}>
                  <TestsFigure lanes={lanes} picked={picked?.id ?? ''} pick={(id) => address.set({ test: id })} width={Math.max(520, width)} word={word} />
                </ScrollBox>
              ),
            )}
            <p className="mt-1 text-xs text-quiet">Dots are pairs, the bar their mean with one spread either way; hatched, what was said before the test.</p>
            {picked?.kind === 'coastDown' && picked.pairs.length > 0 && (
              <>
                <h3 className="mt-4 font-semibold">Each run: out solid, back dashed</h3>
                <RunsChart runs={runs} />
              </>
            )}
          </div>
          <div className="min-w-0">
            {picked && (
              <TestDetail
                key={picked.id}
                buildId={records.build.id}
                test={picked}
                isAtTyres={room.basis.balanceSchool === 'contactPatches'}
                open={() => edit(picked.id)}
              />
            )}
          </div>
        </div>
      )}
      <div className="mt-6 grid gap-x-8 gap-y-4 lg:grid-cols-2">
        <CompareTests records={records} tests={tests} />
        <CoastPlanner made={made} room={room} totals={totals} />
      </div>
      {isTyping && (
        <Panel title={address.get('edit') ? 'A test' : 'A new test'} onClose={() => setIsTyping(false)}>
          <TestPanel records={records} room={room} stageId={stageId} position={position} testId={address.get('edit')} onDone={() => setIsTyping(false)} />
        </Panel>
      )}
    </>
  )
}
