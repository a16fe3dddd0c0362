import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, PAD_NAMES, PAD_WORDS, type PerCorner, parseQuantity } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { timeText } from '../../../ui/words.ts'
import { turnWords } from './turn-words.ts'

const SCHOOL_WORDS = { heightKept: 'ride heights stay', equalTurns: 'equal and opposite turns', byHand: 'by hand' } as const

/** A round that was turned; the readings after it are typed in the same row. */
export function BalanceStepRow({
  records,
  step,
  number,
  asSaid,
}: {
  records: RecordsAnswer
  step: RecordsAnswer['balanceSteps'][number]
  number: number
  asSaid: (corners: PerCorner<number>) => string
}) {
  const buildId = records.build.id
  const { units, decimalMark, text } = useQuantities()
  const [typed, setTyped] = useState<PerCorner<string>>({ LF: '', RF: '', LR: '', RR: '' })
  const [refusal, setRefusal] = useState('')
  const [patch] = api.usePatchRecordMutation()
  const removal = useRemoval(buildId, 'balance-steps')
  const save = async () => {
    const read = attempt(() =>
      Object.fromEntries(
        PAD_NAMES.map((pad) => [pad, parseQuantity(typed[pad], 'mass', { defaultUnit: units.mass, decimalMark, field: PAD_WORDS[pad] }).value]),
      ),
    )
    if (read instanceof CalculationError) return setRefusal(read.message)
    const answer = await patch({ buildId, resource: 'balance-steps', id: step.id, body: { version: step.version, after: read } })
    setRefusal(answer.error ? readFailure(answer.error).message : '')
  }
  return (
    <li className="border-b border-line py-2">
      <p>
        <strong>
          {number}. {timeText(step.at)}
        </strong>
        , {SCHOOL_WORDS[step.school]}: {PAD_NAMES.map((pad) => `${pad} ${turnWords(step.turns[pad])}`).join(', ')}.{' '}
        <button type="button" className="word-link" onClick={() => void removal.take(step)} aria-label={`Delete round ${number}`}>
          delete
        </button>
      </p>
      <p className="text-quiet">
        Before {asSaid(step.before)}
        {step.after && (
          <>
            , after <strong className="text-ink">{asSaid(step.after)}</strong>:{' '}
            {PAD_NAMES.map((pad) => `${pad} ${text('mass', step.after?.[pad] ?? 0, { decimals: 1 })}`).join(', ')}
          </>
        )}
      </p>
      {!step.after && (
        <form
          className="no-print mt-1 flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            void save()
          }}
        >
          {PAD_NAMES.map((pad) => (
            <label key={pad} className="text-xs text-quiet">
              {PAD_WORDS[pad]} now
              <input
                value={typed[pad]}
                onChange={(event) => setTyped({ ...typed, [pad]: event.target.value })}
                inputMode="decimal"
                autoComplete="off"
                className="block w-[96px] text-[14px]"
              />
            </label>
          ))}
          <button type="submit" className="button">
            Store what it reads
          </button>
          {refusal && (
            <span role="alert" className="text-danger">
              {refusal}
            </span>
          )}
        </form>
      )}
      {removal.notice}
    </li>
  )
}
