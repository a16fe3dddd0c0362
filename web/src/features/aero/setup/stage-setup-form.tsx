import type { RecordsAnswer } from '@bold-ballast/contract'
import { api } from '../../../data/api.ts'
import type { FormReader, FormValues } from '../../../ui/forms/form-reader.ts'
import { type FieldSpec, RecordForm } from '../../../ui/forms/record-form.tsx'

type Setup = RecordsAnswer['setups'][number]

/** A form that writes into the set-up of a stage, making it where there is none; what the form does not name stays. */
export function StageSetupForm({
  records,
  stageId,
  part,
  fields,
  defaults,
  submitLabel,
  toBody,
  onDone,
}: {
  records: RecordsAnswer
  stageId: string
  /** Which part of the set-up it writes; drafts are kept by it. */
  part: string
  fields: readonly FieldSpec[]
  defaults: (setup: Setup | null) => FormValues
  submitLabel: string
  toBody: (read: FormReader, setup: Setup | null) => Record<string, unknown>
  onDone: () => void
}) {
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const buildId = records.build.id
  const setup = records.setups.find((each) => each.stageId === stageId) ?? null
  const resource = 'setups' as const
  return (
    <RecordForm
      key={`${stageId} ${setup?.version ?? 0}`}
      draftKey={`${buildId}.${stageId}.${part}`}
      fields={fields}
      defaults={defaults(setup)}
      submitLabel={submitLabel}
      toBody={(read, id) => ({ ...toBody(read, setup), ...(setup ? { version: setup.version } : { id, stageId }) })}
      send={(body) => (setup ? patch({ buildId, resource, id: setup.id, body }).unwrap() : create({ buildId, resource, body }).unwrap())}
      onDone={onDone}
    />
  )
}
