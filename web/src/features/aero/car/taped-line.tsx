import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, METRIC_INFO, parseTapedLine, type ReadTaped, TAPE_METRICS } from '@bold-ballast/core'
import { useEffect, useRef, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { OneLine } from '../../../ui/forms/one-line.tsx'
import { useRemoval } from '../../../ui/forms/removal.tsx'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useQuantities, usualText } from '../../../ui/quantity.ts'
import { dayText } from '../../../ui/words.ts'

const isTaped = (metric: string): boolean => (TAPE_METRICS as readonly string[]).includes(metric)

/** A reading in words: what, how much, and for noise how far off. */
function useReadingWords() {
  const { text } = useQuantities()
  return ({ metric, value, sd, atM }: Pick<ReadTaped, 'metric' | 'value' | 'sd'> & { atM?: number | null | undefined }): string => {
    const { kind, word } = METRIC_INFO[metric]
    const name = metric === 'noise' ? 'Noise' : word
    return `${name}, ${text(kind, value, { sd: sd ?? undefined, ...(metric === 'wingElements' ? { decimals: 0 } : {}) })}${atM ? ` at ${text('distance', atM, { isGoal: true })}` : ''}`
  }
}

/** What was read on the car with a tape or a meter, a line each: `wing over roof -12 mm`, `noise 98.5 dB at 0.5 m`. */
export function TapedLine({ records, stageId }: { records: RecordsAnswer; stageId: string }) {
  const buildId = records.build.id
  const [line, setLine] = useState('')
  const [said, setSaid] = useState<string | null>(null)
  const [id, setId] = useState(() => crypto.randomUUID())
  const [create, { isLoading }] = api.useCreateRecordMutation()
  const removal = useRemoval(buildId, 'readings')
  const { decimalMark, units } = useQuantities()
  const words = useReadingWords()
  const [isAsked] = useAsked('taped')
  const input = useRef<HTMLInputElement>(null)
  useEffect(() => {
    if (isAsked) input.current?.focus()
  }, [isAsked])
  const read = line.trim() === '' ? null : attempt(() => parseTapedLine(line, { decimalMark, lengthUnit: units.length }))
  const good = read instanceof CalculationError ? null : read
  const store = async () => {
    if (!good) return
    const answer = await create({ buildId, resource: 'readings', body: { id, stageId, at: new Date().toISOString(), ...good } })
    if (answer.error) return setSaid(`${readFailure(answer.error).message} The line is kept.`)
    setId(crypto.randomUUID())
    setLine('')
    setSaid(`Saved: ${words(good)}.`)
  }
  const readings = records.readings.filter((reading) => reading.stageId === stageId && isTaped(reading.metric))
  return (
    <section className="mt-4">
      <h3 className="mb-1 font-semibold">Read on the car</h3>
      <OneLine
        label="What was read on the car, in one line"
        placeholder={`wing over roof ${usualText(units, 'length', -0.012)}`}
        text={line}
        type={(next) => {
          setLine(next)
          setSaid(null)
        }}
        said={
          read instanceof CalculationError
            ? read.message
            : good
              ? `Reads as: ${words(good)}. Enter saves.`
              : (said ?? 'wing over roof, chord, span, elements, beyond front, rear or side, ground; or noise 98.5 dB at 0.5 m. Enter saves.')
        }
        store={store}
        isBusy={isLoading}
        input={input}
      />
      <ul>
        {readings.map((reading) => (
          <li key={reading.id} className="flex flex-wrap items-baseline gap-x-3 border-t border-line py-1">
            <span className="flex-1">{words(reading as typeof reading & { metric: ReadTaped['metric'] })}</span>
            <span className="text-quiet">
              {[dayText(reading.at), reading.instrument, reading.setAside ? `set aside: ${reading.setAside}` : ''].filter(Boolean).join(', ')}
            </span>
            <button type="button" className="word-link" onClick={() => void removal.take(reading)} aria-label={`Delete ${words(reading as never)}`}>
              delete
            </button>
          </li>
        ))}
      </ul>
      {removal.notice}
    </section>
  )
}
