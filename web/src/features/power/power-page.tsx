import type { DynoStatus } from '@bold-ballast/contract'
import { standardWords } from '@bold-ballast/core'
import { Suspense, useState } from 'react'
import { api } from '../../data/api.ts'
import { useBuild } from '../../data/use-build.ts'
import { LogUse } from '../../shared/log-use.tsx'
import { Panel } from '../../ui/dialog.tsx'
import { CsvButton } from '../../ui/files/csv-button.tsx'
import { useAsked } from '../../ui/hooks/use-asked.ts'
import { lazyPart } from '../../ui/lazy-part.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { Caution, Empty, LoadError, Loading } from '../../ui/states.tsx'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import { dayText } from '../../ui/words.ts'
import { SessionPanel } from './pulls/session-panel.tsx'
import { pullsTable } from './tables.ts'
import { TABS } from './tabs.ts'

const PullImport = lazyPart(async () => (await import('./pulls/pull-import.tsx')).PullImport)

/** Tabs that show sessions, and so need one. */
const OF_SESSIONS: readonly string[] = ['pulls', 'compare']

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
  if (error && !room) return <LoadError error={error} retry={refetch} />
  if (!records || !board || !stage) return null
  if (!room) return <Loading what="the dyno sessions" />
  const made = room.stages[position]
  const from = made?.fromPosition
  const title = !made
    ? `Stage ${position}: no power measured or expected`
    : made.isMeasuredHere
      ? `Stage ${position}: ${text('power', made.value, { sd: made.sd })} measured`
      : `Stage ${position}: ${text('power', made.value, { sd: made.sd })} ${from === null || from === undefined || from === position ? 'expected' : `from stage ${from}`}`
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
          counted at the {powerBasis.place === 'roller' ? 'rollers' : powerBasis.place === 'hub' ? 'hubs' : 'engine'}, {standardWords(powerBasis.standard)}
        </p>
        <span className="ml-auto flex items-center gap-4">
          {records.pulls.length > 0 && <CsvButton name={`${records.build.name}-pulls`} table={() => pullsTable(records, room, units)} />}
          <button type="button" className="button button-strong" onClick={() => newSession(null)}>
            New session
          </button>
        </span>
      </div>
      <Tabs tabs={TABS} tab={tab} open={open} />
      {records.sessions.length === 0 && OF_SESSIONS.includes(tab.path) ? (
        <Empty
          title="No dyno session yet"
          why="A session is one visit: where, in which air, on which fuel. Its pulls come from a CSV file; the Board counts those on the build’s basis."
        >
          <button type="button" className="button" onClick={() => setIsAdding(true)}>
            Enter the first session
          </button>
        </Empty>
      ) : (
        <OpenTab tab={tab} props={{ records, room, position, stageId: stage.id, newSession, startImport: setImporting, edit: setEditing }} />
      )}
      {isAdding && (
        <Panel title="A dyno session" onClose={() => setIsAdding(false)}>
          <Caution className="mb-3">
            Straps checked, nobody beside or behind the wheels, fan and extraction on, a stop signal agreed. Follow the dyno operator’s rules.
          </Caution>
          <SessionPanel
            records={records}
            stageId={stage.id}
            session={null}
            air={air}
            onDone={(body) => {
              setIsAdding(false)
              if (!air) setImporting(String(body.id))
            }}
          />
        </Panel>
      )}
      {edited && (
        <Panel title={`${edited.dynoName}, ${dayText(edited.at)}`} onClose={() => setEditing(null)}>
          <SessionPanel records={records} stageId={stage.id} session={edited} air={null} onDone={() => setEditing(null)} />
          <LogUse records={records} of={{ sessionId: edited.id }} ran={{ at: edited.at, hours: '1', laps: 0, runs: 0, tyrePartIds: [] }} where="at the dyno" />
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
