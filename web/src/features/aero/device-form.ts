import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  type AeroRoom,
  attempt,
  CalculationError,
  type DeviceValue,
  type Notch,
  type QuantityKind,
  splitterEstimate,
  standingValue,
  USUAL_PRESSURE,
  USUAL_PRESSURE_SD,
  USUAL_WING,
  wingEstimate,
} from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../ui/forms/form-reader.ts'
import { numberText, typedText } from '../../ui/quantity.ts'
import { BOX } from './device-fields.ts'

type Device = RecordsAnswer['aeroDevices'][number]
type Units = Readonly<Record<QuantityKind, string>>

const spreadText = (value: number, sd: number | null) => `${numberText(value)}${sd === null ? '' : ` ± ${numberText(sd)}`}`

/** A notch as the line it was typed as. */
function notchText(notch: Notch): string {
  const value = standingValue(notch)
  const given = !value
    ? notch.countsAsNothing
      ? ['nothing']
      : []
    : value.form === 'place'
      ? [`down ${spreadText(value.downforceM2, value.downforceSdM2)}`, `drag ${spreadText(value.dragM2, value.dragSdM2)}`, value.proof]
      : [
          `front ${spreadText(value.frontM2, value.frontSdM2)}`,
          `rear ${spreadText(value.rearM2, value.rearSdM2)}`,
          `drag ${spreadText(value.dragM2, value.dragSdM2)}`,
          value.proof,
        ]
  return [notch.name, ...(notch.angleRad === null ? [] : [typedText('angle', notch.angleRad, '°')]), ...given].join('; ')
}

/** The texts of a stored device, or those that a new one begins with. */
export function deviceDefaults(device: Device | null, units: Units): FormValues {
  const length = (value: number | null | undefined) => (value === null || value === undefined ? '' : typedText('length', value, units.length))
  const first = device?.notches[0] && standingValue(device.notches[0])?.estimate
  const wing = device?.wing
  return {
    kind: device?.kind ?? 'wing',
    name: device?.name ?? '',
    changeId: device ? (device.changeId ?? '') : 'new',
    from: first?.of ?? 'typed',
    notches: device?.notches.map(notchText).join('\n') ?? 'as it is',
    zeroLift: first?.of === 'wing' ? typedText('angle', first.zeroLiftRad, '°') : '',
    place: first?.of === 'wing' ? first.place : 'behindRoof',
    lip: first?.of === 'splitter' ? length(first.lipM) : '',
    width: first?.of === 'splitter' ? length(first.widthM) : '',
    pressure: first?.of === 'splitter' ? spreadText(first.pressure, first.pressureSd) : '',
    ...Object.fromEntries(BOX.map(([name]) => [name, length(device?.box?.[name])])),
    heightMap: (device?.heightMap ?? []).map(({ clearanceM, factor }) => `${length(clearanceM)}; ${numberText(factor)}`).join('\n'),
    span: length(wing?.spanM),
    chords: wing?.chordsM.map((chord) => length(chord)).join('  ') ?? '',
    pivotX: length(wing?.pivotXM),
    pivotZ: length(wing?.pivotZM),
    pivotShare: wing ? typedText('share', wing.pivotShare, '%') : '',
    plateHeight: length(wing?.endPlate?.heightM),
    plateLength: length(wing?.endPlate?.lengthM),
    plateTop: length(wing?.endPlate?.topM),
  }
}

const PROOFS = ['guess', 'calculated', 'catalogue', 'measured'] as const
const AREA_KEYS = ['down', 'drag', 'front', 'rear'] as const

interface ReadNotch {
  readonly name: string
  readonly angleRad: number | null
  readonly countsAsNothing: boolean
  readonly areas: Partial<Record<(typeof AREA_KEYS)[number], { value: number; sd: number | null }>>
  readonly proof: (typeof PROOFS)[number] | null
}

/** One line of the notches; what cannot be read is refused by the line. */
function readNotch(read: FormReader, line: string): ReadNotch {
  const [name = '', ...rest] = line.split(/\s*;\s*/)
  const found: { -readonly [Key in keyof ReadNotch]: ReadNotch[Key] } = { name, angleRad: null, countsAsNothing: false, areas: {}, proof: null }
  for (const word of rest) {
    const key = AREA_KEYS.find((each) => word.toLowerCase().startsWith(`${each} `))
    const proof = PROOFS.find((each) => each === word.toLowerCase())
    if (key) {
      const area = read.typedQuantity('notches', word.slice(key.length).trim(), 'area', `${key} of ${name}`, 'm²')
      if (area) found.areas = { ...found.areas, [key]: { value: area.value, sd: area.sd ?? null } }
    } else if (proof) found.proof = proof
    else if (/^nothing$/i.test(word)) found.countsAsNothing = true
    else if (word !== '') found.angleRad = read.typedQuantity('notches', word, 'angle', `The angle of ${name}`, '°')?.value ?? null
  }
  return found
}

/** The value that a line says; null where it says none. */
function typedValue(read: FormReader, line: string, { areas, proof, name }: ReadNotch, at: string): DeviceValue | null {
  const { down, drag, front, rear } = areas
  if (!down && !front && !rear && !drag) return null
  if (!proof) read.refuse('notches', `"${line}": say how it is known, at its end: guess, catalogue, calculated or measured.`)
  if (down ? front || rear : !(front && rear)) read.refuse('notches', `"${line}": give ${name} a downforce (down), or front and rear: one of the two.`)
  const common = {
    dragM2: drag?.value ?? 0,
    dragSdM2: drag?.sd ?? null,
    proof: proof ?? 'guess',
    how: null,
    estimate: null,
    at,
    typed: line.slice(0, 80),
  } as const
  return down
    ? { form: 'place', downforceM2: down.value, downforceSdM2: down.sd, ...common }
    : { form: 'axles', frontM2: front?.value ?? 0, frontSdM2: front?.sd ?? null, rearM2: rear?.value ?? 0, rearSdM2: rear?.sd ?? null, ...common }
}

function readWing(read: FormReader) {
  const hasAny = ['span', 'chords', 'pivotX', 'pivotZ'].some((name) => read.raw(name) !== '')
  if (!hasAny) return null
  const length = (name: string, label: string) => read.quantity(name, label, 'length').value
  const chordsM = read
    .raw('chords')
    .split(/\s{2,}|\s(?=\d)/)
    .filter(Boolean)
    .map((each) => read.typedQuantity('chords', each, 'length', 'The chord')?.value ?? Number.NaN)
  if (chordsM.length === 0) read.refuse('chords', 'A wing has a chord. Type it.')
  const share = read.raw('pivotShare') === '' ? 0.25 : read.quantity('pivotShare', 'The pivot', 'share').value
  const hasPlate = read.raw('plateHeight') !== ''
  return {
    spanM: length('span', 'Span'),
    chordsM,
    pivotXM: length('pivotX', 'The pivot’s place'),
    pivotZM: length('pivotZ', 'The pivot’s height'),
    pivotShare: share,
    endPlate: hasPlate
      ? {
          heightM: length('plateHeight', 'Height of the plates'),
          lengthM: length('plateLength', 'Length of the plates'),
          topM: length('plateTop', 'Top of the plates'),
        }
      : null,
  }
}

function readBox(read: FormReader) {
  if (BOX.every(([name]) => read.raw(name) === '')) return null
  return Object.fromEntries(BOX.map(([name, label]) => [name, read.quantity(name, label, 'length').value]))
}

/** A height map, a line each: clearance of the underside; share of its value. */
function readHeightMap(read: FormReader) {
  const points = read.points('heightMap', 'a height map', [{ kind: 'length' }, { kind: 'ratio' }]) as [number, number][]
  return points.length === 0 ? null : points.map(([clearanceM, factor]) => ({ clearanceM, factor }))
}

/** What an estimate gives a notch; refused by the notch where it cannot be made. */
function estimated(read: FormReader, notch: ReadNotch, wing: ReturnType<typeof readWing>, room: Pick<AeroRoom, 'basis'>, at: string): DeviceValue | null {
  const common = { form: 'place', proof: 'calculated', at, typed: null } as const
  const refuse = (found: CalculationError) => read.refuse('notches', `${notch.name}: ${found.message}`)
  if (read.raw('from') === 'splitter') {
    const [widthM, lipM] = [read.quantity('width', 'Width of the lip', 'length').value, read.quantity('lip', 'The lip', 'length').value]
    const typed = read.optionalQuantity('pressure', 'Pressure', 'ratio')
    const [pressure, pressureSd] = [typed?.value ?? USUAL_PRESSURE, typed?.sd ?? USUAL_PRESSURE_SD]
    if (Number.isNaN(widthM) || Number.isNaN(lipM)) return null
    const found = attempt(() => splitterEstimate({ widthM, lipM, pressure, pressureSd }))
    if (found instanceof CalculationError) return refuse(found) ?? null
    return { ...common, ...found, how: 'pressure panel', estimate: { of: 'splitter', widthM, lipM, pressure, pressureSd } }
  }
  if (!wing) return read.refuse('span', 'An estimate needs the wing’s sizes.') ?? null
  if (wing.chordsM.length > 1)
    return read.refuse('chords', 'Several elements are not estimated: the gap between them decides. Type the maker’s value with its spread.') ?? null
  if (notch.angleRad === null) return read.refuse('notches', `${notch.name} needs its angle: ${notch.name}; 4°.`) ?? null
  const zeroLiftRad = read.quantity('zeroLift', 'The angle of no lift', 'angle', '°').value
  const place = read.raw('place') === 'freeAir' ? ('freeAir' as const) : ('behindRoof' as const)
  const { slopeSchool } = room.basis
  if (Number.isNaN(zeroLiftRad)) return null
  const shape = { spanM: wing.spanM, chordM: wing.chordsM[0] ?? Number.NaN, plateHeightM: wing.endPlate?.heightM ?? 0 }
  const found = attempt(() => wingEstimate({ ...USUAL_WING, ...shape, angleRad: notch.angleRad ?? 0, zeroLiftRad, place, slopeSchool }))
  if (found instanceof CalculationError) return refuse(found) ?? null
  const { downforceM2, downforceSdM2, dragM2, dragSdM2 } = found
  return { ...common, downforceM2, downforceSdM2, dragM2, dragSdM2, how: 'one element, estimated', estimate: { of: 'wing', zeroLiftRad, place, slopeSchool } }
}

const numbersOf = (value: DeviceValue): (number | null)[] =>
  value.form === 'place'
    ? [value.downforceM2, value.downforceSdM2, value.dragM2, value.dragSdM2]
    : [value.frontM2, value.frontSdM2, value.rearM2, value.rearSdM2, value.dragM2, value.dragSdM2]

/** Whether two values say the same, but for what rounding to a unit and back moves. */
function saysTheSame(one: DeviceValue, other: DeviceValue): boolean {
  const [a, b] = [numbersOf(one), numbersOf(other)]
  const isClose = (x: number | null, y: number | null) => (x === null || y === null ? x === y : Math.abs(x - y) <= 1e-4 * (Math.abs(x) + 1e-3))
  return one.form === other.form && one.proof === other.proof && a.every((x, i) => isClose(x, b[i] ?? null))
}

/** What the form makes of a device: earlier values of a notch stay, a new one is added where it says something else. */
export function deviceBody(read: FormReader, device: Device | null, room: Pick<AeroRoom, 'basis'>, at: string): Record<string, unknown> {
  const lines = read.lines('notches')
  if (lines.length === 0) read.refuse('notches', 'Name a notch: "as it is" where it has but one.')
  const wing = readWing(read)
  const from = read.raw('from')
  const notches = lines.map((line) => {
    const own = readNotch(read, line)
    if (own.name === '') read.refuse('notches', `"${line}": a notch begins with its name.`)
    const before = device?.notches.find(({ name }) => name.toLowerCase() === own.name.toLowerCase())
    const value = own.countsAsNothing ? null : from === 'typed' ? typedValue(read, line, own, at) : estimated(read, own, wing, room, at)
    const standing = before && standingValue(before)
    const isSame = value !== null && standing !== undefined && saysTheSame(value, standing)
    return {
      id: before?.id ?? crypto.randomUUID(),
      name: own.name,
      angleRad: own.angleRad,
      countsAsNothing: own.countsAsNothing,
      values: value === null || isSame ? (before?.values ?? []) : [...(before?.values ?? []), value],
    }
  })
  return {
    kind: read.raw('kind'),
    name: read.text('name', 'Name'),
    box: readBox(read),
    wing,
    force: device?.force ?? null,
    heightMap: readHeightMap(read),
    notches,
  }
}
