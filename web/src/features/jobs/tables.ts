import type { RecordsAnswer } from '@bold-ballast/contract'
import type { JobsRoom } from '@bold-ballast/core'
import type { CsvTable } from '../../ui/files/csv-button.tsx'
import type { RoadAnswer, RoadView } from './jobs.worker.ts'
import { dayOf, namesOf } from './road-words.ts'

/** The jobs of the road with the days they end on. */
export function roadTable(room: JobsRoom, view: RoadView, answer: RoadAnswer | null): CsvTable {
  const names = namesOf(room.road)
  return {
    head: [
      'Job',
      'Stage',
      'Kind',
      'Hands',
      'Guessed (h or days)',
      'So far',
      'Likely left',
      'Waits for',
      'Parts',
      'Ends, half',
      'Ends, 8 in 10',
      'Room (h or days)',
    ],
    rows: room.road.jobs.map((job, i) => {
      const ahead = view.jobs[i]
      return [
        job.name,
        job.stage,
        job.kind,
        job.handIds.map(names.hand).join(' and '),
        job.guess,
        job.spent,
        ahead?.laid.length ?? null,
        job.afterIds.map(names.job).join('; '),
        job.partIds.map(names.part).join('; '),
        dayOf(room.today, ahead?.halfDay),
        dayOf(room.today, ahead?.eightDay),
        answer?.slack.jobs[i]?.room ?? null,
      ]
    }),
  }
}

type Decision = RecordsAnswer['decisions'][number]

/** The options of a decision beside each other, a row a criterion; spreads in columns of their own. */
export const decisionTable = ({ criteria, options }: Decision, view: JobsRoom['decisions'][number]): CsvTable => ({
  head: ['Criterion', 'Better', 'Price', 'Must', ...options.flatMap(({ name }) => [name, `${name}, spread`])],
  rows: criteria.map(({ name, better, price, must }, at) => [
    name,
    better,
    price,
    must,
    ...options.flatMap((_, option) => {
      const number = view.values[option]?.[at]?.number
      return [number?.value ?? null, number?.sd ?? null]
    }),
  ]),
})

/** Hands with their weeks, and events. */
export const handsTable = ({ hands }: RecordsAnswer): CsvTable => ({
  head: ['Name', 'Mon (h)', 'Tue (h)', 'Wed (h)', 'Thu (h)', 'Fri (h)', 'Sat (h)', 'Sun (h)', 'Away'],
  rows: hands.map(({ name, hoursByWeekday, away }) => [
    name,
    ...hoursByWeekday,
    away.map(({ from, to }) => (from === to ? from : `${from} to ${to}`)).join('; '),
  ]),
})

export const eventsTable = ({ events, stages, tracks }: RecordsAnswer): CsvTable => ({
  head: ['Event', 'Kind', 'Starts', 'Days', 'Car leaves', 'Stage', 'Track', 'Booked (s)', 'Cost', 'Paid'],
  rows: events.map(({ name, kind, startsOn, days, leavesOn, stageId, trackId, bookedS, cost, paid }) => [
    name,
    kind,
    startsOn,
    days,
    leavesOn,
    stages.find(({ id }) => id === stageId)?.name ?? null,
    tracks.find(({ id }) => id === trackId)?.name ?? null,
    bookedS,
    cost,
    paid,
  ]),
})
