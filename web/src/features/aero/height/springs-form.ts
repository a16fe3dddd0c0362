import type { RecordsAnswer } from '@bold-ballast/contract'
import type { QuantityKind, StageAxle } from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { numberText, typedText, usualText } from '../../../ui/quantity.ts'

type Setup = RecordsAnswer['setups'][number]
type Units = Readonly<Record<QuantityKind, string>>
const AXLES = ['front', 'rear'] as const

/** The fields of both axles, in their order. */
export const springFieldSpecs: readonly FieldSpec[] = AXLES.flatMap((axle): FieldSpec[] => [
  { name: `${axle}spring`, label: 'Spring rate', section: axle === 'front' ? 'Front' : 'Rear', hint: 'Of one spring, as it is marked.' },
  { name: `${axle}ratio`, label: 'Motion ratio', hint: 'Spring travel over wheel travel; the other way round it is over 1.' },
  { name: `${axle}damper`, label: 'Damper travel over wheel travel', hint: 'Empty: as the spring’s.' },
  { name: `${axle}tyre`, label: 'Rate of a tyre', hint: (units) => `Empty: ${usualText(units, 'springRate', 230_000)}, a guess.` },
  { name: `${axle}gap`, label: 'Free travel before the rubber, no packer', hint: 'At the damper. Empty: it is never reached.' },
  { name: `${axle}packer`, label: 'Packer' },
  {
    name: `${axle}rubber`,
    label: 'Bump rubber, one point a line: squeeze, force',
    hint: (units) => `Such as: ${usualText(units, 'length', 0.005)}; ${usualText(units, 'force', 400)}. Its last slope goes on.`,
    type: 'textarea',
    isWide: true,
  },
])

/** The texts of the springs as they stand at the stage. */
export function springDefaults(axles: Readonly<Record<'front' | 'rear', StageAxle | null>>, units: Units): FormValues {
  return Object.fromEntries(
    AXLES.flatMap((axle) => {
      const own = axles[axle]?.springs
      const length = (value: number | null | undefined) => (value === null || value === undefined ? '' : typedText('length', value, units.length))
      return [
        [`${axle}spring`, own ? typedText('springRate', own.springRateNPerM, units.springRate) : ''],
        [`${axle}ratio`, own ? numberText(own.motionRatio) : ''],
        [`${axle}damper`, own?.damperMotionRatio ? numberText(own.damperMotionRatio) : ''],
        [`${axle}tyre`, own && !axles[axle]?.isTyreUsual ? typedText('springRate', own.tyreRateNPerM, units.springRate) : ''],
        [`${axle}gap`, length(own?.gapM)],
        [`${axle}packer`, own && own.packerM > 0 ? length(own.packerM) : ''],
        [
          `${axle}rubber`,
          (own?.rubber ?? []).map(({ compressionM, forceN }) => `${length(compressionM)}; ${typedText('force', forceN, units.force)}`).join('\n'),
        ],
      ]
    }),
  )
}

/** What the form makes of both axles; an axle without a spring stands as it did before. */
export function springBody(read: FormReader, setup: Setup | null): Record<string, unknown> {
  return Object.fromEntries(
    AXLES.map((axle) => {
      if (read.raw(`${axle}spring`) === '') return [axle, null]
      const ratio = read.number(`${axle}ratio`, 'The motion ratio')
      if (!(ratio >= 0.2 && ratio <= 2))
        read.refuse(
          `${axle}ratio`,
          `A motion ratio lies from 0.2 to 2. Read the other way round ${read.raw(`${axle}ratio`)} is ${(1 / ratio).toFixed(2)}: spring travel over wheel travel is meant.`,
        )
      const optional = (name: string, label: string, kind: QuantityKind) => read.optionalQuantity(`${axle}${name}`, label, kind)?.value ?? null
      const gapM = optional('gap', 'The gap', 'length')
      const packerM = optional('packer', 'The packer', 'length') ?? 0
      if (gapM !== null && packerM > gapM) read.refuse(`${axle}packer`, 'The packer is longer than the free gap: the damper stands on it at rest. Shorten it.')
      return [
        axle,
        {
          springRateNPerM: read.quantity(`${axle}spring`, 'The spring rate', 'springRate').value,
          motionRatio: ratio,
          damperMotionRatio: read.raw(`${axle}damper`) === '' ? null : read.number(`${axle}damper`, 'The damper’s ratio'),
          tyreRateNPerM: optional('tyre', 'The tyre', 'springRate'),
          rideHeightM: setup?.[axle]?.rideHeightM ?? null,
          gapM,
          packerM,
          rubber: read
            .points(`${axle}rubber`, 'the bump rubber', [{ kind: 'length' }, { kind: 'force' }])
            .map(([compressionM, forceN]) => ({ compressionM, forceN })),
          unsprungKg: setup?.[axle]?.unsprungKg ?? 38,
        },
      ]
    }),
  )
}
