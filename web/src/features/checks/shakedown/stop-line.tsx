import type { BatchWrite, RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, lineOfLog, readStopLine, type StopReading } from '@bold-ballast/core'
import { type RefObject, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { readStored, writeStored } from '../../../data/stored.ts'
import { OneLine } from '../../../ui/forms/one-line.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { FromLogger } from './from-logger.tsx'

/** What was read at a stop, in one line; Enter stores all of it as marks of the stop. */
export function StopLine({
  records,
  stageId,
  sessionId,
  input,
}: {
  records: RecordsAnswer
  stageId: string
  sessionId: string
  input: RefObject<HTMLInputElement | null>
}) {
  const buildId = records.build.id
  const key = `bold-ballast.draft.${buildId}.stop`
  const { text, units, decimalMark } = useQuantities()
  const [line, setLine] = useState(() => readStored(key, ''))
  const [said, setSaid] = useState<string | null>(null)
  /** The device that the line was filled from. */
  const [source, setSource] = useState<string | null>(null)
  const [batchId, setBatchId] = useState(() => crypto.randomUUID())
  const [write, { isLoading }] = api.useBatchMutation()
  const keep = (next: string) => {
    setLine(next)
    setSaid(null)
    if (next === '') setSource(null)
    writeStored(key, next === '' ? undefined : next)
  }
  const asked = records.checks.filter(({ reading, rounds }) => reading !== null && rounds.includes('between'))
  const read = line.trim() === '' ? null : attempt(() => readStopLine(line, asked as never, { mark: decimalMark, units }))
  const words = (found: readonly StopReading[]) => found.map(({ name, quantity, value }) => `${name} ${text(quantity, value)}`).join(', ')
  const store = async () => {
    if (!read || read instanceof CalculationError) return
    const at = new Date().toISOString()
    const writes = read.map(({ checkId, value, typed }) => ({
      kind: 'create',
      resource: 'marks',
      body: {
        id: crypto.randomUUID(),
        checkId,
        stageId,
        at,
        trackSessionId: sessionId,
        round: 'between',
        result: 'ok',
        value,
        typed,
        note: source && `read by ${source}`,
      },
    })) as unknown as BatchWrite[]
    const answer = await write({ buildId, batchId, writes })
    if (answer.error) return setSaid(`${readFailure(answer.error).message} The line is kept.`)
    setBatchId(crypto.randomUUID())
    keep('')
    setSaid(`Stored: ${words(read)}.`)
  }
  return (
    <>
      <FromLogger
        line={(channels, rows) => lineOfLog(asked as never, channels, rows, { mark: decimalMark, units })}
        take={(next, from) => {
          keep(next)
          setSource(from)
        }}
        isWritten={line.trim() !== ''}
      />
      <OneLine
        label="What was read at the stop"
        placeholder="coolant 93 oil 121 press 3.9"
        text={line}
        type={keep}
        said={
          said ??
          (read instanceof CalculationError
            ? read.message
            : read
              ? `${read.length} of ${asked.length} readings: ${words(read)}. Enter stores.`
              : `Names and numbers in turn: ${asked.map(({ name }) => name.toLowerCase()).join(', ')}.`)
        }
        store={store}
        isBusy={isLoading}
        input={input}
      />
    </>
  )
}
