import type { RecordsAnswer } from '@bold-ballast/contract'
import { placeDefaults, placeFields, readPlace } from '../../../shared/fields/place-fields.ts'
import type { FormReader, FormValues } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { numberText, typedAgain, typedText } from '../../../ui/quantity.ts'
import { BALLAST_OBJECTIVES_WORDS } from './ballast-words.ts'

type Site = RecordsAnswer['sites'][number]
type Aim = RecordsAnswer['ballastAims'][number]
type Units = Record<'mass' | 'length' | 'share', string>

export const siteFieldSpecs: readonly FieldSpec[] = [
  { name: 'name', label: 'Name of the place' },
  { name: 'limit', label: 'What its mount may carry', hint: 'By whoever made and inspected the mount.' },
  { name: 'plates', label: 'Plates there are for it', hint: (units) => `Number and size: 6 x 5, 4 x 2.5 ${units.mass}.`, isWide: true },
  ...placeFields('place', 'Where it is'),
]

const PLATE = /^\s*(\d{1,3})\s*[x×]\s*(.+?)\s*$/i

export function siteBody(read: FormReader): Record<string, unknown> {
  const limit = read.quantity('limit', 'What it may carry', 'mass')
  if (limit.value <= 0) read.refuse('limit', 'A place that may carry nothing is none. Type more than zero.')
  const plates = read
    .text('plates', 'Plates')
    .split(/\s*;\s*|,\s+|\s+and\s+/)
    .filter((part) => part !== '')
    .map((part) => {
      const found = PLATE.exec(part)
      const mass = found ? read.typedQuantity('plates', found[2] as string, 'mass') : null
      if (!found || !mass || !(mass.value > 0) || Number(found[1]) < 1) {
        read.refuse('plates', `"${part}" cannot be read. Type number x size, such as 6 x 5 kg; several with a comma and a blank between.`)
        return { massKg: 1, count: 1 }
      }
      return { massKg: mass.value, count: Number(found[1]) }
    })
  const place = readPlace(read, 'place')
  if (!place) read.refuse('placeX', 'Ballast needs its place: that is what it is for. Type all three.')
  return { name: read.text('name', 'Name'), limitKg: limit.value, plates, place }
}

export const siteDefaults = (site: Site, units: Units): FormValues => ({
  name: site.name,
  limit: typedText('mass', site.limitKg, units.mass),
  plates: site.plates.map(({ massKg, count }) => `${count} x ${typedText('mass', massKg, units.mass)}`).join(', '),
  ...placeDefaults('place', site.place, units.length),
})

const SHARES = [
  ['front', 'Front share'],
  ['left', 'Left share'],
  ['crossRfLr', 'Cross, RF + LR'],
] as const

export const aimFieldSpecs = (hasRates: boolean): FieldSpec[] => [
  { name: 'minimum', label: 'Minimum, with driver', hint: 'As your class weighs it.' },
  { name: 'mostOver', label: 'At most so much over it', hint: 'Empty: one smallest plate.' },
  {
    name: 'objective',
    label: 'What to go for',
    type: 'select',
    isWide: true,
    options: Object.entries(BALLAST_OBJECTIVES_WORDS).map(([value, label]) => ({ value, label })),
  },
  ...SHARES.filter(([key]) => key !== 'crossRfLr' || hasRates).flatMap(([key, label], i): FieldSpec[] => [
    { name: key, label: `${label} wanted`, ...(i === 0 ? { section: 'Shares that are wanted; leave empty what does not matter' } : {}) },
    { name: `${key}Within`, label: 'Not further off than', hint: 'Empty: only as near as can be. A percentage: 0.3 %.' },
  ]),
  {
    name: 'loadFactor',
    label: 'A mount must hold so many times its weight',
    section: 'Mounts',
    hint: 'From your rule book, as a plain number: 20. Ballast mounts are safety items: have them made and inspected by qualified people.',
    isWide: true,
  },
]

export function aimBody(read: FormReader): Record<string, unknown> {
  const minimum = read.quantity('minimum', 'Minimum', 'mass')
  if (minimum.value <= 0) read.refuse('minimum', 'A minimum is more than zero.')
  const share = (key: string, label: string) => {
    const value = read.optionalQuantity(key, label, 'share')
    const within = read.optionalQuantity(`${key}Within`, label, 'share')
    if (value && !(value.value >= 0.2 && value.value <= 0.8)) read.refuse(key, `${label} must lie from 20 to 80 %.`)
    if (within && !(within.value > 0 && within.value <= 0.2)) read.refuse(`${key}Within`, 'Type a bound over 0 and up to 20 %.')
    return value && { value: value.value, within: within?.value ?? null, weight: 1 }
  }
  const factor = read.raw('loadFactor') === '' ? null : read.number('loadFactor', 'Load factor')
  if (factor !== null && !(factor > 0 && factor <= 200)) read.refuse('loadFactor', 'A load factor lies over 0 and up to 200.')
  return {
    minimumKg: minimum.value,
    typed: minimum.typed,
    mostOverKg: read.optionalQuantity('mostOver', 'At most over', 'mass')?.value ?? null,
    objective: read.raw('objective'),
    ...Object.fromEntries(SHARES.map(([key, label]) => [key, share(key, label)])),
    loadFactorG: factor,
  }
}

export function aimDefaults(aim: Aim | undefined, minimumKg: number | undefined, units: Units): FormValues {
  if (!aim) return { objective: 'nearestShares', minimum: minimumKg === undefined ? '' : typedText('mass', minimumKg, units.mass) }
  const percent = (value: number | null | undefined) => (value === null || value === undefined ? '' : typedText('share', value, '%'))
  return {
    minimum: typedAgain('mass', { value: aim.minimumKg, typed: aim.typed }, units.mass),
    mostOver: aim.mostOverKg === null ? '' : typedText('mass', aim.mostOverKg, units.mass),
    objective: aim.objective,
    ...Object.fromEntries(
      SHARES.flatMap(([key]) => [
        [key, percent(aim[key]?.value)],
        [`${key}Within`, percent(aim[key]?.within)],
      ]),
    ),
    loadFactor: aim.loadFactorG === null ? '' : numberText(aim.loadFactorG),
  }
}
