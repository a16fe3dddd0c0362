import type { DeviceCommand, DeviceEntry, RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, headroomStopAtStage, type PowerRoom, type QuantityKind, type StopChannel, stopState } from '@bold-ballast/core'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { api, readFailure } from '../../../data/api.ts'
import { type DeviceStream, useStream } from '../../../shared/use-stream.ts'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert, Caution, Empty, Loading } from '../../../ui/states.tsx'
import { KeepPulls } from './keep-pulls.tsx'
import { LiveChart } from './live-chart.tsx'
import { mostPowerW } from './live-file.ts'
import { SimulatedCarForm } from './simulated-car.tsx'

const STOP_WORDS: Record<StopChannel, string> = {
  lambda: 'Lambda',
  intakeTemperature: 'Intake temperature',
  coolantTemperature: 'Coolant temperature',
  fuelPressure: 'Fuel pressure',
  headroom: 'Power',
}
const STOP_KINDS = {
  lambda: 'ratio',
  intakeTemperature: 'temperature',
  coolantTemperature: 'temperature',
  fuelPressure: 'pressure',
  headroom: 'power',
} as const satisfies Record<StopChannel, QuantityKind>

interface LiveTabProps {
  readonly records: RecordsAnswer
  readonly room: PowerRoom
  readonly position: number
  readonly stageId: string
  /** Opens the form of a session with the air that the dyno reads. */
  readonly newSession: (air: DeviceStream['status']) => void
}

/** A dyno read live: the pull as it runs, the limits that end it, and the pull put into a session. */
export function LiveTab(props: LiveTabProps) {
  const { data: devices } = api.useDevicesQuery()
  const address = useAddress()
  const [find, finding] = api.useFindDevicesMutation()
  const [start, starting] = api.useStartStandInMutation()
  if (!devices) return <Loading what="the dynos" />
  const dynos = devices.filter(({ kind }) => kind === 'dyno')
  const device = dynos.find(({ id }) => id === address.get('device')) ?? dynos[0]
  const failure = starting.error ?? finding.error
  return (
    <>
      {failure && <Alert className="mb-3">{readFailure(failure).message}</Alert>}
      {!device ? (
        <Empty
          title="No dyno is connected"
          why="A dyno is looked for on this machine, on ports 4710 to 4719, by the protocol in docs/device-protocol.md. A simulated one shows how it works."
        >
          <span className="flex flex-wrap gap-3">
            <button type="button" className="button" onClick={() => void find()} disabled={finding.isLoading}>
              {finding.isLoading ? 'Looking …' : 'Find dynos'}
            </button>
            <button type="button" className="button" onClick={() => void start('dyno')} disabled={starting.isLoading}>
              {starting.isLoading ? 'Starting …' : 'Start a simulated dyno'}
            </button>
          </span>
        </Empty>
      ) : (
        <>
          {dynos.length > 1 && (
            <label className="mb-3 block">
              <span className="mb-1 block font-semibold">Dyno</span>
              <select value={device.id} onChange={(event) => address.set({ device: event.target.value })}>
                {dynos.map(({ id, name, serial }) => (
                  <option key={id} value={id}>
                    {name} {serial}
                  </option>
                ))}
              </select>
            </label>
          )}
          <OneDyno key={device.id} device={device} {...props} />
        </>
      )}
    </>
  )
}

const STATE_WORDS = {
  opening: 'Opening …',
  connected: '',
  lost: 'The dyno was lost. What it read is kept; it is looked for.',
  serverAway: 'The server does not answer. What the dyno read is kept; it is looked for.',
} as const

function OneDyno({ device, records, room, position, stageId, newSession }: LiveTabProps & { device: DeviceEntry }) {
  const stream = useStream(device.id)
  const [ask] = api.useAskDeviceMutation()
  const [answer, setAnswer] = useState('')
  const { status, state, pulls } = stream
  const samples = pulls.at(-1)?.samples ?? []
  const { text, format } = useQuantities()
  const command = async (what: DeviceCommand, words: string) => {
    const { error } = await ask({ id: device.id, command: what })
    setAnswer(error ? readFailure(error).message : words)
    return error === undefined
  }
  const now = samples.at(-1)
  const isPulling = status?.isPulling ?? false
  const stops = records.pullPlans.find((plan) => plan.stageId === stageId)?.stops
  const headroomUnder = stops?.headroomUnder ?? null
  const most = useMemo(
    () => (headroomUnder === null ? null : attempt(() => headroomStopAtStage(records, position, headroomUnder))),
    [records, position, headroomUnder],
  )
  const headroomStop = most instanceof CalculationError ? null : most
  const watched = now && stops ? stopState(stops, now, headroomStop?.powerW ?? null) : null
  const broken = isPulling && watched ? watched.reasons : []
  const peak = samples.length === 0 ? null : mostPowerW(samples)
  const reference = room.stages[position]?.curve ?? null
  const inWords = (of: StopChannel, value: number) => text(STOP_KINDS[of], value, of === 'lambda' ? { decimals: 2 } : {})
  const figure = (label: string, size: string, number: string, unit: string) => (
    <div>
      <dt className="text-quiet">{label}</dt>
      <dd className={`leading-tight font-bold ${size}`}>
        {number}
        <span className="ml-1 text-[15px] font-normal">{unit}</span>
      </dd>
    </div>
  )
  const big = (label: string, kind: QuantityKind, value: number | undefined | null) =>
    figure(label, 'text-[30px]', typeof value === 'number' ? format(kind, value, { decimals: 0 }).number : '–', format(kind, 0).unit)
  // A channel that this dyno does not read has no figure.
  const beside = (label: string, kind: QuantityKind, value: number | undefined | null) => {
    if (typeof value !== 'number') return null
    const { number, unit } = format(kind, value, { decimals: kind === 'ratio' ? 2 : 0 })
    return figure(label, 'text-[20px]', number, unit)
  }
  return (
    <div className="grid gap-8 min-[1180px]:grid-cols-[1fr_320px]">
      <section className="min-w-0">
        <div className="mb-2 flex flex-wrap items-center gap-3">
          <h2 className="mr-2">
            {device.name}:{' '}
            {isPulling
              ? `pull ${status?.pull} is running`
              : samples.length === 0
                ? 'no pull yet'
                : `pull ${samples[0]?.pull} ${status?.ended === 'stopped' ? 'was stopped' : 'is whole'}`}
          </h2>
          {device.isSimulated && (
            <button
              type="button"
              className="button button-strong"
              disabled={isPulling || state !== 'connected'}
              onClick={() => void command({ type: 'pull' }, '')}
            >
              Run a pull
            </button>
          )}
          <button
            type="button"
            className="button border-danger text-danger"
            disabled={!isPulling}
            onClick={() => void command({ type: 'stop' }, 'Stopped. What was read up to here is kept.')}
          >
            Stop the pull
          </button>
        </div>
        {broken.length > 0 && (
          <Alert className="mb-2 text-[16px] font-bold text-danger">
            {broken.map(({ of, value, limit }) => (
              <p key={of}>
                {STOP_WORDS[of]} {inWords(of, value)}, past {inWords(of, limit)}
                {of === 'headroom' && `, where ${records.parts.find(({ id }) => id === headroomStop?.partId)?.name} has too little left`}: stop
              </p>
            ))}
          </Alert>
        )}
        <dl className="mb-1 flex flex-wrap gap-x-8 gap-y-2">
          {big('engine speed', 'engineSpeed', now?.speedRpm)}
          {big('power', 'power', now?.powerW)}
          {big('torque', 'torque', now?.torqueNm)}
          {big('most power', 'power', peak)}
        </dl>
        <dl className="mb-2 flex min-h-12 flex-wrap gap-x-8 gap-y-1">
          {beside('lambda', 'ratio', now?.lambda)}
          {beside('boost', 'pressure', now?.boostPa)}
          {beside('intake', 'temperature', now?.intakeK)}
          {beside('coolant', 'temperature', now?.coolantK)}
          {beside('fuel pressure', 'pressure', now?.fuelPressurePa)}
        </dl>
        <LiveChart samples={samples} reference={reference} referenceName={`stage ${position}`} />
        <p role="status" className={`min-h-6 ${STATE_WORDS[state] ? 'text-wait' : 'text-quiet'}`}>
          {STATE_WORDS[state] || answer}
        </p>
      </section>
      <aside className="grid content-start gap-6 min-[1180px]:border-l min-[1180px]:border-line min-[1180px]:pl-5">
        <KeepPulls records={records} pulls={isPulling ? pulls.slice(0, -1) : pulls} newSession={() => newSession(status)} />
        {watched && watched.unread.length > 0 && (
          <p className="text-wait">
            This dyno reads nothing for {watched.unread.map((of) => STOP_WORDS[of].toLowerCase()).join(' and ')}: watch it yourself, and stop.
          </p>
        )}
        {stops?.knock && <p>Knock: {stops.knock}</p>}
        {!stops && (
          <p className="text-wait">
            No limits for breaking a pull off are set at this stage.{' '}
            <Link to={`/builds/${records.build.id}/power?tab=hours&stage=${stageId}`} className="word-link">
              Set them in Hours
            </Link>
          </p>
        )}
        <Caution>
          Straps checked, nobody beside or behind the wheels, extraction on, a stop signal agreed. Whoever runs the dyno stops it, not this page.
        </Caution>
        {device.isSimulated && <SimulatedCarForm room={room} position={position} command={command} isPulling={isPulling} />}
      </aside>
    </div>
  )
}
