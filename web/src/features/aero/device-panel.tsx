import type { RecordsAnswer } from '@bold-ballast/contract'
import type { AeroRoom } from '@bold-ballast/core'
import { useState } from 'react'
import { api } from '../../data/api.ts'
import type { FormValues } from '../../ui/forms/form-reader.ts'
import { RecordForm } from '../../ui/forms/record-form.tsx'
import { useRemoval } from '../../ui/forms/removal.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { Caution } from '../../ui/states.tsx'
import { biggestWing } from './biggest-wing.ts'
import { deviceFieldSpecs } from './device-fields.ts'
import { deviceBody, deviceDefaults } from './device-form.ts'

/** A device, new or as it is; a new one that goes on makes its ledger line with it, in one entry of the log. */
export function DevicePanel({
  records,
  room,
  stageId,
  position,
  deviceId,
  onDone,
}: {
  records: RecordsAnswer
  room: AeroRoom
  stageId: string
  position: number
  deviceId: string
  onDone: () => void
}) {
  const { units, decimalMark } = useQuantities()
  const [write] = api.useBatchMutation()
  // The same at every try, so that an answer that was lost is not stored twice.
  const [values, setValues] = useState<FormValues | null>(null)
  const [why, setWhy] = useState<string | null>(null)
  const [ids] = useState(() => ({ line: crypto.randomUUID(), batch: crypto.randomUUID() }))
  const { take, notice } = useRemoval(records.build.id, 'aero-devices')
  const buildId = records.build.id
  const device = records.aeroDevices.find(({ id }) => id === deviceId) ?? null
  const lines = records.changes.filter(({ kind, state }) => kind === 'on' && state !== 'dropped')
  const defaults = deviceDefaults(device, units)
  return (
    <>
      {notice}
      {device && (
        <p className="mb-3">
          <button type="button" className="word-link" onClick={() => void take(device).then(onDone)}>
            Delete it
          </button>
        </p>
      )}
      <Caution className="mb-3">
        A wing or a lip that comes off flies into people. Mount it to the chassis, with a tether or a second fixing, and have a qualified person look at it.
      </Caution>
      <RecordForm
        key={`${deviceId} ${device?.version ?? 0}`}
        draftKey={`${buildId}.aeroDevice.${deviceId}`}
        fields={deviceFieldSpecs(lines)}
        defaults={position === 0 && !device ? { ...defaults, changeId: '', kind: 'body' } : defaults}
        submitLabel={device ? 'Save the device' : 'Store the device'}
        toBody={(read, id) => {
          const asked = read.raw('changeId')
          if (asked === 'new' && position === 0) read.refuse('changeId', 'Stage 0 is the car as it came: pick a later stage, or "it came with the car".')
          return {
            ...deviceBody(read, device, room, new Date().toISOString()),
            changeId: asked === 'new' ? id : asked || null,
            ...(device ? { version: device.version } : { id }),
          }
        }}
        send={async (body) => {
          const isNewLine = !device && body.changeId === body.id
          const line = { id: ids.line, stageId, kind: 'on', name: body.name, state: 'planned', values: [] }
          const own = isNewLine ? { ...body, changeId: ids.line } : body
          return write({
            buildId,
            batchId: ids.batch,
            writes: [
              ...(isNewLine ? [{ kind: 'create' as const, resource: 'changes' as const, body: line }] : []),
              device
                ? { kind: 'update' as const, resource: 'aero-devices' as const, id: device.id, body: own }
                : { kind: 'create' as const, resource: 'aero-devices' as const, body: own },
            ],
          }).unwrap()
        }}
        onDone={onDone}
        onValues={setValues}
      >
        {(set) =>
          (values ?? defaults).kind === 'wing' && (
            <p className="sm:col-span-2">
              <button
                type="button"
                className="button"
                onClick={() => {
                  const made = room.stages[position]
                  const found = made
                    ? biggestWing(values ?? defaults, units, decimalMark, { made, outline: made.outline })
                    : { why: 'This stage cannot be worked out.' }
                  if ('why' in found) return setWhy(found.why)
                  setWhy(null)
                  set('chords', found.chords)
                  set('span', found.span)
                }}
              >
                As big as the box allows
              </button>
              <span role="status" className="ml-3 text-quiet">
                {why ?? 'One element, ten millimetres free of every limit at its steepest notch.'}
              </span>
            </p>
          )
        }
      </RecordForm>
    </>
  )
}
