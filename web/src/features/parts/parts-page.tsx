import { wornParts } from '@bold-ballast/core'
import { Suspense, useState } from 'react'
import { useBuild } from '../../data/use-build.ts'
import { CsvButton } from '../../ui/files/csv-button.tsx'
import { useAsked } from '../../ui/hooks/use-asked.ts'
import { lazyPart } from '../../ui/lazy-part.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { Empty } from '../../ui/states.tsx'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import { PartPanel } from './register/part-panel.tsx'
import { partsTable } from './register/parts-csv.ts'
import { TABS } from './tabs.ts'

const PartsImport = lazyPart(async () => (await import('./register/parts-import.tsx')).PartsImport)

/** How much of a life may be gone before it is said. */

/** The parts of the build: what they can take, what they cost, how long they live; and those that other builds share. */
export function PartsPage() {
  const { records, search, setSearch } = useBuild()
  const { units } = useQuantities()
  const [tab, open] = useTab(TABS)
  const [isAdding, setIsAdding] = useAsked('part')
  const [isImporting, setIsImporting] = useState(false)
  if (!records) return null
  const { parts, build } = records
  const edited = parts.find(({ id }) => id === search.get('part'))
  const edit = (id: string | null) => {
    const next = new URLSearchParams(search)
    if (id === null) next.delete('part')
    else next.set('part', id)
    setSearch(next)
  }
  const fitted = parts.filter(({ status }) => status === 'fitted').length
  const worn = wornParts(records).length
  const title =
    parts.length === 0
      ? 'No part is entered'
      : `${parts.length} ${parts.length === 1 ? 'part' : 'parts'}, ${fitted} fitted${worn > 0 ? `, ${worn} nearly used up` : ''}`
  return (
    <>
      <title>{`${build.name}: Parts · Bold Ballast`}</title>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h1>{title}</h1>
        <span className="ml-auto flex items-center gap-4">
          {parts.length > 0 && <CsvButton name={`${build.name}-parts`} table={() => partsTable(parts, records.stages, units)} />}
          <button type="button" className="button" onClick={() => setIsImporting(true)}>
            Read a CSV
          </button>
          <button type="button" className="button button-strong" onClick={() => setIsAdding(true)}>
            New part
          </button>
        </span>
      </div>
      <Tabs tabs={TABS} tab={tab} open={open} />
      {parts.length === 0 && tab.path !== 'shelf' ? (
        <Empty
          title="Nothing here yet"
          why="A part has a kind, what it can take and how that is known, its mass, cost and life. With an engine plan its ratings show which part gives up first."
        >
          <button type="button" className="button" onClick={() => setIsAdding(true)}>
            Enter the first part
          </button>
        </Empty>
      ) : (
        <OpenTab tab={tab} props={{ records, edit }} />
      )}
      {isAdding && <PartPanel records={records} onClose={() => setIsAdding(false)} />}
      {edited && <PartPanel key={`${edited.id} ${edited.version}`} records={records} part={edited} onClose={() => edit(null)} />}
      {isImporting && (
        <Suspense fallback={null}>
          <PartsImport records={records} onClose={() => setIsImporting(false)} />
        </Suspense>
      )}
    </>
  )
}
