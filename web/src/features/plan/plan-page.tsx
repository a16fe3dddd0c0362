import { useBuild } from '../../data/use-build.ts'
import { CsvButton, type CsvTable } from '../../ui/files/csv-button.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import { expectationsTable, goalsTable, stagesTable } from './tables.ts'
import { TABS } from './tabs.ts'

/** Stages, targets, limits and what a stage should give. */
export function PlanPage() {
  const { records, board, buildId } = useBuild()
  const [tab, open] = useTab(TABS)
  const { units } = useQuantities()
  if (!records || !board) return null
  const open1 = board.stages.filter((stage) => stage.state === 'planned').length
  const late = board.stages.filter((stage) => stage.isLate).length
  const tables: Record<string, () => CsvTable> = {
    stages: () => stagesTable(records, board),
    goals: () => goalsTable(records, units),
    expectations: () => expectationsTable(records, units),
  }
  const table = tables[tab.path]
  return (
    <>
      <title>{`${records.build.name}: Plan · Bold Ballast`}</title>
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-4">
        <h1>
          {records.stages.length} {records.stages.length === 1 ? 'stage' : 'stages'}, {open1} still planned{late > 0 ? `, ${late} late` : ''}
        </h1>
        {table && <CsvButton name={`${records.build.name}-${tab.path}`} table={table} />}
      </div>
      <Tabs tabs={TABS} tab={tab} open={open} />
      <OpenTab tab={tab} props={{ records, buildId }} />
    </>
  )
}
