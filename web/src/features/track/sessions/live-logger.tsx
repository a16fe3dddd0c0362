import type { DeviceCommand, DeviceEntry, DeviceHelloChannels } from '@bold-ballast/contract'
import { asDriven, loggerWarnings, type RoomTrackSession, type TrackRoom } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { piecesOf } from '../../../shared/device-pieces.ts'
import { type DeviceStream, useStream } from '../../../shared/use-stream.ts'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert, Caution } from '../../../ui/states.tsx'

const STATE_WORDS = {
  opening: 'Opening …',
  connected: '',
  lost: 'The logger has said nothing for 2.5 s: it counts as lost. What it told is kept; it is looked for.',
  serverAway: 'The server does not answer. What the logger told is kept; it is looked for.',
} as const

/** A logger beside the session: what is wrong with it before the car goes out, what it reads, the laps it tells. */
export function LiveLogger({ buildId, session, room }: { buildId: string; session: RoomTrackSession; room: TrackRoom }) {
  const { data: devices = [] } = api.useDevicesQuery()
  const address = useAddress()
  const [find, finding] = api.useFindDevicesMutation()
  const loggers = devices.filter(({ kind }) => kind === 'logger')
  const device = loggers.find(({ id }) => id === address.get('device')) ?? loggers[0]
  if (!device)
    return (
      <p className="no-print mt-4 text-sm text-quiet">
        No logger is connected.{' '}
        <button type="button" className="word-link" disabled={finding.isLoading} onClick={() => void find()}>
          {finding.isLoading ? 'Looking …' : 'Find one'}
        </button>
      </p>
    )
  return <OneLogger key={device.id} buildId={buildId} device={device} session={session} room={room} />
}

/** The latest row by the names of the channels. */
function Now({ channels, stream }: { channels: DeviceHelloChannels; stream: DeviceStream }) {
  const row = stream.rows.at(-1)
  if (!row) return null
  return (
    <dl className="mt-2 flex flex-wrap gap-x-6 gap-y-1">
      {channels.map(({ name, unit }, i) => (
        <div key={name}>
          <dt className="text-xs text-quiet">{name}</dt>
          <dd className="font-semibold tabular-nums">
            {row.values[i] ?? 'nothing'}
            {row.values[i] === null || row.values[i] === undefined ? '' : ` ${unit}`}
          </dd>
        </div>
      ))}
    </dl>
  )
}

function OneLogger({ buildId, device, session, room }: { buildId: string; device: DeviceEntry; session: RoomTrackSession; room: TrackRoom }) {
  const stream = useStream(device.id)
  const { text } = useQuantities()
  const [write, { isLoading }] = api.useBatchMutation()
  const [batchId, setBatchId] = useState(() => crypto.randomUUID())
  /** How many of the laps it told are stored or passed over. */
  const [taken, setTaken] = useState(0)
  const [failure, setFailure] = useState<string | null>(null)
  const { logger, state, laps } = stream
  const warnings = logger ? loggerWarnings({ ...logger, clockMs: Date.parse(logger.clock) }, stream.at ? Date.parse(stream.at) : Date.now()) : []
  const fresh = laps.length < taken ? laps : laps.slice(taken)
  const store = async () => {
    const from = Math.max(-1, ...session.laps.map(({ position }) => position)) + 1
    const writes = fresh.map(({ lapS }, i) => ({
      kind: 'create' as const,
      resource: 'laps' as const,
      body: { id: crypto.randomUUID(), trackSessionId: session.record.id, position: from + i, lapS, kind: 'clean' },
    }))
    const answer = await write({ buildId, batchId, writes })
    if (answer.error) return setFailure(`${readFailure(answer.error).message} The laps are still here.`)
    setBatchId(crypto.randomUUID())
    setFailure(null)
    setTaken(laps.length)
  }
  return (
    <section aria-label="Logger" className="no-print mt-4 border-t border-line pt-2">
      <h3 className="flex flex-wrap items-baseline gap-x-3">
        {device.name} <span className="text-sm font-normal text-quiet">{device.serial}</span>
        {logger && state === 'connected' && warnings.length === 0 && <span className="text-sm font-semibold">recording, ready to go out</span>}
      </h3>
      {STATE_WORDS[state] && (
        <p role="status" className={state === 'opening' ? 'text-quiet' : 'border-l-4 border-wait pl-3'}>
          {STATE_WORDS[state]}
        </p>
      )}
      {state === 'connected' && warnings.length > 0 && (
        <ul role="alert" className="border-l-4 border-wait pl-3">
          {warnings.map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      )}
      <Now channels={device.channels ?? []} stream={stream} />
      {fresh.length > 0 && (
        <p className="mt-2 flex flex-wrap items-center gap-3">
          <span className="tabular-nums">{fresh.map(({ lapS }) => text('lapTime', lapS, { decimals: 2 })).join(' · ')}</span>
          <button type="button" className="button" disabled={isLoading} onClick={() => void store()}>
            Store {fresh.length === 1 ? 'this lap' : `these ${fresh.length} laps`} of the logger
          </button>
          <button type="button" className="word-link" onClick={() => setTaken(laps.length)}>
            Leave them
          </button>
        </p>
      )}
      {failure && <Alert>{failure}</Alert>}
      {device.isSimulated && <Simulation device={device} session={session} room={room} />}
      <Caution className="mt-2 text-xs">Nobody looks at a screen in a moving car. What the logger says is for the pits.</Caution>
    </section>
  )
}

/** What a simulated logger is told: the track and car of the session, laps to drive, and what goes wrong with it. */
function Simulation({ device, session, room }: { device: DeviceEntry; session: RoomTrackSession; room: TrackRoom }) {
  const [ask] = api.useAskDeviceMutation()
  const [answer, setAnswer] = useState('')
  const tell = async (commands: readonly DeviceCommand[], words: string) => {
    for (const command of commands) {
      const { error } = await ask({ id: device.id, command })
      if (error) return setAnswer(readFailure(error).message)
    }
    setAnswer(words)
  }
  const drive = (slower: number, words: string) => {
    const track = room.tracks.find(({ id }) => id === session.record.trackId)
    const car = asDriven(room.stages[session.position])
    if (!track || !car) return setAnswer('The car of this stage cannot be driven: it needs power, mass and axle loads.')
    const pieces = piecesOf({ track: { segments: track.segments, isClosed: track.isClosed, origin: track.origin, bearingRad: track.bearingRad }, car })
    void tell([...pieces, { type: 'drive', laps: 5, slower, faster: 20 }], words)
  }
  const item = (label: string, commands: readonly DeviceCommand[], words: string) => (
    <button type="button" className="button" onClick={() => void tell(commands, words)}>
      {label}
    </button>
  )
  return (
    <fieldset className="mt-3">
      <legend className="pr-2 text-sm font-semibold">Simulated: what happens to it</legend>
      <div className="flex flex-wrap items-center gap-2">
        <button
          type="button"
          className="button"
          onClick={() => drive(1, 'It drives five laps of this track with the car of this stage, twenty times as fast.')}
        >
          Drive five laps
        </button>
        <button type="button" className="button" onClick={() => drive(1.02, 'The driver is slow today: two per cent.')}>
          A slow driver’s day
        </button>
        {item('Forget to record', [{ type: 'record', isOn: false }], 'It does not record.')}
        {item('Record', [{ type: 'record', isOn: true }], 'It records.')}
        {item('Lose the sky', [{ type: 'sky', isOpen: false }], 'It has no position.')}
        {item('See the sky', [{ type: 'sky', isOpen: true }], 'It has a position.')}
        {item('Drop out', [{ type: 'silence', seconds: 6 }], 'It says nothing for six seconds.')}
      </div>
      <p role="status" className="min-h-5 text-sm text-quiet">
        {answer}
      </p>
    </fieldset>
  )
}
