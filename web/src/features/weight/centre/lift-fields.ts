import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { usualText } from '../../../ui/quantity.ts'

/** The fields of a lift of one axle. */
export const LIFT_FIELDS: readonly FieldSpec[] = [
  {
    name: 'lifted',
    label: 'Lifted',
    type: 'select',
    options: [
      { value: 'rear', label: 'the rear axle' },
      { value: 'front', label: 'the front axle' },
    ],
  },
  {
    name: 'lift',
    label: 'Lifted by',
    hint: (units) => `How much higher its pads stand, with ± if you can: ${usualText(units, 'length', 0.3)} ± ${usualText(units, 'length', 0.003)}.`,
  },
  { name: 'rearAxle', label: 'The rear axle reads then', hint: 'Both rear pads together; or the car’s total less the front pads.' },
  { name: 'radiusFront', label: 'Loaded radius, front', hint: 'Wheel centre over the ground, with the car on its wheels.' },
  { name: 'radiusRear', label: 'Loaded radius, rear' },
]
