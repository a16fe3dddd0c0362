import { fromSi, type PullPlan, pullPlanKind, toSi } from '@bold-ballast/core'
import { field, makeForm, type OwnKind } from '../../../ui/forms/form-fields.ts'
import { usualText } from '../../../ui/quantity.ts'

const minutes = (seconds: number) => `${Number(fromSi('duration', seconds, 'min').toPrecision(6))} min`
const MOST_PULLS = 20

/** Changes to try, one a line: name; time to change; pulls. */
const changesKind: OwnKind = {
  type: 'textarea',
  read: (read, field) =>
    read.lines(field).map((line) => {
      const [name = '', setUp = '0', pulls = '3'] = line.split(/\s*;\s*/)
      const setUpS = read.typedQuantity(field, setUp, 'duration', 'The time to change')?.value ?? 0
      const count = Number(pulls)
      if (name === '' || setUpS < 0 || !Number.isInteger(count) || count < 1 || count > MOST_PULLS)
        read.refuse(field, `"${line}" cannot be read. Type name; time to change; pulls from 1 to ${MOST_PULLS}.`)
      return { name: name || line, setUpS: Math.max(0, setUpS), pulls: Number.isInteger(count) && count > 0 ? count : 1 }
    }),
  begin: (record) => ((record as Partial<PullPlan>).changes ?? []).map(({ name, setUpS, pulls }) => `${name}; ${minutes(setUpS)}; ${pulls}`).join('\n'),
}

/** The form of hours at the dyno. */
export const hoursForm = makeForm(pullPlanKind.fields, [
  field('bookedS', 'duration', { label: 'Booked', section: 'Time', hint: 'In minutes unless a unit is typed: 4 h.' }),
  field('setUpS', 'duration', { label: 'Strapping down and setting up' }),
  field('pullS', 'duration', { label: 'One pull', hint: 'From rolling to coasted down.' }),
  field('coolingS', 'duration', { label: 'Cooling after each', hint: 'The same for all, or later pulls read low.' }),
  field('firstPulls', 'count', { label: 'First pulls, at the lowest boost', section: 'Pulls' }),
  field('basePulls', 'count', { label: 'Pulls of the baseline', hint: 'Three or more, or no gain can be shown.' }),
  field('returnsToBase', 'checkbox', { label: 'Return to the baseline at the end' }),
  field('pullSdW', 'power', { label: 'Pull to pull, one spread', hint: 'Of this dyno, as your sessions show it; may stay empty.' }),
  field('changes', changesKind, {
    label: 'Changes to try, one a line and one at a time: name; time to change; pulls',
    hint: (units) => `Such as: boost ${usualText(units, 'pressure', 120_000)}; 5; 3`,
    isWide: true,
  }),
  field('stops.lambdaOver', 'number', { label: 'Stop when lambda is over', section: 'When a pull is broken off' }),
  field('stops.intakeOverK', 'temperature', { label: 'Stop when the intake is over', hint: (units) => `${units.temperature} unless a unit is typed` }),
  field('stops.coolantOverK', 'temperature', { label: 'Stop when the coolant is over', hint: (units) => `${units.temperature} unless a unit is typed` }),
  field('stops.fuelPressureUnderPa', 'pressure', { label: 'Stop when fuel pressure is under', hint: (units) => `${units.pressure} unless a unit is typed` }),
  field('stops.headroomUnder', 'share', { label: 'Raise nothing with less headroom than', hint: 'Of the weakest part, in %.' }),
  field('stops.knock', 'note', { label: 'Knock', hint: 'What you listen for or watch, and when you lift.' }),
])

/** What a first plan starts with: usual times (common practice, no source). */
export const FIRST_HOURS = {
  bookedS: toSi('duration', 4, 'h'),
  setUpS: toSi('duration', 30, 'min'),
  pullS: toSi('duration', 1, 'min'),
  coolingS: toSi('duration', 3, 'min'),
  firstPulls: 2,
  basePulls: 3,
  returnsToBase: true,
  stops: { lambdaOver: 0.9, headroomUnder: 0.05 },
}

/** Hours and minutes from the beginning: "1:05". */
export function clock(seconds: number): string {
  const whole = Math.round(seconds / toSi('duration', 1, 'min'))
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}
