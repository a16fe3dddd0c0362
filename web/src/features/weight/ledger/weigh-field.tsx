import { CalculationError, parseQuantity, requirePartMass } from '@bold-ballast/core'
import { useEffect, useRef, useState } from 'react'
import { enqueue } from '../../../data/outbox-sender.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import type { LedgerLine } from './ledger-rows.ts'

/** What a guessed part weighs, typed in its row: Enter stores it beside the guess, Escape leaves it. */
export function WeighField({ buildId, line, close }: { buildId: string; line: LedgerLine; close: () => void }) {
  const { change, figures } = line
  const { units, decimalMark, text } = useQuantities()
  const [typed, setTyped] = useState('')
  const [refusal, setRefusal] = useState('')
  const input = useRef<HTMLInputElement>(null)
  useEffect(() => input.current?.focus(), [])
  const save = () => {
    try {
      const read = parseQuantity(typed, 'mass', { defaultUnit: units.mass, decimalMark, field: 'Mass' })
      const value = { massKg: requirePartMass(read.value), sdKg: read.sd ?? null, proof: 'measured', typed: read.typed, at: new Date().toISOString() }
      enqueue({
        buildId,
        kind: 'update',
        resource: 'changes',
        recordId: change.id,
        body: { version: change.version, values: [...change.values, value] },
        words: `${change.name} weighed, ${text('mass', read.value)}`,
      })
      close()
    } catch (error) {
      if (!(error instanceof CalculationError)) throw error
      setRefusal(error.message)
    }
  }
  return (
    <form
      className="flex flex-col items-end"
      onSubmit={(event) => {
        event.preventDefault()
        save()
      }}
    >
      <input
        ref={input}
        value={typed}
        onChange={(event) => {
          setTyped(event.target.value)
          setRefusal('')
        }}
        onKeyDown={(event) => event.key === 'Escape' && close()}
        inputMode="decimal"
        autoComplete="off"
        placeholder={figures.isUnknown ? units.mass : text('mass', Math.abs(figures.massKg) / change.count)}
        aria-label={`What one ${change.name} weighs`}
        aria-invalid={refusal !== '' || undefined}
        className="w-[104px] text-right"
      />
      {refusal && (
        <span role="alert" className="mt-1 max-w-[200px] text-xs whitespace-normal text-danger">
          {refusal}
        </span>
      )}
    </form>
  )
}
