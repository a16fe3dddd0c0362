import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  BALANCE_SCHOOL_WORDS,
  BALANCE_SCHOOLS,
  type QuantityKind,
  ROLLING_SCHOOL_WORDS,
  ROLLING_SCHOOLS,
  SLOPE_SCHOOL_WORDS,
  SLOPE_SCHOOLS,
  USUAL_AERO_BASIS,
} from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../ui/forms/record-form.tsx'
import { typedText } from '../../ui/quantity.ts'

type Build = RecordsAnswer['build']
type Units = Readonly<Record<QuantityKind, string>>

/** The tapes of the outline: key, label, hint, bounds in metres. */
const TAPES = [
  ['frontOverhangM', 'Front axle to the front of standard bodywork', '', 0, 3],
  ['rearOverhangM', 'Rear axle to its rear end', '', 0, 3],
  ['bodyWidthM', 'Width of the body, no mirrors', '', 0.8, 3],
  ['roofHeightM', 'Roof over the ground', 'Or the hoop, where the class takes it.', 0.4, 3],
  ['roofFrontXM', 'Front axle back to where the roof begins', '', -1, 5],
  ['roofRearXM', 'Front axle back to where the roof ends', '', -1, 6],
  ['scuttleXM', 'Front axle back to the foot of the windscreen', '', -2, 4],
  ['scuttleHeightM', 'Foot of the windscreen over the ground', '', 0.2, 2.5],
  ['noseHeightM', 'Top of the nose over the ground', '', 0.1, 2],
  ['tailHeightM', 'Top of the tail over the ground', '', 0.1, 2.5],
  ['undersideM', 'Underside over the ground', '', 0.01, 1],
  ['wheelRadiusM', 'Radius of a wheel with its tyre', '', 0.15, 0.6],
] as const satisfies readonly (readonly [keyof NonNullable<Build['outline']>, string, string, number, number])[]

const words = (keys: readonly string[], said: Readonly<Record<string, string>>) => keys.map((value) => ({ value, label: said[value] ?? value }))

export const tapeFieldSpecs: readonly FieldSpec[] = TAPES.map(
  ([name, label, hint], i): FieldSpec => ({ name, label, ...(hint ? { hint } : {}), ...(i === 0 ? { section: 'Eleven tapes and a wheel' } : {}) }),
)

export const outlineFieldSpecs: readonly FieldSpec[] = [
  ...tapeFieldSpecs,
  { name: 'speed', label: 'Every number of aero is said at', section: 'Where aero is quoted' },
  { name: 'fastest', label: 'Fastest on track', hint: 'Heights, panels and mounts are checked there.' },
  {
    name: 'balanceSchool',
    label: 'Balance is read',
    section: 'Schools: good people differ here',
    type: 'select',
    options: words(BALANCE_SCHOOLS, BALANCE_SCHOOL_WORDS),
  },
  { name: 'slopeSchool', label: 'A wing’s slope is worked out by', type: 'select', options: words(SLOPE_SCHOOLS, SLOPE_SCHOOL_WORDS) },
  { name: 'rollingSchool', label: 'Coasting takes', type: 'select', options: words(ROLLING_SCHOOLS, ROLLING_SCHOOL_WORDS) },
]

/** The texts of an outline; empty ones where nothing is taped. */
export const tapeDefaults = (outline: Build['outline'], units: Units): FormValues =>
  Object.fromEntries(TAPES.map(([name]) => [name, outline ? typedText('length', outline[name], units.length) : '']))

/** The texts that the form starts with. */
export function outlineDefaults({ outline, aeroBasis }: Pick<Build, 'outline' | 'aeroBasis'>, units: Units): FormValues {
  const basis = aeroBasis ?? USUAL_AERO_BASIS
  return {
    ...tapeDefaults(outline, units),
    speed: typedText('speed', basis.speedMps, units.speed),
    fastest: typedText('speed', basis.fastestMps, units.speed),
    balanceSchool: basis.balanceSchool,
    slopeSchool: basis.slopeSchool,
    rollingSchool: basis.rollingSchool,
  }
}

/** What the form makes of the tapes: all of them, or null where none is typed. */
export function tapedOutline(read: FormReader, outline: Build['outline']): Record<string, unknown> | null {
  if (!TAPES.some(([name]) => read.raw(name) !== '')) return null
  const taped = TAPES.map(([name, label, , least, most]) => {
    const { value } = read.quantity(name, label, 'length')
    if (!(value >= least && value <= most))
      read.refuse(
        name,
        `It lies from ${typedText('length', least, read.units.length)} to ${typedText('length', most, read.units.length)}. Check the number and its unit.`,
      )
    return [name, value]
  })
  return { ...Object.fromEntries(taped), sdM: outline?.sdM ?? 0.005, sidePoints: outline?.sidePoints ?? null }
}

/** What the form makes of the build's outline and basis; tapes are all there or none. */
export function outlineBody(read: FormReader, { outline, aeroBasis }: Pick<Build, 'outline' | 'aeroBasis'>): Record<string, unknown> {
  const speedOf = (name: string, label: string, most: number) => {
    const { value } = read.quantity(name, label, 'speed')
    if (!(value >= 10 && value <= most))
      read.refuse(name, `${label} lies from ${typedText('speed', 10, read.units.speed)} to ${typedText('speed', most, read.units.speed)}.`)
    return value
  }
  return {
    outline: tapedOutline(read, outline),
    aeroBasis: {
      speedMps: speedOf('speed', 'The speed', 100),
      fastestMps: speedOf('fastest', 'The fastest', 120),
      balanceSchool: read.raw('balanceSchool'),
      slopeSchool: read.raw('slopeSchool'),
      rollingSchool: read.raw('rollingSchool'),
      rollingSpeedMps: aeroBasis?.rollingSpeedMps ?? null,
    },
  }
}
