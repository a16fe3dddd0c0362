import type { CalculationDescription } from '@bold-ballast/contract'
import { type CalculationAnswer, formatNumber, parseNumber } from '@bold-ballast/core'
import { useEffect, useId, useMemo, useRef, useState } from 'react'
import { api, readFailure } from '../../data/api.ts'
import { usePreferences } from '../../data/store.ts'
import { answerRows, fieldTitle, type InputField, type InputSchema, inputFields, readInput } from './input-fields.ts'

const DIGITS = 6
const isStopped = (error: unknown) => (error as { name?: string }).name === 'AbortError'

/** A calculation to try: filled with its example, worked out by the same registry that the screens use. */
export function TryForm({ calculation }: { calculation: CalculationDescription }) {
  const fields = useMemo(() => inputFields(calculation.input as InputSchema, calculation.example), [calculation])
  const [typed, setTyped] = useState<Record<string, string>>(() => Object.fromEntries(fields.map((field) => [field.path.join('.'), field.shown])))
  const [errors, setErrors] = useState<Record<string, string>>({})
  const [calculate, { isLoading }] = api.useCalculateMutation()
  const running = useRef<ReturnType<typeof calculate> | null>(null)
  // Whoever leaves waits for it no more.
  useEffect(() => () => running.current?.abort(), [])
  const [answer, setAnswer] = useState<CalculationAnswer | null>(null)
  const [failure, setFailure] = useState('')
  const { decimalMark } = usePreferences()
  const work = async () => {
    const read = readInput(fields, typed, (text, field) => parseNumber(text, decimalMark, field))
    setErrors(read.errors)
    if (Object.keys(read.errors).length > 0) return
    running.current = calculate({ name: calculation.name, input: read.input })
    const sent = await running.current
    setFailure(!sent.error ? '' : isStopped(sent.error) ? 'Stopped. Nothing was worked out.' : readFailure(sent.error).message)
    if (sent.data) setAnswer(sent.data)
  }
  return (
    <section className="min-[1180px]:border-l min-[1180px]:border-line min-[1180px]:pl-5">
      <h2 className="mb-2">Try it</h2>
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault()
          void work()
        }}
        className="grid gap-3"
      >
        {fields.map((field) => {
          const name = field.path.join('.')
          return <Field key={name} field={field} value={typed[name] ?? ''} error={errors[name]} change={(text) => setTyped({ ...typed, [name]: text })} />
        })}
        <p className="flex gap-3">
          <button type="submit" className="button button-strong" disabled={isLoading}>
            {isLoading ? 'Working it out …' : 'Work it out'}
          </button>
          {isLoading && (
            <button type="button" className="button" onClick={() => running.current?.abort()}>
              Stop
            </button>
          )}
        </p>
      </form>
      <div role="status" className="mt-4">
        {failure && <p className="text-danger">{failure}</p>}
        {answer && <Answer answer={answer} />}
      </div>
    </section>
  )
}

function Field({ field, value, error, change }: { field: InputField; value: string; error: string | undefined; change: (text: string) => void }) {
  const id = useId()
  const common = { id, value, 'aria-invalid': error ? true : undefined, 'aria-describedby': error ? `${id}-error` : undefined } as const
  const onChange = (event: { target: { value: string } }) => change(event.target.value)
  const options = field.kind === 'yesNo' ? ['true', 'false'] : field.options
  return (
    <div>
      <label htmlFor={id} className="mb-0.5 block font-semibold">
        {fieldTitle(field.path)}
        {!field.isRequired && <span className="font-normal text-quiet"> (may be empty)</span>}
      </label>
      {field.kind === 'json' ? (
        <textarea {...common} onChange={onChange} rows={6} spellCheck={false} className="w-full font-mono text-xs" />
      ) : options.length > 0 ? (
        <select {...common} onChange={onChange} className="w-full">
          {!field.isRequired && <option value="">not given</option>}
          {options.map((option) => (
            <option key={option}>{option}</option>
          ))}
        </select>
      ) : (
        <input {...common} onChange={onChange} inputMode={field.kind === 'number' ? 'decimal' : 'text'} autoComplete="off" className="w-full" />
      )}
      {error && (
        <p id={`${id}-error`} className="mt-1 text-danger">
          {error}
        </p>
      )}
    </div>
  )
}

function Answer({ answer }: { answer: CalculationAnswer }) {
  const { decimalMark } = usePreferences()
  if (!answer.ok)
    return (
      <p className="border-l-4 border-danger py-1 pl-3">
        <strong>{fieldTitle(answer.error.field.split('.'))}</strong>: {answer.error.message}
      </p>
    )
  const shown = (value: number) =>
    Number.isInteger(value)
      ? formatNumber(value, 0)
      : Math.abs(value) < 1e-4
        ? value.toPrecision(3)
        : formatNumber(value, Math.max(0, DIGITS - 1 - Math.floor(Math.log10(Math.abs(value)))), { mark: decimalMark })
  return (
    <>
      <table className="w-full">
        <tbody>
          {answerRows(answer.value).map(({ name, value }) => (
            <tr key={name} className="border-t border-line align-baseline">
              <th scope="row" className="py-1 pr-3 font-normal text-ink">
                {name}
              </th>
              <td className="py-1 text-right text-[16px] font-semibold">{typeof value === 'number' ? shown(value) : value}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {answer.warnings.map((warning) => (
        <p key={warning} className="mt-2 text-wait">
          {warning}
        </p>
      ))}
    </>
  )
}
