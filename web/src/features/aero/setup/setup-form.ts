import type { RecordsAnswer } from '@bold-ballast/contract'
import { CORNER_SETTINGS, PAD_NAMES, type QuantityKind } from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { numberText, typedText } from '../../../ui/quantity.ts'

type Setup = RecordsAnswer['setups'][number]
type Units = Readonly<Record<QuantityKind, string>>
type Setting = (typeof CORNER_SETTINGS)[number]

const SIDES = ['wanted', 'read'] as const
const nameOf = (key: string, side: (typeof SIDES)[number]) => `${key}${side === 'wanted' ? 'Wanted' : 'Read'}`

const USUAL: Readonly<Record<Setting['key'], string>> = {
  camberRad: '-3.2 -3.2 -2 -2',
  toeRad: '-0.1 -0.1 0.1 0.1',
  casterRad: '7 7',
  bumpClicks: '8 8 10 10',
  reboundClicks: '12 12 14 14',
  coldPa: '160 160 155 155',
}

/** The fields of what is turned: four values a line of boxes, or two for the axles. */
export const setupFieldSpecs: readonly FieldSpec[] = [
  ...CORNER_SETTINGS.flatMap((setting, i): FieldSpec[] =>
    SIDES.map((side) => ({
      name: nameOf(setting.key, side),
      label: `${setting.word}, ${side}`,
      ...(i === 0 && side === 'wanted' ? { section: 'Left front, right front, left rear, right rear; two values for the axles; - for nobody knows' } : {}),
      ...(side === 'wanted'
        ? {
            hint: (units: Units) =>
              `Such as ${USUAL[setting.key]}${setting.kind === 'pressure' ? ` ${units.pressure}` : setting.kind === 'angle' ? ', in °' : ''}.`,
          }
        : {}),
    })),
  ),
  { name: 'barFront', label: 'Front bar', section: 'Anti-roll bars', hint: 'As it is called: 2nd hole, off.' },
  { name: 'barRear', label: 'Rear bar' },
]

const valueText = ({ kind }: Setting, value: number | null, units: Units): string => {
  if (value === null) return '-'
  if (kind === null) return numberText(value)
  return typedText(kind, value, kind === 'angle' ? '°' : units[kind]).replace(/\s?[^\d.,-]+$/, '')
}

/** The texts of what is turned as it stands in a set-up. */
export function setupDefaults(setup: Setup | null, units: Units): FormValues {
  const corners = setup?.corners
  return {
    ...Object.fromEntries(
      CORNER_SETTINGS.flatMap((setting) =>
        SIDES.map((side) => {
          const values = PAD_NAMES.map((pad) => corners?.[pad]?.[setting.key]?.[side] ?? null)
          return [nameOf(setting.key, side), values.every((value) => value === null) ? '' : values.map((value) => valueText(setting, value, units)).join(' ')]
        }),
      ),
    ),
    barFront: setup?.bars?.front ?? '',
    barRear: setup?.bars?.rear ?? '',
  }
}

/** Four values out of their text; two stand for the axles. */
function readFour(read: FormReader, name: string, { word, kind }: Setting): (number | null)[] {
  const cells = read
    .raw(name)
    .split(/[\s;]+/)
    .filter((cell) => cell !== '')
  if (cells.length === 0) return [null, null, null, null]
  if (cells.length !== 2 && cells.length !== 4) {
    read.refuse(name, `${word} has ${cells.length} values. Type four, left front first, or two for the axles; - where nobody knows.`)
    return [null, null, null, null]
  }
  const values = cells.map((cell) => {
    if (cell === '-') return null
    return read.typedQuantity(name, cell, kind ?? 'ratio', word, kind === 'angle' ? '°' : kind === null ? '' : read.units[kind])?.value ?? null
  })
  return values.length === 2 ? [values[0] ?? null, values[0] ?? null, values[1] ?? null, values[1] ?? null] : values
}

/** What the form makes of what is turned at a stage. */
export function setupBody(read: FormReader): Record<string, unknown> {
  const found = CORNER_SETTINGS.map((setting) => ({
    key: setting.key,
    wanted: readFour(read, nameOf(setting.key, 'wanted'), setting),
    read: readFour(read, nameOf(setting.key, 'read'), setting),
  }))
  const corners = PAD_NAMES.map((pad, i) => {
    const own = found.map(({ key, wanted, read: seen }) => {
      const cell = { wanted: wanted[i] ?? null, read: seen[i] ?? null }
      return [key, cell.wanted === null && cell.read === null ? null : cell] as const
    })
    return [pad, own.some(([, cell]) => cell !== null) ? Object.fromEntries(own) : null] as const
  })
  const bars = { front: read.optional('barFront'), rear: read.optional('barRear') }
  return {
    corners: corners.some(([, corner]) => corner !== null) ? Object.fromEntries(corners) : null,
    bars: bars.front === null && bars.rear === null ? null : bars,
  }
}
