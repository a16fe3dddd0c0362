import { attempt, CalculationError, type DecimalMark, parseNumber } from '@bold-ballast/core'
import type { RefObject } from 'react'

/** What broke, as it is typed. */
export interface Broke {
  readonly what: string
  readonly isMakeDo: boolean
  readonly hours: string
  readonly cost: string
}

export const NOTHING_BROKE: Broke = { what: '', isMakeDo: true, hours: '', cost: '' }

/** What was typed as the damage of a mark; a sentence where a number cannot be read. */
export function readBroke({ isMakeDo, hours, cost }: Broke, mark: DecimalMark): { isMakeDo: boolean; hours: number | null; cost: number | null } | string {
  const read = (text: string, name: string) => (text.trim() === '' ? null : attempt(() => parseNumber(text, mark, name)))
  const [inHours, inMoney] = [read(hours, 'Hours'), read(cost, 'Cost')]
  for (const [number, name] of [
    [inHours, 'Hours'],
    [inMoney, 'Cost'],
  ] as const) {
    if (number instanceof CalculationError) return number.message
    if (number !== null && number < 0) return `${name} under 0? Type what it took, or leave it empty.`
  }
  return { isMakeDo, hours: inHours as number | null, cost: inMoney as number | null }
}

/** Fields of what broke: what, whether mended for now or for good, hours and money. */
export function BrokeFields({
  broke,
  type,
  store,
  leave,
  input,
}: {
  broke: Broke
  type: (next: Broke) => void
  store: () => void
  leave: () => void
  input: RefObject<HTMLInputElement | null>
}) {
  const keys = (event: React.KeyboardEvent) => {
    if (event.key === 'Enter') store()
    if (event.key === 'Escape') leave()
  }
  return (
    <fieldset className="mt-3 grid grid-cols-3 gap-2 border-t border-line pt-2">
      <label className="col-span-3 block">
        What broke, then Enter
        <input
          ref={input}
          value={broke.what}
          onChange={({ target }) => type({ ...broke, what: target.value })}
          onKeyDown={keys}
          autoComplete="off"
          className="mt-1 w-full !text-lg"
        />
      </label>
      <label className="block">
        Mended
        <select
          value={broke.isMakeDo ? 'now' : 'good'}
          onChange={({ target }) => type({ ...broke, isMakeDo: target.value === 'now' })}
          onKeyDown={keys}
          className="mt-1 w-full"
        >
          <option value="now">for now, stays due</option>
          <option value="good">for good</option>
        </select>
      </label>
      <label className="block">
        Hours
        <input
          value={broke.hours}
          inputMode="decimal"
          onChange={({ target }) => type({ ...broke, hours: target.value })}
          onKeyDown={keys}
          className="mt-1 w-full"
        />
      </label>
      <label className="block">
        Cost
        <input
          value={broke.cost}
          inputMode="decimal"
          onChange={({ target }) => type({ ...broke, cost: target.value })}
          onKeyDown={keys}
          className="mt-1 w-full"
        />
      </label>
    </fieldset>
  )
}
