import type { RecordsAnswer } from '@bold-ballast/contract'
import { fromSi, METRIC_INFO, type StoryChapter, type TickList, type WorkOrder } from '@bold-ballast/core'
import { inUnits, spreadIn, type Units } from '../../shared/table-cells.ts'
import type { CsvTable } from '../../ui/files/csv-button.tsx'

const HEADLINES = ['massReady', 'wheelPower', 'powerToMass'] as const

/** The build stage by stage as a table. */
export const storyTable = (story: readonly StoryChapter[], units: Units): CsvTable => ({
  head: [
    'Place',
    'Stage',
    'Date',
    'State',
    ...HEADLINES.flatMap((metric) => {
      const { word, kind } = METRIC_INFO[metric]
      return [`${word} (${units[kind]})`, `${word}, spread`, `${word}, proof`, `${word}, read on`]
    }),
    `Came off (${units.mass})`,
    `Went on (${units.mass})`,
    'Jobs done',
    'Jobs open',
    'Worked (h)',
    'Paid',
    'Planned',
    'Decided',
  ],
  rows: story.map(({ position, name, date, state, figures, offKg, onKg, jobs, paid, planned, decisions }) => [
    position,
    name,
    date,
    state,
    ...HEADLINES.flatMap((metric) => {
      const { kind } = METRIC_INFO[metric]
      const figure = figures.find((each) => each.metric === metric)
      return [inUnits(units)(kind, figure?.cell.value), spreadIn(units)(kind, figure?.cell.sd), figure?.cell.proof ?? null, figure?.readOn.join(' ') ?? null]
    }),
    fromSi('mass', offKg, units.mass),
    fromSi('mass', onKg, units.mass),
    jobs.done,
    jobs.open,
    jobs.hours,
    paid,
    planned,
    decisions.map(({ question, chosen }) => `${question} ${chosen}`).join('; '),
  ]),
})

/** What is ticked, as a table. */
export const ticksTable = ({ jobsByHand, parts, rules }: TickList): CsvTable => ({
  head: ['What', 'Name', 'Who', 'Guess', 'Unit'],
  rows: [
    ...jobsByHand.flatMap(({ name, jobs }) =>
      jobs.map((job) => ['job', job.name, name, job.kind === 'work' ? job.guessH : job.guessDays, job.kind === 'work' ? 'h' : 'days']),
    ),
    ...parts.map((part) => ['part', part.name, null, part.leadDays ?? null, 'days']),
    ...rules.map((rule) => ['rule', rule.text, rule.from, null, null]),
  ],
})

/** A work order as a table: what goes along, and what it has to take. */
export const orderTable = ({ parts, lines, ratings }: WorkOrder, units: Units, { build }: RecordsAnswer): CsvTable => ({
  head: ['What', 'Name', 'Pieces', `Mass of one (${units.mass})`, `Cost (${build.money?.currency ?? 'money'})`, 'Has to take'],
  rows: [
    ...parts.map((part) => [
      'part',
      part.name,
      part.count,
      inUnits(units)('mass', part.mass?.massKg),
      part.cost,
      ratings
        .filter(({ partId }) => partId === part.id)
        .map(({ word }) => word)
        .join('; '),
    ]),
    ...lines.map((line) => ['line', line.name, line.count, inUnits(units)('mass', line.values.at(-1)?.massKg), line.cost, null]),
  ],
})
