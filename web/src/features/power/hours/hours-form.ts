import { fromSi, type PullPlan, toSi } from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../../ui/form-reader.ts'
import { typedText } from '../../../ui/quantity.ts'
import type { FieldSpec } from '../../../ui/record-form.tsx'

type Units = Record<string, string>

export const hoursFieldSpecs = (units: Units): FieldSpec[] => [
  { name: 'booked', label: 'Booked', section: 'Time', hint: 'In minutes unless a unit is typed: 4 h.' },
  { name: 'setUp', label: 'Strapping down and setting up' },
  { name: 'pull', label: 'One pull', hint: 'From rolling to coasted down.' },
  { name: 'cooling', label: 'Cooling after each', hint: 'The same for all, or later pulls read low.' },
  { name: 'firstPulls', label: 'First pulls, at the lowest boost', section: 'Pulls' },
  { name: 'basePulls', label: 'Pulls of the baseline', hint: 'Three or more, or no gain can be shown.' },
  { name: 'returns', label: 'Return to the baseline at the end', type: 'checkbox' },
  { name: 'pullSd', label: 'Pull to pull, one spread', hint: 'Of this dyno, as your sessions show it; may stay empty.' },
  {
    name: 'changes',
    label: 'Changes to try, one a line and one at a time: name; time to change; pulls',
    hint: 'Such as: boost 120 kPa; 5; 3',
    type: 'textarea',
    isWide: true,
  },
  { name: 'lambdaOver', label: 'Stop when lambda is over', section: 'When a pull is broken off' },
  { name: 'intakeOver', label: 'Stop when the intake is over', hint: `in ${units.temperature}` },
  { name: 'coolantOver', label: 'Stop when the coolant is over', hint: `in ${units.temperature}` },
  { name: 'fuelUnder', label: 'Stop when fuel pressure is under', hint: `in ${units.pressure}` },
  { name: 'headroomUnder', label: 'Raise nothing with less headroom than', hint: 'Of the weakest part, in %.' },
  { name: 'knock', label: 'Knock', hint: 'What you listen for or watch, and when you lift.' },
]

export function hoursBody(read: FormReader): Record<string, unknown> {
  const time = (name: string, label: string) => {
    const { value } = read.quantity(name, label, 'duration')
    if (value < 0 || value > 86_400) read.refuse(name, `${label} lies from 0 to 24 hours.`)
    return value
  }
  const changes = read.lines('changes').map((line) => {
    const [name = '', setUp = '0', pulls = '3'] = line.split(/\s*;\s*/)
    const setUpS = read.typedQuantity('changes', setUp, 'duration', 'The time to change')?.value ?? 0
    const count = Number(pulls)
    if (name === '' || setUpS < 0 || !Number.isInteger(count) || count < 1 || count > 20)
      read.refuse('changes', `"${line}" cannot be read. Type name; time to change; pulls from 1 to 20.`)
    return { name: name || line, setUpS: Math.max(0, setUpS), pulls: Number.isInteger(count) && count > 0 ? count : 1 }
  })
  const maybe = (name: string, label: string, kind: Parameters<FormReader['quantity']>[2]) => read.optionalQuantity(name, label, kind)?.value ?? null
  return {
    bookedS: time('booked', 'Booked'),
    setUpS: time('setUp', 'Setting up'),
    pullS: time('pull', 'One pull'),
    coolingS: time('cooling', 'Cooling'),
    firstPulls: read.count('firstPulls', 'First pulls', 0, 20),
    basePulls: read.count('basePulls', 'Pulls of the baseline', 1, 20),
    returnsToBase: read.flag('returns'),
    pullSdW: maybe('pullSd', 'Pull to pull', 'power'),
    changes,
    stops: {
      lambdaOver: read.raw('lambdaOver') === '' ? null : read.number('lambdaOver', 'Lambda'),
      intakeOverK: maybe('intakeOver', 'Intake', 'temperature'),
      coolantOverK: maybe('coolantOver', 'Coolant', 'temperature'),
      fuelPressureUnderPa: maybe('fuelUnder', 'Fuel pressure', 'pressure'),
      headroomUnder: maybe('headroomUnder', 'Headroom', 'share'),
      knock: read.optional('knock'),
    },
  }
}

const minutes = (seconds: number) => `${Number(fromSi('duration', seconds, 'min').toPrecision(6))} min`

/** What a first plan starts with: usual times (common practice, no source). */
export const FIRST_HOURS: FormValues = {
  booked: '4 h',
  setUp: '30 min',
  pull: '1 min',
  cooling: '3 min',
  firstPulls: '2',
  basePulls: '3',
  returns: 'true',
  lambdaOver: '0.9',
  headroomUnder: '5 %',
}

export function hoursDefaults(plan: PullPlan, units: Units): FormValues {
  const shown = (kind: Parameters<typeof typedText>[0], value: number | null) => (value === null ? '' : typedText(kind, value, units[kind] as string))
  const { stops } = plan
  return {
    booked: minutes(plan.bookedS),
    setUp: minutes(plan.setUpS),
    pull: minutes(plan.pullS),
    cooling: minutes(plan.coolingS),
    firstPulls: String(plan.firstPulls),
    basePulls: String(plan.basePulls),
    returns: String(plan.returnsToBase),
    pullSd: shown('power', plan.pullSdW),
    changes: plan.changes.map(({ name, setUpS, pulls }) => `${name}; ${minutes(setUpS)}; ${pulls}`).join('\n'),
    lambdaOver: stops.lambdaOver === null ? '' : String(stops.lambdaOver),
    intakeOver: shown('temperature', stops.intakeOverK),
    coolantOver: shown('temperature', stops.coolantOverK),
    fuelUnder: shown('pressure', stops.fuelPressureUnderPa),
    headroomUnder: shown('share', stops.headroomUnder),
    knock: stops.knock ?? '',
  }
}

/** Hours and minutes from the beginning: "1:05". */
export function clock(seconds: number): string {
  const whole = Math.round(seconds / toSi('duration', 1, 'min'))
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}
