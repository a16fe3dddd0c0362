import { isMeasured } from '../../proof/quantity.ts'
import type { Car, Line } from '../../stages/car.ts'
import { changeSign, isUnknown } from '../../stages/line-mass.ts'
import { median } from '../../stats/moments.ts'

export interface Moved {
  readonly label: string
  /** Both as they count, below zero where mass went out. */
  readonly outKg: number
  readonly onKg: number
}

/** What went out and came in at one place of the car. */
export interface MovedPlace extends Pick<Moved, 'outKg' | 'onKg'> {
  readonly xM: number
  readonly yM: number
  readonly zM: number
}

export interface LikelyMass {
  readonly changeId: string
  readonly likelyKg: number
  /** Its own guess or catalogue value, the middle of what its zone's parts weigh, or of all parts. */
  readonly basis: 'guess' | 'catalogue' | 'zone' | 'ledger'
}

export interface ScoreDetail {
  /** Where the weight of stages 0 to n went, by zone, most moved first. */
  readonly byZone: readonly Moved[]
  /** By height above the ground, lowest first; only lines that have a place. */
  readonly byHeight: readonly Moved[]
  /** The same by place, for lines that have one. */
  readonly byPlace: readonly MovedPlace[]
  readonly withoutHeightKg: number
  /** Parts that are still in the car and are to come off, or went on, heaviest first. */
  readonly stillInCar: readonly { readonly changeId: string; readonly massKg: number; readonly comesOff: boolean }[]
  /** Lines of these stages that nobody weighed, likely heaviest first. */
  readonly unweighed: readonly LikelyMass[]
  readonly unknownCount: number
  readonly cost: number
  readonly hours: number
}

/** How high a band is when weight is counted by height. */
export const HEIGHT_BAND_M = 0.25
const MOST_LISTED = 12
const signedKg = (line: Line) => changeSign(line.change) * line.mass.massKg

/** Where the weight went up to a stage, what is still in the car, and what was never weighed. As typed, without the learned bias. */
export function scoreDetail(car: Car, position: number): ScoreDetail {
  const lines = car.lines.filter((line) => line.stagePosition <= position)
  const known = lines.filter((line) => !isUnknown(line.mass))
  const placed = known.filter((line) => line.place !== null)
  const band = (line: Line) => Math.floor((line.place?.zM ?? 0) / HEIGHT_BAND_M + 1e-9)
  return {
    byZone: moved(known, (line) => line.change.zone?.toLowerCase() ?? '').sort((a, b) => b.onKg - b.outKg - (a.onKg - a.outKg)),
    byHeight: moved(placed, (line) => String(band(line)))
      .sort((a, b) => Number(a.label) - Number(b.label))
      .map((entry) => ({ ...entry, label: `${Number(entry.label) * HEIGHT_BAND_M}` })),
    byPlace: movedPlaces(placed),
    withoutHeightKg: known.reduce((sum, line) => sum + (line.place === null ? line.mass.massKg : 0), 0),
    stillInCar: lines
      .filter(({ change, mass }) => mass.massKg > 0 && (change.kind === 'off' ? change.state === 'planned' : change.state === 'done'))
      .sort((a, b) => b.mass.massKg - a.mass.massKg)
      .slice(0, MOST_LISTED)
      .map(({ change, mass }) => ({ changeId: change.id, massKg: mass.massKg, comesOff: change.kind === 'off' })),
    unweighed: unweighed(lines, known),
    unknownCount: lines.length - known.length,
    cost: lines.reduce((sum, { change }) => sum + (change.cost ?? 0), 0),
    hours: lines.reduce((sum, { change }) => sum + (change.hours ?? 0), 0),
  }
}

function moved(lines: readonly Line[], labelOf: (line: Line) => string): Moved[] {
  const found = new Map<string, { outKg: number; onKg: number }>()
  for (const line of lines) {
    const entry = found.get(labelOf(line)) ?? { outKg: 0, onKg: 0 }
    if (line.change.kind === 'off') entry.outKg += signedKg(line)
    else entry.onKg += signedKg(line)
    found.set(labelOf(line), entry)
  }
  return [...found].map(([label, entry]) => ({ label, ...entry }))
}

function movedPlaces(placed: readonly Line[]): MovedPlace[] {
  const keyOf = ({ place }: Line): string => `${place?.xM} ${place?.yM} ${place?.zM}`
  const places = new Map(placed.flatMap((line) => (line.place ? [[keyOf(line), line.place] as const] : [])))
  return moved(placed, keyOf).flatMap(({ label, outKg, onKg }): MovedPlace[] => {
    const place = places.get(label)
    return place ? [{ ...place, outKg, onKg }] : []
  })
}

function unweighed(lines: readonly Line[], known: readonly Line[]): LikelyMass[] {
  const masses = (list: readonly Line[]) => list.map((line) => line.mass.massKg)
  return lines
    .filter((line) => !isMeasured(line.mass.proof))
    .map((line): LikelyMass => {
      const changeId = line.change.id
      if (!isUnknown(line.mass)) return { changeId, likelyKg: line.mass.massKg, basis: line.mass.proof === 'catalogue' ? 'catalogue' : 'guess' }
      const zone = line.change.zone?.toLowerCase()
      const beside = masses(known.filter((other) => zone !== undefined && other.change.zone?.toLowerCase() === zone))
      if (beside.length > 0) return { changeId, likelyKg: median(beside), basis: 'zone' }
      return { changeId, likelyKg: known.length > 0 ? median(masses(known)) : 0, basis: 'ledger' }
    })
    .sort((a, b) => b.likelyKg - a.likelyKg)
}

/**
 * What each day took out and put on: exact sums in whole milligrams. `dayOf` names the day of an instant as the person counts days.
 * @example outByDay([{ doneAt: '2026-03-01T10:00:00Z', massKg: -18.6 }], (instant) => instant.slice(0, 10)) // [{ day: '2026-03-01', outKg: 18.6, onKg: 0, count: 1 }]
 */
export function outByDay(
  lines: readonly { readonly doneAt: string | null; readonly massKg: number }[],
  dayOf: (instant: string) => string,
): { day: string; outKg: number; onKg: number; count: number }[] {
  const days = new Map<string, { out: number; on: number; count: number }>()
  for (const { doneAt, massKg } of lines) {
    if (doneAt === null) continue
    const day = dayOf(doneAt)
    const entry = days.get(day) ?? { out: 0, on: 0, count: 0 }
    const milligrams = Math.round(massKg * 1e6)
    if (milligrams < 0) entry.out -= milligrams
    else entry.on += milligrams
    entry.count++
    days.set(day, entry)
  }
  return [...days].map(([day, { out, on, count }]) => ({ day, outKg: out / 1e6, onKg: on / 1e6, count })).sort((a, b) => (a.day < b.day ? 1 : -1))
}
