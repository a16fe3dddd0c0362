import type { RecordsAnswer } from '@bold-ballast/contract'
import { PAD_NAMES, PAD_WORDS, type PadName } from '@bold-ballast/core'
import { useState } from 'react'
import { useSearchParams } from 'react-router'
import { api } from '../../../data/api.ts'
import { LivePads } from '../../../shared/live-pads.tsx'
import { useStream } from '../../../shared/use-stream.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { type FormValues, localTime } from '../../../ui/forms/form-reader.ts'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { typedText, useQuantities } from '../../../ui/quantity.ts'
import { deadOf, METHOD_WORDS, METHODS, type Method, methodOf, weighingBody, weighingDefaults, weighingFields } from './weighing-form.ts'

interface Props {
  readonly records: RecordsAnswer
  readonly stageId: string
  /** The stored one that is changed; null for a new one. */
  readonly weighing: RecordsAnswer['weighings'][number] | null
  readonly onClose: () => void
}

/** A visit to the scales, typed or taken from a scale set; with a dead pad it leads through two placements. */
export function WeighingPanel({ records, stageId, weighing, onClose }: Props) {
  const buildId = records.build.id
  const { units } = useQuantities()
  const [search] = useSearchParams()
  const deviceId = search.get('device')
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const [method, setMethod] = useState<Method>(() => (weighing ? methodOf(weighing) : 'one'))
  const [dead, setDead] = useState<PadName>(() => (weighing ? deadOf(weighing) : 'LR'))
  const [taken, setTaken] = useState<{ readonly values: FormValues; readonly count: number }>({ values: {}, count: 0 })
  const stages = records.stages.map(({ id, position, name }) => ({ value: id, label: `stage ${position} ${name}` }))
  const draft = weighing ? `weighing.${weighing.id}.${weighing.version}.${method}` : `${buildId}.weighing.${stageId}.${method}`
  return (
    <Panel title="On the scales" onClose={onClose}>
      <p className="mb-3 text-quiet">Level floor, bars disconnected, tyres at race pressure, steering straight, car rolled on and settled.</p>
      <div className="mb-3 grid gap-3 sm:grid-cols-2">
        <label className="block sm:col-span-2">
          <span className="mb-1 block font-semibold">How it stands</span>
          <select value={method} onChange={(event) => setMethod(event.target.value as Method)} className="w-full">
            {METHODS.map((entry) => (
              <option key={entry} value={entry}>
                {METHOD_WORDS[entry]}
              </option>
            ))}
          </select>
        </label>
        {method === 'cornerSwapped' && (
          <label className="block">
            <span className="mb-1 block font-semibold">Corner that the block starts under</span>
            <select value={dead} onChange={(event) => setDead(event.target.value as PadName)} className="w-full">
              {PAD_NAMES.map((pad) => (
                <option key={pad} value={pad}>
                  {PAD_WORDS[pad]}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      {deviceId && method === 'one' && <FromDevice id={deviceId} take={(values) => setTaken((now) => ({ values, count: now.count + 1 }))} />}
      <RecordForm
        key={`${method} ${dead} ${taken.count}`}
        draftKey={taken.count > 0 ? `${buildId}.weighing.taken.${taken.count}` : draft}
        fields={weighingFields(method, dead, stages, records.build.drivers)}
        defaults={weighing ? weighingDefaults(weighing, units) : { at: localTime(new Date()), stageId, driver: '0', ...taken.values }}
        submitLabel="Store the weighing"
        toBody={(read, id) => ({
          ...(weighing ? { version: weighing.version } : { id }),
          ...weighingBody(read, method, dead, weighing?.extras.slice(1)),
        })}
        send={(body) =>
          weighing ? patch({ buildId, resource: 'weighings', id: weighing.id, body }).unwrap() : create({ buildId, resource: 'weighings', body }).unwrap()
        }
        onDone={onClose}
        queueAs={{ buildId, resource: 'weighings', recordId: weighing?.id, words: 'a weighing' }}
      />
    </Panel>
  )
}

/** The pads as they read now; taken over into the form when all that read stand still. */
function FromDevice({ id, take }: { id: string; take: (values: FormValues) => void }) {
  const stream = useStream(id)
  const { data: devices } = api.useDevicesQuery()
  const { units } = useQuantities()
  const device = devices?.find((entry) => entry.id === id)
  const pads = stream.reading?.pads
  const isStill = pads !== undefined && PAD_NAMES.every((pad) => pads[pad] === null || pads[pad]?.isStable) && PAD_NAMES.some((pad) => pads[pad] !== null)
  const takeNow = () => {
    if (!pads) return
    const read = PAD_NAMES.map((pad) => [pad, pads[pad] ? typedText('mass', pads[pad]?.kg ?? 0, units.mass) : ''] as const)
    take({ ...Object.fromEntries(read), scales: device ? `${device.name} ${device.serial}` : '' })
  }
  return (
    <section className="mb-4 border-y border-line py-3">
      <LivePads stream={stream} />
      <button type="button" className="button" disabled={!isStill || stream.state !== 'connected'} onClick={takeNow}>
        Take these readings
      </button>
      {!isStill && stream.state === 'connected' && <span className="ml-3 text-quiet">Wait until the pads stand still.</span>}
    </section>
  )
}
