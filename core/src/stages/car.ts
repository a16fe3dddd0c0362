import { floatAt, itemAt } from '../item-at.ts'
import type { RealPairs } from '../jobs/optimism.ts'
import type { RoadAsked, RoadSummary } from '../jobs/summary.ts'
import { estimateBiases, type GuessBiases, type GuessPair, type GuessSide } from '../mass/estimate-bias.ts'
import type { Setup } from '../records/aero-kinds.ts'
import type { Place } from '../records/common-fields.ts'
import type { BuildRecord, Geometry, Stage } from '../records/plan-kinds.ts'
import type { BuildRecords } from '../records/records.ts'
import type { Change, Weighing } from '../records/weight-kinds.ts'
import { guessSide, isUnknown, type LineMass, lineMass, lineOfPart } from './line-mass.ts'
import { linkedRuns, listingStages } from './linked-runs.ts'
import { placedExpectations } from './placed-expectations.ts'
import { type ReferenceMass, referenceMass } from './reference-mass.ts'
import { type StageValue, WAITING, type Waiting } from './stage-value.ts'

/** A change that is not dropped, with what it weighs and where its stage stands. */
export interface Line {
  readonly change: Change
  readonly mass: LineMass
  readonly stagePosition: number
  /** When it was done, in ms since 1970; null while it is not. */
  readonly doneAtMs: number | null
  /** Its own place, else that of its zone. */
  readonly place: Place | null
}

/** What was in a car: 1 for each of its lines that was, by their order. */
export type Holds = Uint8Array
export const NOTHING_HELD: Holds = new Uint8Array(0)

/** A weighing that has a total and is not set aside, with the changes that were in the car that day. */
export interface UsableWeighing {
  readonly weighing: Weighing
  /** Position of the stage it was entered at. */
  readonly context: number
  readonly reference: ReferenceMass
  /** 1 for each of the car's lines that was in it, by their order: most lines are looked at for every weighing. */
  readonly holds: Holds
  readonly holdsCount: number
  /** How many of the changes in the car belong to stages 0 to n, for each n. */
  readonly inCarUpTo: readonly number[]
}

/** The records of a build made ready for questions; worked out once and handed to every calculation. */
export interface Car {
  readonly records: BuildRecords
  readonly stages: readonly Stage[]
  readonly lines: readonly Line[]
  readonly lineById: ReadonlyMap<string, Line>
  readonly linesByStage: readonly (readonly Line[])[]
  /** The build as it stands at each stage: where its wheels stand from there on. */
  readonly builds: readonly BuildRecord[]
  /** How many lines stages 0 to n hold, for each n. */
  readonly lineCountUpTo: readonly number[]
  /** Whether each stage lists a line, a part or an expectation of its own. */
  readonly lists: readonly boolean[]
  /** The run of linked stages that each stage belongs to; see `linkedRuns`. */
  readonly runs: readonly number[]
  /** By time, earliest first. */
  readonly weighings: readonly UsableWeighing[]
  readonly biases: GuessBiases
  /** Pairs of guess and weighing of this build alone. */
  readonly ownPairs: readonly SidedPair[]
  /** What has been worked out of this car, by question and stage. */
  readonly answers: Map<unknown, Map<number, unknown>>
  readonly later: LaterValues
  /** Pairs of guessed and real hours, days and money of the other builds, for a build that learns from them too. */
  readonly garageRealPairs: RealPairs | null
  readonly laterRoad: LaterRoad
}

/** A guess and what the part weighed afterwards, and whether it came off or went on. */
export interface SidedPair extends GuessPair {
  readonly side: GuessSide
}

/** Index of a stage in the build's order; −1 when the build has no such stage. */
export const stageIndex = (car: Car, stageId: string): number => car.stages.findIndex((stage) => stage.id === stageId)

/** What of a build a stage may have otherwise. */
type OfStages = Geometry & Pick<BuildRecord, 'suspension' | 'outline'>

/**
 * The build as it stands at a stage: with the wheelbase, tracks and springs from there on.
 * @example buildAtStage(EXAMPLE, 'strip').trackRearM // 1.5
 */
export function buildAtStage<Build extends OfStages>(
  {
    build,
    stages,
    setups,
  }: { readonly build: Build; readonly stages: readonly Pick<Stage, 'id' | 'geometry' | 'outline' | 'position'>[]; readonly setups: readonly Turned[] },
  stageId: string,
): Build {
  const sorted = [...stages].sort((a, b) => a.position - b.position)
  return buildsOf(build, sorted, setups)[sorted.findIndex(({ id }) => id === stageId)] ?? build
}

type Suspension = BuildRecord['suspension']
type Turned = Pick<Setup, 'stageId' | 'front' | 'rear'>

/** The springs of a build as a set-up has them; a build that names no perches takes none: turns would rest on a pitch that nobody measured. */
function sprung(suspension: Suspension, setup: Turned | undefined): Suspension {
  if (!suspension || !setup) return suspension
  const axle = (which: 'front' | 'rear') => {
    const own = setup[which]
    if (!own) return suspension[which]
    const { springRateNPerM, motionRatio, tyreRateNPerM } = own
    return {
      ...suspension[which],
      motionRatio,
      wheelRateNPerM: springRateNPerM * motionRatio ** 2,
      tyreRateNPerM: tyreRateNPerM ?? suspension[which].tyreRateNPerM,
    }
  }
  return { front: axle('front'), rear: axle('rear') }
}

/** The build as it stands at each stage: geometry, outline and springs of its own, else those of the stage before. */
function buildsOf<Build extends OfStages>(build: Build, stages: readonly Pick<Stage, 'id' | 'geometry' | 'outline'>[], setups: readonly Turned[]): Build[] {
  const byStage = new Map(setups.map((setup) => [setup.stageId, setup]))
  let now = build
  return stages.map(({ id, geometry, outline }) => {
    if (geometry) now = { ...now, ...geometry }
    if (outline) now = { ...now, outline }
    const suspension = sprung(now.suspension, byStage.get(id))
    if (suspension !== now.suspension) now = { ...now, suspension }
    return now
  })
}

/**
 * The build as it stood when a weighing was read: with the geometry of the stage it was entered at.
 * @example buildOfWeighing(CAR, EXAMPLE.weighings[0]).wheelbaseM // 2.6
 */
export const buildOfWeighing = (car: Car, { stageId }: Pick<Weighing, 'stageId'>): BuildRecord => car.builds[stageIndex(car, stageId)] ?? car.records.build

/** What a car is opened with besides its records. */
export interface CarOptions {
  /** Pairs of guess and weighing of the other builds, for a build that learns from them too. */
  readonly garagePairs?: readonly SidedPair[]
  /** Asks for a value that is worked out elsewhere and arrives later; everything waits where nobody works it out. */
  readonly later?: LaterValues
  readonly garageRealPairs?: RealPairs
  /** Asks for the road in short, as `later` does for a value. */
  readonly laterRoad?: LaterRoad
}

export type LaterValues = (metric: string, position: number) => StageValue | Waiting | undefined

/** Undefined: it cannot be worked out. */
export type LaterRoad = (asked: RoadAsked) => RoadSummary | Waiting | undefined

/** When a change was done, in ms since 1970; null while it is not. */
export const doneAtMs = ({ state, doneAt }: Change): number | null => (state === 'done' && doneAt !== null ? Date.parse(doneAt) : null)

/** How many lines of each stage and those before it there are; of those alone that are held, where that is said. */
function countUpTo(places: Uint16Array, stageCount: number, held?: Uint8Array): number[] {
  const counts = new Uint32Array(stageCount)
  for (let i = 0; i < places.length; i++) {
    const place = places[i] as number
    counts[place] = (counts[place] as number) + (held ? (held[i] as number) : 1)
  }
  for (let at = 1; at < stageCount; at++) counts[at] = (counts[at] as number) + (counts[at - 1] as number)
  return Array.from(counts)
}

/**
 * The car of a build, opened once for each state of its records and handed to everything that is asked of it; what is worked out of it is kept by it.
 * Rejects what the readings of its weighings reject.
 * @example openCar(EXAMPLE).lines.length // 2
 */
export function openCar(stored: BuildRecords, { garagePairs = [], later = () => WAITING, garageRealPairs, laterRoad = () => WAITING }: CarOptions = {}): Car {
  const records = placedExpectations(stored)
  const stages = [...records.stages].sort((a, b) => a.position - b.position)
  const positions = new Map(stages.map((stage, i) => [stage.id, i]))
  const placeOfZone = new Map(records.zones.map((zone) => [zone.name.toLowerCase(), zone.place]))
  const partById = new Map(records.parts.map((part) => [part.id, part]))
  const lines = records.changes.flatMap((record): Line[] => {
    const stagePosition = positions.get(record.stageId)
    if (record.state === 'dropped' || stagePosition === undefined) return []
    const change = record.partId ? lineOfPart(record, partById.get(record.partId)) : record
    const place = change.place ?? placeOfZone.get(change.zone?.toLowerCase() ?? '') ?? null
    return [{ change, mass: lineMass(change), stagePosition, doneAtMs: doneAtMs(change), place }]
  })
  const ownPairs = lines.flatMap(guessPair)
  const places = Uint16Array.from(lines.map(({ stagePosition }) => stagePosition))
  const lists = listingStages(records, stages)
  const builds = buildsOf(records.build, stages, records.setups)
  const pairs = records.build.guessPairsFrom === 'garage' ? [...ownPairs, ...garagePairs] : ownPairs
  return {
    records,
    answers: new Map(),
    later,
    garageRealPairs: garageRealPairs ?? null,
    laterRoad,
    stages,
    lines,
    lineById: new Map(lines.map((line) => [line.change.id, line])),
    linesByStage: stages.map((_, position) => lines.filter((line) => line.stagePosition === position)),
    lineCountUpTo: countUpTo(places, stages.length),
    lists,
    runs: linkedRuns(lists),
    builds,
    weighings: usableWeighings(records, builds, { lines, places }, positions),
    biases: estimateBiases({ off: pairs.filter(({ side }) => side === 'off'), on: pairs.filter(({ side }) => side === 'on') }),
    ownPairs,
  }
}

/**
 * Whether every stage after the earlier of two, up to the later one, lists what was done.
 * @example areLinked(CAR, 0, 1) // true
 */
export const areLinked = (car: Car, one: number, other: number): boolean => car.runs[one] === car.runs[other]

/** Lines of stages 0 to n that nobody weighed or guessed. */
export const unknownLines = (car: Car, position: number): readonly Line[] => car.lines.filter((line) => line.stagePosition <= position && isUnknown(line.mass))

/** The latest guess of a line beside what it weighed afterwards. */
function guessPair(line: Line): SidedPair[] {
  if (line.mass.proof !== 'measured' && line.mass.proof !== 'confirmed') return []
  const guess = line.change.values.findLast((value) => value.proof === 'guess')
  return guess ? [{ guessKg: guess.massKg * line.change.count, measuredKg: line.mass.massKg, side: guessSide(line.change) }] : []
}

function usableWeighings(
  records: BuildRecords,
  builds: readonly BuildRecord[],
  { lines, places }: { readonly lines: readonly Line[]; readonly places: Uint16Array },
  positions: ReadonlyMap<string, number>,
): UsableWeighing[] {
  // 40 weighings look at 2,000 lines each: numbers in a row, not objects.
  const doneAtMs = Float64Array.from(lines.map((line) => line.doneAtMs ?? Number.POSITIVE_INFINITY))
  const placeOfLine = new Map(lines.map(({ change }, i) => [change.id, i]))
  const corrections = new Map<string, Map<string, boolean>>()
  for (const { weighingId, changeId, inCar } of records.inCars) corrections.set(weighingId, (corrections.get(weighingId) ?? new Map()).set(changeId, inCar))
  return records.weighings
    .flatMap((weighing): UsableWeighing[] => {
      const context = positions.get(weighing.stageId)
      if (weighing.setAside !== null || context === undefined) return []
      const reference = referenceMass(weighing, itemAt(builds, context))
      if (!reference) return []
      const at = Date.parse(weighing.at)
      const holds = new Uint8Array(lines.length)
      for (let i = 0; i < holds.length; i++) holds[i] = floatAt(doneAtMs, i) <= at ? 1 : 0
      for (const [changeId, isIn] of corrections.get(weighing.id) ?? []) {
        const i = placeOfLine.get(changeId)
        if (i !== undefined) holds[i] = isIn ? 1 : 0
      }
      const inCarUpTo = countUpTo(places, positions.size, holds)
      return [{ weighing, context, reference, holds, holdsCount: inCarUpTo.at(-1) ?? 0, inCarUpTo }]
    })
    .sort((a, b) => Date.parse(a.weighing.at) - Date.parse(b.weighing.at))
}
