import type { RecordsAnswer } from '@bold-ballast/contract'
import { useFocusByKey } from '../../../ui/hooks/use-focus-by-key.ts'

/** Finals of the register, each once, from long to short. */
export const registeredFinals = (records: RecordsAnswer): number[] =>
  [...new Set(records.parts.flatMap(({ drive }) => (drive?.role === 'finalDrive' ? [Number(drive.ratio.toFixed(3))] : [])))].sort((a, b) => a - b)

/** The final drive as a handle: arrows move it by a hundredth, Page keys to the next of the register. It has the focus on arrival by key. */
export function FinalHandle({
  records,
  finalRatio,
  own,
  setFinal,
}: {
  records: RecordsAnswer
  finalRatio: number
  own: number
  setFinal: (ratio: number | null) => void
}) {
  const handle = useFocusByKey<HTMLInputElement>()
  const finals = registeredFinals(records)
  const next = (direction: 1 | -1) => {
    const beyond = finals.filter((ratio) => direction * (ratio - finalRatio) > 0.0015)
    const found = direction > 0 ? beyond[0] : beyond.at(-1)
    if (found !== undefined) setFinal(found)
  }
  return (
    <span className="no-print flex flex-wrap items-center gap-1.5">
      <label className="flex items-center gap-2">
        <span className="font-semibold">Final drive</span>
        <input
          ref={handle}
          type="range"
          min="2.5"
          max="6"
          step="0.01"
          value={finalRatio}
          aria-valuetext={finalRatio.toFixed(2)}
          onChange={(event) => setFinal(Number(event.target.value))}
          onKeyDown={(event) => {
            if (event.key !== 'PageDown' && event.key !== 'PageUp') return
            event.preventDefault()
            next(event.key === 'PageDown' ? 1 : -1)
          }}
          className="w-[110px]"
        />
        <output className="w-[44px] font-semibold tabular-nums">{finalRatio.toFixed(2)}</output>
      </label>
      {finals.length > 1 &&
        finals.map((ratio) => (
          <button key={ratio} type="button" className="button" aria-pressed={Math.abs(ratio - finalRatio) < 0.0015} onClick={() => setFinal(ratio)}>
            {ratio.toFixed(2)}
          </button>
        ))}
      {Math.abs(finalRatio - own) > 0.0015 && (
        <button type="button" className="word-link" onClick={() => setFinal(null)}>
          back to {own.toFixed(2)} of this stage
        </button>
      )}
    </span>
  )
}
