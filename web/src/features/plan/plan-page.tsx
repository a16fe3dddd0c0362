import { Suspense } from 'react'
import { useBuild } from '../../data/use-build.ts'
import { CsvButton } from '../../ui/csv-button.tsx'
import { lazyPart } from '../../ui/lazy-part.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { Loading } from '../../ui/states.tsx'
import { Tabs, useTab } from '../../ui/tabs.tsx'
import { expectationsTable, goalsTable, stagesTable } from '../files/record-tables.ts'
import { ExpectationsTab } from './expectations/expectations-tab.tsx'
import { GoalsTab } from './goals/goals-tab.tsx'
import { StagesTab } from './stages/stages-tab.tsx'

const TABS = ['stages', 'goals', 'expectations', 'car'] as const
const WORDS = { stages: 'Stages', goals: 'Targets and limits', expectations: 'Expected power', car: 'The car' }
const CarTab = lazyPart(async () => (await import('./car/car-tab.tsx')).CarTab)

/** Stages, targets, limits and what a stage should give. */
export function PlanPage() {
  const { records, board, buildId } = useBuild()
  const [tab, open] = useTab(TABS)
  const { units } = useQuantities()
  if (!records || !board) return null
  const open1 = board.stages.filter((stage) => stage.state === 'planned').length
  const late = board.stages.filter((stage) => stage.isLate).length
  const tables = {
    stages: () => stagesTable(records, board),
    goals: () => goalsTable(records, units),
    expectations: () => expectationsTable(records, units),
  }
  return (
    <>
      <title>{`${records.build.name}: Plan · Bold Ballast`}</title>
      <div className="mb-3 flex flex-wrap items-baseline justify-between gap-x-4">
        <h1>
          {records.stages.length} stages, {open1} still planned{late > 0 ? `, ${late} late` : ''}
        </h1>
        {tab !== 'car' && <CsvButton name={`${records.build.name}-${tab}`} table={tables[tab]} />}
      </div>
      <Tabs names={TABS} words={WORDS} tab={tab} open={open} />
      {tab === 'stages' && <StagesTab records={records} buildId={buildId} />}
      {tab === 'goals' && <GoalsTab records={records} buildId={buildId} />}
      {tab === 'car' && (
        <Suspense fallback={<Loading what="the car" />}>
          <CarTab records={records} />
        </Suspense>
      )}
      {tab === 'expectations' && <ExpectationsTab records={records} buildId={buildId} />}
    </>
  )
}
