import type { RecordsAnswer } from '@bold-ballast/contract'
import { circuitKind, powerBoxKind, supplySchema } from '@bold-ballast/core'
import { choiceOrNone } from '../../../shared/fields/own-fields.ts'
import { field, makeForm, type OwnKind } from '../../../ui/forms/form-fields.ts'

type Ends = RecordsAnswer['circuits'][number]['ends']

/** Ends of a wire, a line each: connector; pin; colour; splice. */
const ends: OwnKind = {
  type: 'textarea',
  read: (read, name) =>
    read.lines(name).map((line) => {
      const [connector = '', pin, colour, splice] = line.split(/\s*;\s*/)
      return { connector, pin: pin || null, colour: colour || null, splice: splice || null }
    }),
  begin: (record) =>
    ((record as { ends?: Ends } | null)?.ends ?? [])
      .map(({ connector, pin, colour, splice }) => [connector, pin ?? '', colour ?? '', splice ?? ''].join('; ').replace(/(; )+$/, ''))
      .join('\n'),
}

/** A circuit as a form. */
export const circuitForm = ({ stages }: RecordsAnswer) =>
  makeForm(circuitKind.fields, [
    field('name', 'text', { label: 'Circuit', isWide: true }),
    field('kind', 'choice', { label: 'Kind', words: { power: 'power', signal: 'signal' } }),
    field('currentA', 'current', { label: 'Draws' }),
    field('sdA', 'current', { label: 'Give or take' }),
    field('known', 'choice', { label: 'Known by', words: { guess: 'a guess', catalogue: 'a catalogue', measured: 'a clamp' } }),
    field('startFactor', 'number', { label: 'Starts with, times', hint: 'Motors and lamps about 3 (common practice, no source).' }),
    field('duty', 'share', { label: 'Runs, of the time' }),
    field('group', 'note', { label: 'Switched together as' }),
    field('isVital', 'checkbox', { label: 'The car stops without it' }),
    field('behindKill', 'checkbox', { label: 'The main switch cuts it' }),
    field('lengthM', 'distance', { label: 'Wire, one way' }),
    field('return', 'choice', { label: 'Back by', words: { wire: 'a wire', chassis: 'the chassis' } }),
    field('jointOhm', 'number', { label: 'Joints, Ω' }),
    field('areaMm2', 'number', { label: 'Wire as laid, mm²', hint: 'Empty: the least that does.' }),
    field('temperatureK', 'temperature', { label: 'Warm to' }),
    field('dropShare', 'share', { label: 'May lose', hint: 'Of the volts: 3 % power, 1 % signals (common practice, no source).' }),
    field('stageId', choiceOrNone('stageId'), {
      label: 'From stage',
      words: { '': 'always', ...Object.fromEntries(stages.map(({ id, name }) => [id, name])) },
    }),
    field('output', 'note', { label: 'On output' }),
    field('isPinned', 'checkbox', { label: 'Stays on it' }),
    field('ends', ends, { label: 'Ends, a line each: connector; pin; colour; splice', isWide: true }),
    field('note', 'note', { label: 'Note', isWide: true }),
  ])

type Outputs = RecordsAnswer['powerBoxes'][number]['outputs']

/** Outputs, a line each: "O1 30 trip 19", or several at once: "4 x 20". */
const outputs: OwnKind = {
  type: 'textarea',
  read: (read, name) => {
    let count = 0
    return read.lines(name).flatMap((line): Outputs => {
      const many = /^(\d+)\s*x\s*([\d.,]+)(?:\s*A)?$/i.exec(line)
      if (many) {
        const each = Number((many[2] as string).replace(',', '.'))
        return Array.from({ length: Math.min(64, Number(many[1])) }, () => {
          count += 1
          return { key: `O${count}`, ratedA: each, tripA: null }
        })
      }
      const [, key = '', rated = '', trip] = /^(\S+)\s+([\d.,]+)(?:\s*A)?(?:\s+trip\s+([\d.,]+)(?:\s*A)?)?$/i.exec(line) ?? []
      if (key === '') {
        read.refuse(name, `“${line}” is no output. Type O1 30 trip 19, or 4 x 20.`)
        return []
      }
      count += 1
      return [{ key, ratedA: Number(rated.replace(',', '.')), tripA: trip ? Number(trip.replace(',', '.')) : null }]
    })
  },
  begin: (record) =>
    ((record as { outputs?: Outputs } | null)?.outputs ?? [])
      .map(({ key, ratedA, tripA }) => `${key} ${ratedA}${tripA === null ? '' : ` trip ${tripA}`}`)
      .join('\n'),
}

/** How many of a rating stay free: "1 x 20, 1 x 10". */
const keepFree: OwnKind = {
  read: (read, name) =>
    read
      .raw(name)
      .split(/\s*[,;]\s*/)
      .filter((part) => part !== '')
      .flatMap((part) => {
        const [, count = '', rated = ''] = /^(\d+)\s*x\s*([\d.]+)(?:\s*A)?$/i.exec(part) ?? []
        if (count === '') read.refuse(name, `“${part}” says not how many stay free. Type 1 x 20.`)
        return count === '' ? [] : [{ count: Number(count), ratedA: Number(rated) }]
      }),
  begin: (record) =>
    ((record as { keepFree?: { count: number; ratedA: number }[] } | null)?.keepFree ?? []).map(({ count, ratedA }) => `${count} x ${ratedA}`).join(', '),
}

/** A power box as a form. */
export const boxForm = () =>
  makeForm(powerBoxKind.fields, [
    field('name', 'text', { label: 'Box', isWide: true }),
    field('outputs', outputs, { label: 'Outputs, a line each: O1 30 trip 19; or 4 x 20', isWide: true }),
    field('loadShare', 'share', { label: 'Carries for good', begin: 0.8, hint: 'Of its rating (80 %, common practice, no source).' }),
    field('peakShare', 'number', { label: 'Carries for a start, times its rating', hint: 'From its manual. Empty: starts are not checked.' }),
    field('totalA', 'current', { label: 'All together at the most' }),
    field('systemV', 'voltage', { label: 'Volts', begin: 13.8 }),
    field('keepFree', keepFree, { label: 'Stay free', hint: '1 x 20' }),
    field('vitalAlone', 'checkbox', { label: 'A vital circuit has its output alone', begin: true }),
  ])

/** Alternator and battery, as fields of the build. */
export const supplyForm = () =>
  makeForm({ supply: supplySchema.nullish() }, [
    field('supply.alternatorA', 'current', { label: 'Alternator' }),
    field('supply.batteryAh', 'number', { label: 'Battery, Ah' }),
    field('supply.hotShare', 'share', { label: 'Gives when hot', begin: 0.75, hint: '75 % (common practice, no source)' }),
    field('supply.idleShare', 'share', { label: 'Gives at idle', begin: 0.5, hint: '50 % (common practice, no source)' }),
    field('supply.usable', 'share', { label: 'Of the battery usable', begin: 0.8 }),
    field('supply.efficiency', 'share', { label: 'Efficiency', begin: 0.55 }),
  ])
