import type { RecordsAnswer } from '@bold-ballast/contract'
import type { DamageSeen, Due, LifeAhead, TakeList } from '@bold-ballast/core'
import type { CsvTable } from '../../ui/files/csv-button.tsx'
import { aboutWords, reasonWords } from './check-words.ts'

/** What is due, and every check that is not. */
export function checksTable(records: RecordsAnswer, due: readonly Due[], today: string): CsvTable {
  const byId = new Map(due.map((own) => [own.check.id, own]))
  return {
    head: ['Check', 'Kind', 'About', 'Zone', 'Rounds', 'Due', 'Stops', 'Minutes', 'Tool'],
    rows: records.checks.map((check) => {
      const own = byId.get(check.id)
      return [
        check.name,
        check.kind,
        aboutWords(check),
        check.zone,
        check.rounds.join(' '),
        own ? reasonWords(own, today) : null,
        own?.stops ? 'yes' : null,
        own?.minutes ?? check.minutes,
        check.tool,
      ]
    }),
  }
}

/** What is taken along. */
export const takeTable = ({ items }: TakeList): CsvTable => ({
  head: ['Take', 'Count', 'Why', 'Packed', 'Missing last time', 'Needed by'],
  rows: items.map(({ name, count, why, isPacked, wasMissing, neededBy }) => [
    name,
    count,
    why,
    isPacked ? 'yes' : 'no',
    wasMissing ? 'yes' : null,
    neededBy.join('; '),
  ]),
})

/** Parts that wear, with the chance for each coming event. */
export function livesTable(lives: readonly LifeAhead[]): CsvTable {
  const events = [...new Map(lives.flatMap((life) => life.events.map(({ event }) => [event.id, event] as const))).values()]
  return {
    head: ['Part', 'Unit', 'Life', 'Used', ...events.map(({ name }) => name), 'Order by', 'Pulled'],
    rows: lives.map(({ part, known, used, events: own, orderBy, pulls }) => [
      part.name,
      part.life?.unit ?? null,
      known.life,
      used,
      ...events.map(({ id }) => own.find(({ event }) => event.id === id)?.chance ?? null),
      orderBy,
      pulls,
    ]),
  }
}

/** What broke, how often, and what it took. */
export const damageTable = (seen: readonly DamageSeen[]): CsvTable => ({
  head: ['What', 'Broke', 'An event', 'Spares', 'Hours', 'Cost', 'Last', 'Note', 'Mended for now'],
  rows: seen.map(({ check, count, perEvent, spares, hours, cost, last, isMakeDo }) => [
    check.name,
    count,
    perEvent,
    perEvent === null ? null : spares,
    hours,
    cost,
    last.at.slice(0, 10),
    last.note,
    isMakeDo ? 'yes' : null,
  ]),
})
