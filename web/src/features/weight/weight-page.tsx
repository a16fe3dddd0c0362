import type { LedgerScore, WeightRoom } from '@bold-ballast/core'
import { api } from '../../data/api.ts'
import { useBuild } from '../../data/use-build.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { LoadError, Loading } from '../../ui/states.tsx'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import { Forecast } from './finished/forecast.tsx'
import { LatestWeighing } from './scales/weighing-figure.tsx'
import { TABS } from './tabs.ts'

/** Tabs beside which the finished car and the latest weighing stand. */
const WITH_ASIDE: readonly string[] = ['ledger', 'score', 'scales']

/** What came off and goes on, the scales, and the finished car. */
export function WeightPage() {
  const { records, board, buildId, position, stage } = useBuild()
  const { data: room, error, refetch } = api.useWeightQuery(buildId)
  const { text } = useQuantities()
  const [tab, open] = useTab(TABS)
  if (error && !room) return <LoadError error={error} retry={refetch} />
  if (!records || !board || !stage) return null
  if (!room) return <Loading what="the ledger" />
  const score = room.scores[position]
  const title = position === 0 ? 'Stage 0: the car as bought' : scoreSentence(position, score, room.goalPassed[position] ?? null, text)
  const flagged = room.weighings.filter((entry) => entry.unexplained?.isFlagged && entry.unexplained.unlistedPosition === null)
  return (
    <>
      <title>{`${records.build.name}: Weight · Bold Ballast`}</title>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-4">
        <h1>{title}</h1>
        {flagged.length > 0 && <p className="text-wait">scales and ledger disagree once</p>}
      </div>
      <Tabs tabs={TABS} tab={tab} open={open} />
      <div className={WITH_ASIDE.includes(tab.path) ? 'grid gap-8 min-[1180px]:grid-cols-[1fr_330px]' : ''}>
        <div className="min-w-0">
          <OpenTab key={tab.path === 'ballast' ? stage.id : ''} tab={tab} props={{ records, board, room, position, stageId: stage.id }} />
        </div>
        {WITH_ASIDE.includes(tab.path) && (
          <aside className="grid content-start gap-8 min-[1180px]:border-l min-[1180px]:border-line min-[1180px]:pl-5">
            <Forecast records={records} board={board} room={room} />
            <LatestWeighing records={records} room={room} />
          </aside>
        )}
      </div>
    </>
  )
}

type Text = ReturnType<typeof useQuantities>['text']

/** The evening in the builder's sentence: what is found, what waits, and by how much the goal is passed or missed. */
function scoreSentence(position: number, score: LedgerScore | undefined, goal: WeightRoom['goalPassed'][number], text: Text): string {
  const { foundKg = 0, waitsKg = 0 } = score ?? {}
  const waits = waitsKg === 0 ? 'nothing waits' : `${text('mass', waitsKg)} waits`
  const left = goal && goal.wantedKg - goal.foundKg
  const passed = left === null ? '' : left <= 0 ? `; goal passed by ${text('mass', -left)}` : `; ${text('mass', left)} short of the goal`
  return `Stage ${position}: ${text('mass', foundKg)} found, ${waits}${passed}`
}
