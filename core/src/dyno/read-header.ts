import { CalculationError } from '../errors.ts'
import { itemAt } from '../item-at.ts'
import { findUnit, type QuantityKind } from '../units/units.ts'

export type ChannelRole = 'speed' | 'power' | 'torque' | 'boost' | 'lambda' | 'intakeTemperature' | 'roadSpeed' | 'time' | 'pull' | 'other'

/** What a person said a column is, by its heading as it stands in the file. */
export interface ColumnMapping {
  readonly heading: string
  readonly role: ChannelRole
  readonly unit: string
}

export interface ChannelColumn {
  readonly index: number
  readonly role: ChannelRole
  /** As it stands in the file. */
  readonly name: string
  readonly unit: string
  /** Which pull it is of, where each pull has columns of its own; left out where all share it. */
  readonly pull?: string | undefined
}

const ROLE_KIND: Partial<Record<ChannelRole, QuantityKind>> = { speed: 'engineSpeed', power: 'power', torque: 'torque' }

const ROLE_NAMES: readonly (readonly [ChannelRole, RegExp])[] = [
  ['pull', /^(pull|run|pull no\.?|run no\.?|test|sweep)$/],
  ['speed', /^(rpm|engine ?speed|engine ?rpm|motor ?speed|speed|rev(s|olutions)?|n|(motor)?drehzahl|régime|regime)$/],
  [
    'power',
    /^(power|p|(wheel|hub|engine|brake|corrected|corr\.?|observed|roller) ?(power|kw|hp|ps)|power (at|on) (the )?(wheels?|hubs?|engine|rollers?)|horsepower|hp|whp|bhp|kw|ps|(rad|motor|norm)?leistung|puissance)$/,
  ],
  ['torque', /^(torque|t|m|(wheel|hub|engine|corrected|roller|axle) ?torque|tq|nm|n·m|n m|lb-?ft|ft-?lbs?|lb·ft|(dreh)?moment|couple)$/],
  ['boost', /^(boost|map|manifold ?(absolute ?)?pressure|boost ?pressure)$/],
  ['lambda', /^(lambda|afr|λ|air ?fuel( ?ratio)?)$/],
  ['intakeTemperature', /^(iat|intake( ?air)?( ?temp(erature)?)?|inlet( ?air)?( ?temp(erature)?)?|charge( ?air)?( ?temp(erature)?)?)$/],
  ['time', /^(time|t\(s\)|elapsed)$/],
]
const ROAD_SPEED = /km\/h|kmh|kph|mph|m\/s/

/** "Power (kW)", "power_kw", "Torque [Nm]", "Engine speed, rpm", "power kW" as a name and a unit. */
export function splitHeading(heading: string): { name: string; unit: string } {
  const text = heading.replace(/^\ufeff/, '').trim()
  if (isUnit(text)) return { name: text, unit: text }
  const bracket = /^(.*?)[\s_,-]*[([{]\s*([^)\]}]*)\s*[)\]}]\s*$/.exec(text)
  if (bracket) return { name: (bracket[1] ?? '').trim(), unit: (bracket[2] ?? '').trim() }
  const tail = /^(.+?)[\s_,;/]+([^\s_,;/]+)$/.exec(text)
  if (tail?.[2] && (isUnit(tail[2]) || ROAD_SPEED.test(tail[2].toLowerCase()))) return { name: (tail[1] ?? '').trim(), unit: tail[2] }
  return { name: text, unit: '' }
}

const isUnit = (text: string) =>
  (['power', 'torque', 'engineSpeed'] as const).some((kind) => findUnit(kind, text)) || /^(°?c|°?f|k|s|ms|bar|kpa|psi|mbar|λ|afr)$/i.test(text)

function roleOf(name: string, unit: string): ChannelRole {
  const folded = name.toLowerCase().replace(/_/g, ' ').replace(/\s+/g, ' ').trim()
  if (/(road|vehicle|wheel|roller) ?speed/.test(folded) || (ROAD_SPEED.test(unit.toLowerCase()) && /speed/.test(folded))) return 'roadSpeed'
  return ROLE_NAMES.find(([, pattern]) => pattern.test(folded))?.[0] ?? 'other'
}

/** What a unit alone says that a column is. */
function roleOfUnit(unit: string): ChannelRole {
  const found = (Object.entries(ROLE_KIND) as [ChannelRole, QuantityKind][]).find(([, kind]) => unit !== '' && findUnit(kind, unit))
  return found?.[0] ?? 'other'
}

/** A name that ends in a number: "Power 2", "Run 1", "rpm_3" as its name and the number. */
function numbered(name: string): { stem: string; number: string } | undefined {
  const found = /^(.*?)[\s_#.-]*(\d{1,3})$/.exec(name.trim())
  return found?.[1] ? { stem: found[1], number: itemAt(found, 2) } : undefined
}

const NAME_OF_POWER = ROLE_NAMES.find(([role]) => role === 'power')?.[1] as RegExp

/**
 * Columns of a file with one speed and several powers that are told apart by words: "Power stock", "Power tuned". Each power is a pull of its own, with the
 * torque of the same place in the row where there are as many. Powers that only say where or how they were counted ("Wheel power", "Engine power") are
 * one pull; undefined of any other file.
 */
function namedSideBySide(splits: readonly SplitHeading[]): ChannelColumn[] | undefined {
  const columns = splits.map(({ name, unit, told }, index): ChannelColumn => {
    const isSeries = name !== unit && !NOT_ITSELF.test(name)
    const role = told ?? (roleOf(name, unit) === 'other' && isSeries ? roleOfUnit(unit) : roleOf(name, unit))
    return { index, role, name, unit }
  })
  const of = (role: ChannelRole) => columns.filter((column) => column.role === role)
  const [powers, torques] = [of('power'), of('torque')]
  if (of('speed').length !== 1 || powers.length < 2 || of('pull').length > 0) return undefined
  if (powers.every(({ name }) => NAME_OF_POWER.test(name.toLowerCase().trim()))) return undefined
  const labels = new Map(powers.map((column) => [column.index, labelOf(column.name)]))
  if (new Set(labels.values()).size < powers.length) return undefined
  const isPaired = torques.length === powers.length
  return columns.map((column): ChannelColumn => {
    if (column.role === 'power') return { ...column, pull: labels.get(column.index) }
    if (column.role !== 'torque') return column
    return isPaired ? { ...column, pull: labels.get(itemAt(powers, torques.indexOf(column)).index) } : { ...column, role: 'other' }
  })
}

/** "Power, tuned" is the pull "tuned". */
const labelOf = (name: string) => name.replace(/\b(power|leistung|puissance)\b/i, '').replace(/^[\s,:_-]+|[\s,:_-]+$/g, '') || name

/** A heading in its parts, and what a person said the column is. */
interface SplitHeading {
  readonly name: string
  readonly unit: string
  readonly told?: ChannelRole | undefined
}

/**
 * Columns of a file in which every pull has its own, told apart by a number: speed and power of each, or one speed for all. The numbered power (else
 * torque) columns must be two or more of different numbers; undefined of any other file.
 */
function sideBySide(splits: readonly SplitHeading[]): ChannelColumn[] | undefined {
  const columns = splits.map(({ name, unit, told }, index): ChannelColumn => {
    const parts = numbered(name)
    const stem = parts?.stem ?? name
    const named = roleOf(stem, unit)
    const role = told ?? (named === 'other' || named === 'pull' ? roleOfUnit(unit) : named)
    return { index, role, name, unit, pull: parts && role !== 'other' ? parts.number : undefined }
  })
  const numbersOf = (role: ChannelRole) => columns.flatMap((column) => (column.role === role && column.pull !== undefined ? [column.pull] : []))
  const isApart = (role: ChannelRole) => numbersOf(role).length > 1 && new Set(numbersOf(role)).size === numbersOf(role).length
  const speeds = columns.filter(({ role }) => role === 'speed')
  const hasSpeeds = speeds.length === 1 || (isApart('speed') && speeds.length === numbersOf('speed').length)
  if (!hasSpeeds || !(isApart('power') || isApart('torque'))) return undefined
  // A speed that stands alone is that of all, whatever its number.
  return columns.map((column) => (column.role === 'speed' && speeds.length === 1 ? { ...column, pull: undefined } : column))
}

/** Whether a row holds units alone, as some dynos print below the headings. */
export function isUnitRow(cells: readonly string[]): boolean {
  const filled = cells.map((cell) => cell.replace(/[()[\]{}]/g, '').trim()).filter(Boolean)
  return (
    filled.length > 0 &&
    filled.every((cell) => isUnit(cell) || cell === '-') &&
    filled.some((cell) => findUnit('power', cell) || findUnit('torque', cell) || findUnit('engineSpeed', cell))
  )
}

/**
 * Reads the heading line (and a unit row, if there is one) of a dyno file. Needs a speed in rpm and a power or torque with a known unit;
 * a mapping says what a person knows better, unit included.
 * Errors: `missing` (which column and how to cure it), `unknown-unit`.
 */
export function readColumns(headings: readonly string[], unitRow: readonly string[] | undefined, mapping: readonly ColumnMapping[] = []): ChannelColumn[] {
  const columns = guessColumns(headings, unitRow, mapping)
  const seen = new Set(columns.map((column) => column.role))
  const listed = headings.map((heading) => `"${heading.trim()}"`).join(', ')
  if (!seen.has('speed'))
    throw new CalculationError('missing', 'speed', `The heading has no column of engine speed. Found ${listed}. Head one "rpm", or say which column is what.`)
  if (!seen.has('power') && !seen.has('torque')) {
    throw new CalculationError(
      'missing',
      'power',
      `The heading has no column of power or torque. Found ${listed}. Head one "power kW" or "torque Nm", or say which column is what.`,
    )
  }
  return columns.map(withKnownUnit)
}

/** What each column of a file seems to be, by its heading and its unit; a mapping goes before. Nothing is refused. */
export function guessColumns(headings: readonly string[], unitRow: readonly string[] | undefined, mapping: readonly ColumnMapping[] = []): ChannelColumn[] {
  const mapped = new Map(mapping.map((entry) => [headingKey(entry.heading), entry]))
  const splits = headings.map((heading, index) => {
    const split = splitHeading(heading)
    const told = mapped.get(headingKey(heading))
    const unit = told?.unit || (unitRow?.[index] ?? '').replace(/[()[\]{}]/g, '').trim() || split.unit
    return { name: split.name || `column ${index + 1}`, unit, told: told?.role }
  })
  const apart = sideBySide(splits) ?? namedSideBySide(splits)
  if (apart) return apart
  const seen = new Set<ChannelRole>(headings.flatMap((heading) => mapped.get(headingKey(heading))?.role ?? []))
  const byName = splits.map(({ name, unit, told }, index): ChannelColumn => {
    if (told) return { index, role: told, name, unit }
    const found = roleOf(name, unit)
    const role = found !== 'other' && seen.has(found) ? 'other' : found
    seen.add(role)
    return { index, role, name, unit }
  })
  // What no name says, the first column of such a unit is.
  return byName.map((column, index) => {
    if (column.role !== 'other' || splits[index]?.told) return column
    const role = roleOfUnit(column.unit)
    if (role === 'other' || seen.has(role) || (column.name !== column.unit && NOT_ITSELF.test(column.name))) return column
    seen.add(role)
    return { ...column, role }
  })
}

/** Names of columns that have the unit of power or torque and are not what was made. */
const NOT_ITSELF = /loss|drag|target|goal|limit|max|min|peak|verlust|perte|turbo|drum|shaft/i

const headingKey = (heading: string) =>
  heading
    .replace(/^\ufeff/, '')
    .trim()
    .toLowerCase()

/** Whether a row can be the heading of a dyno file: an engine speed beside a power or a torque, by name or by mapping. */
export function isHeadingRow(cells: readonly string[], mapping: readonly ColumnMapping[] = []): boolean {
  const roles = new Set(guessColumns(cells, undefined, mapping).map(({ role }) => role))
  return roles.has('speed') && (roles.has('power') || roles.has('torque'))
}

function withKnownUnit(column: ChannelColumn): ChannelColumn {
  const kind = ROLE_KIND[column.role]
  if (!kind) return column
  const typed = column.unit
  if (column.role === 'speed' && typed === '') return { ...column, unit: 'rpm' }
  const choices = kind === 'power' ? 'kW, hp or PS' : kind === 'torque' ? 'N·m or lb·ft' : 'rpm'
  if (typed === '') {
    throw new CalculationError(
      'missing',
      column.role,
      `The ${column.role} column "${column.name}" names no unit. Say that it is in ${choices}, or correct the file, and read it again.`,
    )
  }
  const unit = findUnit(kind, typed)
  if (!unit) {
    const cure = kind === 'engineSpeed' ? 'Engine speed is read in rpm.' : `Say that it is in ${choices}, or correct the file, and read it again.`
    throw new CalculationError('unknown-unit', column.role, `The ${column.role} column "${column.name}" is in "${typed}", a unit nobody here knows. ${cure}`)
  }
  return { ...column, unit: unit.symbol }
}
