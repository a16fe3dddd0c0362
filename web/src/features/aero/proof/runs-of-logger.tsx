import type { DeviceCommand, DeviceEntry } from '@bold-ballast/contract'
import {
  type AeroRoomStage,
  type AeroTestKind,
  aeroTotals,
  attempt,
  CalculationError,
  loggedTest,
  type SimulatedTest,
  USUAL_ROLLING,
  USUAL_ROTATING_SHARE,
} from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { piecesOf } from '../../../shared/device-pieces.ts'
import { useStream } from '../../../shared/use-stream.ts'
import { FormReader } from '../../../ui/forms/form-reader.ts'
import { typedText, useQuantities } from '../../../ui/quantity.ts'
import { loggedTexts } from './logged-texts.ts'

interface Props {
  readonly made: AeroRoomStage | null
  readonly airDensityKgM3: number
  readonly kind: AeroTestKind
  readonly take: (texts: Readonly<Record<string, string>>, pairs: number) => void
}

/** Runs out of a connected logger; nothing where none is there. */
export function RunsOfLogger(props: Props) {
  const { data: devices = [] } = api.useDevicesQuery()
  const logger = devices.find(({ kind }) => kind === 'logger')
  return logger ? <OneLogger key={logger.id} device={logger} {...props} /> : null
}

function OneLogger({ device, ...props }: Props & { device: DeviceEntry }) {
  const { kind, take } = props
  const { units } = useQuantities()
  const { runs, state } = useStream(device.id)
  const [from, setFrom] = useState(0)
  const fresh = runs.slice(from)
  const found = attempt(() => loggedTexts(loggedTest(device.channels ?? [], fresh), kind, units))
  const isBad = found instanceof CalculationError
  return (
    <section aria-label="Runs of the logger" className="sm:col-span-2">
      <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <button type="button" className="button" disabled={isBad || found.isEmpty} onClick={() => !isBad && take(found.texts, found.pairs)}>
          Take the runs of {device.name}
        </button>
        {fresh.length > 0 && (
          <button type="button" className="word-link" onClick={() => setFrom(runs.length)}>
            leave these aside
          </button>
        )}
        <span role="status" className={isBad || state === 'lost' ? 'text-wait' : 'text-quiet'}>
          {state === 'lost' ? 'It counts as lost; what it told is kept. ' : ''}
          {isBad ? found.message : found.isEmpty ? found.told : `${fresh.length} ${fresh.length === 1 ? 'run' : 'runs'} told: ${found.told}`}
        </span>
      </p>
      {device.isSimulated && <Simulation device={device} {...props} />}
    </section>
  )
}

/** How fast its clock runs, and pairs that are driven. */
const FASTER = 40
const PAIRS = 4

/** What a simulated logger drives: the car of the stage with a drag, a wind, gusts and a slope that are known, so that they can be found again. */
function Simulation({ device, made, airDensityKgM3, kind }: Props & { device: DeviceEntry }) {
  const { units, decimalMark } = useQuantities()
  const [ask] = api.useAskDeviceMutation()
  const [answer, setAnswer] = useState('')
  const areas = made ? aeroTotals(made.devices, {}, { wheelbaseM: made.wheelbaseM, school: 'contactPatches', anchors: made.anchors }).areas : null
  const [typed, setTyped] = useState({
    dragArea: typedText('area', Number((areas && areas.dragM2 > 0.1 ? areas.dragM2 : 0.7).toFixed(3)), units.area),
    wind: typedText('speed', 1.2, units.speed),
    gust: typedText('speed', 0.5, units.speed),
    slope: '0.2 %',
  })
  const field = (name: keyof typeof typed, label: string) => (
    <label className="flex flex-col gap-1">
      <span className="text-xs text-quiet">{label}</span>
      <input className="w-28" value={typed[name]} onChange={(event) => setTyped({ ...typed, [name]: event.target.value })} />
    </label>
  )
  const drive = async () => {
    const read = new FormReader(typed, units, decimalMark)
    const test: SimulatedTest = {
      kind,
      massKg: made?.mass?.value ?? 1300,
      rotatingShare: USUAL_ROTATING_SHARE,
      dragAreaM2: read.quantity('dragArea', 'The drag area', 'area').value,
      rollingCoefficient: USUAL_ROLLING,
      downforceFrontM2: areas?.frontM2 ?? 0,
      downforceRearM2: areas?.rearM2 ?? 0,
      airDensityKgM3,
      windMps: read.quantity('wind', 'The wind', 'speed').value,
      gustMps: read.quantity('gust', 'Gusts', 'speed').value,
      grade: read.quantity('slope', 'The slope', 'share').value,
      front: made?.front?.springs ?? null,
      rear: made?.rear?.springs ?? null,
      pitotFactor: 1.06,
      fromMps: kind === 'steady' ? 20 : 50,
      toMps: kind === 'steady' ? 55 : 15,
    }
    const [refused] = Object.values(read.errors)
    if (refused) return setAnswer(refused)
    const commands: DeviceCommand[] = [...piecesOf({ test }), { type: 'test', pairs: kind === 'steady' ? 1 : PAIRS, faster: FASTER }]
    for (const command of commands) {
      const { error } = await ask({ id: device.id, command })
      if (error) return setAnswer(readFailure(error).message)
    }
    setAnswer(`It drives, ${FASTER} times as fast; each run is told when it has ended.`)
  }
  return (
    <fieldset className="mt-2">
      <legend className="pr-2 text-sm font-semibold">Simulated: the road and the car that it drives</legend>
      <div className="flex flex-wrap items-end gap-3">
        {kind === 'coastDown' && field('dragArea', 'Drag area')}
        {field('wind', 'Wind against the way out')}
        {field('gust', 'Gusts')}
        {kind === 'coastDown' && field('slope', 'Slope of the way out')}
        <button type="button" className="button" onClick={() => void drive()}>
          {kind === 'steady' ? 'Hold four speeds both ways' : `Coast ${PAIRS} times both ways`}
        </button>
      </div>
      <p role="status" className="min-h-5 text-sm text-quiet">
        {answer}
      </p>
    </fieldset>
  )
}
