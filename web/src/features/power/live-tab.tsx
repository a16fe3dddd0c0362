import type { DeviceCommand, DeviceEntry, RecordsAnswer } from '@bold-ballast/contract'
import { type PowerRoom, stopReasons } from '@bold-ballast/core'
import { useMemo, useRef, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { api, readFailure } from '../../api/api.ts'
import { useSender } from '../../api/use-sender.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { Empty, Loading } from '../../ui/states.tsx'
import { dayText } from '../../ui/words.ts'
import { type DeviceStream, useStream } from '../devices/use-stream.ts'
import { LiveChart } from './live-chart.tsx'
import { livePullFile } from './live-file.ts'
import { SimulatedCarForm } from './simulated-car.tsx'

const STOP_WORDS = {
  lambda: 'Lambda',
  intakeTemperature: 'Intake temperature',
  coolantTemperature: 'Coolant temperature',
  fuelPressure: 'Fuel pressure',
} as const
const KINDS = { lambda: 'ratio', intakeTemperature: 'temperature', coolantTemperature: 'temperature', fuelPressure: 'pressure' } as const

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
  const [search, setSearch] = useSearchParams()
  const [find, finding] = api.useFindDevicesMutation()
  const [start, starting] = api.useStartStandInMutation()
  if (!devices) return <Loading what="the dynos" />
  const dynos = devices.filter(({ kind }) => kind === 'dyno')
  const device = dynos.find(({ id }) => id === search.get('device')) ?? dynos[0]
  const failure = starting.error ?? finding.error
  const pick = (id: string) => {
    const next = new URLSearchParams(search)
    next.set('device', id)
    setSearch(next, { replace: true })
  }
  return (
    <>
      {failure && (
        <p role="alert" className="mb-3 border-l-4 border-danger py-1 pl-3">
          {readFailure(failure).message}
        </p>
      )}
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
              <select value={device.id} onChange={(event) => pick(event.target.value)}>
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
  const { status, samples, state } = stream
  const { text, format } = useQuantities()
  const command = async (what: DeviceCommand, words: string) => {
    const { error } = await ask({ id: device.id, command: what })
    setAnswer(error ? readFailure(error).message : words)
    return error === undefined
  }
  const now = samples.at(-1)
  const isPulling = status?.isPulling ?? false
  const stops = records.pullPlans.find((plan) => plan.stageId === stageId)?.stops
  const broken = isPulling && now && stops ? stopReasons(stops, now) : []
  const peak = samples.reduce((most, sample) => Math.max(most, sample.powerW), 0)
  const reference = room.stages[position]?.curve ?? null
  const big = (label: string, number: string, unit: string) => (
    <div>
      <dt className="text-quiet">{label}</dt>
      <dd className="text-[30px] leading-tight font-bold">
        {number}
        <span className="ml-1 text-[15px] font-normal">{unit}</span>
      </dd>
    </div>
  )
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
          <div role="alert" className="mb-2 border-l-4 border-danger py-1 pl-3 text-[16px] font-bold text-danger">
            {broken.map(({ of, value, limit }) => (
              <p key={of}>
                {STOP_WORDS[of]} {text(KINDS[of], value, KINDS[of] === 'ratio' ? { decimals: 2 } : {})}, past{' '}
                {text(KINDS[of], limit, KINDS[of] === 'ratio' ? { decimals: 2 } : {})}: stop
              </p>
            ))}
          </div>
        )}
        <dl className="mb-2 flex flex-wrap gap-x-8 gap-y-2">
          {big('engine speed', now ? format('engineSpeed', now.speedRpm).number : '–', 'rpm')}
          {big('power', now ? format('power', now.powerW, { decimals: 0 }).number : '–', format('power', 0).unit)}
          {big('torque', now ? format('torque', now.torqueNm).number : '–', format('torque', 0).unit)}
          {big('most power', samples.length > 0 ? format('power', peak, { decimals: 0 }).number : '–', format('power', 0).unit)}
          {big('lambda', now?.lambda ? now.lambda.toFixed(2) : '–', '')}
          {big('intake', now?.intakeK ? format('temperature', now.intakeK, { decimals: 0 }).number : '–', format('temperature', 300).unit)}
          {big('boost', now?.boostPa === null || now === undefined ? '–' : format('pressure', now.boostPa, { decimals: 0 }).number, format('pressure', 0).unit)}
        </dl>
        <LiveChart samples={samples} reference={reference} referenceName={`stage ${position}`} />
        <p role="status" className={`min-h-6 ${STATE_WORDS[state] ? 'text-wait' : 'text-quiet'}`}>
          {STATE_WORDS[state] || answer}
        </p>
      </section>
      <aside className="grid content-start gap-6 min-[1180px]:border-l min-[1180px]:border-line min-[1180px]:pl-5">
        <StorePull records={records} stream={stream} newSession={() => newSession(status)} />
        {!stops && (
          <p className="text-wait">
            No limits for breaking a pull off are set at this stage.{' '}
            <Link to={`/builds/${records.build.id}/power?tab=hours&stage=${stageId}`} className="word-link">
              Set them in Hours
            </Link>
          </p>
        )}
        <p className="border-l-4 border-wait pl-3">
          Straps checked, nobody beside or behind the wheels, extraction on, a stop signal agreed. Whoever runs the dyno stops it, not this page.
        </p>
        {device.isSimulated && <SimulatedCarForm room={room} position={position} command={command} isPulling={isPulling} />}
      </aside>
    </div>
  )
}

/** The pull that was read, put into a session like one from a file: read, checked and stored the same way. */
function StorePull({ records, stream, newSession }: { records: RecordsAnswer; stream: DeviceStream; newSession: () => void }) {
  const { samples, status } = stream
  const [sessionId, setSessionId] = useState('')
  const [stored, setStored] = useState<readonly number[]>([])
  const importIds = useRef(new Map<number, string>())
  const [importPulls] = api.useImportPullsMutation()
  const sender = useSender()
  const sessions = useMemo(() => [...records.sessions].sort((a, b) => Date.parse(b.at) - Date.parse(a.at)), [records.sessions])
  const chosen = sessions.find(({ id }) => id === sessionId) ?? sessions[0]
  const pull = samples[0]?.pull ?? 0
  const isReady = samples.length > 0 && !(status?.isPulling ?? false)
  const store = async () => {
    if (!chosen) return
    const importId = importIds.current.get(pull) ?? crypto.randomUUID()
    importIds.current.set(pull, importId)
    const done = await sender.send(() => importPulls({ buildId: records.build.id, sessionId: chosen.id, importId, file: livePullFile(samples) }).unwrap())
    if (done) setStored([...stored, pull])
  }
  return (
    <section>
      <h2 className="mb-1">Keep this pull</h2>
      {sessions.length > 0 && (
        <label className="mb-2 block">
          <span className="mb-1 block">In the session</span>
          <select value={chosen?.id} onChange={(event) => setSessionId(event.target.value)} className="w-full">
            {sessions.map((session) => (
              <option key={session.id} value={session.id}>
                {session.dynoName}, {dayText(session.at)}
              </option>
            ))}
          </select>
        </label>
      )}
      <div className="flex flex-wrap gap-3">
        <button
          type="button"
          className="button"
          disabled={!isReady || !chosen || stored.includes(pull) || sender.state.status === 'sending'}
          onClick={() => void store()}
        >
          {sender.state.status === 'sending' ? 'Storing …' : stored.includes(pull) ? `Pull ${pull} is stored` : `Store ${samples.length} samples`}
        </button>
        <button type="button" className="word-link" onClick={newSession}>
          New session with this air
        </button>
      </div>
      {sender.state.status === 'waiting' && <p role="status">{sender.state.message}</p>}
      {sender.state.status === 'failed' && (
        <p role="alert" className="mt-2 border-l-4 border-danger py-1 pl-3">
          {sender.state.failure.message} The pull is still here.
        </p>
      )}
    </section>
  )
}
