import type { RecordsAnswer } from '@bold-ballast/contract'
import { type AeroRoom, type AeroRoomStage, aeroTotals, airPressurePa, BALANCE_SCHOOL_WORDS, heightsInput, totalsAlong } from '@bold-ballast/core'
import { useMemo, useState } from 'react'
import { api, readFailure } from '../../data/api.ts'
import { useBuild } from '../../data/use-build.ts'
import { type RoomProps, useRoomOpening } from '../../shared/room-opening.tsx'
import { Panel } from '../../ui/dialog.tsx'
import { useAddress } from '../../ui/hooks/use-address.ts'
import { useAsked } from '../../ui/hooks/use-asked.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { Alert } from '../../ui/states.tsx'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import { DevicePanel } from './device-panel.tsx'
import { aeroNews } from './news.ts'
import { OutlinePanel, StageOutlinePanel } from './outline-panel.tsx'
import { totalsBasis } from './tab-props.ts'
import { TABS } from './tabs.ts'
import { boxVerdicts } from './verdicts.ts'

/** What the air does to the car at the picked stage, and what the rules allow. */
export function AeroPage() {
  const { buildId } = useBuild()
  const opening = useRoomOpening<AeroRoomStage, AeroRoom>(api.useAeroQuery(buildId), 'aero')
  return 'instead' in opening ? opening.instead : <Room key={opening.props.stageId} {...opening.props} />
}

/** Notches that are looked at, and the write that keeps them in the stage's set-up. */
function usePicks(records: RecordsAnswer, made: AeroRoomStage, stageId: string) {
  const [picks, setPicks] = useState<Readonly<Record<string, string>>>({})
  const [failure, setFailure] = useState<string | null>(null)
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const pick = (deviceId: string, notchId: string) => setPicks({ ...picks, [deviceId]: notchId })
  const keep = async () => {
    const buildId = records.build.id
    const setup = records.setups.find((each) => each.stageId === stageId)
    const next = made.devices.flatMap(({ id, picked, notches }) => (notches.length > 1 ? [{ deviceId: id, notchId: picks[id] ?? picked }] : []))
    const resource = 'setups' as const
    const answer = setup
      ? await patch({ buildId, resource, id: setup.id, body: { version: setup.version, picks: next } })
      : await create({ buildId, resource, body: { id: crypto.randomUUID(), stageId, picks: next } })
    setFailure(answer.error ? readFailure(answer.error).message : null)
    if (!answer.error) setPicks({})
  }
  return { picks, pick, keep, failure }
}

function Room({ records, room, made, position, stageId }: RoomProps<AeroRoom, AeroRoomStage>) {
  const { text } = useQuantities()
  const [tab, open] = useTab(TABS)
  const address = useAddress()
  const [isTaping, setIsTaping] = useAsked('outline')
  const [isTapingAnew, setIsTapingAnew] = useState(false)
  const [isAdding, setIsAdding] = useAsked('device')
  const { picks, pick, keep, failure } = usePicks(records, made, stageId)
  const { basis, airDensityKgM3 } = room
  const { outline } = made
  const { totals, stated, heights } = useMemo(() => {
    const stated = aeroTotals(made.devices, picks, totalsBasis(made, room))
    const heights = heightsInput({ ...made, airDensityKgM3: room.airDensityKgM3 }, picks, stated)
    return { stated, heights, totals: totalsAlong(stated, heights, [room.basis.speedMps])[0] ?? stated }
  }, [made, picks, room])
  const verdicts = useMemo(() => boxVerdicts(made, outline, picks), [made, outline, picks])
  const { speedMps } = basis
  const edited = address.get('device')
  return (
    <>
      <title>{`${records.build.name}: Aero · Bold Ballast`}</title>
      <div className="mb-3 flex flex-wrap items-baseline gap-x-4 gap-y-2">
        <h1>{aeroNews(made, totals, verdicts, text)}</h1>
      </div>
      <div className="flex flex-wrap items-start gap-x-4">
        <Tabs tabs={TABS} tab={tab} open={open} />
        <span className="mb-3 self-center text-quiet">
          at <strong className="text-ink">{text('speed', speedMps, { decimals: 0 })}</strong>, air {airDensityKgM3.toFixed(2)} kg/m³
        </span>
        <span className="no-print mb-3 ml-auto flex flex-wrap items-center gap-2">
          <button type="button" className="button" onClick={() => setIsTaping(true)}>
            {outline ? 'Outline and speeds' : 'Tape the outline'}
          </button>
          <button
            type="button"
            className="button"
            onClick={() => {
              address.set({ device: '' })
              setIsAdding(true)
            }}
          >
            New device
          </button>
        </span>
      </div>
      {failure && <Alert className="mb-2">{failure}</Alert>}
      <OpenTab
        tab={tab}
        props={{
          records,
          room,
          made,
          position,
          stageId,
          picks,
          pick,
          keep: () => void keep(),
          totals,
          stated,
          heights,
          q: airPressurePa(airDensityKgM3, speedMps),
          speedMps,
          openDevice: (id) => {
            address.set({ device: id })
            setIsAdding(true)
          },
          openOutline: () => setIsTaping(true),
          openOutlineAnew: () => setIsTapingAnew(true),
        }}
      />
      <p className="mt-3 text-xs text-quiet">
        Balance {BALANCE_SCHOOL_WORDS[basis.balanceSchool]}. Estimates leave out how devices feed each other; a test of the whole car replaces them.
      </p>
      {isTaping && (
        <Panel title="The car by a tape, and where aero is quoted" onClose={() => setIsTaping(false)}>
          <OutlinePanel records={records} onDone={() => setIsTaping(false)} />
        </Panel>
      )}
      {isTapingAnew && (
        <Panel title={`The car by a tape from stage ${position} on`} onClose={() => setIsTapingAnew(false)}>
          <StageOutlinePanel records={records} stageId={stageId} outline={outline} onDone={() => setIsTapingAnew(false)} />
        </Panel>
      )}
      {isAdding && (
        <Panel title={edited ? 'A device' : 'A new device'} onClose={() => setIsAdding(false)}>
          <DevicePanel records={records} room={room} stageId={stageId} position={position} deviceId={edited} onDone={() => setIsAdding(false)} />
        </Panel>
      )}
    </>
  )
}
