import { attempt, CalculationError, type PaddockEntry, parsePaddockLine, type RoomTrackSession } from '@bold-ballast/core'
import { useEffect, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { readStored, writeStored } from '../../../data/stored.ts'
import { OneLine } from '../../../ui/forms/one-line.tsx'
import { useFocusByKey } from '../../../ui/hooks/use-focus-by-key.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { paddockWrites } from './paddock-writes.ts'

type Text = ReturnType<typeof useQuantities>['text']

/** What a line was read as, in words. */
export function entryWords(entry: PaddockEntry, text: Text): string {
  switch (entry.is) {
    case 'laps':
      return entry.laps.map(({ lapS, kind }) => `${text('lapTime', lapS, { decimals: 2 })}${kind === 'clean' ? '' : `, ${kind}`}`).join(' · ')
    case 'pressures':
      return `${entry.when}: ${entry.pa.map((pa) => text('pressure', pa)).join(', ')}`
    case 'tread':
      return `tread ${entry.wheel}: ${entry.treadK.map((kelvin) => text('temperature', kelvin, { decimals: 0 })).join(', ')} from the inner edge`
    case 'set':
      return `${entry.what} to ${entry.to}`
    case 'say':
      return `“${entry.words}”`
    case 'ease':
      return `ease ${entry.ease} of 5`
    case 'pair':
      return 'one more rear pair used up'
    case 'run': {
      const parts = [
        entry.entryMps === null ? null : text('speed', entry.entryMps, { decimals: 0 }),
        entry.angleRad === null ? null : text('angle', entry.angleRad, { decimals: 0 }),
        entry.gear === null ? null : `gear ${entry.gear}`,
        entry.straightened > 0 ? 'straightened' : null,
      ].filter((part) => part !== null)
      return `a run${parts.length > 0 ? `: ${parts.join(', ')}` : ''}`
    }
  }
}

const HOW = 'Laps (1:24.90 traffic), hot or cold (four numbers), tread LF (three), set, say, ease, run, pair. Enter stores, Esc leaves the line.'

/** One line of the paddock, read while it is typed; Enter stores it in the session. What is typed is kept in the browser until it is. */
export function PaddockLine({
  buildId,
  session,
  sessions,
  isAsked,
}: {
  buildId: string
  session: RoomTrackSession
  /** Of the build: what was turned before says from what it is turned now. */
  sessions: readonly RoomTrackSession[]
  isAsked: boolean
}) {
  const key = `bold-ballast.draft.${buildId}.paddock`
  const { text, units, decimalMark } = useQuantities()
  const [line, setLine] = useState(() => readStored(key, ''))
  const [said, setSaid] = useState<string | null>(null)
  const [batchId, setBatchId] = useState(() => crypto.randomUUID())
  const [write, { isLoading }] = api.useBatchMutation()
  const input = useFocusByKey<HTMLInputElement>()
  useEffect(() => {
    if (isAsked) input.current?.focus()
  }, [isAsked, input])
  const keep = (next: string) => {
    setLine(next)
    setSaid(null)
    writeStored(key, next === '' ? undefined : next)
  }
  const read =
    line.trim() === ''
      ? null
      : attempt(() => parsePaddockLine(line, { mark: decimalMark, pressureUnit: units.pressure, temperatureUnit: units.temperature, speedUnit: units.speed }))
  const store = async () => {
    if (!read || read instanceof CalculationError) return
    const send = (record: RoomTrackSession['record']) =>
      write({ buildId, batchId, writes: paddockWrites(read, { ...session, record }, sessions, () => crypto.randomUUID()) as never })
    let answer = await send(session.record)
    // A line that followed another at once was made of the session before it: it is made anew of the session as it is, and nothing is written over.
    const { problem } = answer.error ? readFailure(answer.error) : { problem: undefined }
    if (problem?.code === 'stale' && problem.current) answer = await send(problem.current as RoomTrackSession['record'])
    if (answer.error) return setSaid(`${readFailure(answer.error).message} The line is kept.`)
    setBatchId(crypto.randomUUID())
    keep('')
    setSaid(`Stored: ${entryWords(read, text)}.`)
  }
  const words = read instanceof CalculationError ? read.message : (said ?? (read ? `Reads as: ${entryWords(read, text)}. Enter stores.` : HOW))
  return (
    <OneLine
      label="A line of the paddock"
      placeholder={session.record.kind === 'runs' ? 'run 94 km/h 38 deg 3rd' : '1:24.90'}
      text={line}
      type={keep}
      said={words}
      store={store}
      isBusy={isLoading}
      input={input}
      leave={() => input.current?.blur()}
    />
  )
}
