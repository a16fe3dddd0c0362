import type { ResourceName } from '@bold-ballast/core'
import { api } from '../data/api.ts'
import { Panel } from '../ui/dialog.tsx'
import type { makeForm } from '../ui/forms/form-fields.ts'
import type { FormValues } from '../ui/forms/form-reader.ts'
import { type FieldSpec, RecordForm } from '../ui/forms/record-form.tsx'
import { useRemoval } from '../ui/forms/removal.tsx'
import { useQuantities } from '../ui/quantity.ts'

/** A record of one kind in its form, new or as it is, in a panel of its own; a stored one can be deleted there. */
export function KindPanel({
  buildId,
  resource,
  word,
  form,
  record,
  specs = form.specs(),
  begins = {},
  fixed = {},
  onClose,
  children,
}: {
  buildId: string
  resource: ResourceName
  /** One of them, as a sentence goes on with it: "event". */
  word: string
  form: ReturnType<typeof makeForm>
  record: { readonly id: string; readonly version: number } | null
  /** The form's own fields, with what only the page knows. */
  specs?: readonly FieldSpec[]
  /** The texts that a new one begins with where the kind says none. */
  begins?: FormValues
  /** What a new one has and no form asks: its stage. */
  fixed?: Readonly<Record<string, unknown>>
  onClose: () => void
  children?: React.ReactNode
}) {
  const { units } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const { take, notice } = useRemoval(buildId, resource)
  return (
    <Panel title={record ? `Alter the ${word}` : `A new ${word}`} onClose={onClose}>
      {notice}
      {children}
      <RecordForm
        key={record?.version ?? 0}
        draftKey={`${buildId}.${resource}.${record?.id ?? 'new'}`}
        fields={specs}
        defaults={record ? form.defaults(record, units) : { ...form.defaults(null, units), ...begins }}
        submitLabel={record ? `Save the ${word}` : `Store the ${word}`}
        toBody={(read, id) => ({ ...form.body(read), ...(record ? { version: record.version } : { id, ...fixed }) })}
        send={(body) => (record ? patch({ buildId, resource, id: record.id, body: body as never }).unwrap() : create({ buildId, resource, body }).unwrap())}
        onDone={onClose}
      />
      {record && (
        <p className="mt-3">
          <button type="button" className="word-link" onClick={() => void take(record).then(onClose)}>
            Delete this {word}
          </button>
        </p>
      )}
    </Panel>
  )
}
