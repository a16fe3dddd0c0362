import { CalculationError } from '../../errors.ts'
import { dayAtEnd, readDay } from '../../jobs/read-day.ts'
import { CHECK_READINGS, type CheckInterval, type CheckReading, GAP_NATURES, type Round, type WheelSide } from '../../records/check-kinds.ts'
import type { Place } from '../../records/common-fields.ts'
import type { Geometry } from '../../records/plan-kinds.ts'
import { type DecimalMark, parseNumber } from '../../units/parse-number.ts'
import { parseQuantity } from '../../units/parse-quantity.ts'
import type { CheckBody } from './usual.ts'

export interface CheckLineOptions {
  readonly today: string
  readonly mark: DecimalMark
  /** Units of numbers that name none, by kind of quantity. */
  readonly units: Readonly<Record<string, string>>
  /** Where the wheels stand, to place what names a corner. */
  readonly geometry: Geometry
}

/** A check as it was typed; of a gap with what was read. */
export interface ReadCheck {
  readonly check: CheckBody
  readonly readM: number | null
}

const SHAPE =
  'bolt front caliper LF 2 x 85 Nm p.41 @front between; level coolant; look brake pipes; belts expire 30 Apr 2027; take hub socket; reading coolant temperature warn 100 stop 105; gap downpipe to brake pipe 32 mm hot'

const ROUND_WORDS: readonly (readonly [RegExp, Round])[] = [
  [/\s(?:first )?start$/i, 'firstStart'],
  [/\sbefore(?: (?:a )?run)?$/i, 'beforeRun'],
  [/\sbetween$/i, 'between'],
  [/\safter(?: (?:a )?run)?$/i, 'afterRun'],
  [/\sevents?$/i, 'event'],
  [/\sscrutineering$/i, 'scrutineering'],
  [/\sdyno$/i, 'dyno'],
]

/** What stands behind the check itself, in any order: rounds, zone, interval, tool, safety. */
function readTail(text: string, mark: DecimalMark): { readonly head: string } & Pick<CheckBody, 'rounds' | 'zone' | 'every' | 'tool' | 'isSafety'> {
  let head = text.trim()
  const rounds: Round[] = []
  let [zone, tool, isSafety, every]: [string | null, string | null, boolean | null, CheckInterval | null] = [null, null, null, null]
  const cut = (pattern: RegExp): RegExpExecArray | null => {
    const found = pattern.exec(head)
    if (found) head = head.slice(0, found.index).trim()
    return found
  }
  for (let isMore = true; isMore; ) {
    isMore = false
    const interval = cut(/\severy\s+([\d.,]+)\s*(hours?|h|days?|events?|months?)$/i)
    if (interval) {
      const unit = ({ h: 'hours', d: 'days', e: 'events', m: 'months' } as const)[(interval[2] as string).charAt(0).toLowerCase() as 'h' | 'd' | 'e' | 'm']
      every = { amount: parseNumber(interval[1] as string, mark, 'every'), unit }
      isMore = true
      continue
    }
    const round = ROUND_WORDS.find(([pattern]) => pattern.test(head))
    const place = round ? null : cut(/\s@(?:"([^"]+)"|(\S+))$/)
    const safety = round || place ? null : cut(/\ssafety$/i)
    const named = round || place || safety ? null : cut(/\swith\s+([^@]+?)$/i)
    if (round) {
      cut(round[0])
      if (!rounds.includes(round[1])) rounds.unshift(round[1])
    }
    if (place) zone = (place[1] ?? place[2] ?? '').trim()
    if (safety) isSafety = true
    if (named) tool = (named[1] as string).trim()
    isMore = Boolean(round || place || safety || named)
  }
  return { head, rounds, zone, tool, isSafety, every }
}

const CORNER = /\b(LF|RF|LR|RR|left front|right front|left rear|right rear)\b/i

/** Where a corner that a name speaks of is. */
function placeIn(name: string, { wheelbaseM, trackFrontM, trackRearM }: Geometry): Place | null {
  const found = CORNER.exec(name)?.[1]?.toLowerCase()
  if (!found) return null
  const [isLeft, isFront] = [found.startsWith('l'), found.endsWith('f') || found.endsWith('front')]
  return { xM: isFront ? 0 : wheelbaseM, yM: ((isLeft ? 1 : -1) * (isFront ? trackFrontM : trackRearM)) / 2, zM: 0.3 }
}

const named = (text: string, what: string): string => {
  const clean = text.trim()
  if (clean === '') throw new CalculationError('missing', 'name', `The ${what} has no name. A line is: ${SHAPE}.`)
  return clean.charAt(0).toUpperCase() + clean.slice(1)
}

/** "front caliper LF 2 x 85 Nm p.41". */
function readBolt(head: string, { mark, units }: CheckLineOptions): Pick<CheckBody, 'name' | 'bolt'> {
  const page = /\s(p\.?\s?\d+\S*|page\s+\d+\S*)$/i.exec(head)
  let rest = page ? head.slice(0, page.index) : head
  const torque = /\s([\d.,]+\s*(?:N·?m|lbf?[·-]?ft|ft-lb|lb-ft))$/i.exec(rest)
  if (torque) rest = rest.slice(0, torque.index)
  const count = /\s(\d+)\s*x?$/i.exec(rest)
  if (count) rest = rest.slice(0, count.index)
  const torqueNm = torque
    ? parseQuantity(torque[1] as string, 'torque', { defaultUnit: units.torque ?? 'N·m', decimalMark: mark, field: 'torque' }).value
    : null
  return { name: named(rest, 'bolt'), bolt: { count: count ? Math.max(1, Number(count[1])) : 1, torqueNm, from: page ? (page[1] as string) : null } }
}

const QUANTITY_WORDS: readonly (readonly [RegExp, CheckReading['quantity']])[] = [
  [/press/i, 'pressure'],
  [/volt|supply|battery/i, 'voltage'],
  [/current|amps?\b/i, 'current'],
  [/rpm|engine speed/i, 'engineSpeed'],
  [/lambda|ratio/i, 'ratio'],
]
/** Words by which a reading is known to be a channel of a logger. */
const ROLE_WORDS: readonly (readonly [RegExp, string])[] = [
  [/oil.*press/i, 'oilPressure'],
  [/oil/i, 'oilTemperature'],
  [/coolant|water/i, 'coolant'],
  [/volt|supply/i, 'voltage'],
]

/** "coolant temperature warn 100 stop 105 °C", "oil pressure warn under 4 stop under 3.2 bar", "x is current". */
function readReading(head: string, { mark, units }: CheckLineOptions): Pick<CheckBody, 'name' | 'reading'> {
  const pieces = head.split(/\s+(warns?|stops?)\s+/i)
  const said = /^(.*?)\s+is\s+(\w+)$/i.exec(pieces[0] ?? '')
  const name = named(said ? (said[1] as string) : (pieces[0] ?? ''), 'reading')
  const asked = said ? CHECK_READINGS.find((each) => each.toLowerCase() === (said[2] as string).toLowerCase()) : undefined
  if (said && !asked) throw new CalculationError('unknown', 'quantity', `“${said[2]}” is nothing that is read here: ${CHECK_READINGS.join(', ')}.`)
  const quantity = asked ?? QUANTITY_WORDS.find(([words]) => words.test(name))?.[1] ?? 'temperature'
  const reading = {
    quantity,
    role: ROLE_WORDS.find(([words]) => words.test(name))?.[1] ?? null,
    stopLow: null as number | null,
    warnLow: null as number | null,
    warnHigh: null as number | null,
    stopHigh: null as number | null,
    forS: quantity === 'pressure' ? 0.1 : 2,
    aboveMps: null,
    secondSensor: false,
    sd: null,
  }
  const lastUnit = /[\d.,]\s*([^\d\s.,]+)\s*$/.exec(head)?.[1]
  for (let i = 1; i < pieces.length; i += 2) {
    const isWarn = /^w/i.test(pieces[i] as string)
    const [, side, number] = /^(under|over|below|above)?\s*(.+)$/i.exec((pieces[i + 1] ?? '').trim()) ?? []
    if (!number) throw new CalculationError('missing', 'line', `Nothing stands behind “${pieces[i]}”.`)
    const withUnit = lastUnit && /^[-\d.,\s]+$/.test(number) ? `${number} ${lastUnit}` : number
    const { value } = parseQuantity(withUnit, quantity, { defaultUnit: units[quantity] ?? '', decimalMark: mark, field: isWarn ? 'warn' : 'stop' })
    const isLow = /^(under|below)$/i.test(side ?? '')
    reading[isWarn ? (isLow ? 'warnLow' : 'warnHigh') : isLow ? 'stopLow' : 'stopHigh'] = value
  }
  return { name, reading }
}

/** Which side of a wheel a gap is at, by what it is to: "front tyre to strut" is at its inside. */
function besideWheel(from: string, to: string): WheelSide | null {
  const axle = /\b(front|rear)\b/i.exec(from)?.[1]?.toLowerCase()
  if (!axle || !/\b(wheels?|tyres?|tires?|rims?|spokes?)\b/i.test(from)) return null
  const side = /caliper|brake/i.test(to)
    ? 'Caliper'
    : /strut|damper|spring|coilover|arm\b|upright|rod\b/i.test(to)
      ? 'Inside'
      : /arch|guard|fender|lip|body/i.test(to)
        ? 'Outside'
        : null
  return side && (`${axle}${side}` as WheelSide)
}

/** "downpipe to brake pipe 32 mm hot". */
function readGap(head: string, { mark, units }: CheckLineOptions): Pick<CheckBody, 'name' | 'gap'> & { readonly readM: number | null } {
  const nature = GAP_NATURES.find((each) => new RegExp(`\\s${each}$`, 'i').test(head)) ?? null
  const rest = nature ? head.slice(0, -nature.length).trim() : head
  const size = /\s([\d.,]+)\s*(mm|cm|m|in|")?$/i.exec(rest)
  if (size && !size[2]) throw new CalculationError('ambiguous', 'gap', `${size[1]} what? A gap is typed with its unit: ${size[1]} mm.`)
  const body = size ? rest.slice(0, size.index) : rest
  const [from = '', to] = body.split(/\s+to\s+/i)
  if (to === undefined) throw new CalculationError('missing', 'neighbour', 'Say what the gap is to: gap downpipe to brake pipe 32 mm.')
  const readM = size ? parseQuantity(`${size[1]} ${size[2]}`, 'length', { defaultUnit: units.length ?? 'mm', decimalMark: mark, field: 'gap' }).value : null
  const usual = /shaft|belt|pulley|fan/i.test(body)
    ? 'moving'
    : /manifold|downpipe|exhaust|turbo|header/i.test(body)
      ? 'hot'
      : /hand|clamp|spanner/i.test(to)
        ? 'service'
        : 'fixed'
  return {
    name: named(`${from} to ${to}`, 'gap'),
    gap: {
      neighbour: to.trim(),
      nature: nature ?? usual,
      access: null,
      needM: null,
      expansionPerK: null,
      lengthM: null,
      riseK: null,
      towardShare: 1,
      moveM: 0,
      besideWheel: besideWheel(from, to),
    },
    readM,
  }
}

const EMPTY = {
  place: null,
  partId: null,
  minutes: null,
  whenTouched: null,
  bolt: null,
  level: null,
  gear: null,
  take: null,
  reading: null,
  gap: null,
  note: null,
}
/** Rounds that a check of a kind stands in where the line names none (common practice, no source). */
const USUAL_ROUNDS = {
  bolt: ['event'],
  level: ['event'],
  look: ['event'],
  gear: ['event', 'scrutineering'],
  take: ['event'],
  reading: ['between'],
  gap: ['event'],
} as const

/**
 * Reads one line of a check: its kind, its name with what its kind holds, then rounds, `@zone`, `every 2 events`, `with 32 mm hub socket`, `safety`. Gear is said by what it
 * does: `belts expire 30 Apr 2027`. What is not understood is refused with the shape of a line; a gap without its unit is refused too: 32 may be mm or m.
 * @example readCheckLine('bolt front caliper LF 2 x 85 Nm p.41 @front between', { today: '2027-03-01', mark: '.', units: {}, geometry: { wheelbaseM: 2.6, trackFrontM: 1.5, trackRearM: 1.5 } }).check.bolt // { count: 2, torqueNm: 85, from: 'p.41' }
 */
export function readCheckLine(text: string, options: CheckLineOptions): ReadCheck {
  const expires = /^(.+?)\s+expires?\s+(?:on\s+)?(.+)$/i.exec(text.trim())
  if (expires) {
    const { head, ...tail } = readTail(` ${expires[2]}`, options.mark)
    const end = dayAtEnd(head)
    if (end?.before !== '') throw new CalculationError('unreadable', 'expiresOn', `“${head}” is no day. Type it like 30 Apr 2027.`)
    const rounds = tail.rounds.length > 0 ? tail.rounds : [...USUAL_ROUNDS.gear]
    const name = named(expires[1] as string, 'gear')
    return {
      check: { ...EMPTY, ...tail, rounds, kind: 'gear', name, gear: { standard: null, madeOn: null, expiresOn: readDay(end.day, options.today, 'expiresOn') } },
      readM: null,
    }
  }
  const [, word = '', rest = ''] = /^(\S+)\s+(.+)$/s.exec(text.trim()) ?? []
  const kind = (['bolt', 'level', 'look', 'gear', 'take', 'reading', 'gap'] as const).find(
    (each) => each === word.toLowerCase() || `${each}s` === word.toLowerCase(),
  )
  if (!kind) throw new CalculationError('unknown', 'line', `Begin with bolt, level, look, take, reading or gap, or say what expires. Such as: ${SHAPE}.`)
  const { head, ...tail } = readTail(` ${rest}`, options.mark)
  const own = { ...EMPTY, ...tail, rounds: tail.rounds.length > 0 ? tail.rounds : [...USUAL_ROUNDS[kind]], kind }
  const whole = ` ${head}`
  if (kind === 'gap') {
    const { readM, ...gap } = readGap(whole, options)
    return { check: { ...own, ...gap }, readM }
  }
  const read = ((): Pick<CheckBody, 'name'> & Partial<CheckBody> => {
    if (kind === 'bolt') return readBolt(whole, options)
    if (kind === 'reading') return readReading(head, options)
    if (kind === 'take') {
      const count = /^(.*?)\s+(?:x\s*)?(\d+)$/i.exec(head)
      return { name: named(count ? (count[1] as string) : head, 'thing to take'), take: { count: count ? Math.max(1, Number(count[2])) : 1 } }
    }
    if (kind === 'level') return { name: named(head, 'fluid'), level: { fluid: head } }
    return { name: named(head, kind), ...(kind === 'gear' ? { gear: { standard: null, madeOn: null, expiresOn: null } } : {}) }
  })()
  return { check: { ...own, ...read, place: placeIn(read.name, options.geometry) }, readM: null }
}
