import { CalculationError } from '../../errors.ts'
import type { Part } from '../../records/part-kinds.ts'
import { RATING_SUBJECT_NAMES, RATING_SUBJECTS, type RatingSubject } from '../../records/part-kinds.ts'
import type { DecimalMark } from '../../units/parse-number.ts'
import { parseQuantity } from '../../units/parse-quantity.ts'
import { fromSi, type QuantityKind } from '../../units/units.ts'

type Rating = Part['ratings'][number]
type Units = Readonly<Record<QuantityKind, string>>

/** Words that name what a rating is about, in a line that is typed; the first is the one that is written back. */
export const RATING_WORDS: Record<RatingSubject, readonly string[]> = {
  wheelPower: ['wheel power', 'power at the wheels'],
  crankPower: ['crank power', 'power at the crank', 'power'],
  crankTorque: ['crank torque', 'torque at the crank'],
  gearboxTorque: ['gearbox torque', 'torque into the gearbox'],
  axleTorque: ['axle torque', 'torque of both axle shafts'],
  propTorque: ['prop torque', 'prop shaft torque', 'torque of the prop shaft'],
  wheelTorque: ['wheel torque', 'torque at one wheel'],
  airFlow: ['air flow', 'air'],
  fuelFlow: ['fuel flow', 'fuel', 'flow'],
  engineSpeed: ['engine speed', 'speed'],
  boost: ['boost', 'boost above the air'],
  fuelPressure: ['fuel pressure', 'fuel pressure above the air'],
  outletTemperature: ['outlet air', 'outlet', 'air out of the compressor'],
  chargeTemperature: ['charge', 'charge air', 'charge into the engine'],
  pumpCurrent: ['pump current', 'current', 'current of the fuel pumps'],
  injectorDuty: ['duty', 'injector duty'],
}

const SUBJECTS = RATING_SUBJECT_NAMES.flatMap((of) => RATING_WORDS[of].map((word) => ({ of, word }))).sort((a, b) => b.word.length - a.word.length)

/**
 * Reads a rating from a line: `WHAT LIMIT [UNIT] [each] [guess|catalogue|measured] [on petrol | on N % ethanol]`, such as "gearbox torque 480 N·m catalogue" or
 * "fuel flow 1000 cc/min each on petrol". No unit: the picked one; no word: catalogue. Rejects what it is about, and the number, in a sentence.
 * @example parseRatingLine('gearbox torque 480 N·m catalogue', { units: UNITS, decimalMark: '.' }) // { of: 'gearboxTorque', limit: 480, isEach: false, known: 'catalogue', ethanolShare: null, typed: 'gearbox torque 480 N·m catalogue' }
 */
export function parseRatingLine(line: string, { units, decimalMark }: { units: Units; decimalMark: DecimalMark }): Rating {
  const text = line.trim().replace(/\s+/g, ' ')
  const subject = SUBJECTS.find(({ word }) => text.toLowerCase().startsWith(`${word} `))
  if (!subject && /^torque\b/i.test(text))
    throw new CalculationError(
      'unknown',
      'ratings',
      `"${text}" does not say where. Begin with crank torque, gearbox torque, axle torque (both shafts together) or wheel torque (one wheel).`,
    )
  if (!subject)
    throw new CalculationError(
      'unknown',
      'ratings',
      `"${text}" does not begin with what is rated. Begin with one of: ${RATING_SUBJECT_NAMES.map((of) => RATING_WORDS[of][0]).join(', ')}.`,
    )
  let rest = text.slice(subject.word.length + 1)
  const take = (pattern: RegExp) => {
    const found = pattern.exec(rest)
    if (found) rest = `${rest.slice(0, found.index)} ${rest.slice(found.index + found[0].length)}`.trim()
    return found
  }
  const fuel = take(/\bon (petrol|(\S+) ?% ?(of )?ethanol)\s*$/i)
  const known = take(/\b(guess|catalogue|measured)\b/i)
  const isEach = take(/\beach\b/i) !== null
  const { word, kind } = RATING_SUBJECTS[subject.of]
  const { value } = parseQuantity(rest, kind, { defaultUnit: units[kind], decimalMark, field: word })
  if (!(value > 0)) throw new CalculationError('out-of-range', 'ratings', `The rating of ${word} must be more than zero.`)
  const share = fuel?.[2] === undefined ? 0 : parseQuantity(fuel[2], 'share', { defaultUnit: '%', decimalMark, field: 'ethanol' }).value
  if (share < 0 || share > 1) throw new CalculationError('out-of-range', 'ratings', 'An ethanol share lies from 0 to 100 %.')
  return {
    of: subject.of,
    limit: value,
    isEach,
    known: (known?.[1]?.toLowerCase() ?? 'catalogue') as Rating['known'],
    ethanolShare: fuel ? share : null,
    typed: line.trim(),
  }
}

/**
 * A rating as a line that `parseRatingLine` reads again: as it was typed, else in the picked units.
 * @example ratingLine(PART.ratings[0], UNITS) // 'crank torque 450 N·m catalogue'
 */
export function ratingLine({ of, limit, isEach, known, ethanolShare, typed }: Rating, units: Units): string {
  // A torque that was typed before places had to be named is one at the crank.
  if (typed) return typed.replace(/^torque /i, `${RATING_WORDS[of][0]} `)
  const { kind } = RATING_SUBJECTS[of]
  const fuel = ethanolShare === null ? '' : ethanolShare === 0 ? ' on petrol' : ` on ${Number((100 * ethanolShare).toPrecision(4))} % ethanol`
  return `${RATING_WORDS[of][0]} ${Number(fromSi(kind, limit, units[kind]).toPrecision(7))} ${units[kind]}${isEach ? ' each' : ''} ${known}${fuel}`
}
