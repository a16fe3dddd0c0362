import type { RecordsAnswer } from '@bold-ballast/contract'
import { readDay, taskKind } from '@bold-ballast/core'
import { localDay } from '../../../data/local-day.ts'
import { dayField, type Named, named } from '../../../shared/fields/own-fields.ts'
import { attemptField } from '../../../ui/forms/attempt-field.ts'
import { field, makeForm, type OwnKind } from '../../../ui/forms/form-fields.ts'

/** Hours worked, a line each: day; hours; who. */
function worked(hands: readonly Named[]): OwnKind {
  return {
    type: 'textarea',
    read: (read, name) =>
      read.lines(name).flatMap((line) => {
        const [day = '', hours = '', who = ''] = line.split(/\s*;\s*/)
        const on = attemptField(read, name, () => readDay(day, localDay(), 'worked'))
        const amount = Number(hours.replace(',', '.').replace(/\s*h$/, ''))
        const hand = who === '' ? null : hands.find((each) => each.name.toLowerCase() === who.toLowerCase())
        if (!(amount > 0 && amount <= 24)) read.refuse(name, `“${line}” is day; hours; who, such as 3 Mar; 2.5; Ilse. A day has 24 hours.`)
        else if (hand === undefined) read.refuse(name, `There is no hand called “${who}”.`)
        else if (on) return [{ on, handId: hand?.id ?? null, hours: amount }]
        return []
      }),
    begin: (record) =>
      ((record as { worked?: readonly { on: string; handId: string | null; hours: number }[] } | null)?.worked ?? [])
        .map(({ on, handId, hours }) => [on, Number(hours.toFixed(2)), hands.find(({ id }) => id === handId)?.name ?? ''].join('; ').replace(/; $/, ''))
        .join('\n'),
  }
}

/** One record of a list, by choice. */
const choiceOf = (list: readonly Named[]): Record<string, string> => Object.fromEntries(list.map(({ id, name }) => [id, name]))

/** A job, all of it. */
export function taskForm(records: RecordsAnswer, isWait: boolean) {
  const jobs = records.tasks.filter(({ state }) => state === 'planned' || state === 'underway')
  const ownWork = [
    field('guessH', 'number', { label: 'Guessed hours' }),
    field('whoIds', named('whoIds', records.hands, 'hand'), {
      label: 'Hands',
      hint: 'Empty: whoever is done first. Several work together, each for the whole of it.',
    }),
  ]
  const ownWait = [
    field('guessDays', 'number', { label: 'Guessed days' }),
    field('begunOn', dayField('begunOn'), { label: 'Began on' }),
    field('realDays', 'number', { label: 'Days it took' }),
  ]
  return makeForm(taskKind.fields, [
    field('name', 'text', { label: 'Job', isWide: true }),
    field('stageId', 'choice', { label: 'Stage', words: choiceOf(records.stages) }),
    field('state', 'choice', { label: 'State', words: { planned: 'planned', underway: 'underway', done: 'done', dropped: 'dropped' } }),
    ...(isWait ? ownWait : ownWork),
    field('holds', 'note', { label: 'Holds', hint: 'What one job at a time can have, such as lift; a wait may hold the car.' }),
    field('afterIds', named('afterIds', jobs, 'open job'), { label: 'After these jobs', isWide: true }),
    field('partIds', named('partIds', records.parts, 'part'), { label: 'Needs these parts', hint: 'They are fitted when it is done.', isWide: true }),
    field('changeIds', named('changeIds', records.changes, 'line'), { label: 'Does these ledger lines', hint: 'They are done when it is.', isWide: true }),
    field('notBefore', dayField('notBefore'), { label: 'Not before' }),
    field('isOptional', 'checkbox', { label: 'Can be left out' }),
    field('needsCar', 'checkbox', { label: 'Is work on the car itself' }),
    field('isAway', 'checkbox', { label: 'Can be done on the way or at the event' }),
    ...(isWait ? [] : [field('worked', worked(records.hands), { label: 'Worked, a line each: day; hours; who', isWide: true, section: 'What it took' })]),
    field('teaches', 'checkbox', { label: 'Its guess teaches', hint: 'Not where its scope changed.' }),
    field('cost', 'number', { label: 'Cost, guessed', section: 'Money' }),
    field('paid', 'number', { label: 'Paid' }),
    field('note', 'note', { label: 'Note', isWide: true }),
  ])
}
