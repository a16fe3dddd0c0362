import { planOfRoom, type TrackRoom, type TrackRoomStage } from '@bold-ballast/core'
import { useMemo } from 'react'
import { api } from '../../data/api.ts'
import { useBuild } from '../../data/use-build.ts'
import { type RoomProps, useRoomOpening } from '../../shared/room-opening.tsx'
import { useAddress } from '../../ui/hooks/use-address.ts'
import { useTabKeys } from '../../ui/hooks/use-tab-keys.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import { trackNews } from './news.ts'
import { DRIFT_TABS, TABS } from './tabs.ts'
import { useLap } from './use-lap.ts'

/** What a lap takes, what a change is worth, and whether it was faster. */
export function TrackPage() {
  const { buildId } = useBuild()
  const opening = useRoomOpening<TrackRoomStage, TrackRoom>(api.useTrackQuery(buildId), 'the track')
  return 'instead' in opening ? opening.instead : <Room {...opening.props} />
}

function Room({ records, room, made, position, stageId }: RoomProps<TrackRoom, TrackRoomStage>) {
  const { text } = useQuantities()
  const isDrift = records.build.discipline === 'drift'
  const tabs = isDrift ? DRIFT_TABS : TABS
  const [tab, open] = useTab(tabs)
  const address = useAddress()
  const track = room.tracks.find(({ id }) => id === address.get('track')) ?? room.tracks.find(({ id }) => id === room.controlTrackId) ?? null
  const plan = useMemo(() => (track ? planOfRoom(room, position, track.id) : null), [room, position, track])
  const driven = useLap(plan)
  const { set } = address
  // Whether the last session was faster than the one before it.
  useTabKeys((key) => {
    if (key === 'c') set({ tab: 'compare', a: '', b: '' })
    return key === 'c'
  })
  return (
    <>
      <title>{`${records.build.name}: Track · Bold Ballast`}</title>
      <h1 className="mb-3">{trackNews({ room, made, position, track, stage: driven && !driven.isOld ? driven.stage : null, isDrift, text })}</h1>
      <div className="flex flex-wrap items-start gap-x-4">
        <Tabs tabs={tabs} tab={tab} open={open} />
      </div>
      <OpenTab
        tab={tab}
        props={{ records, room, made, position, stageId, track, plan, driven, openTrack: (id) => address.set({ track: id === room.controlTrackId ? '' : id }) }}
      />
    </>
  )
}
