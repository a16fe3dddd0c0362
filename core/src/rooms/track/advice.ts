import { firstToLock } from '../../brakes/brake-share.ts'
import type { Car } from '../../stages/car.ts'
import { defineAdvice, type ItemOf, type Sayings } from '../../stages/define-advice.ts'
import { WAITING } from '../../stages/stage-value.ts'
import { drivenAt, drivenBefore } from './driven-laps.ts'
import { lapStage } from './lap-inputs.ts'
import { powerProofAt } from './log-proof.ts'
import { brakeShareAt } from './stage-brakes.ts'
import { isTold } from './stage-lap.ts'
import { controlTrack, trackSessions } from './track-sessions.ts'

/** The speed at which brakes are asked first: downforce hides the least there. */
export const LOCKING_MPS = 20

/** Which axle of a stage locks first, and at how many g; undefined without brakes, mass or axle loads. */
export function lockingAt(car: Car, position: number) {
  const share = brakeShareAt(car, position)
  const own = lapStage(car, position).braking
  if (!share || !own) return undefined
  return { share: share.value, ...firstToLock(own, { frontShare: share.value, friction: own.friction, speedMps: LOCKING_MPS }) }
}

/** The rear locks first: the car turns round. */
const rearLocks = defineAdvice({
  rank: 20,
  find: (car: Car) => {
    const position = car.stages.length - 1
    const found = lockingAt(car, position)
    return found?.axle === 'rear' ? [{ code: 'rear-locks', position, share: found.share, decelerationG: found.decelerationG } as const] : []
  },
})

/** The last session's logger was there and kept nothing. */
const loggerNothing = defineAdvice({
  rank: 47,
  find: (car: Car) => {
    const last = trackSessions(car)
      .filter(({ record }) => record.logger !== 'none')
      .at(-1)
    return last?.record.logger === 'nothing' ? [{ code: 'logger-nothing', position: Math.max(0, last.position), name: last.trackName } as const] : []
  },
})

/** Windows of full throttle that disagree with the dyno of their stage. */
const roadAndDyno = defineAdvice({
  rank: 45,
  find: (car: Car) => {
    const position = trackSessions(car).findLast(({ windows }) => windows.some(({ of }) => of === 'power'))?.position ?? -1
    const found = position < 0 ? null : powerProofAt(car, position)
    return found && !found.agrees ? [{ code: 'road-and-dyno', position, ratio: found.ratio, cause: found.causes[0]?.cause ?? null } as const] : []
  },
})

/** Laps of the control track that were driven behind another stage's, each with what it misses of its forecast: asked for, since the model has to drive it. */
export function lapMisses(car: Car) {
  const track = controlTrack(car)
  if (!track) return []
  return car.stages.flatMap((_, position) => {
    const driven = drivenAt(car, position, track.id)
    const before = driven && drivenBefore(car, position, track.id)
    const miss = before ? car.later(`lapMiss ${track.id}`, position) : undefined
    return driven && before && miss ? [{ position, driven, from: before.position, name: track.name, miss }] : []
  })
}

/** A driven lap that its forecast does not reach. */
const lapUnexplained = defineAdvice({
  rank: 46,
  find: (car: Car) =>
    lapMisses(car).flatMap(({ position, driven, from, name, miss }) =>
      miss !== WAITING && isTold(miss.value, miss.sd, driven.lapS) ? [{ code: 'lap-unexplained', position, missS: miss.value, from, name } as const] : [],
    ),
})

/** A target of a lap, and no track or nothing to drive on it. */
const noLap = defineAdvice({
  rank: 62,
  find: (car: Car) => {
    const position = car.stages.length - 1
    if (!car.records.targets.some(({ metric }) => metric === 'lapTime')) return []
    const what = controlTrack(car) ? (lapStage(car, position).missing[0]?.what ?? null) : 'a track: none was drawn'
    return what === null ? [] : [{ code: 'no-lap', position, what } as const]
  },
})

export const TRACK_ADVICE = [rearLocks, roadAndDyno, lapUnexplained, loggerNothing, noLap] as const

const CAUSES = { mass: 'a mass or a gear', slope: 'a slope or rolling', drag: 'drag or wind' } as const

export const TRACK_SAYINGS: Sayings<ItemOf<typeof TRACK_ADVICE>> = {
  'rear-locks': ({ position, share, decelerationG }, { text, stage, at }) => ({
    head: `The rear locks first at ${stage(position)}`,
    text: `With ${text('share', share)} of the braking in front it does so at ${decelerationG.toFixed(2)} g: the car turns round. Move the balance forward before it is driven hard.`,
    to: at('track', position, '&tab=tyres'),
    isDanger: true,
  }),
  'road-and-dyno': ({ position, ratio, cause }, { text, stage, at }) => ({
    head: `Road and dyno do not agree at ${stage(position)}`,
    text: `The road shows ${text('share', ratio, { sd: 0.01 })} of the dyno’s power.${cause ? ` What is left over looks most like ${CAUSES[cause]}.` : ''}`,
    to: at('track', position, '&tab=proof'),
  }),
  'lap-unexplained': ({ position, missS, from, name }, { text, stage, at }) => ({
    head: `Find out why the lap at ${name} was ${missS < 0 ? 'quicker' : 'slower'}`,
    text: `${stage(position)} was driven ${text('lapTime', Math.abs(missS), { sd: 0.05 })} ${missS < 0 ? 'under' : 'over'} what stage ${from} and the changes since forecast: the driver, the tyres, the day, or a change that is not on record.`,
    to: at('track', position),
  }),
  'logger-nothing': ({ position, name }, { at }) => ({
    head: 'The logger recorded nothing the last time',
    text: `At ${name}. Record a minute in the paddock and read it back before the car goes out.`,
    to: at('track', position, '&tab=sessions'),
  }),
  'no-lap': ({ position, what }, { at }) => ({
    head: 'Say what decides the lap',
    text: `A target is set on it and what it rests on is missing: ${what}.`,
    to: at('track', position),
  }),
}
