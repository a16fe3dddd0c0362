import { planOfRoom, type TrackRoom, type TrackRoomStage } from '@bold-ballast/core'
import { useEffect, useMemo } from 'react'
import { api } from '../../data/api.ts'
import { useBuild } from '../../data/use-build.ts'
import { type RoomProps, useRoomOpening } from '../../shared/room-opening.tsx'
import { useAddress } from '../../ui/hooks/use-address.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import { trackNews } from './news.ts'
import { DRIFT_TABS, TABS } from './tabs.ts'
import { useLap } from './use-lap.ts'

/** The key c asks whether the last session was faster than the one before it, where no field and no button has the focus. */
function useCompareKey(ask: () => void) {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const isFree = document.activeElement === null || document.activeElement === document.body
      if (event.key !== 'c' || event.ctrlKey || event.metaKey || event.altKey || !isFree) return
      event.preventDefault()
      ask()
    }
    document.addEventListener('keydown', press)
    return () => document.removeEventListener('keydown', press)
  }, [ask])
}

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
  useCompareKey(() => set({ tab: 'compare', a: '', b: '' }))
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
