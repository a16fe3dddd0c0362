import type { RecordsAnswer } from '@bold-ballast/contract'
import { CHECK_READINGS, type CheckKind, checkKind, GAP_NATURES, ROUNDS, type Round } from '@bold-ballast/core'
import { choiceOrNone, dayField } from '../../shared/fields/own-fields.ts'
import { WHEEL_SIDE_WORDS } from '../../shared/wheel-side-words.ts'
import { field, makeForm, type OwnKind } from '../../ui/forms/form-fields.ts'
import { ROUND_WORDS } from './check-words.ts'

const SHORT = {
  ...ROUND_WORDS,
  firstStart: 'first start',
  beforeRun: 'before',
  between: 'between',
  afterRun: 'after',
  event: 'event',
  scrutineering: 'scrutineering',
  dyno: 'dyno',
}

/** Rounds by their short words, with commas between. */
const rounds: OwnKind = {
  read: (read, name) =>
    read
      .raw(name)
      .split(/\s*[,;]\s*/)
      .filter((word) => word !== '')
      .flatMap((word): Round[] => {
        const round = ROUNDS.find((each) => SHORT[each].toLowerCase() === word.toLowerCase() || each.toLowerCase() === word.toLowerCase())
        if (!round) read.refuse(name, `There is no round “${word}”. There is ${ROUNDS.map((each) => SHORT[each]).join(', ')}.`)
        return round ? [round] : []
      }),
  begin: (record) => ((record as { rounds?: readonly Round[] } | null)?.rounds ?? []).map((round) => SHORT[round]).join(', '),
}

/** "2 events", "12 months", or nothing. */
const every: OwnKind = {
  read: (read, name) => {
    const text = read.raw(name).trim()
    if (text === '') return null
    const [, amount = '', unit = ''] = /^([\d.,]+)\s*(hours?|days?|events?|months?)$/i.exec(text) ?? []
    if (amount === '') read.refuse(name, `“${text}” is no interval. Type it like 2 events, 6 hours or 12 months.`)
    return { amount: Number(amount.replace(',', '.')), unit: `${unit.toLowerCase().replace(/s$/, '')}s` }
  },
  begin: (record) => {
    const own = (record as { every?: { amount: number; unit: string } | null } | null)?.every
    return own ? `${own.amount} ${own.unit}` : ''
  },
}

const yesNo = (path: string): OwnKind => ({
  type: 'select',
  read: (read, name) => (read.raw(name) === '' ? null : read.raw(name) === 'yes'),
  begin: (record) => {
    const own = (record as Record<string, boolean | null> | null)?.[path]
    return own === null || own === undefined ? '' : own ? 'yes' : 'no'
  },
})
const USUAL = { '': 'as usual', yes: 'yes', no: 'no' }

const SI_OF: Readonly<Record<(typeof CHECK_READINGS)[number], string>> = {
  temperature: 'K',
  pressure: 'Pa',
  voltage: 'V',
  current: 'A',
  speed: 'm/s',
  engineSpeed: 'rpm',
  length: 'm',
  mass: 'kg',
  ratio: '',
}

function ownFields(kind: CheckKind, quantity: (typeof CHECK_READINGS)[number]) {
  switch (kind) {
    case 'bolt':
      return [
        field('bolt.count', 'count', { label: 'Bolts' }),
        field('bolt.torqueNm', 'torque', { label: 'Torque', hint: 'The maker’s. Without its page it is kept as a guess.' }),
        field('bolt.from', 'note', { label: 'From, page' }),
      ]
    case 'level':
      return [field('level.fluid', 'text', { label: 'Fluid' })]
    case 'gear':
      return [
        field('gear.standard', 'note', { label: 'Standard' }),
        field(
          'gear.madeOn',
          { ...dayField('gear'), begin: (record) => (record as { gear?: { madeOn?: string | null } } | null)?.gear?.madeOn ?? '' },
          { label: 'Made on' },
        ),
        field(
          'gear.expiresOn',
          { ...dayField('gear'), begin: (record) => (record as { gear?: { expiresOn?: string | null } } | null)?.gear?.expiresOn ?? '' },
          { label: 'Runs out on' },
        ),
      ]
    case 'take':
      return [field('take.count', 'count', { label: 'How many' })]
    case 'reading':
      return [
        field('reading.quantity', 'choice', { label: 'What is read', words: Object.fromEntries(CHECK_READINGS.map((each) => [each, each])) }),
        field('reading.role', 'note', { label: 'Channel of the logger' }),
        field('reading.warnHigh', quantity, { label: 'Warns over' }),
        field('reading.stopHigh', quantity, { label: 'Stops over' }),
        field('reading.warnLow', quantity, { label: 'Warns under' }),
        field('reading.stopLow', quantity, { label: 'Stops under' }),
        field('reading.forS', 'number', { label: 'Lasting, s' }),
        field('reading.aboveMps', 'speed', { label: 'Over a speed of' }),
        field('reading.sd', 'number', { label: `Read to, ± ${SI_OF[quantity]}`, hint: 'Empty: as is usual for such a gauge.' }),
        field('reading.secondSensor', 'checkbox', { label: 'Has a second sensor' }),
      ]
    case 'gap':
      return [
        field('gap.neighbour', 'text', { label: 'To' }),
        field('gap.nature', 'choice', { label: 'Which is', words: Object.fromEntries(GAP_NATURES.map((each) => [each, each])) }),
        field('gap.needM', 'length', { label: 'Wants', hint: 'Empty: what such a gap usually wants.' }),
        field('gap.access', 'note', { label: 'How a hand gets there', isWide: true }),
        field('gap.expansionPerK', 'number', {
          label: 'Grows, 1/K',
          hint: 'Stainless 17.3e-6, mild steel 12e-6, aluminium 23e-6, titanium 8.6e-6 (handbook, from memory).',
        }),
        field('gap.lengthM', 'distance', { label: 'Length that grows' }),
        field('gap.riseK', 'number', { label: 'Warms by, K' }),
        field('gap.towardShare', 'share', { label: 'Of it towards the neighbour' }),
        field('gap.moveM', 'length', { label: 'Rocks towards it by' }),
        field('gap.besideWheel', choiceOrNone('gap.besideWheel'), { label: 'Follows the wheels', words: { '': 'no', ...WHEEL_SIDE_WORDS } }),
      ]
    case 'look':
      return []
  }
}

/** A check of one kind as a form. */
export function checkForm(records: RecordsAnswer, kind: CheckKind, quantity: (typeof CHECK_READINGS)[number] = 'temperature') {
  return makeForm(checkKind.fields, [
    field('name', 'text', { label: 'Check', isWide: true }),
    ...ownFields(kind, quantity),
    field('rounds', rounds, { label: 'Rounds', isWide: true, hint: ROUNDS.map((each) => SHORT[each]).join(', ') }),
    field('zone', 'note', { label: 'Zone' }),
    field('partId', choiceOrNone('partId'), { label: 'Part', words: { '': 'none', ...Object.fromEntries(records.parts.map(({ id, name }) => [id, name])) } }),
    field('minutes', 'number', { label: 'Takes, min', hint: 'Empty: as is usual for its kind.' }),
    field('tool', 'note', { label: 'Tool' }),
    field('isSafety', yesNo('isSafety'), { label: 'Stops an event', words: USUAL }),
    field('whenTouched', yesNo('whenTouched'), { label: 'Due when worked on near it', words: USUAL }),
    field('every', every, { label: 'Every', hint: '2 events, 6 hours, 12 months' }),
    field('note', 'note', { label: 'Note', isWide: true }),
  ])
}
