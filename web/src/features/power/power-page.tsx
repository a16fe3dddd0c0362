import { lazy, Suspense, useState } from 'react'
import { api } from '../../api/api.ts'
import { useBuild } from '../../app/use-build.ts'
import { CsvButton } from '../../ui/csv-button.tsx'
import { Panel } from '../../ui/dialog.tsx'
import { Figure } from '../../ui/figure.tsx'
import { localTime } from '../../ui/form-reader.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { RecordForm } from '../../ui/record-form.tsx'
import { Empty, LoadError, Loading } from '../../ui/states.tsx'
import { Tabs, useTab } from '../../ui/tabs.tsx'
import { useAsked } from '../../ui/use-asked.ts'
import { pullsTable } from '../files/record-tables.ts'
import { PullCurves } from './pull-curves.tsx'
import { PullImport } from './pull-import.tsx'
import { sessionBody, sessionFieldSpecs } from './session-form.ts'
import { SessionList } from './session-list.tsx'

const TABS = ['pulls', 'compare'] as const
const CompareTab = lazy(async () => ({ default: (await import('./compare-tab.tsx')).CompareTab }))

/** Dyno sessions of the build, the pulls that stand, and what the picked stage makes. */
export function PowerPage() {
  const { records, board, buildId, position, stage } = useBuild()
  const { data: room, error, refetch } = api.usePowerQuery(buildId)
  const { text, units } = useQuantities()
  const [isAdding, setIsAdding] = useAsked('session')
  const [importing, setImporting] = useState<string | null>(null)
  const [tab, open] = useTab(TABS)
  const [create] = api.useCreateRecordMutation()
  if (error && !room) return <LoadError error={error} retry={refetch} />
  if (!records || !board || !stage) return null
  if (!room) return <Loading what="the dyno sessions" />
  const power = room.stages[position]
  const from = power?.fromPosition
  const title = !power
    ? `Stage ${position}: no power measured or expected`
    : power.isMeasuredHere
      ? `Stage ${position}: ${text('power', power.value, { sd: power.sd })} measured`
      : `Stage ${position}: ${text('power', power.value, { sd: power.sd })} ${from === null || from === undefined || from === position ? 'expected' : `from stage ${from}`}`
  const { powerBasis } = records.build
  const importingSession = records.sessions.find((session) => session.id === importing)
  return (
    <>
      <title>{`${records.build.name}: Power · Bold Ballast`}</title>
      <div className="mb-4 flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h1>{title}</h1>
        <p className="text-quiet">
          counted at the {powerBasis.place === 'roller' ? 'rollers' : powerBasis.place === 'hub' ? 'hubs' : 'engine'},{' '}
          {powerBasis.standard === 'none' ? 'as observed' : powerBasis.standard}
        </p>
        <span className="ml-auto flex items-center gap-4">
          {records.pulls.length > 0 && <CsvButton name={`${records.build.name}-pulls`} table={() => pullsTable(records, room, units)} />}
          <button type="button" className="button button-strong" onClick={() => setIsAdding(true)}>
            New session
          </button>
        </span>
      </div>
      {records.sessions.length === 0 ? (
        <Empty
          title="No dyno session yet"
          why="A session is one visit: where, in which air, on which fuel. Its pulls come from a CSV file; the Board counts those on the build’s basis."
        >
          <button type="button" className="button" onClick={() => setIsAdding(true)}>
            Enter the first session
          </button>
        </Empty>
      ) : (
        <>
          <Tabs names={TABS} words={{ pulls: 'Pulls', compare: 'Compare' }} tab={tab} open={open} />
          {tab === 'compare' ? (
            <Suspense fallback={<Loading what="the comparison" />}>
              <CompareTab records={records} />
            </Suspense>
          ) : (
            <div className="grid gap-8 min-[1180px]:grid-cols-[1fr_360px]">
              <PullCurves records={records} room={room} position={position} />
              <aside className="grid content-start gap-6 min-[1180px]:border-l min-[1180px]:border-line min-[1180px]:pl-5">
                {power && (
                  <section>
                    <h2>
                      Stage {position} {stage.name}
                    </h2>
                    <p className="text-[32px] leading-tight font-bold">
                      <Figure
                        kind="power"
                        value={power.value}
                        sd={power.sd}
                        proof={power.proof as 'measured'}
                        showSpread
                        working={{ of: 'power', id: stage.id }}
                      />
                    </p>
                  </section>
                )}
                <SessionList records={records} room={room} position={position} startImport={setImporting} />
              </aside>
            </div>
          )}
        </>
      )}
      {isAdding && (
        <Panel title="A dyno session" onClose={() => setIsAdding(false)}>
          <p className="mb-3 border-l-4 border-wait pl-3">
            Straps checked, nobody beside or behind the wheels, fan and extraction on, a stop signal agreed. Follow the dyno operator’s rules.
          </p>
          <RecordForm
            draftKey={`${buildId}.session`}
            fields={sessionFieldSpecs(records.stages, units)}
            defaults={{
              stage: stage.id,
              at: localTime(new Date()),
              place: powerBasis.place,
              printedStandard: powerBasis.standard,
              boostControl: 'none',
              pressureKind: 'station',
            }}
            submitLabel="Store the session"
            toBody={(read, id) => ({ id, ...sessionBody(read) })}
            send={(body) => create({ buildId, resource: 'sessions', body }).unwrap()}
            onDone={(body) => {
              setIsAdding(false)
              setImporting(String(body.id))
            }}
          />
        </Panel>
      )}
      {importingSession && <PullImport buildId={buildId} session={importingSession} onClose={() => setImporting(null)} />}
    </>
  )
}
