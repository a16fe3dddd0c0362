import { cornersOf, formatChance, LAP_INPUT_WORDS, type LapInputKey, lapChance, type StageLap, slowestIn, type TrackRoom } from '@bold-ballast/core'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { SvgButton } from '../../../ui/files/svg-button.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { useWorked } from '../../../ui/hooks/use-worked.ts'
import { Plates } from '../../../ui/plates.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Caution, Empty } from '../../../ui/states.tsx'
import { guessRange, wantedWords } from '../news.ts'
import type { TrackTabProps } from '../tab-props.ts'
import type { TrackWorker } from '../track.worker.ts'
import { beginTrackWorker } from '../use-lap.ts'
import { FitChoice } from './fit-choice.tsx'
import { LapStrip } from './lap-strip.tsx'
import { LedgerFigure } from './ledger-figure.tsx'
import { Levers } from './levers.tsx'
import { TrackMap } from './track-map.tsx'
import { Unexplained } from './unexplained.tsx'
import { useDriverHeld } from './use-driver-held.ts'

/** Which track is looked at. */
export function TrackSelect({ room, track, openTrack }: Pick<TrackTabProps, 'room' | 'track' | 'openTrack'>) {
  if (room.tracks.length < 2) return <strong>{track?.name}</strong>
  return (
    <label className="flex items-center gap-2">
      <span className="sr-only">Track</span>
      <select value={track?.id ?? ''} onChange={(event) => openTrack(event.target.value)} className="font-semibold">
        {room.tracks.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  )
}

/** How the lap is known, in a line. */
function HowKnown({ stage }: { stage: StageLap }) {
  const { text } = useQuantities()
  const spread = (sdS: number) => `±${text('lapTime', sdS, { decimals: sdS < 1 ? 2 : 1 })}`
  if (stage.how === 'guess') {
    const [low, high] = guessRange(stage)
    return (
      <span className="text-wait">
        Nothing was driven: a guess of {text('lapTime', low, { decimals: 0 })} to {text('lapTime', high, { decimals: 0 })}. One session takes most of it off.
      </span>
    )
  }
  const factor = stage.fit ? <span className="tabular-nums">{stage.fit.gripFactor.toFixed(3)}</span> : null
  if (stage.how === 'driven')
    return <span className="text-quiet">{factor ? <>Driven with this car: its tyres gave {factor} of their grip.</> : 'Driven with this car.'}</span>
  return (
    <span className="text-quiet">
      {factor && <>Grip fitted to the driven lap: {factor}. </>}
      {stage.beforeFitSdS !== null && <>Before the fit {spread(stage.beforeFitSdS)}, now </>}
      {spread(stage.sdS)}.
    </span>
  )
}

/** Cars of the stages from what was driven to the picked one, with the grip that was fitted. */
function ledgerStages(room: TrackRoom, from: number, to: number, stage: StageLap) {
  const own = stage.car
  if (!own || !stage.fit) return []
  return room.stages.slice(from, to + 1).map(({ lap }, i) => ({
    position: from + i,
    car: lap.car && { ...lap.car, gripFactor: own.gripFactor, reference: own.reference },
  }))
}

function Ledger({
  room,
  made,
  position,
  stage,
  track,
}: {
  room: TrackRoom
  made: TrackTabProps['made']
  position: number
  stage: StageLap
  track: NonNullable<TrackTabProps['track']>
}) {
  const from = stage.fromPosition
  const driven = from === null ? undefined : room.stages[from]?.driven[track.id]
  const stages = useMemo(() => (from === null || from > position ? [] : ledgerStages(room, from, position, stage)), [room, from, position, stage])
  const { answer } = useWorked<TrackWorker, Awaited<ReturnType<TrackWorker['ledger']>> | null>(beginTrackWorker, JSON.stringify(stages), async (remote) =>
    stages.length > 1 ? await remote.ledger(track, stages) : [],
  )
  if (!driven) return null
  if (from !== null && from > position) return <p>Carried back from stage {from}, where it was driven: what came in since is taken out of the model again.</p>
  if (!answer) return <p className="text-quiet">The ledger of seconds is being worked out …</p>
  if ('refused' in answer) return <p className="text-wait">{answer.refused}</p>
  const wantedS = made.wantedS[track.id] ?? null
  const verdict = wantedS === null ? null : `${wantedWords(stage, wantedS)}, ${formatChance(lapChance(stage, wantedS))}`
  return (
    <LedgerFigure
      driven={driven}
      ledger={answer}
      stage={stage}
      position={position}
      wantedS={wantedS}
      verdict={verdict}
      room={room}
      uncounted={made.lap.uncounted}
    />
  )
}

/** How far the model misses a change, and whether the build's own forecasts said it. */
const modelWords = ({ model }: StageLap): string =>
  model?.isLearned
    ? `the model: ${Math.round(100 * model.share)} % of a change, as ${model.pairs} of its forecasts missed`
    : 'the model itself: a fifth of a change'

/** What each unsure number leaves of the lap's doubt. */
function Doubts({ stage }: { stage: StageLap }) {
  const rows = [
    ...(stage.fitSdS > 0 ? [{ key: 'fit', word: 'fit to what was driven', s: stage.fitSdS, isGuess: false }] : []),
    ...(stage.modelSdS > 0 ? [{ key: 'model', word: modelWords(stage), s: stage.modelSdS, isGuess: false }] : []),
    ...stage.doubts.map(({ key, leftS, isGuess }) => ({ key, word: LAP_INPUT_WORDS[key as LapInputKey].word, s: leftS, isGuess })),
  ].sort((a, b) => b.s - a.s)
  const shown = rows.slice(0, 5)
  const rest = Math.hypot(...rows.slice(5).map(({ s }) => s))
  if (shown.length === 0) return null
  return (
    <section className="mt-5">
      <h2 className="mb-1">Where the ±{stage.sdS.toFixed(2)} s comes from</h2>
      <ul className="grid gap-x-6 sm:grid-cols-2">
        {shown.map(({ key, word, s, isGuess }) => (
          <li key={key} className="flex items-baseline gap-2 border-t border-line py-1">
            <strong className="w-10 shrink-0 tabular-nums">{s.toFixed(2)}</strong>
            <span className="flex-1">{word}</span>
            <Plates proof={isGuess ? 'guess' : 'calculated'} />
          </li>
        ))}
        {rest > 0.005 && (
          <li className="flex items-baseline gap-2 border-t border-line py-1 text-quiet">
            <span className="w-10 shrink-0 tabular-nums">{rest.toFixed(2)}</span> all the rest
          </li>
        )}
      </ul>
    </section>
  )
}

/** The lap of the picked stage: what holds the car where, the seconds from what was driven to what is wanted, and what would make up the rest. */
export function LapTab({ records, room, made, position, stageId, track, driven, openTrack }: TrackTabProps) {
  const address = useAddress()
  const { units } = useQuantities()
  const buildId = records.build.id
  const [holder, width] = useWidth<HTMLDivElement>(620)
  const picked = address.get('corner')
  const corners = useMemo(() => (track ? cornersOf(track, track.marks) : []), [track])
  const lap = driven?.lap ?? null
  const held = useDriverHeld(buildId, room, position, track, driven?.stage?.car ?? null)
  const speeds = useMemo(() => (lap ? slowestIn(lap, corners) : []), [lap, corners])
  if (!track)
    return (
      <Empty title="No track yet" why="Draw or import a track; the lap of every stage stands here, with what holds the car back and what each change is worth.">
        <Link className="button button-strong" to={`/builds/${buildId}/track?tab=tracks&do=track`}>
          Draw or import a track
        </Link>
      </Empty>
    )
  const corner = corners.find(({ name }) => name === picked)
  const pick = (name: string) => address.set({ corner: name })
  const stage = driven?.stage ?? null
  return (
    <div className={`grid gap-x-10 gap-y-5 lg:grid-cols-[minmax(0,1fr)_minmax(0,430px)] ${driven?.isOld ? 'opacity-60' : ''}`}>
      <div ref={holder} className="min-w-0">
        <div className="mb-1 flex flex-wrap items-baseline gap-x-4 gap-y-1">
          <TrackSelect room={room} track={track} openTrack={openTrack} />
          {stage && <HowKnown stage={stage} />}
          {!driven && (
            <span role="status" className="text-quiet">
              The lap is being driven …
            </span>
          )}
        </div>
        {stage && stage.how !== 'guess' && <FitChoice room={room} track={track} stage={stage} buildId={buildId} />}
        <TrackMap track={track} lap={lap} corners={corners} speeds={speeds} picked={picked} pick={pick} width={width} range={corner ?? null} driver={held} />
        {lap && (
          <>
            <h2 className="mt-4 mb-1 flex flex-wrap items-baseline gap-x-3">
              The lap laid out by its seconds
              <span className="font-normal text-quiet">speed in {units.speed}, as at the corners</span>
              <label className="flex items-baseline gap-2 text-sm font-normal">
                corner
                <select value={picked} onChange={(event) => pick(event.target.value)}>
                  <option value="">all</option>
                  {corners.map(({ name, atM }) => (
                    <option key={atM} value={name}>
                      {name}
                    </option>
                  ))}
                </select>
              </label>
              <SvgButton name={`${records.build.name} ${track.name}`} holder={holder} what="the track" />
            </h2>
            <ScrollBox label="The lap by its seconds">
              <LapStrip lap={lap} corners={corners} picked={picked} pick={pick} width={Math.max(560, width)} />
            </ScrollBox>
          </>
        )}
        {driven?.refused && <p className="mt-2 border-l-4 border-wait pl-3">{driven.refused}</p>}
      </div>
      <div className="min-w-0">
        {made.lap.missing.length > 0 && (
          <section>
            <h2 className="mb-1">What a lap of this stage lacks</h2>
            <ul>
              {made.lap.missing.map(({ what, room: where, more }) => (
                <li key={what} className="border-t border-line py-1">
                  <Link className="word-link" to={`/builds/${buildId}/${where}?stage=${stageId}${more}`}>
                    {what}
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        )}
        {stage?.how === 'driven' && <Unexplained room={room} position={position} trackId={track.id} />}
        {stage?.how === 'fitted' && (
          <section>
            <h2 className="mb-1">Seconds, from what was driven to what is wanted</h2>
            <Ledger room={room} made={made} position={position} stage={stage} track={track} />
          </section>
        )}
        {stage?.car && <Levers room={room} made={made} stage={stage} track={track} />}
        {stage && stage.how !== 'driven' && <Doubts stage={stage} />}
        <p className="mt-5 text-xs text-quiet">
          Not in it: bars, springs, dampers, kerbs, tyre heat and wear, the line driven. All of that is in the fitted grip
          {track.line === 'centre' ? '; on a centre line it is no tyre’s friction.' : '.'}
          {track.cutOffM === null ? '' : ` Corner speeds stand for a trace smoothed over ${track.cutOffM} m.`}
        </p>
        <Caution className="mt-2 text-xs">Only on a closed track, by its event’s rules. Brakes and tyres are hot when the car comes in.</Caution>
      </div>
    </div>
  )
}
