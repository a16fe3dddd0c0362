import type { BatchWrite, RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, type ReadCheck, readCheckLine } from '@bold-ballast/core'
import { type RefObject, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { readStored, writeStored } from '../../../data/stored.ts'
import { OneLine } from '../../../ui/forms/one-line.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { aboutWords, KIND_WORDS, ROUND_WORDS } from '../check-words.ts'

type Text = ReturnType<typeof useQuantities>['text']

/** What a line was read as, in words. */
export function readWords({ check, readM }: ReadCheck, text: Text): string {
  const { reading, gap, zone, rounds, every } = check
  const limits = reading
    ? (
        [
          ['warns over', reading.warnHigh],
          ['stops over', reading.stopHigh],
          ['warns under', reading.warnLow],
          ['stops under', reading.stopLow],
        ] as const
      )
        .flatMap(([words, value]) => (value === null ? [] : [`${words} ${text(reading.quantity, value)}`]))
        .join(', ')
    : ''
  return [
    `${KIND_WORDS[check.kind]}: ${check.name}`,
    aboutWords(check),
    limits,
    gap ? `to something ${gap.nature}${readM === null ? '' : `, ${text('length', readM)} cold`}` : '',
    zone ? `@${zone}` : '',
    every ? `every ${every.amount} ${every.unit}` : '',
    rounds.map((round) => ROUND_WORDS[round].toLowerCase()).join(' and '),
  ]
    .filter((words) => words !== '')
    .join('; ')
}

const HOW = 'bolt, level, look, take, reading or gap, or what expires; rounds, @zone, with a tool, every 2 events. Enter stores.'

/** One line of a check, read while it is typed; what is typed stays in the browser until it is stored. */
export function CheckLine({
  records,
  stageId,
  today,
  input,
}: {
  records: RecordsAnswer
  stageId: string
  today: string
  input: RefObject<HTMLInputElement | null>
}) {
  const buildId = records.build.id
  const key = `bold-ballast.draft.${buildId}.check`
  const { text, units, decimalMark } = useQuantities()
  const [line, setLine] = useState(() => readStored(key, ''))
  const [said, setSaid] = useState<string | null>(null)
  const [ids, setIds] = useState(() => ({ batchId: crypto.randomUUID(), id: crypto.randomUUID(), markId: crypto.randomUUID() }))
  const [write, { isLoading }] = api.useBatchMutation()
  const keep = (next: string) => {
    setLine(next)
    setSaid(null)
    writeStored(key, next === '' ? undefined : next)
  }
  const read = line.trim() === '' ? null : attempt(() => readCheckLine(line, { today, mark: decimalMark, units, geometry: records.build }))
  const store = async () => {
    if (!read || read instanceof CalculationError) return
    const { check, readM } = read
    const mark = { id: ids.markId, checkId: ids.id, stageId, at: new Date().toISOString(), result: 'ok', value: readM, typed: line.trim().slice(0, 80) }
    const writes = [
      { kind: 'create', resource: 'checks', body: { id: ids.id, ...check } },
      ...(readM === null ? [] : [{ kind: 'create', resource: 'marks', body: mark }]),
    ] as unknown as BatchWrite[]
    const answer = await write({ buildId, batchId: ids.batchId, writes })
    if (answer.error) return setSaid(`${readFailure(answer.error).message} The line is kept.`)
    setIds({ batchId: crypto.randomUUID(), id: crypto.randomUUID(), markId: crypto.randomUUID() })
    keep('')
    setSaid(`Stored: ${readWords(read, text)}.`)
  }
  return (
    <OneLine
      label="A line of a check"
      placeholder="bolt front caliper LF 2 x 85 Nm p.41 @front between"
      text={line}
      type={keep}
      said={said ?? (read instanceof CalculationError ? read.message : read ? `Reads as: ${readWords(read, text)}. Enter stores.` : HOW)}
      store={store}
      isBusy={isLoading}
      input={input}
    />
  )
}
