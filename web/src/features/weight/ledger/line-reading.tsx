import { scaleSdKg } from '@bold-ballast/core'
import { useQuantities } from '../../../ui/quantity.ts'
import type { OpenBox, ReadLine } from './entry-body.ts'

const PROOF_WORDS = { guess: 'a guess', catalogue: 'from a catalogue', calculated: 'worked out', measured: 'on a scale' } as const

/** How a typed line was read: nothing is stored as anything else. */
export function LineReading({ line, box }: { line: ReadLine; box: OpenBox | null }) {
  const { text } = useQuantities()
  const { read, differenceKg, other } = line
  if (!read) return null
  const { mass, guess } = read
  const shown = differenceKg ?? mass?.massKg
  const sd = differenceKg !== null ? null : (mass?.sdKg ?? (mass?.proof === 'measured' ? scaleSdKg(mass.massKg) : null))
  return (
    <>
      <strong className="text-ink">
        {read.kind}, {read.count > 1 ? `${read.count} pieces of ` : ''}
        {read.name}, {shown === undefined ? 'not weighed' : text('mass', shown, { decimals: 2 })}
        {read.count > 1 && shown !== undefined && differenceKg === null ? ' each' : ''}
      </strong>
      {box && mass && differenceKg !== null
        ? `: the box went from ${text('mass', box.lastKg, { decimals: 2 })} to ${text('mass', mass.massKg, { decimals: 2 })}`
        : mass
          ? `, ${PROOF_WORDS[mass.proof]}`
          : '; it stays in sight and counts for nothing'}
      {sd !== null && `, ± ${text('mass', sd, { decimals: 2 })}`}
      {guess && `; the guess of ${text('mass', guess.massKg, { decimals: 1 })} is kept beside it`}
      {read.waits && ', waits for what goes back'}
      {read.zone && `, zone ${read.zone}`}
      {other && (read.kind === 'transfer' ? `, goes back on from ${other.name}` : `, replaces ${other.name}`)}
    </>
  )
}
