import type { RecordsAnswer } from '@bold-ballast/contract'
import { CRITERION_SOURCES, type DecimalMark, type Decision, decisionKind, parseNumber } from '@bold-ballast/core'
import { dayField, named } from '../../../shared/fields/own-fields.ts'
import { attemptField } from '../../../ui/forms/attempt-field.ts'
import { field, makeForm, type OwnKind } from '../../../ui/forms/form-fields.ts'
import type { FormReader } from '../../../ui/forms/form-reader.ts'

type Criterion = Decision['criteria'][number]
type Option = Decision['options'][number]

export const SOURCE_WORDS: Readonly<Record<Criterion['from'], string>> = {
  cost: 'cost',
  mass: 'mass',
  hours: 'hours',
  arrival: 'arrival',
  frontShare: 'front share',
  height: 'height',
  typed: 'typed',
}
/** What a criterion is counted in. */
export const SOURCE_UNITS: Readonly<Record<Criterion['from'], string>> = {
  cost: '',
  mass: 'kg',
  hours: 'h',
  arrival: 'days',
  frontShare: '',
  height: 'mm',
  typed: '',
}

const CURE = 'Type it like: mass; less; price 42, or: air share; more; price 4000; must 0.15.'

/** One criterion: name; less or more; price N; must N. Its name says where its numbers come from: cost, mass, hours, arrival; any other is typed. */
export function readCriterion(line: string, mark: DecimalMark): Criterion | string {
  const [name = '', ...rest] = line.split(/\s*;\s*/)
  if (name === '') return `“${line}” has no name. ${CURE}`
  const from = CRITERION_SOURCES.find((source) => SOURCE_WORDS[source] === name.toLowerCase()) ?? 'typed'
  let found: Criterion = { name, from, better: 'less', price: null, must: null }
  for (const piece of rest) {
    const [, word = '', number = ''] = /^(less|more|price|must)\s*(.*)$/i.exec(piece) ?? []
    const key = word.toLowerCase()
    if (key === 'less' || key === 'more') found = { ...found, better: key }
    else if (key === 'price' || key === 'must') found = { ...found, [key]: parseNumber(number, mark, key) }
    else return `“${piece}” of ${name} was not understood. ${CURE}`
  }
  return found
}

const criteria: OwnKind = {
  type: 'textarea',
  read: (read, name) =>
    read.lines(name).flatMap((line) => {
      const found = attemptField(read, name, () => readCriterion(line, read.decimalMark))
      if (typeof found === 'string') read.refuse(name, found)
      return found && typeof found !== 'string' ? [found] : []
    }),
  begin: (record) => ((record as Decision | null)?.criteria ?? BEGUN).map(criterionText).join('\n'),
}

/** What a new decision is weighed by until somebody says otherwise. */
const BEGUN: readonly Criterion[] = (['cost', 'mass', 'hours'] as const).map((name) => ({ name, from: name, better: 'less', price: null, must: null }))

export const criterionText = ({ name, better, price, must }: Criterion): string =>
  [name, better, price === null ? '' : `price ${price}`, must === null ? '' : `must ${must}`].filter((part) => part !== '').join('; ')

export const decisionForm = ({ stages }: RecordsAnswer) =>
  makeForm(decisionKind.fields, [
    field('question', 'text', { label: 'The question', isWide: true }),
    field('stageId', 'choice', { label: 'For stage', words: Object.fromEntries(stages.map(({ id, position, name }) => [id, `${position} ${name}`])) }),
    field('dueOn', dayField('dueOn'), { label: 'To be decided by' }),
    field('criteria', criteria, {
      label: 'Weighed by, a line each: name; less or more; price; must',
      hint: 'cost, mass, hours and arrival come from parts, lines and jobs; any other number is typed. A price makes it count in money.',
      isWide: true,
    }),
    field('reason', 'note', { label: 'Why, once it is decided', isWide: true }),
    field('revisit', 'note', { label: 'What would open it again', isWide: true }),
  ])

/** Typed numbers of an option, a line each: criterion; number; spread. */
const values = (names: readonly string[]): OwnKind => ({
  type: 'textarea',
  read: (read: FormReader, name) =>
    read.lines(name).flatMap((line) => {
      const [of = '', number = '', spread = ''] = line.split(/\s*;\s*/)
      const known = names.find((each) => each.toLowerCase() === of.toLowerCase())
      if (!known) {
        read.refuse(name, `“${of}” is nothing this is weighed by; there is ${names.join(', ')}.`)
        return []
      }
      const value = attemptField(read, name, () => parseNumber(number, read.decimalMark, known))
      const sd = spread === '' ? null : attemptField(read, name, () => parseNumber(spread.replace(/^±\s*/, ''), read.decimalMark, known))
      return value === null ? [] : [{ of: known, value, sd }]
    }),
  begin: (record) => ((record as Option | null)?.values ?? []).map(({ of, value, sd }) => [of, value, ...(sd === null ? [] : [sd])].join('; ')).join('\n'),
})

const optionFields = (decisionKind.fields.options.unwrap().element as { readonly shape: Parameters<typeof makeForm>[0] }).shape

/** One of the options. */
export const optionForm = ({ parts, changes }: RecordsAnswer, decision: Decision) =>
  makeForm(optionFields, [
    field('name', 'text', { label: 'Option', isWide: true }),
    field('partIds', named('partIds', parts, 'part'), { label: 'Parts it takes', isWide: true }),
    field('changeIds', named('changeIds', changes, 'line'), { label: 'Ledger lines it does', isWide: true }),
    field('values', values(decision.criteria.map(({ name }) => name)), {
      label: 'Typed numbers, a line each: criterion; number; spread',
      hint: 'They stand before those of parts and lines.',
      isWide: true,
    }),
    field('pros', 'note', { label: 'For it' }),
    field('cons', 'note', { label: 'Against it' }),
  ])
