import {
  CalculationError,
  type LeftOver,
  type LogCarInputs,
  logCarOf,
  type PowerCurve,
  type PowerProof,
  type RoomLog,
  type RoomTrackSession,
  type RoomWindow,
  type TrackRoom,
} from '@bold-ballast/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { api, readFailure } from '../../../data/api.ts'
import { useAppDispatch } from '../../../data/store.ts'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { Plates } from '../../../ui/plates.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert, Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import type { TrackTabProps } from '../tab-props.ts'
import type { FetchSamples } from '../use-lap.ts'
import { loggedLaps } from '../use-lap-log.ts'
import { airWords, airWrites, findAirWindows } from './air-windows.ts'
import { findWindows, logsOfStage, windowWrites } from './find-windows.ts'
import { PowerFigure } from './power-figure.tsx'

/** One log, and the button that reads it for windows. */
function LogLine({
  buildId,
  log,
  session,
  track,
  windows,
  inputs,
}: {
  buildId: string
  log: RoomLog
  session: RoomTrackSession
  track: TrackRoom['tracks'][number]
  windows: readonly RoomWindow[]
  inputs: LogCarInputs
}) {
  const dispatch = useAppDispatch()
  const [write] = api.useBatchMutation()
  const [handed, setHanded] = useState<string | null>(null)
  const [state, setState] = useState<{ readonly isReading: boolean; readonly told: readonly string[]; readonly failure: string | null }>({
    isReading: false,
    told: [],
    failure: null,
  })
  const own = windows.filter(({ logId }) => logId === log.id)
  const count = (of: RoomWindow['of']) => own.filter((window) => window.of === of).length
  const fetchSamples: FetchSamples = (wish) => dispatch(api.endpoints.logSamples.initiate({ buildId, logId: log.id, ...wish }, { subscribe: false })).unwrap()
  const handOver = async () => {
    setHanded(null)
    setState({ isReading: true, told: [], failure: null })
    try {
      const found = await findAirWindows(log, fetchSamples)
      const { handed: words, told } = airWords(found)
      const writes = airWrites(found, session, inputs, () => crypto.randomUUID())
      const answer = writes.length > 0 ? await write({ buildId, batchId: crypto.randomUUID(), writes }) : null
      setState({ isReading: false, told, failure: answer?.error ? readFailure(answer.error).message : null })
      if (answer && !answer.error) setHanded(words)
    } catch (error) {
      setState({ isReading: false, told: [], failure: error instanceof CalculationError ? error.message : readFailure(error).message })
    }
  }
  const read = async () => {
    setState({ isReading: true, told: [], failure: null })
    try {
      const laps = loggedLaps(session).filter(({ lap, log: { id } }) => lap.isClean && id === log.id)
      const found = await findWindows({ log, laps, track, inputs, fetchSamples })
      const writes = windowWrites(found, own, () => crypto.randomUUID())
      const answer = writes.length > 0 ? await write({ buildId, batchId: crypto.randomUUID(), writes }) : null
      setState({ isReading: false, told: found.told, failure: answer?.error ? readFailure(answer.error).message : null })
    } catch (error) {
      setState({ isReading: false, told: [], failure: readFailure(error).message })
    }
  }
  return (
    <li className="border-t border-line py-1.5">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <strong>{log.fileName}</strong>
        <span className="text-quiet">
          {dayText(session.record.at)}, {session.record.aim ?? session.trackName}
        </span>
        <span>{own.length === 0 ? 'not read yet' : `${count('power')} full-throttle windows, corners of ${count('grip')} laps`}</span>
        <button type="button" className="button" disabled={state.isReading} onClick={() => void read()}>
          {state.isReading ? 'Reading …' : own.length === 0 ? 'Read it' : 'Read it again'}
          <span className="sr-only"> {log.fileName}</span>
        </button>
        <button type="button" className="word-link" disabled={state.isReading} onClick={() => void handOver()}>
          Hand its drag and load to Aero<span className="sr-only"> of {log.fileName}</span>
        </button>
        {handed && (
          <span role="status">
            {handed}{' '}
            <Link className="word-link" to={`/builds/${buildId}/aero?tab=proof&stage=${session.record.stageId}`}>
              See it there
            </Link>
          </span>
        )}
      </p>
      {state.told.map((words) => (
        <p key={words} className="border-l-4 border-wait pl-3">
          {words}
        </p>
      ))}
      {state.failure && <Alert>{state.failure}</Alert>}
    </li>
  )
}

/** What a force that is left over may be, with how much of it. */
const CAUSE_WORDS: Record<LeftOver, (amount: number) => string> = {
  mass: (kg) => `mass or gear: as if the car were ${Math.abs(kg).toFixed(0)} kg ${kg > 0 ? 'heavier' : 'lighter'}`,
  slope: (newton) => `slope or rolling: a steady ${Math.abs(newton).toFixed(0)} N ${newton > 0 ? 'more' : 'less'}`,
  drag: (area) => `drag or wind: ${Math.abs(area).toFixed(2)} m² ${area > 0 ? 'more' : 'less'}`,
}

function PowerProved({ proof, width, curve }: { proof: PowerProof | null; width: number; curve: PowerCurve }) {
  const { text } = useQuantities()
  if (!proof)
    return <p className="text-quiet">No window of full throttle is kept at this stage: one gear, a second and a half or more, with engine speed in the log.</p>
  return (
    <>
      <p className="text-[18px]">
        <strong>{text('power', proof.powerW)}</strong> ± {text('power', proof.powerSdW)} on the road, {text('share', proof.ratio, { decimals: 1 })} of the
        dyno’s <Plates proof={proof.proof} />
      </p>
      <p className={proof.agrees ? '' : 'border-l-4 border-wait pl-3'}>
        {proof.agrees ? 'Road and dyno agree.' : 'Road and dyno do not agree.'} {proof.windows} {proof.windows === 1 ? 'window' : 'windows'}, {proof.points}{' '}
        points, brought to the air that the build counts in.
      </p>
      <ScrollBox label="Power on the road over the dyno's curve">
        <PowerFigure curve={curve} points={proof.bins} width={width} />
      </ScrollBox>
      <p className="text-xs text-quiet">Dashed: the dyno. Dots: the road, each with one standard deviation.</p>
      {proof.causes.length > 0 && (
        <>
          <h3 className="mt-2">What the force left over looks like, most like it first</h3>
          <ol className="list-decimal pl-6">
            {proof.causes.map(({ cause, amount, leftN }) => (
              <li key={cause} className="py-0.5">
                {CAUSE_WORDS[cause](amount)}, leaves {leftN.toFixed(0)} N
              </li>
            ))}
          </ol>
        </>
      )}
      {proof.lacks.length > 0 && (
        <>
          <h3 className="mt-2">What confirms it</h3>
          <ul>
            {proof.lacks.map((words) => (
              <li key={words} className="border-t border-line py-1">
                {words}
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  )
}

/** What the laps of each day used, as dots on one scale. */
function GripDots({ windows, width }: { windows: readonly RoomWindow[]; width: number }) {
  const days = [...new Set(windows.map(({ day }) => day))].sort()
  const grips = windows.flatMap(({ grip }) => (grip === null ? [] : [grip]))
  const [low, high] = [Math.min(...grips) - 0.03, Math.max(...grips) + 0.03]
  const x = (grip: number) => 96 + ((grip - low) / (high - low)) * (width - 120)
  const ticks = Array.from({ length: 20 }, (_, i) => Math.ceil(low * 20) / 20 + i * 0.05).filter((tick) => tick < high)
  const height = 34 + 30 * days.length
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      className="block text-[12px] tabular-nums"
      role="img"
      aria-label={`Grip that ${grips.length} laps used, by day`}
    >
      {ticks.map((tick) => (
        <g key={tick}>
          <line x1={x(tick)} x2={x(tick)} y1={4} y2={height - 24} stroke="var(--line)" />
          <text x={x(tick)} y={height - 8} textAnchor="middle" fill="var(--quiet)">
            {tick.toFixed(2)}
          </text>
        </g>
      ))}
      {days.map((day, i) => (
        <g key={day}>
          <text x={0} y={24 + 30 * i} fill="var(--ink)">
            {day}
          </text>
          {windows.map(({ id, day: own, grip }) => own === day && grip !== null && <circle key={id} cx={x(grip)} cy={20 + 30 * i} r={4} fill="var(--pine)" />)}
        </g>
      ))}
    </svg>
  )
}

/** What logs of the stage prove: power on the road against the dyno, and what its corners hold. */
export function ProofTab({ records, room, made, position }: TrackTabProps) {
  const [holder, width] = useWidth<HTMLDivElement>(640)
  const { text } = useQuantities()
  const logs = logsOfStage(room.sessions, position)
  const mine = logs.flatMap(({ log, session }) => session.windows.filter(({ logId, setAside }) => logId === log.id && setAside === null))
  const { car } = made.lap
  if (logs.length === 0)
    return (
      <Empty
        title="No log of this stage"
        why="Drop a logger’s CSV into a session of this stage. Full throttle in one gear then says the power on the road, and corners say what the tyres hold."
      />
    )
  return (
    <div ref={holder}>
      <ul className="no-print mb-4">
        {logs.map(({ log, session }) => {
          const inputs = logCarOf(made.lap, session.record.ambient)
          const track = room.tracks.find(({ id }) => id === session.record.trackId)
          return inputs && track ? (
            <LogLine key={log.id} buildId={records.build.id} log={log} session={session} track={track} windows={session.windows} inputs={inputs} />
          ) : (
            <li key={log.id} className="border-t border-line py-1.5">
              <strong>{log.fileName}</strong>: it needs mass, power and gears of the stage to be read. {made.lap.missing.map(({ what }) => what).join('; ')}
            </li>
          )
        })}
      </ul>
      <div className="grid gap-x-10 gap-y-6 lg:grid-cols-2">
        <section aria-label="Power on the road" className="min-w-0">
          <h2 className="mb-1">Power on the road</h2>
          {car && <PowerProved proof={made.power} width={Math.max(420, Math.min(width / 2 - 20, 640))} curve={car.curve} />}
        </section>
        <section aria-label="Grip of the corners" className="min-w-0">
          <h2 className="mb-1">What corners hold</h2>
          {made.grip ? (
            <>
              <p className="text-[18px]">
                <strong>{text('ratio', made.grip.value, { decimals: 2 })}</strong> ± {made.grip.sd.toFixed(2)} of the load on the tyres{' '}
                <Plates proof={made.grip.proof} />
              </p>
              <ScrollBox label="Grip by lap">
                <GripDots windows={mine.filter(({ of }) => of === 'grip')} width={Math.max(380, Math.min(width / 2 - 20, 560))} />
              </ScrollBox>
              <p className="text-xs text-quiet">
                The 95th share of what each lap used while it turned with over half a g; downforce counted as load. Another visit confirms it, another sensor of
                the same laps does not.
              </p>
            </>
          ) : (
            <p className="text-quiet">No corner was read yet: the log needs accelerations along and across, and clean laps.</p>
          )}
        </section>
      </div>
    </div>
  )
}
