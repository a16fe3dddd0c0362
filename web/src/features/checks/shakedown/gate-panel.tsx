import type { Gate } from '@bold-ballast/core'
import { useState } from 'react'
import type { ChecksTabProps } from '../tab-props.ts'

type Plan = ChecksTabProps['records']['trackPlans'][number]

const WORDS: Readonly<Record<Gate['word'], { readonly head: string; readonly tone: string }>> = {
  go: { head: 'Go', tone: 'text-pine' },
  watch: { head: 'Go, and watch', tone: 'text-pine' },
  again: { head: 'Again', tone: 'text-wait' },
  no: { head: 'No', tone: 'text-danger' },
}
/** The gate: what it says, why, and the ways on. Passing it all the same takes a reason, which is kept. */
export function GatePanel({
  plan,
  gate,
  overrule,
  begin,
  isBusy,
}: {
  plan: Plan
  gate: Gate
  overrule: (reason: string) => void
  begin: (step: number) => void
  isBusy: boolean
}) {
  const [reason, setReason] = useState<string | null>(null)
  const { head, tone } = WORDS[gate.word]
  const isOpen = gate.word === 'go' || gate.word === 'watch' || gate.overruled !== null
  const next = plan.steps.findIndex(({ wantLaps, seconds }, i) => i > gate.step && ((wantLaps ?? 0) > 0 || seconds !== null))
  return (
    <section aria-label="The gate">
      <p className={`text-4xl leading-none font-black ${tone}`}>{head}</p>
      <ul className="mt-2">
        {gate.reasons.map((words) => (
          <li key={words}>{words}</li>
        ))}
        {gate.reasons.length === 0 && <li>Every reading is within its limits and goes on within them, every check is in order.</li>}
      </ul>
      {gate.overruled && <p className="mt-1 text-wait">Passed all the same: “{gate.overruled}”</p>}
      <p className="mt-3 flex flex-wrap gap-2">
        {gate.word !== 'no' && !isOpen && (
          <button type="button" className="button button-strong" disabled={isBusy} onClick={() => begin(gate.step)}>
            Again at this pace
          </button>
        )}
        {isOpen && next >= 0 && (
          <button type="button" className="button button-strong" disabled={isBusy} onClick={() => begin(next)}>
            Begin the next step
          </button>
        )}
        {!isOpen && reason === null && (
          <button type="button" className="button" onClick={() => setReason('')}>
            Go all the same
          </button>
        )}
      </p>
      {reason !== null && !isOpen && (
        <form
          className="mt-2"
          onSubmit={(event) => {
            event.preventDefault()
            if (reason.trim() !== '') overrule(reason.trim())
          }}
        >
          <label>
            Why, in a few words; it is kept
            <input value={reason} onChange={(event) => setReason(event.target.value)} maxLength={300} className="mt-1 w-full" autoComplete="off" />
          </label>
          <button type="submit" className="button mt-1" disabled={reason.trim() === '' || isBusy}>
            Pass the gate
          </button>
        </form>
      )}
    </section>
  )
}
