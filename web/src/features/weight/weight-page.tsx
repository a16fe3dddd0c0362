import { Suspense } from 'react'
import { api } from '../../data/api.ts'
import { useBuild } from '../../data/use-build.ts'
import { lazyPart } from '../../ui/lazy-part.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { LoadError, Loading } from '../../ui/states.tsx'
import { Tabs, useTab } from '../../ui/tabs.tsx'
import { Forecast } from './finished/forecast.tsx'
import { Ledger } from './ledger/ledger.tsx'
import { Scales } from './scales/scales.tsx'
import { LatestWeighing } from './scales/weighing-figure.tsx'

const TABS = ['ledger', 'score', 'scales', 'finished', 'centre', 'balance', 'ballast'] as const
const WORDS: Record<(typeof TABS)[number], string> = {
  ledger: 'Ledger',
  score: 'Score',
  scales: 'Scales',
  finished: 'Finished car',
  centre: 'Centre',
  balance: 'Corner balance',
  ballast: 'Ballast',
}
const ScoreTab = lazyPart(async () => (await import('./score/score-tab.tsx')).ScoreTab)
const FinishedTab = lazyPart(async () => (await import('./finished/finished-tab.tsx')).FinishedTab)
const CentreTab = lazyPart(async () => (await import('./centre/centre-tab.tsx')).CentreTab)
const BalanceTab = lazyPart(async () => (await import('./balance/balance-tab.tsx')).BalanceTab)
const BallastTab = lazyPart(async () => (await import('./ballast/ballast-tab.tsx')).BallastTab)
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
  const title =
    position === 0
      ? 'Stage 0: the car as bought'
      : `Stage ${position}: ${text('mass', score?.bankedKg ?? 0)} banked, ${(score?.waitingKg ?? 0) === 0 ? 'nothing waits' : `${text('mass', score?.waitingKg ?? 0)} waits`}`
  const flagged = room.weighings.filter((entry) => entry.unexplained?.isFlagged)
  return (
    <>
      <title>{`${records.build.name}: Weight · Bold Ballast`}</title>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-4">
        <h1>{title}</h1>
        {flagged.length > 0 && <p className="text-wait">scales and ledger disagree once</p>}
      </div>
      <Tabs names={TABS} words={WORDS} tab={tab} open={open} />
      <div className={WITH_ASIDE.includes(tab) ? 'grid gap-8 min-[1180px]:grid-cols-[1fr_330px]' : ''}>
        <div className="min-w-0">
          <Suspense fallback={<Loading what={WORDS[tab].toLowerCase()} />}>
            {tab === 'ledger' && <Ledger records={records} room={room} position={position} stageId={stage.id} />}
            {tab === 'score' && <ScoreTab records={records} board={board} room={room} position={position} />}
            {tab === 'scales' && <Scales records={records} room={room} stageId={stage.id} />}
            {tab === 'finished' && <FinishedTab records={records} board={board} room={room} position={position} />}
            {tab === 'centre' && <CentreTab records={records} room={room} />}
            {tab === 'balance' && <BalanceTab records={records} room={room} stageId={stage.id} />}
            {tab === 'ballast' && <BallastTab key={stage.id} records={records} room={room} position={position} stageId={stage.id} />}
          </Suspense>
        </div>
        {WITH_ASIDE.includes(tab) && (
          <aside className="grid content-start gap-8 min-[1180px]:border-l min-[1180px]:border-line min-[1180px]:pl-5">
            <Forecast records={records} board={board} room={room} />
            <LatestWeighing records={records} room={room} />
          </aside>
        )}
      </div>
    </>
  )
}
