import { itemAt } from '../item-at.ts'
import { type GuessSide, logSpread } from '../mass/estimate-bias.ts'
import type { OpenPart } from '../mass/open-mass.ts'
import { combineMeasurements } from '../proof/combine-measurements.ts'
import type { Proof } from '../proof/quantity.ts'
import type { Part } from '../records/part-kinds.ts'
import type { Change, MassValue } from '../records/weight-kinds.ts'

/**
 * A line that puts in a part of the register, as that part has it where the line itself was not weighed: one mass and one place, kept at the part.
 * @example lineOfPart({ ...EXAMPLE.changes[1], values: [] }, PART).count // 2
 */
export function lineOfPart(change: Change, part: Pick<Part, 'mass' | 'count' | 'place'> | undefined): Change {
  if (!part) return change
  const place = change.place ?? part.place
  const { mass } = part
  if (!mass || change.values.some(({ proof }) => proof === 'measured')) return { ...change, place }
  return { ...change, place, count: part.count, values: [{ ...mass, at: change.doneAt ?? NEVER, derivedFrom: null, instrument: null }] }
}

/** The mass of a ledger line that stands, for all its pieces together, as typed (without the learned bias). */
export interface LineMass {
  readonly massKg: number
  /** Zero for a guess without a spread of its own: the learned bias carries its doubt. */
  readonly sdKg: number
  readonly logSd?: number
  readonly proof: Proof
  /** Missing for a line that nobody weighed or guessed: it stays in sight and counts for nothing. */
  readonly standing?: MassValue
  readonly disagreesWith?: MassValue
}

/**
 * Spread of a part weighed on a scale, where none was typed: the greater of 0.1 kg and 0.5 % (common practice, no source).
 * @example scaleSdKg(40) // 0.2
 */
export const scaleSdKg = (massKg: number): number => Math.max(0.1, 0.005 * massKg)
/** When a part's mass was noted: nobody says, and nothing hangs on it. */
const NEVER = '1970-01-01T00:00:00Z'
const CATALOGUE_RELATIVE_SD = 0.05
/** A mass worked back from two weighings of the whole car, where no spread was typed (common practice, no source). */
const WORKED_OUT_SD_KG = 2.5
const largestUsefulPartSd = (massKg: number) => Math.max(0.2, 0.05 * massKg)

const latestFirst = (values: readonly MassValue[]) =>
  [...values]
    .map((value, i) => ({ value, i }))
    .sort((a, b) => Date.parse(b.value.at) - Date.parse(a.value.at) || b.i - a.i)
    .map((entry) => entry.value)

/**
 * The value of a line that stands: highest proof, then latest; two weighings that agree confirm each other.
 * @example lineMass(EXAMPLE.changes[0]).massKg // 18.6
 */
export function lineMass(change: Change): LineMass {
  const values = latestFirst(change.values)
  const [measured, ...more] = values.filter((value) => value.proof === 'measured')
  if (measured) {
    const asMeasurement = (value: MassValue) => ({ value: value.massKg, sd: value.sdKg ?? scaleSdKg(value.massKg), instrument: value.instrument ?? undefined })
    const combined = combineMeasurements([asMeasurement(measured), ...more.map(asMeasurement)], largestUsefulPartSd)
    return {
      massKg: combined.value * change.count,
      sdKg: combined.sd * change.count,
      proof: combined.proof,
      standing: measured,
      ...(combined.disagreesWith === undefined ? {} : { disagreesWith: itemAt(more, combined.disagreesWith - 1) }),
    }
  }
  const standing = values.find(({ proof }) => proof === 'catalogue' || proof === 'calculated') ?? values[0]
  if (!standing) return { massKg: 0, sdKg: 0, proof: 'guess' }
  const massKg = standing.massKg * change.count
  if (standing.proof === 'catalogue') {
    return { massKg, sdKg: (standing.sdKg ?? CATALOGUE_RELATIVE_SD * standing.massKg) * change.count, proof: 'catalogue', standing }
  }
  if (standing.proof === 'calculated') return { massKg, sdKg: (standing.sdKg ?? WORKED_OUT_SD_KG) * change.count, proof: 'calculated', standing }
  const typedSpread = standing.sdKg === null ? {} : { logSd: logSpread(standing.sdKg / standing.massKg) }
  return { massKg, sdKg: 0, proof: 'guess', standing, ...typedSpread }
}

/** +1 where the change adds mass (on, transfer), −1 where it takes mass away (off). */
export const changeSign = (change: Change): 1 | -1 => (change.kind === 'off' ? -1 : 1)

/**
 * Whose guesses a line runs like: what comes off, or what goes on with the pieces that go back.
 * @example guessSide(EXAMPLE.changes[0]) // 'off'
 */
export const guessSide = (change: Pick<Change, 'kind'>): GuessSide => (change.kind === 'off' ? 'off' : 'on')

/** A line as a part that is still to come, or (with `direction` −1) to be taken out again. */
export function openPart(change: Change, line: LineMass, direction: 1 | -1 = 1): OpenPart {
  const sign = (changeSign(change) * direction) as 1 | -1
  const { box } = line.standing ?? {}
  return {
    id: change.id,
    sign,
    side: guessSide(change),
    massKg: line.massKg,
    isGuess: line.proof === 'guess',
    sdKg: line.sdKg,
    logSd: line.logSd,
    // One weighing in a box shares its two readings with its neighbours; several weighings stand for themselves.
    ...(box && line.proof === 'measured' ? { box: { id: box.boxId, position: box.position, readingSdKg: box.readingSdKg } } : {}),
  }
}

export const isUnknown = (line: LineMass): boolean => line.standing === undefined

/** Whether the mass that stands was worked back from the scales: it explains a difference after the fact, and nothing had said so before. */
export const isWorkedBack = (line: LineMass): boolean => (line.standing?.derivedFrom?.length ?? 0) > 0
