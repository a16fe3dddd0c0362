import type { Panel, QuantityKind } from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../ui/forms/form-reader.ts'
import { typedText } from '../../ui/quantity.ts'

type Units = Readonly<Record<QuantityKind, string>>
type Rods = NonNullable<Panel['rods']>

/** The texts of rods or cables; empty ones where there are none. */
export const rodDefaults = (rods: Rods | null, { length, force }: Units): FormValues => ({
  rods: rods ? String(rods.count) : '',
  rodAngle: rods ? typedText('angle', rods.angleRad, '°') : '',
  rodDiameter: rods ? typedText('length', rods.diameterM, length) : '',
  rodLength: rods ? typedText('length', rods.lengthM, length) : '',
  rodRated: rods ? typedText('force', rods.ratedN, force) : '',
})

/** What a form makes of rods; null where it has none. */
export function readRods(read: FormReader): Rods | null {
  if (read.raw('rods') === '') return null
  const angleRad = read.quantity('rodAngle', 'The angle', 'angle', '°').value
  if (!(angleRad >= 0.0874 && angleRad <= 1.5708)) read.refuse('rodAngle', 'A rod stands at 5 to 90 degrees to the panel: flatter it holds nothing.')
  return {
    count: read.count('rods', 'Rods', 1, 20),
    angleRad,
    diameterM: read.quantity('rodDiameter', 'The thickness', 'length').value,
    lengthM: read.quantity('rodLength', 'The length', 'length').value,
    ratedN: read.quantity('rodRated', 'What it is rated for', 'force').value,
  }
}
