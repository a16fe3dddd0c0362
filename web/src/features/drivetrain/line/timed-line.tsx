import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, METRIC_INFO, parseTimedLine } from '@bold-ballast/core'
import { useEffect, useRef, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { useAsked } from '../../../ui/use-asked.ts'

/** One line logs what was timed: `timed 0-100 4.83 beacon`. */
export function TimedLine({ records, stageId, rollOutM }: { records: RecordsAnswer; stageId: string; rollOutM: number }) {
  const [text, setText] = useState('')
  const [said, setSaid] = useState<string | null>(null)
  const [id, setId] = useState(() => crypto.randomUUID())
  const [create, { isLoading }] = api.useCreateRecordMutation()
  const { decimalMark, units, text: words } = useQuantities()
  const [isAsked] = useAsked('timed')
  const input = useRef<HTMLInputElement>(null)
  useEffect(() => {
    if (isAsked) input.current?.focus()
  }, [isAsked])
  const read = text.trim() === '' ? null : attempt(() => parseTimedLine(text, { decimalMark, speedUnit: units.speed }))
  const good = read instanceof CalculationError ? null : read
  const store = async () => {
    if (!good) return
    const answer = await create({ buildId: records.build.id, resource: 'readings', body: { id, stageId, at: new Date().toISOString(), rollOutM, ...good } })
    if (answer.error) return setSaid(`${readFailure(answer.error).message} The line is kept.`)
    setId(crypto.randomUUID())
    setText('')
    setSaid(`Saved: ${METRIC_INFO[good.metric].word}, ${words(METRIC_INFO[good.metric].kind, good.value, { decimals: 2 })}.`)
  }
  const shown = good
    ? `Reads as: ${METRIC_INFO[good.metric].word}, ${words(METRIC_INFO[good.metric].kind, good.value, { decimals: 2 })}, ${good.timing ?? 'by a watch'}, ${good.surface}. Enter saves.`
    : null
  return (
    <form
      className="no-print mb-3"
      onSubmit={(event) => {
        event.preventDefault()
        if (!isLoading) void store()
      }}
    >
      <label htmlFor="timed" className="sr-only">
        A timed run in one line
      </label>
      <input
        id="timed"
        ref={input}
        value={text}
        onChange={(event) => {
          setText(event.target.value)
          setSaid(null)
        }}
        autoComplete="off"
        spellCheck={false}
        placeholder="timed 0-100 4.83 beacon"
        aria-describedby="timed-reading"
        className="w-full !border-2 !border-ink !px-3 !py-2 font-semibold placeholder:font-normal placeholder:text-faint"
      />
      <p id="timed-reading" role="status" className="mt-1 min-h-5 text-quiet">
        {read instanceof CalculationError
          ? read.message
          : (shown ??
            said ??
            '0-100, 0-60 mph, 100-200, 60 ft, quarter mile, trap speed or top speed; then beacon, gps, film or watch, and damp or wet. Enter saves.')}
      </p>
    </form>
  )
}
