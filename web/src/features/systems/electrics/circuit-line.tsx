import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, type CircuitBody, readCircuitLine } from '@bold-ballast/core'
import { type RefObject, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { readStored, writeStored } from '../../../data/stored.ts'
import { OneLine } from '../../../ui/forms/one-line.tsx'
import { useQuantities } from '../../../ui/quantity.ts'

/** What a line was read as, in words. */
export const circuitWords = ({
  name,
  currentA,
  startFactor,
  duty,
  group,
  isVital,
  lengthM,
  return: back,
  output,
  isPinned,
  known,
  behindKill,
  kind,
}: CircuitBody): string =>
  [
    name,
    kind === 'signal' ? 'a signal' : `${currentA} A, ${known === 'measured' ? 'measured' : known}`,
    startFactor > 1 ? `starts with ${startFactor} times` : '',
    duty < 1 ? `${Math.round(100 * duty)} % of the time` : '',
    lengthM === null ? 'no length' : `${lengthM} m${back === 'chassis' ? ', back by the chassis' : ''}`,
    group ? `switched with ${group}` : '',
    isVital ? 'vital' : '',
    isPinned ? `stays on ${output}` : '',
    behindKill ? '' : 'not cut by the main switch',
  ]
    .filter((words) => words !== '')
    .join(', ')

const HOW = 'Name, amps, metres one way; then x3, group run, vital, duty 60 %, chassis, pin O3, measured, live. Enter stores.'

/** One line of a circuit, read while it is typed. */
export function CircuitLine({ records, input }: { records: RecordsAnswer; input: RefObject<HTMLInputElement | null> }) {
  const buildId = records.build.id
  const key = `bold-ballast.draft.${buildId}.circuit`
  const { decimalMark } = useQuantities()
  const [line, setLine] = useState(() => readStored(key, ''))
  const [said, setSaid] = useState<string | null>(null)
  const [id, setId] = useState(() => crypto.randomUUID())
  const [create, { isLoading }] = api.useCreateRecordMutation()
  const keep = (next: string) => {
    setLine(next)
    setSaid(null)
    writeStored(key, next === '' ? undefined : next)
  }
  const read = line.trim() === '' ? null : attempt(() => readCircuitLine(line, decimalMark))
  const store = async () => {
    if (!read || read instanceof CalculationError) return
    const answer = await create({ buildId, resource: 'circuits', body: { id, ...read } })
    if (answer.error) return setSaid(`${readFailure(answer.error).message} The line is kept.`)
    setId(crypto.randomUUID())
    keep('')
    setSaid(`Stored: ${circuitWords(read)}.`)
  }
  return (
    <OneLine
      label="A line of a circuit"
      placeholder="circuit fan 22 A 3.6 m"
      text={line}
      type={keep}
      said={said ?? (read instanceof CalculationError ? read.message : read ? `Reads as: ${circuitWords(read)}. Enter stores.` : HOW)}
      store={store}
      isBusy={isLoading}
      input={input}
    />
  )
}
