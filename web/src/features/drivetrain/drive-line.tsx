import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, type DriveRoomStage, driveLineParts, driveLineWords, type PartDrive, parseDriveLine } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../data/api.ts'
import { readStored, writeStored } from '../../data/stored.ts'
import { OneLine } from '../../ui/forms/one-line.tsx'
import { useQuantities } from '../../ui/quantity.ts'

const HOW =
  'gears, primary, final (ratio or teeth), tyre or front tyre and rear tyre (code or roll-out), red, launch, shift, diff, lock. Enter makes or alters the parts of this stage.'

interface Props {
  readonly records: RecordsAnswer
  readonly made: DriveRoomStage
  readonly position: number
  readonly stageId: string
}

/** One line that says a driveline, read while it is typed; Enter makes or alters the parts at the picked stage, all at once. */
export function DriveLine({ records, made, position, stageId }: Props) {
  const key = `bold-ballast.draft.${records.build.id}.driveline`
  const [text, setText] = useState(() => readStored(key, ''))
  const [said, setSaid] = useState<string | null>(null)
  const [write, { isLoading }] = api.useBatchMutation()
  const [batchId, setBatchId] = useState(() => crypto.randomUUID())
  const { decimalMark } = useQuantities()
  const keep = (next: string) => {
    setText(next)
    setSaid(null)
    writeStored(key, next === '' ? undefined : next)
  }
  const partOf = (slot: string) => {
    const row = made.rows.find((each) => each.slot === slot)
    return row && records.parts.find(({ id }) => id === row.partId)
  }
  const box = partOf('gearbox')?.drive
  const read = text.trim() === '' ? null : attempt(() => parseDriveLine(text, decimalMark))
  const parts =
    read && !(read instanceof CalculationError)
      ? attempt(() => driveLineParts(read, box?.role === 'gearbox' ? (box as Extract<PartDrive, { role: 'gearbox' }>) : null))
      : null
  const refusal = read instanceof CalculationError ? read.message : parts instanceof CalculationError ? parts.message : null
  const store = async () => {
    if (!read || read instanceof CalculationError || !parts || parts instanceof CalculationError) return
    const writes = parts.map(({ slot, kind, name, drive }) => {
      const standing = partOf(slot)
      // What came in at this stage is altered; what an earlier one fitted stays there, and another part takes its place from here on.
      if (standing && (made.rows.find((row) => row.partId === standing.id)?.position ?? -1) === position)
        return { kind: 'update' as const, resource: 'parts' as const, id: standing.id, body: { version: standing.version, drive } }
      const status = position === 0 ? ('fitted' as const) : ('wanted' as const)
      return { kind: 'create' as const, resource: 'parts' as const, body: { id: crypto.randomUUID(), kind, name, status, stageId, drive } }
    })
    const setting = records.driveSettings.find((each) => each.stageId === stageId)
    const chosen = { ...(read.topRpm === null ? {} : { topRpm: read.topRpm }), ...(read.launchRpm === null ? {} : { launchRpm: read.launchRpm }) }
    const settings =
      Object.keys(chosen).length === 0
        ? []
        : setting
          ? [{ kind: 'update' as const, resource: 'drive-settings' as const, id: setting.id, body: { version: setting.version, ...chosen } }]
          : [{ kind: 'create' as const, resource: 'drive-settings' as const, body: { id: crypto.randomUUID(), stageId, ...chosen } }]
    const answer = await write({ buildId: records.build.id, batchId, writes: [...writes, ...settings] })
    if (answer.error) return setSaid(`${readFailure(answer.error).message} The line is kept.`)
    setBatchId(crypto.randomUUID())
    keep('')
    setSaid(`Saved: ${driveLineWords(read).join(', ')}.`)
  }
  const words = refusal ?? said ?? (read && !(read instanceof CalculationError) ? `Reads as: ${driveLineWords(read).join(' · ')}. Enter saves.` : HOW)
  return (
    <OneLine
      label="The driveline in one line"
      placeholder="gears 3.36 2.07 1.43 1.13 .93 final 41/11 tyre 245/40R17 red 7200 shift .3 s"
      text={text}
      type={keep}
      said={words}
      store={store}
      isBusy={isLoading}
    />
  )
}
