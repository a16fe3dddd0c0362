import type { DynoStatus } from '@bold-ballast/contract'
import { Suspense, useState } from 'react'
import { api } from '../../data/api.ts'
import { useBuild } from '../../data/use-build.ts'
import { CsvButton } from '../../ui/csv-button.tsx'
import { Panel } from '../../ui/dialog.tsx'
import { Figure } from '../../ui/figure.tsx'
import { localTime } from '../../ui/form-reader.ts'
import { lazyPart } from '../../ui/lazy-part.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { RecordForm } from '../../ui/record-form.tsx'
import { Caution, Empty, LoadError, Loading } from '../../ui/states.tsx'
import { Tabs, useTab } from '../../ui/tabs.tsx'
import { useAsked } from '../../ui/use-asked.ts'
import { dayText } from '../../ui/words.ts'
import { pullsTable } from '../files/record-tables.ts'
import { LogUse } from './pulls/log-use.tsx'
import { PullCurves } from './pulls/pull-curves.tsx'
import { airValues, sessionBody, sessionDefaults, sessionFieldSpecs } from './pulls/session-form.ts'
import { SessionList } from './pulls/session-list.tsx'

const TABS = ['pulls', 'compare', 'plan', 'links', 'hours', 'live'] as const
const WORDS = { pulls: 'Pulls', compare: 'Compare', plan: 'Engine plan', links: 'Weak links', hours: 'Hours', live: 'Live pull' }
const PlanTab = lazyPart(async () => (await import('./plan/plan-tab.tsx')).PlanTab)
const LinksTab = lazyPart(async () => (await import('./links/links-tab.tsx')).LinksTab)
const HoursTab = lazyPart(async () => (await import('./hours/hours-tab.tsx')).HoursTab)
const LiveTab = lazyPart(async () => (await import('./live/live-tab.tsx')).LiveTab)
const PullImport = lazyPart(async () => (await import('./pulls/pull-import.tsx')).PullImport)
const CompareTab = lazyPart(async () => (await import('./compare/compare-tab.tsx')).CompareTab)

/** Dyno sessions of the build, the pulls that stand, and what the picked stage makes. */
export function PowerPage() {
  const { records, board, buildId, position, stage } = useBuild()
  const { data: room, error, refetch } = api.usePowerQuery(buildId)
  const { text, units } = useQuantities()
  const [isAdding, setIsAdding] = useAsked('session')
  const [importing, setImporting] = useState<string | null>(null)
  const [tab, open] = useTab(TABS)
  const [editing, setEditing] = useState<string | null>(null)
  const [air, setAir] = useState<DynoStatus['ambient'] | null>(null)
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
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
  const edited = records.sessions.find(({ id }) => id === editing)
  const newSession = (status: DynoStatus | null) => {
    setAir(status?.ambient ?? null)
    setIsAdding(true)
  }
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
          <button type="button" className="button button-strong" onClick={() => newSession(null)}>
            New session
          </button>
        </span>
      </div>
      <Tabs names={TABS} words={WORDS} tab={tab} open={open} />
      <Suspense fallback={<Loading what="the room" />}>
        {tab === 'plan' ? (
          <PlanTab records={records} position={position} stageId={stage.id} />
        ) : tab === 'links' ? (
          <LinksTab records={records} room={room} position={position} />
        ) : tab === 'hours' ? (
          <HoursTab records={records} position={position} stageId={stage.id} />
        ) : tab === 'live' ? (
          <LiveTab records={records} room={room} position={position} stageId={stage.id} newSession={newSession} />
        ) : records.sessions.length === 0 ? (
          <Empty
            title="No dyno session yet"
            why="A session is one visit: where, in which air, on which fuel. Its pulls come from a CSV file; the Board counts those on the build’s basis."
          >
            <button type="button" className="button" onClick={() => setIsAdding(true)}>
              Enter the first session
            </button>
          </Empty>
        ) : tab === 'compare' ? (
          <CompareTab records={records} />
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
              <SessionList records={records} room={room} position={position} startImport={setImporting} edit={setEditing} />
            </aside>
          </div>
        )}
      </Suspense>
      {isAdding && (
        <Panel title="A dyno session" onClose={() => setIsAdding(false)}>
          <Caution className="mb-3">
            Straps checked, nobody beside or behind the wheels, fan and extraction on, a stop signal agreed. Follow the dyno operator’s rules.
          </Caution>
          <RecordForm
            key={JSON.stringify(air)}
            draftKey={`${buildId}.session`}
            fields={sessionFieldSpecs(records.stages, units)}
            defaults={{
              stage: stage.id,
              at: localTime(new Date()),
              place: powerBasis.place,
              printedStandard: air ? 'none' : powerBasis.standard,
              boostControl: 'none',
              boostSchool: powerBasis.boostSchool,
              pressureKind: 'station',
              ...(air ? airValues(air, units) : {}),
            }}
            submitLabel="Store the session"
            toBody={(read, id) => ({ id, ...sessionBody(read) })}
            send={(body) => create({ buildId, resource: 'sessions', body }).unwrap()}
            onDone={(body) => {
              setIsAdding(false)
              if (!air) setImporting(String(body.id))
            }}
          />
        </Panel>
      )}
      {edited && (
        <Panel title={`${edited.dynoName}, ${dayText(edited.at)}`} onClose={() => setEditing(null)}>
          <RecordForm
            draftKey={`${buildId}.session.${edited.id}.${edited.version}`}
            fields={sessionFieldSpecs(records.stages, units)}
            defaults={sessionDefaults(edited, units, powerBasis.boostSchool)}
            submitLabel="Store the session"
            toBody={(read) => ({ version: edited.version, ...sessionBody(read) })}
            send={(body) => patch({ buildId, resource: 'sessions', id: edited.id, body }).unwrap()}
            onDone={() => setEditing(null)}
          />
          <LogUse records={records} session={edited} />
        </Panel>
      )}
      {importingSession && !isAdding && (
        <Suspense fallback={null}>
          <PullImport records={records} session={importingSession} onClose={() => setImporting(null)} />
        </Suspense>
      )}
    </>
  )
}
