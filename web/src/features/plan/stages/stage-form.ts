import type { FormReader } from '../../../ui/form-reader.ts'
import type { FieldSpec } from '../../../ui/record-form.tsx'

export const stageFieldSpecs: readonly FieldSpec[] = [
  { name: 'name', label: 'Name', isWide: true },
  { name: 'date', label: 'Date', type: 'date', hint: 'When it should be done; may stay empty.' },
  { name: 'note', label: 'Note' },
]

export const stageBody = (read: FormReader) => ({ name: read.text('name', 'Name'), date: read.optional('date'), note: read.optional('note') })
