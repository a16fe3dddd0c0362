import { CARRIED_BY, type CarriedBy, type Mount, type QuantityKind, SECONDS, type SecondRetention } from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { numberText, typedText } from '../../../ui/quantity.ts'
import { readRods, rodDefaults } from '../rod-fields.ts'

type Units = Readonly<Record<QuantityKind, string>>

export const CARRIED_WORDS: Readonly<Record<CarriedBy, string>> = {
  chassis: 'the chassis',
  crossMember: 'a cross member',
  bumperBeam: 'the bumper beam',
  lid: 'the boot lid',
}
export const SECOND_WORDS: Readonly<Record<SecondRetention, string>> = { none: 'nothing', tether: 'a tether', secondFixing: 'a second fixing' }

export const mountFieldSpecs: readonly FieldSpec[] = [
  { name: 'carriedBy', label: 'It is carried by', type: 'select', options: CARRIED_BY.map((value) => ({ value, label: CARRIED_WORDS[value] })) },
  { name: 'second', label: 'When it lets go, it is held by', type: 'select', options: SECONDS.map((value) => ({ value, label: SECOND_WORDS[value] })) },
  { name: 'uprights', label: 'Uprights', section: 'Uprights' },
  {
    name: 'feet',
    label: 'Feet of one upright, front first: behind the front axle; over the ground',
    hint: (units) => `One a line, such as 3360 ${units.length === 'mm' ? 'mm' : units.length}; 950. Empty: it has none.`,
    type: 'textarea',
  },
  { name: 'bolts', label: 'Bolts of a foot' },
  { name: 'tension', label: 'One bolt is rated for, pulled', hint: 'By its maker or its grade. Empty: nobody said.' },
  { name: 'shear', label: 'and across' },
  { name: 'rods', label: 'Rods or cables', section: 'Rods', hint: 'How many. Empty: it has none.' },
  { name: 'rodAngle', label: 'Angle to the panel' },
  { name: 'rodDiameter', label: 'Thickness of a rod' },
  { name: 'rodLength', label: 'Length of a rod' },
  { name: 'rodRated', label: 'One is rated for' },
  { name: 'isCable', label: 'They are cables: they hold no kerb from below', type: 'checkbox' },
  { name: 'loadFactor', label: 'Load factor', section: 'How it is looked after', hint: '2 is usual (common practice).' },
  { name: 'access', label: 'What comes off first', hint: 'Such as: the boot cannot be opened with the wing on.' },
  { name: 'lookedAtBy', label: 'Looked at by' },
  { name: 'lookedAtOn', label: 'on', type: 'date' },
]

/** The texts of a mount, or those that a new one begins with. */
export function mountDefaults(mount: Mount | null, units: Units): FormValues {
  if (!mount) return { carriedBy: 'chassis', second: 'none', uprights: '2', loadFactor: '2', isCable: 'false' }
  const { bolts, rods } = mount
  const length = (value: number) => typedText('length', value, units.length)
  const force = (value: number) => typedText('force', value, units.force)
  return {
    carriedBy: mount.carriedBy,
    second: mount.second,
    uprights: String(mount.uprights),
    feet: mount.feet.map(({ xM, zM }) => `${length(xM)}; ${length(zM)}`).join('\n'),
    bolts: bolts ? String(bolts.countPerFoot) : '',
    tension: bolts ? force(bolts.tensionN) : '',
    shear: bolts ? force(bolts.shearN) : '',
    ...rodDefaults(rods, units),
    isCable: String(rods?.isCable ?? false),
    loadFactor: numberText(mount.loadFactor),
    access: mount.access ?? '',
    lookedAtBy: mount.lookedAtBy ?? '',
    lookedAtOn: mount.lookedAtOn ?? '',
  }
}

/** What the form makes of a mount. */
export function mountBody(read: FormReader): Record<string, unknown> {
  const feet = read.points('feet', 'a foot', [{ kind: 'length' }, { kind: 'length' }]).map(([xM, zM]) => ({ xM, zM }))
  const rods = readRods(read)
  if (feet.length === 1) read.refuse('feet', 'An upright on one foot carries no moment. Give it two feet, front and rear.')
  if (feet.length === 0 && !rods) read.refuse('feet', 'Nothing holds it: give the feet of its uprights, or its rods.')
  const rated = ['bolts', 'tension', 'shear'].filter((name) => read.raw(name) !== '')
  if (rated.length > 0 && rated.length < 3)
    read.refuse(
      read.raw('bolts') === '' ? 'bolts' : read.raw('tension') === '' ? 'tension' : 'shear',
      'Bolts need all three: how many, what one holds pulled, and across.',
    )
  return {
    carriedBy: read.raw('carriedBy'),
    second: read.raw('second'),
    uprights: read.count('uprights', 'Uprights', 1, 6),
    feet,
    bolts:
      rated.length === 3
        ? {
            countPerFoot: read.count('bolts', 'Bolts', 1, 20),
            tensionN: read.quantity('tension', 'What a bolt holds', 'force').value,
            shearN: read.quantity('shear', 'What a bolt holds across', 'force').value,
          }
        : null,
    rods: rods && { ...rods, isCable: read.flag('isCable') },
    loadFactor: read.number('loadFactor', 'The load factor'),
    access: read.optional('access'),
    lookedAtBy: read.optional('lookedAtBy'),
    lookedAtOn: read.optional('lookedAtOn'),
  }
}
