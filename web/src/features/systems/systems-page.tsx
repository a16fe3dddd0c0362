import type { SystemsRoom, SystemsStage } from '@bold-ballast/core'
import { formatChance } from '@bold-ballast/core'
import { api } from '../../data/api.ts'
import { useBuild } from '../../data/use-build.ts'
import { type RoomProps, useRoomOpening } from '../../shared/room-opening.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import { TABS } from './tabs.ts'

/** Will wires, gaps and coolers carry it. */
export function SystemsPage() {
  const { buildId } = useBuild()
  const opening = useRoomOpening<SystemsStage, SystemsRoom>(api.useSystemsQuery(buildId), 'the systems')
  return 'instead' in opening ? opening.instead : <Room {...opening.props} />
}

type Text = ReturnType<typeof useQuantities>['text']

const NEWS: Readonly<Record<string, (made: SystemsStage, text: Text) => string>> = {
  electrics: ({ electrics: { first, circuits, box } }) => {
    if (circuits.length === 0) return 'Type the circuits; the box fills itself.'
    if (!box) return `${circuits.length} circuits, and no box to feed them yet`
    return first?.factor == null ? 'Nothing is placed yet: o places the circuits' : `${first.key} trips first, at ${first.factor.toFixed(2)} times its load`
  },
  cooling: ({ coolers: { coolant } }, text) => {
    if (!coolant) return 'Will it stay cool? Say what cools it.'
    if ('refused' in coolant) return coolant.refused
    return `Settled at ${text('temperature', coolant.hotK, { decimals: 0 })} on a hot day, ${formatChance(coolant.chanceUnder)} under ${text('temperature', coolant.setup.plan.stopK, { decimals: 0 })}`
  },
  gaps: ({ gaps }, text) => {
    const known = gaps.filter(({ headroomM }) => headroomM !== null)
    const [least] = known
    if (!least || least.hotM === null)
      return gaps.length === 0 ? 'What comes too near once it is hot? Type the gaps.' : `${gaps.length} gaps, none of them measured`
    const tight = known.filter(({ verdict }) => verdict !== 'holds').length
    return tight === 0
      ? `${known.length} gaps hold by this sum`
      : `${least.check.name}: ${text('length', least.hotM, { decimals: 0 })} hot, ${text('length', least.needM, { decimals: 0 })} wanted`
  },
  alarms: ({ alarms }) =>
    alarms.length === 0 ? 'What is read, and what must cry?' : `${alarms.length} ${alarms.length === 1 ? 'reading has' : 'readings have'} limits`,
}

function Room({ records, made, position, stageId }: RoomProps<SystemsRoom, SystemsStage>) {
  const [tab, open] = useTab(TABS)
  const { text } = useQuantities()
  return (
    <>
      <title>{`${records.build.name}: Systems · Bold Ballast`}</title>
      <h1 className="mb-3">{NEWS[tab.path]?.(made, text) ?? 'Systems'}</h1>
      <Tabs tabs={TABS} tab={tab} open={open} />
      <OpenTab tab={tab} props={{ records, made, position, stageId }} />
    </>
  )
}
