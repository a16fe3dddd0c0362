import type { DeviceCommand, DeviceEntry, DeviceKind, RecordsAnswer } from '@bold-ballast/contract'
import { PAD_NAMES, PAD_WORDS, type PadName } from '@bold-ballast/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, readFailure } from '../../data/api.ts'
import { useBuild } from '../../data/use-build.ts'
import { LivePads } from '../../shared/live-pads.tsx'
import { StationLine } from '../../shared/station-air.tsx'
import { useStream } from '../../shared/use-stream.ts'
import { Alert, Empty, LoadError, Loading } from '../../ui/states.tsx'

/** Scale sets, dynos, loggers and weather stations on this machine: found, read live, asked; a weighing, a pull, laps or the air are taken from them. */
export function DevicesPage() {
  const { records, buildId, search } = useBuild()
  const { data: devices, error, refetch } = api.useDevicesQuery()
  const [find, finding] = api.useFindDevicesMutation()
  const [start, starting] = api.useStartStandInMutation()
  const [stop] = api.useStopStandInMutation()
  const [picked, setPicked] = useState<string | null>(null)
  // What was just started is what is looked at.
  const begin = async (kind: DeviceKind) => {
    const { data } = await start(kind)
    if (data) setPicked(data.id)
  }
  const failure = starting.error ?? finding.error
  if (error && !devices) return <LoadError error={error} retry={refetch} />
  if (!devices || !records) return <Loading what="the devices" />
  const device = devices.find(({ id }) => id === picked) ?? devices[0]
  const title =
    devices.length === 0
      ? 'No device is connected'
      : `${devices.length === 1 ? 'One device' : `${devices.length} devices`}, ${devices.filter(({ state }) => state === 'connected').length} connected`
  const stage = search.get('stage')
  return (
    <>
      <title>{`${records.build.name}: Devices · Bold Ballast`}</title>
      <h1 className="mb-3">{title}</h1>
      <div className="mb-4 flex flex-wrap gap-3">
        <button type="button" className="button button-strong" onClick={() => void find()} disabled={finding.isLoading}>
          {finding.isLoading ? 'Looking …' : 'Find devices'}
        </button>
        <button type="button" className="button" onClick={() => void begin('scales')} disabled={starting.isLoading}>
          {starting.isLoading ? 'Starting …' : 'Start simulated scales'}
        </button>
        <button type="button" className="button" onClick={() => void begin('dyno')} disabled={starting.isLoading}>
          {starting.isLoading ? 'Starting …' : 'Start a simulated dyno'}
        </button>
        <button type="button" className="button" onClick={() => void begin('logger')} disabled={starting.isLoading}>
          {starting.isLoading ? 'Starting …' : 'Start a simulated logger'}
        </button>
        <button type="button" className="button" onClick={() => void begin('weather')} disabled={starting.isLoading}>
          {starting.isLoading ? 'Starting …' : 'Start a simulated weather station'}
        </button>
      </div>
      {failure && <Alert className="mb-3">{readFailure(failure).message}</Alert>}
      {!device ? (
        <Empty
          title="Nothing was found yet"
          why="Scale sets, dynos, loggers and weather stations are looked for on this machine, on ports 4710 to 4719, by the protocol in docs/device-protocol.md. Simulated ones show how it works."
        />
      ) : (
        <div className="grid gap-8 min-[1180px]:grid-cols-[260px_1fr]">
          <ul>
            {devices.map((entry) => (
              <li key={entry.id}>
                <button
                  type="button"
                  aria-pressed={entry.id === device.id}
                  onClick={() => setPicked(entry.id)}
                  className={`min-h-8 w-full rounded px-2.5 py-1.5 text-left ${entry.id === device.id ? 'bg-wash font-semibold' : 'text-quiet'}`}
                >
                  {entry.name}
                  <span className="block text-xs">
                    {entry.serial}, {entry.state === 'connected' ? 'connected' : 'lost'}
                  </span>
                </button>
              </li>
            ))}
          </ul>
          {device.kind === 'weather' ? (
            <Station key={device.id} device={device} stop={() => void stop(device.id)} />
          ) : device.kind !== 'scales' ? (
            <section>
              <p className="mb-3">
                {device.state === 'connected' ? `The ${device.kind} is connected.` : `The ${device.kind} was lost; it is looked for.`}{' '}
                {device.kind === 'dyno'
                  ? 'Its pulls run in the Power room.'
                  : 'Its laps run in the Track room, beside the session they are of; its runs of a test go into Aero, Proof, New test.'}
              </p>
              <div className="flex flex-wrap gap-3">
                <Link
                  to={`/builds/${buildId}/${device.kind === 'dyno' ? 'power?tab=live' : 'track?tab=sessions'}&device=${device.id}${stage ? `&stage=${stage}` : ''}`}
                  className="button button-strong"
                >
                  {device.kind === 'dyno' ? 'Open the live pull' : 'Open the sessions'}
                </Link>
                <button type="button" className="button" onClick={() => void stop(device.id)}>
                  {device.isSimulated ? 'Stop it' : 'Let it go'}
                </button>
              </div>
            </section>
          ) : (
            <OneDevice
              key={device.id}
              device={device}
              records={records}
              takeTo={`/builds/${buildId}/weight?tab=scales&do=weighing&device=${device.id}${stage ? `&stage=${stage}` : ''}`}
            />
          )}
        </div>
      )}
    </>
  )
}

/** Weather as a simulated station may have it. */
const WEATHERS = [
  ['A cool morning', { pressurePa: 101_900, temperatureK: 281.15, relativeHumidity: 0.78, windMps: 0.6 }],
  ['A hot afternoon', { pressurePa: 100_100, temperatureK: 304.15, relativeHumidity: 0.34, windMps: 2.8 }],
  ['In the hills', { pressurePa: 89_300, temperatureK: 291.15, relativeHumidity: 0.5, windMps: 4.2 }],
] as const

/** A weather station: what it reads, where that can be taken, and of a simulated one which weather it has. */
function Station({ device, stop }: { device: DeviceEntry; stop: () => void }) {
  const [ask] = api.useAskDeviceMutation()
  const [answer, setAnswer] = useState('')
  return (
    <section>
      <StationLine device={device} />
      <p className="my-3 text-quiet">
        Forms of a dyno session, of a day on track and of an aero test take its air by their button, or by Alt and A while you type in one.
      </p>
      <button type="button" className="button" onClick={stop}>
        {device.isSimulated ? 'Stop it' : 'Let it go'}
      </button>
      {device.isSimulated && (
        <fieldset className="mt-4">
          <legend className="pr-2 font-semibold">Simulated: which weather it has</legend>
          <div className="flex flex-wrap gap-2">
            {WEATHERS.map(([name, air]) => (
              <button
                key={name}
                type="button"
                className="button"
                onClick={async () => {
                  const { error } = await ask({ id: device.id, command: { type: 'weather', air } })
                  setAnswer(error ? readFailure(error).message : `${name}.`)
                }}
              >
                {name}
              </button>
            ))}
          </div>
          <p role="status" className="min-h-5 text-sm text-quiet">
            {answer}
          </p>
        </fieldset>
      )}
    </section>
  )
}

function OneDevice({ device, records, takeTo }: { device: DeviceEntry; records: RecordsAnswer; takeTo: string }) {
  const stream = useStream(device.id)
  const [ask] = api.useAskDeviceMutation()
  const [stop] = api.useStopStandInMutation()
  const [answer, setAnswer] = useState('')
  const command = async (what: DeviceCommand, words: string) => {
    const { error } = await ask({ id: device.id, command: what })
    setAnswer(error ? readFailure(error).message : words)
  }
  return (
    <section>
      <LivePads stream={stream} />
      <div className="my-3 flex flex-wrap gap-3">
        <Link to={takeTo} className="button button-strong">
          Take a weighing from it
        </Link>
        <button type="button" className="button" onClick={() => void command({ type: 'tare' }, 'Zeroed with what stands on it now.')}>
          Zero it
        </button>
        <button type="button" className="button" onClick={() => void stop(device.id)}>
          {device.isSimulated ? 'Stop it' : 'Let it go'}
        </button>
      </div>
      <p role="status" className="min-h-5 text-quiet">
        {answer}
      </p>
      {device.isSimulated && <Simulation records={records} command={command} />}
    </section>
  )
}

const EXAMPLE_LOAD = { LF: 311.5, RF: 298, LR: 287, RR: 294.5 }

/** What a simulated set is told: what stands on it, and what goes wrong. */
function Simulation({ records, command }: { records: RecordsAnswer; command: (what: DeviceCommand, words: string) => Promise<void> }) {
  const [pad, setPad] = useState<PadName>('LR')
  const latest = [...records.weighings].sort((a, b) => Date.parse(b.at) - Date.parse(a.at)).find(({ pads }) => PAD_NAMES.every((name) => pads[name] !== null))
  const loadKg = latest ? (Object.fromEntries(PAD_NAMES.map((name) => [name, latest.pads[name]?.massKg ?? 0])) as typeof EXAMPLE_LOAD) : EXAMPLE_LOAD
  const nothing = { LF: 0, RF: 0, LR: 0, RR: 0 }
  const item = (label: string, what: DeviceCommand, words: string) => (
    <button type="button" className="button" onClick={() => void command(what, words)}>
      {label}
    </button>
  )
  return (
    <fieldset className="mt-4 border-t border-line pt-3">
      <legend className="pr-2 font-semibold">Simulated: what happens to it</legend>
      <div className="flex flex-wrap items-center gap-3">
        {item('Roll the car on', { type: 'load', loadKg }, latest ? 'The car of the latest weighing stands on it.' : 'A car stands on it.')}
        {item('Roll it off', { type: 'load', loadKg: nothing }, 'Nothing stands on it.')}
        {item('Let the zero drift', { type: 'drift', kgPerMinute: 2 }, 'Its zero drifts by 2 kg a minute.')}
        {item('Stop the drift', { type: 'drift', kgPerMinute: 0 }, 'Its zero stays.')}
      </div>
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2">
          Pad
          <select value={pad} onChange={(event) => setPad(event.target.value as PadName)}>
            {PAD_NAMES.map((name) => (
              <option key={name} value={name}>
                {PAD_WORDS[name]}
              </option>
            ))}
          </select>
        </label>
        {item('drops out', { type: 'drop', pad, isOut: true }, `The ${PAD_WORDS[pad]} pad is out.`)}
        {item('comes back', { type: 'drop', pad, isOut: false }, `The ${PAD_WORDS[pad]} pad is back.`)}
        {item('battery low', { type: 'battery', pad, level: 0.08 }, `The battery of the ${PAD_WORDS[pad]} pad is low.`)}
        {item('battery full', { type: 'battery', pad, level: 0.95 }, `The battery of the ${PAD_WORDS[pad]} pad is full.`)}
      </div>
    </fieldset>
  )
}
