import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, METRIC_INFO, parseTimedLine } from '@bold-ballast/core'
import { useEffect, useRef, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { OneLine } from '../../../ui/forms/one-line.tsx'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useQuantities } from '../../../ui/quantity.ts'

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
  const how = '0-100, 0-60 mph, 100-200, 60 ft, quarter mile, trap speed or top speed; then beacon, gps, film or watch, and damp or wet. Enter saves.'
  return (
    <OneLine
      label="A timed run in one line"
      placeholder="timed 0-100 4.83 beacon"
      text={text}
      type={(next) => {
        setText(next)
        setSaid(null)
      }}
      said={read instanceof CalculationError ? read.message : (shown ?? said ?? how)}
      store={store}
      isBusy={isLoading}
      input={input}
    />
  )
}
