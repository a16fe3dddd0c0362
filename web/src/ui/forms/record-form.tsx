import type { QuantityKind, ResourceName } from '@bold-ballast/core'
import { useEffect, useId, useState } from 'react'
import { useForm } from 'react-hook-form'
import { readFailure } from '../../data/api.ts'
import { othersAt, recordOpened } from '../../data/crew/here-slice.ts'
import { mayNotWords } from '../../data/crew/may-not-words.ts'
import { keptBoth } from '../../data/outbox.ts'
import { enqueue } from '../../data/outbox-sender.ts'
import { keptBothWords, mergeStale } from '../../data/stale-edit.ts'
import { useAppDispatch, useAppSelector } from '../../data/store.ts'
import { readStored, writeStored } from '../../data/stored.ts'
import { useSender } from '../../data/use-sender.ts'
import { PersonTag } from '../person-tag.tsx'
import { useQuantities } from '../quantity.ts'
import { Alert } from '../states.tsx'
import { changedFields } from './changed-fields.ts'
import { FormReader, type FormValues } from './form-reader.ts'
import { StaleChoice } from './stale-choice.tsx'

/** What stands under a field; quantities in it are said in the picked units. */
export type Hint = string | ((units: Readonly<Record<QuantityKind, string>>) => string)

export interface FieldSpec {
  readonly name: string
  readonly label: string
  readonly hint?: Hint
  readonly type?: 'text' | 'textarea' | 'select' | 'date' | 'datetime-local' | 'checkbox'
  /** What is offered while typing. */
  readonly suggestions?: readonly string[]
  readonly options?: readonly { value: string; label: string }[]
  readonly isWide?: boolean
  /** A heading that stands above this field. */
  readonly section?: string
}

interface RecordFormProps {
  /** Where the browser keeps what is typed until it is stored. */
  readonly draftKey: string
  readonly fields: readonly FieldSpec[]
  readonly defaults: FormValues
  readonly submitLabel: string
  /**
   * Turns the texts into a body; refusals are put into the reader. `id` stays the same until the record is stored. Of a body with a version only the
   * fields are sent that differ from what the form began with.
   */
  readonly toBody: (read: FormReader, id: string) => Record<string, unknown>
  /** Sends a body; called again with the same one while the server is away. `version` replaces that of a stale write. */
  readonly send: (body: Record<string, unknown>) => Promise<unknown>
  readonly onDone: (body: Record<string, unknown>) => void
  /** Told of what stands in the fields whenever it changes. */
  readonly onValues?: (values: FormValues) => void
  /** Where the record belongs, so that it can wait in the browser while the server is away; the form is done then. */
  readonly queueAs?: { readonly buildId: string; readonly resource: ResourceName; readonly recordId?: string | undefined; readonly words: string }
  /** What stands behind the fields; a function is handed what sets one of them. */
  readonly children?: React.ReactNode | ((set: (name: string, text: string) => void) => React.ReactNode)
}

interface Draft {
  readonly id: string
  readonly values: FormValues
}

/** The form that was stored last; drawn anew for the next record it takes the focus back. */
let storedLast: string | null = null
const REDRAWN_WITHIN_MS = 1000

/** A form for one record: keyboard first, its draft kept in the browser, errors beside their fields, Enter submits. */
export function RecordForm({ draftKey, fields, defaults, submitLabel, toBody, send, onDone, onValues, queueAs, children }: RecordFormProps) {
  const key = `bold-ballast.draft.${draftKey}`
  const [draft] = useState(() => readStored<Draft>(key, { id: crypto.randomUUID(), values: {} }))
  const { units, decimalMark } = useQuantities()
  const sender = useSender()
  const dispatch = useAppDispatch()
  const form = useForm<FormValues>({ defaultValues: { ...defaults, ...draft.values } })
  const [staleBody, setStaleBody] = useState<Record<string, unknown> | null>(null)
  const formId = useId()
  useEffect(() => {
    const watching = form.watch((values) => {
      writeStored(key, { id: draft.id, values })
      onValues?.(values as FormValues)
    })
    return () => watching.unsubscribe()
  }, [form, key, draft.id, onValues])

  // biome-ignore lint/correctness/useExhaustiveDependencies: once, as it is drawn.
  useEffect(() => {
    if (storedLast === key && fields[0]) form.setFocus(fields[0].name)
  }, [])

  const recordId = queueAs?.recordId ?? null
  useEffect(() => {
    if (recordId === null) return
    dispatch(recordOpened(recordId))
    return () => void dispatch(recordOpened(null))
  }, [recordId, dispatch])

  /** Where somebody else changed other fields meanwhile, mine go onto theirs, and it is said; the same field is a choice. */
  const sendBeside = async (body: Record<string, unknown>) => {
    try {
      return await send(body)
    } catch (error) {
      const { problem } = readFailure(error)
      const theirs = problem?.code === 'stale' ? (problem.current as Record<string, unknown> | undefined) : undefined
      const merged = theirs && mergeStale({ mine: body, base: toBody(new FormReader(defaults, units, decimalMark), draft.id), theirs })
      if (!theirs || merged?.kind !== 'both') throw error
      const answer = await send({ ...merged.body })
      dispatch(keptBoth(keptBothWords(theirs)))
      return answer
    }
  }
  const sendBody = async (body: Record<string, unknown>) => {
    setStaleBody(body)
    let isKept = false
    const keep = (to: NonNullable<typeof queueAs>) => {
      isKept = true
      const { buildId, resource, recordId, words } = to
      enqueue({ buildId, resource, kind: recordId ? 'update' : 'create', recordId: recordId ?? String(body.id), body, words })
    }
    const answer = await sender.send(() => sendBeside(body), queueAs && (() => keep(queueAs)))
    if (answer === null && !isKept) return
    writeStored(key, undefined)
    storedLast = key
    setTimeout(() => {
      storedLast = null
    }, REDRAWN_WITHIN_MS)
    onDone(body)
  }
  const submit = form.handleSubmit(async (values) => {
    const read = new FormReader(values, units, decimalMark)
    const body = toBody(read, draft.id)
    const refused = Object.entries(read.errors)
    for (const [name, message] of refused) form.setError(name, { message })
    if (refused[0]) return form.setFocus(refused[0][0])
    const sent = 'version' in body ? changedFields(body, toBody(new FormReader(defaults, units, decimalMark), draft.id)) : body
    if (sent) return sendBody(sent)
    writeStored(key, undefined)
    onDone(body)
  })
  const failure = sender.state.status === 'failed' ? sender.state.failure : null
  const current = failure?.problem?.current as Record<string, unknown> | undefined
  const isBusy = sender.state.status === 'sending' || sender.state.status === 'waiting'
  return (
    <form onSubmit={submit} noValidate className="grid gap-x-4 gap-y-3 sm:grid-cols-2">
      {fields.map((field) => (
        <FormField
          key={field.name}
          id={`${formId}-${field.name}`}
          field={field}
          input={form.register(field.name)}
          error={form.formState.errors[field.name]?.message as string | undefined}
          form={form}
        />
      ))}
      {typeof children === 'function' ? children((name, text) => form.setValue(name, text, { shouldDirty: true })) : children}
      <div className="sm:col-span-2">
        {queueAs && recordId !== null && <AlsoOpen buildId={queueAs.buildId} recordId={recordId} />}
        {failure && (
          <Alert className="mb-2">
            <p>{mayNotWords(failure.problem) ?? failure.message} What you typed is still here.</p>
            {failure.problem?.code === 'stale' && current && staleBody && (
              <StaleChoice
                mine={staleBody}
                theirs={current}
                keepMine={() => void sendBody({ ...staleBody, version: current.version })}
                takeTheirs={() => {
                  writeStored(key, undefined)
                  onDone(staleBody)
                }}
              />
            )}
          </Alert>
        )}
        {sender.state.status === 'waiting' && (
          <p role="status" className="mb-2 text-wait">
            {sender.state.message}
          </p>
        )}
        <button type="submit" className="button button-strong" disabled={isBusy}>
          {isBusy ? 'Sending …' : submitLabel}
        </button>
      </div>
    </form>
  )
}

/** Who else has the same record open: what both type is put beside each other. */
function AlsoOpen({ buildId, recordId }: { buildId: string; recordId: string }) {
  const others = useAppSelector(othersAt(buildId)).filter((other) => other.recordId === recordId)
  if (others.length === 0) return null
  return (
    <p role="status" className="mb-2 flex flex-wrap items-center gap-2 text-quiet">
      {others.map(({ personId, name }) => (
        <PersonTag key={personId} name={name} isHere />
      ))}
      {others.map(({ name }) => name).join(' and ')} {others.length === 1 ? 'has' : 'have'} it open too: what each of you types is put beside the other’s.
    </p>
  )
}

function FormField({
  id,
  field,
  input,
  error,
  form,
}: {
  id: string
  field: FieldSpec
  input: ReturnType<ReturnType<typeof useForm<FormValues>>['register']>
  error: string | undefined
  form: ReturnType<typeof useForm<FormValues>>
}) {
  const { label, type = 'text', options = [], isWide, section, suggestions } = field
  const { units } = useQuantities()
  const hint = typeof field.hint === 'function' ? field.hint(units) : field.hint
  const described = error ? `${id}-error` : hint ? `${id}-hint` : undefined
  const common = { id, 'aria-invalid': error ? true : undefined, 'aria-describedby': described }
  const isChecked = form.watch(field.name) === 'true'
  return (
    <>
      {section && <h2 className="mt-2 border-b border-line pb-1 sm:col-span-2">{section}</h2>}
      <div className={isWide ? 'sm:col-span-2' : ''}>
        {type === 'checkbox' ? (
          <label htmlFor={id} className="flex min-h-8 items-center gap-2">
            <input
              type="checkbox"
              {...common}
              checked={isChecked}
              onChange={(event) => form.setValue(field.name, String(event.target.checked), { shouldDirty: true })}
            />
            {label}
          </label>
        ) : (
          <>
            <label htmlFor={id} className="mb-1 block font-semibold">
              {label}
            </label>
            {type === 'select' ? (
              <select {...common} {...input} className="w-full">
                {options.map((option) => (
                  <option key={option.value} value={option.value}>
                    {option.label}
                  </option>
                ))}
              </select>
            ) : type === 'textarea' ? (
              <textarea rows={4} {...common} {...input} className="w-full font-mono text-[12.5px]" />
            ) : (
              <input type={type} autoComplete="off" {...common} {...input} list={suggestions ? `${id}-list` : undefined} className="w-full" />
            )}
            {suggestions && (
              <datalist id={`${id}-list`}>
                {suggestions.map((text) => (
                  <option key={text} value={text} />
                ))}
              </datalist>
            )}
          </>
        )}
        {error ? (
          <p id={`${id}-error`} className="mt-1 text-danger">
            {error}
          </p>
        ) : (
          hint && (
            <p id={`${id}-hint`} className="mt-1 text-xs text-quiet">
              {hint}
            </p>
          )
        )}
      </div>
    </>
  )
}
