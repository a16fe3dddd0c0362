import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { findUnit, type QuantityKind, quantityOf } from '../units/units.ts'
import type { LogRole } from './log-roles.ts'

/** What a person said a column of a log is, by its heading as it stands in the file. */
export interface LogColumnMapping {
  readonly heading: string
  readonly role: LogRole
  readonly unit: string
}

export interface LogColumn {
  readonly index: number
  readonly heading: string
  readonly role: LogRole
  readonly name: string
  /** As the file or a person names it; '' where nobody does. */
  readonly unit: string
}

/** The kind of each role, and the unit of a file that names none (common practice, no source). */
const QUANTITY_OF: { readonly [Role in LogRole]?: { readonly kind: QuantityKind; readonly usual: string } } = {
  time: { kind: 'duration', usual: 's' },
  speed: { kind: 'speed', usual: 'km/h' },
  wheelSpeed: { kind: 'speed', usual: 'km/h' },
  engineSpeed: { kind: 'engineSpeed', usual: 'rpm' },
  throttle: { kind: 'share', usual: '%' },
  brakeFront: { kind: 'pressure', usual: 'bar' },
  brakeRear: { kind: 'pressure', usual: 'bar' },
  along: { kind: 'acceleration', usual: 'g' },
  across: { kind: 'acceleration', usual: 'g' },
  steer: { kind: 'angle', usual: '°' },
  coolant: { kind: 'temperature', usual: '°C' },
  coolantOut: { kind: 'temperature', usual: '°C' },
  oilTemperature: { kind: 'temperature', usual: '°C' },
  oilPressure: { kind: 'pressure', usual: 'bar' },
  voltage: { kind: 'voltage', usual: 'V' },
  damperLF: { kind: 'length', usual: 'mm' },
  damperRF: { kind: 'length', usual: 'mm' },
  damperLR: { kind: 'length', usual: 'mm' },
  damperRR: { kind: 'length', usual: 'mm' },
  heightFront: { kind: 'length', usual: 'mm' },
  heightRear: { kind: 'length', usual: 'mm' },
  pitot: { kind: 'pressure', usual: 'Pa' },
}

const ROLE_NAMES: readonly (readonly [LogRole, RegExp])[] = [
  ['time', /^(session |elapsed |log |utc )?(time|clock|timestamp|utc|seconds?|t)$/],
  ['latitude', /^(gps )?lat(itude)?$/],
  ['longitude', /^(gps )?(lon|lng|long|longitude)$/],
  ['lap', /^lap( (no\.?|number|count|id))?$/],
  ['wheelSpeed', /(wheel|drive|hub|axle) speed|speed (of )?(the )?wheels?/],
  ['speed', /^((gps|ground|vehicle|road|car) )?(speed|velocity)( (gps|over ground))?$|^v$/],
  ['engineSpeed', /^(rpm|engine speed|engine rpm|revs|n ?mot)$/],
  ['throttle', /throttle|pedal pos|^tps$|accelerator/],
  ['brakeFront', /^(brake|front brake)( pressure)?( front)?$|brake (pressure )?f(ront)?$|^front brake/],
  ['brakeRear', /brake (pressure )?r(ear)?$|^rear brake/],
  ['along', /^(long(itudinal)?|inline|forward|ax|x) ?(acc(el(eration)?)?|g)?$|^acc(el(eration)?)? ?(x|long(itudinal)?)$/],
  ['across', /^(lat(eral)?|side|ay|y) ?(acc(el(eration)?)?|g)$|^acc(el(eration)?)? ?(y|lat(eral)?)$|^ay$/],
  ['steer', /steer/],
  ['gear', /^gear( pos(ition)?)?$/],
  ['coolantOut', /(coolant|water)( temp(erature)?)? ?(out|rear|return|radiator)/],
  ['coolant', /^(coolant|water|engine)( temp(erature)?)?( ?(in|front|engine))?$|^ect$|^clt$/],
  ['oilTemperature', /oil ?temp/],
  ['oilPressure', /oil ?press/],
  ['voltage', /batt|volt/],
  ['damperLF', /^(damper|susp(ension)?|shock)( pos(ition)?| travel)? (lf|fl)$|^(lf|fl) (damper|susp(ension)?|shock)/],
  ['damperRF', /^(damper|susp(ension)?|shock)( pos(ition)?| travel)? (rf|fr)$|^(rf|fr) (damper|susp(ension)?|shock)/],
  ['damperLR', /^(damper|susp(ension)?|shock)( pos(ition)?| travel)? (lr|rl)$|^(lr|rl) (damper|susp(ension)?|shock)/],
  ['damperRR', /^(damper|susp(ension)?|shock)( pos(ition)?| travel)? rr$|^rr (damper|susp(ension)?|shock)/],
  ['heightFront', /^(ride )?height f(ront)?$|^front (ride )?height$/],
  ['heightRear', /^(ride )?height r(ear)?$|^rear (ride )?height$/],
  ['pitot', /pitot/],
]

const keyOf = (heading: string) =>
  heading
    .replace(/^\ufeff/, '')
    .trim()
    .toLowerCase()
const foldName = (name: string) =>
  name
    .toLowerCase()
    .replace(/[_./-]+/g, ' ')
    .replace(/\s+/g, ' ')
    .trim()

const roleOfName = (name: string): LogRole => ROLE_NAMES.find(([, pattern]) => pattern.test(foldName(name)))?.[0] ?? 'other'

/** "Speed (km/h)", "speed_kmh", "GPS Speed, km/h" as a role, a name and a unit: a last word is a unit where what stands before it is measured in it. */
function partsOf(heading: string): { readonly role: LogRole; readonly name: string; readonly unit: string } {
  const bracket = /^(.*?)[\s_,-]*[([{]\s*([^)\]}]*)\s*[)\]}]\s*$/.exec(heading)
  if (bracket) return { role: roleOfName(itemAt(bracket, 1)), name: itemAt(bracket, 1).trim(), unit: itemAt(bracket, 2).trim() }
  const tail = /^(.+?)[\s_,;]+([^\s_,;]+)$/.exec(heading)
  if (tail) {
    const [name, unit] = [itemAt(tail, 1).trim(), itemAt(tail, 2)]
    const role = roleOfName(name)
    const quantity = QUANTITY_OF[role]
    if (quantity && findUnit(quantity.kind, unit)) return { role, name, unit }
  }
  return { role: roleOfName(heading), name: heading, unit: '' }
}

/**
 * What the columns of a log seem to be, by headings and a row of units below them where there is one; what a person said goes before.
 * @example logColumns(['time', 'speed km/h'], undefined, [])[1].role // 'speed'
 */
export function logColumns(headings: readonly string[], unitRow: readonly string[] | undefined, mapping: readonly LogColumnMapping[]): readonly LogColumn[] {
  const told = new Map(mapping.map((entry) => [keyOf(entry.heading), entry]))
  const seen = new Set<LogRole>(headings.flatMap((heading) => told.get(keyOf(heading))?.role ?? []))
  return headings.map((raw, index) => {
    const heading = raw.replace(/^\ufeff/, '').trim()
    const { name, unit, role: found } = partsOf(heading)
    const mapped = told.get(keyOf(raw))
    const written = mapped?.unit || (unitRow?.[index] ?? '').replace(/[()[\]{}]/g, '').trim() || unit
    if (mapped) return { index, heading, role: mapped.role, name, unit: written }
    const role = found !== 'other' && seen.has(found) ? 'other' : found
    seen.add(role)
    return { index, heading, role, name, unit: written }
  })
}

/** Whether a row heads a log: a clock, and a position, a speed or a count of laps beside it. */
export function headsLog(columns: readonly LogColumn[]): boolean {
  const has = (role: LogRole) => columns.some((column) => column.role === role)
  return has('time') && ((has('latitude') && has('longitude')) || has('speed') || has('wheelSpeed') || has('lap'))
}

/** How a number of a column becomes that of its record unit, and what that unit is. Rejects (`unknown-unit`) one that nobody here knows. */
export function readerOf({ role, unit, heading }: LogColumn): {
  readonly toRecord: { readonly factor: number; readonly offset: number }
  readonly unit: string
} {
  const quantity = QUANTITY_OF[role]
  if (!quantity) return { toRecord: { factor: 1, offset: 0 }, unit: role === 'other' ? unit : '' }
  // A clock of h:m:s or of instants is read as seconds whatever its heading says.
  const found = findUnit(quantity.kind, unit === '' || /^h+:m/i.test(unit) ? quantity.usual : unit)
  if (!found) {
    const known = quantityOf(quantity.kind).units.map(({ symbol }) => symbol || 'share of 1')
    throw new CalculationError('unknown-unit', 'file', `The column "${heading}" is in "${unit}". Say which of ${known.join(', ')} it is.`)
  }
  return { toRecord: { factor: found.factor, offset: found.offset ?? 0 }, unit: itemAt(quantityOf(quantity.kind).units, 0).symbol }
}
