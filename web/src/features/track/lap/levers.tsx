import { LAP_LEVERS, type LapCar, type LapLever, type LeverAnswer, leverBound, type StageLap, type TrackRoom, type TrackRoomStage } from '@bold-ballast/core'
import { useMemo } from 'react'
import { useWorked } from '../../../ui/hooks/use-worked.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import type { TrackWorker } from '../track.worker.ts'
import { beginTrackWorker } from '../use-lap.ts'

/** What would make up what is missing to the wanted lap, each lever alone to its bound; then the cheapest sets of wanted parts. */
export function Levers({ room, made, stage, track }: { room: TrackRoom; made: TrackRoomStage; stage: StageLap; track: TrackRoom['tracks'][number] }) {
  const { text } = useQuantities()
  const wantedS = made.wantedS[track.id] ?? null
  const levers = useMemo(
    () => (stage.car ? LAP_LEVERS.map((lever) => ({ lever, bound: leverBound(lever, stage.car as LapCar, made.bounds) })) : []),
    [stage.car, made.bounds],
  )
  const isShort = wantedS !== null && stage.lapS > wantedS
  const parts = useMemo(() => room.wished.flatMap(({ change, ...part }) => (change ? [{ ...part, change }] : [])), [room.wished])
  const key = isShort && stage.car ? JSON.stringify([stage.car, wantedS, track.id, levers, parts]) : ''
  const { answer } = useWorked<TrackWorker, { levers: Awaited<ReturnType<TrackWorker['levers']>>; sets: Awaited<ReturnType<TrackWorker['sets']>> } | null>(
    beginTrackWorker,
    key,
    async (remote) => {
      if (!stage.car || wantedS === null) return null
      return {
        levers: await remote.levers(track, { car: stage.car, lapS: stage.lapS, wantedS }, levers),
        sets: parts.length > 0 ? await remote.sets(track, { car: stage.car, lapS: stage.lapS, wantedS }, parts) : [],
      }
    },
  )
  if (!isShort || wantedS === null) return null
  const missing = stage.lapS - wantedS
  const words = ({ lever, from, to }: LeverAnswer): string => {
    if (to === null) return ''
    switch (lever) {
      case 'power':
        return `${text('power', to - from, { decimals: 0 })} more`
      case 'mass':
        return `${text('mass', from - to, { decimals: 0 })} less`
      case 'grip':
        return `${text('share', to - 1, { decimals: 1 })} grip`
      case 'downforce':
        return `${text('area', to - from, { decimals: 2 })} of downforce`
    }
  }
  const unreached: Readonly<Record<LapLever, string>> = { power: 'power', mass: 'mass', grip: 'grip', downforce: 'downforce' }
  const at = ({ lever, to, from }: LeverAnswer): string => {
    if (to === null) return ''
    if (lever === 'power') return `${text('power', to, { decimals: 0 })} in all`
    if (lever === 'mass') return `${text('mass', to, { decimals: 0 })} in all`
    return lever === 'downforce' ? `balance kept, ${text('area', from, { decimals: 2 })} now` : 'of any tyre, on this track'
  }
  return (
    <section className="mt-5">
      <h2 className="mb-1">What would make up the {text('lapTime', missing, { decimals: 2 })}, each alone</h2>
      {!answer ? (
        <p role="status" className="text-quiet">
          Being worked out …
        </p>
      ) : 'refused' in answer.levers ? (
        <p className="text-wait">{answer.levers.refused}</p>
      ) : (
        <ul>
          {answer.levers.map((lever) => (
            <li key={lever.lever} className="flex flex-wrap items-baseline gap-x-4 border-t border-line py-1.5">
              {lever.to === null ? (
                <>
                  <strong className="w-[190px] shrink-0 text-quiet">not by {unreached[lever.lever]} alone</strong>
                  <span>
                    {text('lapTime', lever.atBoundS, { decimals: 2 })} at{' '}
                    {lever.lever === 'power'
                      ? text('power', lever.bound.value, { decimals: 0 })
                      : lever.lever === 'mass'
                        ? text('mass', lever.bound.value, { decimals: 0 })
                        : 'its end'}
                    : {lever.bound.by}
                  </span>
                </>
              ) : (
                <>
                  <strong className="w-[190px] shrink-0 text-[16px]">{words(lever)}</strong>
                  <span>{at(lever)}</span>
                </>
              )}
            </li>
          ))}
        </ul>
      )}
      {answer && parts.length > 0 && !('refused' in answer.sets) && (
        <p className="mt-1">
          {answer.sets[0]
            ? `Of the wanted parts the cheapest that reach it: ${answer.sets[0].parts.map(({ name }) => name).join(', ')}, ${text('money', answer.sets[0].cost)}.`
            : 'Nothing among the wanted parts reaches it.'}
        </p>
      )}
    </section>
  )
}
