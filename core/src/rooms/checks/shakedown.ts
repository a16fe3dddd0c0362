import { orElse } from '../../attempt.ts'
import { type GateWord, type PaceReading, paceGate } from '../../checks/pace-gate.ts'
import { roundTime } from '../../checks/round-time.ts'
import { type ShakedownHour, shakedownHour } from '../../checks/shakedown-hour.ts'
import { CalculationError } from '../../errors.ts'
import type { TrackPlan } from '../../records/brake-kinds.ts'
import type { Check, CheckReading, Mark } from '../../records/check-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import type { TrackSession } from '../../records/track/track-session-kinds.ts'
import { checksInCar, dueAt, marksByCheck } from './states.ts'
import { minutesOf } from './usual.ts'

type Records = Parameters<typeof dueAt>[0] & Pick<BuildRecords, 'trackPlans' | 'trackSessions' | 'laps'>
type Step = TrackPlan['steps'][number]

/** How much longer a lap takes at a share of full pace (common practice, no source); between them straight. */
const USUAL_FACTORS = [
  [0.5, 1.5],
  [0.65, 1.3],
  [0.8, 1.12],
  [1, 1],
] as const
const BED_FACTOR = 1.5
/** A lap where nobody knows it yet, s (common practice, no source). */
const USUAL_LAP_S = 90
/** Fuel that never comes out of the tank, L (common practice, no source). */
const SPARE_FUEL_L = 3
const SECONDS_PER_MINUTE = 60

/**
 * How much longer a lap of a step takes than at full pace: as it says, else as is usual for its pace.
 * @example lapFactor({ kind: 'level', share: 0.65, factor: null }) // 1.3
 */
export function lapFactor({ kind, share, factor }: Pick<Step, 'kind' | 'share' | 'factor'>): number {
  if (factor !== null) return factor
  if (kind === 'bed') return BED_FACTOR
  const pace = share ?? 1
  const above = USUAL_FACTORS.findIndex(([each]) => each >= pace)
  const [p2, f2] = USUAL_FACTORS[above < 0 ? USUAL_FACTORS.length - 1 : above] ?? [1, 1]
  const [p1, f1] = USUAL_FACTORS[Math.max(0, above - 1)] ?? [p2, f2]
  return p2 === p1 ? f2 : f1 + ((f2 - f1) * (pace - p1)) / (p2 - p1)
}

/** A plan laid into its hour, or why it cannot be. */
export interface HourLaid {
  /** The steps that take time, by their places in the plan. */
  readonly steps: readonly { readonly index: number; readonly step: Step; readonly isLaps: boolean; readonly factor: number; readonly laps: number | null }[]
  readonly hour: ShakedownHour | null
  readonly refused: string | null
  readonly bookedS: number
  readonly lapS: number
  readonly lapFrom: 'plan' | 'laps' | 'usual'
  readonly roundS: number
  readonly roundChecks: number
  readonly people: number
  /** Whether all of it fits with one more pair of hands. */
  readonly fitsWithOneMore: boolean
  /** Null: nobody said what a lap burns. */
  readonly fuelL: number | null
}

/** The middle clean lap that was driven on a track by this car; null: none. */
function drivenLapS({ trackSessions, laps }: Records, trackId: string): number | null {
  const sessions = new Set(trackSessions.filter((session) => session.trackId === trackId && session.setAside === null).map(({ id }) => id))
  const own = laps.filter((lap) => sessions.has(lap.trackSessionId) && lap.kind === 'clean' && lap.setAside === null).map(({ lapS }) => lapS)
  return own.length === 0 ? null : (own.sort((a, b) => a - b)[Math.floor(own.length / 2)] ?? null)
}

/**
 * The plan of a stage laid into the time that is booked: which laps fit, what to book for all of it, and whether one more hand makes it fit.
 * @example layHour(CHECKED, HOUR, 1).hour.laps // [5]
 */
export function layHour(records: Records, plan: TrackPlan, position: number): HourLaid {
  const event = records.events.find(({ id }) => id === plan.eventId)
  const bookedS = event?.bookedS ?? plan.bookedS
  const driven = drivenLapS(records, plan.trackId)
  const lapS = plan.lapS ?? driven ?? USUAL_LAP_S
  const between = checksInCar(records, position).filter(({ rounds }) => rounds.includes('between'))
  const minutes = between.map(minutesOf)
  const roundS = (people: number) => (minutes.length === 0 ? 0 : SECONDS_PER_MINUTE * roundTime(minutes, people).minutes)
  const taken = plan.steps.map((step, index) => ({ step, index })).filter(({ step }) => step.seconds !== null || (step.wantLaps ?? 0) > 0)
  const input = (people: number) => ({
    bookedS,
    setUpS: plan.setUpS,
    lapS,
    roundS: roundS(people),
    steps: taken.map(({ step }) => {
      const isLaps = step.seconds === null
      const wantLaps = isLaps ? (step.wantLaps ?? 0) : 1
      return {
        name: step.words ?? step.kind,
        factor: isLaps ? lapFactor(step) : (step.seconds ?? 0) / lapS,
        wantLaps,
        leastLaps: isLaps ? Math.min(wantLaps, step.leastLaps ?? wantLaps) : 1,
        coolS: step.coolS,
      }
    }),
  })
  const laid = orElse(
    () => ({ hour: shakedownHour(input(plan.people)), refused: null }),
    (refused) => ({ hour: null, refused }),
  )
  const all = (hour: ShakedownHour | null) => hour !== null && hour.lapsLeftOut === 0
  const more = orElse(
    () => shakedownHour(input(plan.people + 1)),
    () => null,
  )
  const lapsInAll = taken.reduce((sum, { step }, i) => sum + (step.seconds === null ? (laid.hour?.laps[i] ?? 0) : 0), 0)
  return {
    ...laid,
    steps: taken.map(({ step, index }, i) => ({
      index,
      step,
      isLaps: step.seconds === null,
      factor: step.seconds === null ? lapFactor(step) : (step.seconds ?? 0) / lapS,
      laps: laid.hour?.laps[i] ?? null,
    })),
    bookedS,
    lapS,
    lapFrom: plan.lapS !== null ? 'plan' : driven !== null ? 'laps' : 'usual',
    roundS: roundS(plan.people),
    roundChecks: between.length,
    people: plan.people,
    fitsWithOneMore: !all(laid.hour) && all(more),
    fuelL: plan.fuelPerLapL === null || !laid.hour ? null : lapsInAll * plan.fuelPerLapL + SPARE_FUEL_L,
  }
}

/** How well a gauge is read where nobody said, in its own unit (common practice, no source). */
const USUAL_SD: Readonly<Record<CheckReading['quantity'], number>> = {
  temperature: 1,
  pressure: 1e4,
  voltage: 0.05,
  current: 0.5,
  speed: 0.3,
  engineSpeed: 50,
  length: 0.001,
  mass: 0.5,
  ratio: 0,
}

/** One reading over the steps that were driven. */
export interface ReadingAhead {
  readonly check: Check & { readonly reading: CheckReading }
  /** Of each step of the plan; null: not read there. */
  readonly values: readonly (number | null)[]
  readonly sd: number
  readonly next: number | null
  readonly nextSd: number | null
  readonly word: GateWord | 'missing'
}

/** Whether the next pace may be driven, and why not. */
export interface Gate {
  /** The step that it stands behind, by its place in the plan. */
  readonly step: number
  readonly word: GateWord
  readonly reasons: readonly string[]
  readonly readings: readonly ReadingAhead[]
  /** Share of full pace that comes next; null: it was the last. */
  readonly nextPace: number | null
  readonly session: TrackSession
  /** Checks of the round between that are not marked yet at this stop. */
  readonly open: number
  readonly overruled: string | null
}

const hasReading = (check: Check): check is Check & { reading: CheckReading } => check.reading !== null

/** High and low limits as the gate takes them: a low one is a high one of what is turned over. */
function sidesOf(
  { reading }: { readonly reading: CheckReading },
  values: readonly number[],
  sd: number,
): { readonly sign: 1 | -1; readonly own: PaceReading }[] {
  const { stopLow, warnLow, warnHigh, stopHigh } = reading
  const low = (limit: number | null) => (limit === null ? null : -limit)
  const sides = [
    { sign: 1, isAsked: warnHigh !== null || stopHigh !== null, warn: warnHigh, stop: stopHigh },
    { sign: -1, isAsked: warnLow !== null || stopLow !== null, warn: low(warnLow), stop: low(stopLow) },
  ] as const
  const asked = sides.filter(({ isAsked }) => isAsked)
  return (asked.length > 0 ? asked : sides.slice(0, 1)).map(({ sign, warn, stop }) => ({
    sign,
    own: { name: 'reading', values: values.map((value) => sign * value), sd, warn, stop },
  }))
}

const BADNESS: readonly GateWord[] = ['go', 'watch', 'again', 'no']
const worse = (a: GateWord, b: GateWord): GateWord => (BADNESS.indexOf(b) > BADNESS.indexOf(a) ? b : a)

/** One reading at the gate behind the last pace that was driven. */
function readingAt(
  check: ReadingAhead['check'],
  values: readonly (number | null)[],
  paces: readonly { readonly index: number; readonly pace: number }[],
  at: number,
  nextPace: number | null,
): ReadingAhead {
  const sd = check.reading.sd ?? USUAL_SD[check.reading.quantity]
  const now = values[at]
  if (now === null || now === undefined) return { check, values, sd, next: null, nextSd: null, word: 'missing' }
  const behind = paces.filter(({ index }) => index <= at && typeof values[index] === 'number').slice(-2)
  const isPace = behind.at(-1)?.index === at
  const used = isPace && nextPace !== null ? behind : []
  const own = used.length > 0 ? used.map(({ index }) => values[index] as number) : [now]
  const found = sidesOf(check, own, sd).map(({ sign, own: reading }) => {
    const gate = paceGate({
      paces: used.length > 0 ? used.map(({ pace }) => pace) : [0.5],
      nextPace: used.length > 0 ? (nextPace as number) : 1,
      readings: [reading],
    })
    const [first] = gate.readings
    return { word: gate.word, next: first?.next == null ? null : sign * first.next, nextSd: first?.nextSd ?? null }
  })
  return {
    check,
    values,
    sd,
    next: found[0]?.next ?? null,
    nextSd: found[0]?.nextSd ?? null,
    word: found.reduce<GateWord>((word, each) => worse(word, each.word), 'go'),
  }
}

const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`

/**
 * The sessions of a plan by the step they were, the latest of each.
 * @example sessionsByStep({ trackSessions: [] }, HOUR, null).size // 0
 */
export function sessionsByStep(
  { trackSessions }: Pick<BuildRecords, 'trackSessions'>,
  plan: Pick<TrackPlan, 'stageId' | 'trackId'>,
  day: string | null,
): Map<number, TrackSession> {
  const own = trackSessions
    .filter(({ stageId, step, at }) => stageId === plan.stageId && step !== null && (day === null || at.slice(0, 10) === day))
    .sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
  return new Map(own.map((session) => [session.step as number, session]))
}

/**
 * The gate behind a step that was driven: a safety check that is bad or a reading over its stop says no; a warning, a missing reading or a check that is still open says
 * again at this pace; else each reading is carried on to the next pace. Undefined for a step that was not driven. Rejects a car with no reading to read.
 * @example gateBehind(CHECKED, HOUR, 1, 0, '2027-03-01') // undefined
 */
export function gateBehind(records: Records, plan: TrackPlan, position: number, step: number, today: string): Gate | undefined {
  const sessions = sessionsByStep(records, plan, null)
  const session = sessions.get(step)
  if (!session) return undefined
  const marks = marksByCheck(records.marks)
  const checks = checksInCar(records, position)
  const ofSession = (check: Check, id: string): Mark | undefined => marks.get(check.id)?.find(({ trackSessionId }) => trackSessionId === id)
  const asked = checks.filter(({ rounds }) => rounds.includes('between'))
  const readings = asked.filter(hasReading)
  if (readings.length === 0)
    throw new CalculationError(
      'missing',
      'readings',
      'A gate with no reading says nothing. Make a check of kind reading for coolant, oil and pressure at least.',
    )
  const paces = plan.steps.flatMap(({ kind, share }, index) => (kind === 'level' && share !== null ? [{ index, pace: share }] : []))
  const nextPace = paces.find(({ index }) => index > step)?.pace ?? null
  const values = (check: Check) =>
    plan.steps.map((_, i) => {
      const of = sessions.get(i)
      return of ? (ofSession(check, of.id)?.value ?? null) : null
    })
  const ahead = readings.map((check) => readingAt(check, values(check), paces, step, nextPace))
  const bad = dueAt(records, { event: null, position, today, round: null }).filter(({ reason, isSafety }) => reason === 'bad' && isSafety)
  const open = asked.filter((check) => !hasReading(check) && !ofSession(check, session.id)).length
  const skipped = asked.filter((check) => ofSession(check, session.id)?.result === 'skipped').length
  const names = (word: ReadingAhead['word']) => ahead.filter((reading) => reading.word === word).map(({ check }) => check.name)
  const [no, again, missing] = [names('no'), names('again'), names('missing')]
  const reasons = [
    ...bad.map(({ check }) => `${check.name}: bad and not mended.`),
    ...no.map((name) => `${name} is over its stop.`),
    ...again.map((name) => `${name} warns, or would pass its stop at the next pace.`),
    ...(missing.length > 0 ? [`Not read: ${missing.join(', ')}.`] : []),
    ...(open > 0 ? [`${counted(open, 'check is', 'checks are')} still open.`] : []),
    ...(skipped > 0 ? [`${counted(skipped, 'check was', 'checks were')} skipped.`] : []),
    ...names('watch').map((name) => `Watch ${name}: it would pass its warning.`),
  ]
  const word: GateWord =
    bad.length > 0 || no.length > 0
      ? 'no'
      : again.length + missing.length + open + skipped > 0
        ? 'again'
        : ahead.reduce<GateWord>((worst, reading) => (reading.word === 'missing' ? worst : worse(worst, reading.word)), 'go')
  return { step, word, reasons, readings: ahead, nextPace, session, open, overruled: plan.steps[step]?.overruled ?? null }
}
