import type { RecordsAnswer } from '@bold-ballast/contract'
import type { QuantityKind } from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../ui/forms/record-form.tsx'
import { numberText, typedText, usualText } from '../../ui/quantity.ts'

type Course = RecordsAnswer['courses'][number]
type Units = Readonly<Record<QuantityKind, string>>

export const courseFieldSpecs: readonly FieldSpec[] = [
  { name: 'name', label: 'Name of the course' },
  {
    name: 'corners',
    label: 'Corners, one a line: name; speed or radius; angle of a slide; straight after it',
    hint: (units) =>
      `Such as: Long quay; ${usualText(units, 'length', 64).replace(/^\S+/, '64')} radius; 38°. Or: Gate; ${usualText(units, 'speed', 17.5)}; -; 430 m.`,
    type: 'textarea',
    isWide: true,
  },
  { name: 'isClosed', label: 'The last straight leads to the first corner', type: 'checkbox' },
  { name: 'isShared', label: 'Other builds of this garage may take a copy', type: 'checkbox' },
  { name: 'braking', label: 'Braking, m/s²', hint: '9 on slicks and dry ground is usual (common practice, no source).' },
]

const asText = (units: Units, corner: Course['corners'][number]) => {
  const { name, speedMps, radiusM, slideAngleRad, straightM } = corner
  const middle = speedMps !== null ? typedText('speed', speedMps, units.speed) : radiusM === null ? '-' : `${Number(radiusM.toFixed(2))} m radius`
  const angle = slideAngleRad === null ? '-' : typedText('angle', slideAngleRad, '°')
  return [name, middle, angle, straightM === null ? '' : `${Number(straightM.toFixed(1))} m`].join('; ').replace(/(; -?)+$/, '')
}

/** The texts of a stored course, or those that a new one begins with. */
export const courseDefaults = (course: Course | null, units: Units): FormValues =>
  course
    ? {
        name: course.name,
        corners: course.corners.map((corner) => asText(units, corner)).join('\n'),
        isClosed: String(course.isClosed),
        isShared: String(course.isShared),
        braking: numberText(course.brakingMps2),
      }
    : { isClosed: 'true', isShared: 'true', braking: '9' }

/** One corner out of its line; what cannot be read is refused in the reader. */
function readCorner(read: FormReader, line: string): Record<string, unknown> {
  const [name = '', middle = '', angle = '', straight = ''] = line.split(/\s*;\s*/)
  const refuse = (words: string) => read.refuse('corners', `"${line}": ${words}`)
  if (name === '') refuse('a corner needs a name. Begin with it.')
  const isRadius = /radius|^\s*r\b/i.test(middle)
  const plain = middle.replace(/radius/i, '').trim()
  const radiusM = isRadius
    ? (read.typedQuantity('corners', /[a-z]/i.test(plain) ? plain : `${plain} m`, 'length', `The radius of ${name}`)?.value ?? null)
    : null
  const speedMps = !isRadius && middle !== '' && middle !== '-' ? (read.typedQuantity('corners', middle, 'speed', `The speed of ${name}`)?.value ?? null) : null
  if (radiusM === null && speedMps === null) refuse('it has neither a speed nor a radius. Type 60 km/h, or 64 m radius.')
  if (radiusM !== null && !(radiusM >= 5 && radiusM <= 500)) refuse('a radius lies from 5 to 500 m.')
  if (speedMps !== null && !(speedMps >= 1 && speedMps <= 120)) refuse('a speed lies from 4 to 430 km/h.')
  const slideAngleRad =
    angle === '' || angle === '-'
      ? null
      : (read.typedQuantity('corners', /\d\s*$/.test(angle) ? `${angle}°` : angle, 'angle', `The angle of ${name}`)?.value ?? null)
  if (slideAngleRad !== null && !(slideAngleRad >= 0.03 && slideAngleRad <= 1.4)) refuse('an angle lies from 2 to 80 degrees.')
  const straightM =
    straight === '' || straight === '-'
      ? null
      : (read.typedQuantity('corners', /\d\s*$/.test(straight) ? `${straight} m` : straight, 'length', `The straight after ${name}`)?.value ?? null)
  if (straightM !== null && !(straightM > 0 && straightM <= 20_000)) refuse('a straight is up to 20 km long.')
  return { name, speedMps, sd: null, known: 'guess', radiusM, slideAngleRad, straightM }
}

/** What the form makes of a course. */
export function courseBody(read: FormReader): Record<string, unknown> {
  const lines = read.lines('corners')
  if (lines.length === 0) read.refuse('corners', 'Name a corner and its speed.')
  const braking = read.quantity('braking', 'Braking', 'ratio').value
  if (!(braking >= 2 && braking <= 30)) read.refuse('braking', 'Braking lies from 2 to 30 m/s².')
  return {
    name: read.text('name', 'Name'),
    corners: lines.map((line) => readCorner(read, line)),
    isClosed: read.flag('isClosed'),
    brakingMps2: braking,
    isShared: read.flag('isShared'),
  }
}
