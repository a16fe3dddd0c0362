import type { Stage } from '@bold-ballast/core'
import { stageOptions } from '../../../shared/stage-options.ts'
import type { FormReader } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { usualText } from '../../../ui/quantity.ts'

export const expectationFieldSpecs = (stages: readonly Stage[]): FieldSpec[] => [
  { name: 'stage', label: 'Stage', type: 'select', options: stageOptions(stages), isWide: true },
  {
    name: 'mode',
    label: 'Power is expected',
    type: 'select',
    options: [
      { value: 'to', label: 'to reach' },
      { value: 'by', label: 'to change by' },
      { value: 'times', label: 'to be multiplied by' },
    ],
  },
  {
    name: 'value',
    label: 'Value',
    hint: (units) => `With ± if you can: ${usualText(units, 'power', 165_000)} ± ${usualText(units, 'power', 8000)}. A plain factor for “multiplied by”.`,
  },
  {
    name: 'proof',
    label: 'How known',
    type: 'select',
    options: [
      { value: 'guess', label: 'guess' },
      { value: 'catalogue', label: 'catalogue' },
      { value: 'calculated', label: 'calculated' },
    ],
  },
]

export function expectationBody(read: FormReader): Record<string, unknown> {
  const mode = read.raw('mode')
  const value = read.quantity('value', 'Value', mode === 'times' ? 'ratio' : 'power')
  if (mode !== 'by' && value.value <= 0) read.refuse('value', 'The expected power or factor must be more than zero.')
  return { stageId: read.text('stage', 'Stage'), mode, value: value.value, sd: value.sd ?? null, proof: read.raw('proof'), typed: value.typed }
}
