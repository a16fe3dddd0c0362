import type { RecordsAnswer } from '@bold-ballast/contract'
import { type BookRule, METRIC_INFO, METRICS, type Metric, type RuleAverage, ruleFields } from '@bold-ballast/core'
import { choiceOrNone, named, plainText } from '../../../shared/fields/own-fields.ts'
import { averageText } from '../../../shared/rules/rule-words.ts'
import { field, makeForm, type OwnKind } from '../../../ui/forms/form-fields.ts'
import type { FormReader } from '../../../ui/forms/form-reader.ts'
import { typedText } from '../../../ui/quantity.ts'

export const SENSE_WORDS: Readonly<Record<BookRule['sense'], string>> = {
  atMost: 'at most',
  atLeast: 'at least',
  between: 'between',
  must: 'must be kept, in words',
  mustNot: 'forbids, in words',
}

const metricOf = (read: FormReader): Metric | null => (read.optional('metric') as Metric | null) ?? null

/** A number of the metric that the rule is about, in its own unit. */
const ofMetric = (path: 'value' | 'highValue', label: string): OwnKind => ({
  read: (read, name) => {
    const metric = metricOf(read)
    const raw = read.raw(name)
    if (raw === '' || !metric) return null
    return read.typedQuantity(name, raw, METRIC_INFO[metric].kind, label)?.value ?? null
  },
  begin: (record, units) => {
    const rule = record as BookRule | null
    const value = rule?.[path]
    if (!rule?.metric || value === null || value === undefined) return ''
    const { kind } = METRIC_INFO[rule.metric]
    return typedText(kind, value, units[kind] ?? '')
  },
})

const numbers = (text: string): number[] =>
  text
    .split(/[\s,;]+/)
    .filter((word) => word !== '')
    .map(Number)

const PULLS = /\s+(best|median)(?:\s+pull)?$/i

/** "peak -500 0 500", "at 8000: -500 0 500", "6000 to 7000"; "weights 1 2 1" behind points, "best pull" or "median pull" at the end. Null where it is none of them. */
export function readAverage(typed: string): RuleAverage | null {
  const pulls = (PULLS.exec(typed)?.[1]?.toLowerCase() ?? 'mean') as RuleAverage['pulls']
  const text = typed.replace(PULLS, '')
  const none = { around: 'peak' as const, speedRpm: null, offsetsRpm: [], weights: [], fromRpm: null, toRpm: null, pulls }
  const range = /^(\d+)\s*(?:to|-|–)\s*(\d+)(?:\s*rpm)?$/.exec(text)
  if (range) return { ...none, fromRpm: Number(range[1]), toRpm: Number(range[2]) }
  const [, at, points = '', weights = ''] = /^(?:peak|at\s+(\d+))\s*:?\s*([-−\d\s,]+?)(?:\s*rpm)?(?:\s+weights\s+([\d.\s,]+))?$/i.exec(text) ?? []
  const offsetsRpm = numbers(points.replaceAll('−', '-'))
  if (offsetsRpm.length === 0 || offsetsRpm.some(Number.isNaN)) return null
  return { ...none, around: at ? 'speed' : 'peak', speedRpm: at ? Number(at) : null, offsetsRpm, weights: numbers(weights) }
}

const average: OwnKind = {
  read: (read, name) => {
    const raw = read.raw(name)
    if (raw === '') return null
    const found = readAverage(raw)
    if (!found)
      read.refuse(
        name,
        `“${raw}” is no way to average. Type it like peak -500 0 500, at 8000: -500 0 500, or 6000 to 7000; best pull behind it where the best counts.`,
      )
    return found
  },
  begin: (record) => {
    const own = (record as BookRule | null)?.average
    return own ? averageText(own) : ''
  },
}

/** Modifiers, a line each: name; kg/kW; off where it does not apply. */
const modifiers: OwnKind = {
  type: 'textarea',
  read: (read, name) =>
    read.lines(name).flatMap((line) => {
      const [word = '', amount = '', applies = ''] = line.split(/\s*;\s*/)
      const found = read.typedQuantity(name, amount, 'massToPower', 'A modifier', 'kg/kW')
      if (word === '') read.refuse(name, `“${line}” has no name. Type name; kg/kW, such as slick tyres; -0.2.`)
      return found && word !== '' ? [{ name: word, kgPerW: found.value, applies: applies.toLowerCase() !== 'off' }] : []
    }),
  begin: (record) =>
    ((record as BookRule | null)?.modifiers ?? [])
      .map(({ name, kgPerW, applies }) => `${name}; ${Number((1000 * kgPerW).toPrecision(6))}${applies ? '' : '; off'}`)
      .join('\n'),
}

/** What the rule counts in the car; nothing for a rule that says neither. */
const fuel: OwnKind = {
  read: (read, name) => (read.raw(name) === '' ? null : (read.typedQuantity(name, read.raw(name), 'volume', 'Fuel in it')?.value ?? null)),
  begin: (record, units) => {
    const litres = (record as BookRule | null)?.basis?.fuelL
    return litres === null || litres === undefined ? '' : typedText('volume', litres, units.volume ?? 'L')
  },
}

/** How far off noise is measured. */
const distance: OwnKind = {
  read: (read, name) => (read.raw(name) === '' ? null : (read.typedQuantity(name, read.raw(name), 'distance', 'How far off', 'm')?.value ?? null)),
  begin: (record) => {
    const metres = (record as BookRule | null)?.basis?.atM
    return metres === null || metres === undefined ? '' : typedText('distance', metres, 'm')
  },
}

/** One rule of a book. */
export const ruleForm = (records: RecordsAnswer) =>
  makeForm(ruleFields, [
    field('text', 'text', { label: 'The rule, in your words', isWide: true }),
    field('key', 'text', { label: 'Short name', hint: 'The same in two books where they speak of the same thing: mass, ratio, diffuser.' }),
    field('from', plainText('from'), { label: 'Where it stands', hint: 'Such as 4.2, p. 11.' }),
    field('metric', choiceOrNone('metric'), {
      label: 'It is about',
      words: { '': 'something in words', ...Object.fromEntries(METRICS.map((metric) => [metric, METRIC_INFO[metric].word])) },
    }),
    field('sense', 'choice', { label: 'It says', words: SENSE_WORDS }),
    field('value', ofMetric('value', 'The number'), { label: 'Number' }),
    field('highValue', ofMetric('highValue', 'The upper number'), { label: 'Upper number', hint: 'Only for “between”.' }),
    field('basis.driverIn', 'checkbox', { label: 'The driver counts', section: 'How it is counted', begin: true }),
    field('basis.fuelL', fuel, { label: 'Fuel in it', hint: 'Empty: as it comes in.' }),
    field('basis.atM', distance, { label: 'How far off noise is read', hint: 'Empty: 0.5 m.' }),
    field('average', average, {
      label: 'Power is averaged',
      hint: 'peak -500 0 500; at 8000: -500 0 500; 6000 to 7000; behind it best pull or median pull, else their mean. Empty: the peak.',
    }),
    field('roundStep', 'number', { label: 'Rounded to', hint: 'In the unit the rule is stored in; against the car.' }),
    field('modifiers', modifiers, { label: 'Modifiers, a line each: name; kg/kW', isWide: true }),
    field('blocks', named('blocks', [...records.changes, ...records.parts], 'line or part'), { label: 'Forbids these lines and parts', isWide: true }),
  ])
