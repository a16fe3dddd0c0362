import { CalculationError } from '../../errors.ts'
import { dayAtEnd, readDay } from '../../jobs/read-day.ts'
import type { DecimalMark } from '../../units/parse-number.ts'
import { parseNumber } from '../../units/parse-number.ts'

/** Something that can be named in a line. */
export interface Named {
  readonly id: string
  readonly name: string
}

/** What a line may name, and what it leaves unsaid. */
export interface JobLineOptions {
  readonly today: string
  readonly mark: DecimalMark
  readonly hands: readonly Named[]
  readonly parts: readonly Named[]
  readonly jobs: readonly Named[]
  /** How many stages there are. */
  readonly stageCount: number
}

/** A job as it was typed. */
export interface ReadJob {
  readonly is: 'job'
  readonly name: string
  readonly kind: 'work' | 'wait'
  readonly amount: number
  readonly whoIds: readonly string[]
  readonly holds: string | null
  readonly partIds: readonly string[]
  readonly afterIds: readonly string[]
  readonly notBefore: string | null
  readonly isOptional: boolean
  /** Null: the picked one. */
  readonly stage: number | null
}

/** A part that comes on a day, or came. */
export interface ReadArrival {
  readonly is: 'arrival'
  readonly partId: string
  readonly name: string
  readonly on: string
}

export type ReadJobLine = ReadJob | ReadArrival

const SHAPE =
  'fit final drives 6 h Ilse+Tomas holds lift needs "final drives" after mounts @3, or: paint dries 2 days after floor, or: final drives come 14 Mar'
const AMOUNT = /(?:^|\s)(\d[\d.,]*)\s*(h|hrs?|hours?|min|minutes?|d|days?|weeks?)(?=\s|$)/i
const CLAUSE = /\s+(holds|needs|after|not before|from)\s+/i
const MOST_H = 2000
const MOST_DAYS = 400

const sameName = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase()

/** The one of a list that words name: by its whole name, else by the only name that begins with them or holds them. */
function find(list: readonly Named[], words: string, what: string, field: string): Named {
  const clean = words.replace(/^["“]|["”]$/g, '').trim()
  const exact = list.find(({ name }) => sameName(name, clean))
  if (exact) return exact
  const lower = clean.toLowerCase()
  const near = list.filter(({ name }) => name.toLowerCase().includes(lower))
  const [only] = near
  if (only && near.length === 1) return only
  if (near.length > 1) throw new CalculationError('ambiguous', field, `“${clean}” is ${near.map(({ name }) => name).join(' or ')}. Type more of the name.`)
  throw new CalculationError(
    'unknown',
    field,
    `There is no ${what} called “${clean}”${
      list.length === 0
        ? ''
        : `; there is ${list
            .slice(0, 5)
            .map(({ name }) => name)
            .join(', ')}`
    }.`,
  )
}

const listed = (text: string): string[] => text.split(/\s*(?:,|;|\+|\band\b)\s*/i).filter((part) => part !== '')

/** Hours or days; what is more than any job takes is refused with what it may have meant. */
function readAmount(found: RegExpExecArray, mark: DecimalMark): { readonly kind: 'work' | 'wait'; readonly amount: number } {
  const [, number = '', unit = ''] = found
  const isWait = /^[dw]/i.test(unit)
  const factor = /^w/i.test(unit) ? 7 : /^m/i.test(unit) ? 1 / 60 : 1
  const amount = parseNumber(number, mark, isWait ? 'days' : 'hours') * factor
  const [most, word] = isWait ? [MOST_DAYS, 'days'] : [MOST_H, 'h']
  if (!(amount > 0)) throw new CalculationError('out-of-range', 'amount', `${number} ${unit} is no time. Type how long it takes; a guess will do.`)
  if (amount > most)
    throw new CalculationError('implausible', 'amount', `${number} ${unit} is more than any job takes (${most} ${word}). Check the decimal mark.`)
  return { kind: isWait ? 'wait' : 'work', amount }
}

/** The hands named at the head of what stands behind the amount, and the rest of it. */
function readHands(text: string, hands: readonly Named[]): { readonly whoIds: string[]; readonly rest: string } {
  const [, head = '', rest = ''] = /^(.*?)(?=\s+(?:holds|needs|after|not before|from)\b|$)(.*)$/is.exec(` ${text.trim()}`) ?? []
  if (/^(anyone|nobody|whoever)?$/i.test(head.trim())) return { whoIds: [], rest }
  return { whoIds: [...new Set(listed(head).map((word) => find(hands, word, 'hand', 'who').id))], rest }
}

/** What the clauses behind the hands say. */
function readClauses(text: string, options: JobLineOptions): Pick<ReadJob, 'holds' | 'partIds' | 'afterIds' | 'notBefore'> {
  const pieces = ` ${text.trim()}`.split(CLAUSE)
  const left = (pieces[0] ?? '').trim()
  if (left !== '') throw new CalculationError('unreadable', 'line', `“${left}” was not understood. A line is: ${SHAPE}.`)
  let found: Pick<ReadJob, 'holds' | 'partIds' | 'afterIds' | 'notBefore'> = { holds: null, partIds: [], afterIds: [], notBefore: null }
  for (let i = 1; i < pieces.length; i += 2) {
    const [word, value] = [(pieces[i] as string).toLowerCase(), (pieces[i + 1] ?? '').trim()]
    if (value === '') throw new CalculationError('missing', 'line', `Nothing stands behind “${word}”.`)
    if (word === 'holds') found = { ...found, holds: value }
    else if (word === 'needs') found = { ...found, partIds: listed(value).map((name) => find(options.parts, name, 'part', 'needs').id) }
    else if (word === 'after') found = { ...found, afterIds: listed(value).map((name) => find(options.jobs, name, 'open job', 'after').id) }
    else found = { ...found, notBefore: readDay(value, options.today, 'notBefore') }
  }
  return found
}

/** "final drives come 14 Mar", "cooler came". */
function readArrival(text: string, { parts, today }: JobLineOptions): ReadArrival | null {
  const end = dayAtEnd(text)
  const body = end?.before ?? text.trim()
  const said = /^(.+?)\s+(?:comes?|came|arrives?|arrived|is here|are here)(?:\s+on)?$/i.exec(body)
  if (!said || (!end && !/(came|arrived|here)$/i.test(body))) return null
  const part = find(parts, said[1] as string, 'part', 'part')
  return { is: 'arrival', partId: part.id, name: part.name, on: end ? readDay(end.day, today) : today }
}

/**
 * Reads one line of the Jobs room: a job (`NAME AMOUNT h|days [HANDS] [holds THING] [needs PART] [after JOB] [not before DAY] [optional] [@STAGE]`), or a part
 * that comes or came (`PART come DAY`). Nothing that was typed is dropped: what is not understood is refused with the shape of a line.
 * Errors: `missing` (an amount, a name), `unknown` and `ambiguous` names, `implausible` amounts, and what readDay refuses.
 * @example readJobLine('paint dries 2 days', { today: '2027-03-01', mark: '.', hands: [], parts: [], jobs: [], stageCount: 4 }).kind // 'wait'
 */
export function readJobLine(text: string, options: JobLineOptions): ReadJobLine {
  const arrival = readArrival(text, options)
  if (arrival) return arrival
  const { body, stage } = readStage(text, options.stageCount)
  const isOptional = /\soptional(\s|$)/i.test(body)
  const plain = body.replace(/\s+optional(?=\s|$)/i, '')
  const amount = AMOUNT.exec(plain)
  if (!amount) throw new CalculationError('missing', 'amount', `Say how long it takes: 6 h, or 2 days; a guess will do. A line is: ${SHAPE}.`)
  const name = plain.slice(0, amount.index).trim()
  if (name === '') throw new CalculationError('missing', 'name', `The job has no name. A line is: ${SHAPE}.`)
  const { whoIds, rest } = readHands(plain.slice(amount.index + amount[0].length), options.hands)
  const read = readAmount(amount, options.mark)
  if (read.kind === 'wait' && whoIds.length > 0)
    throw new CalculationError('inconsistent', 'who', 'A wait in days takes nobody’s hours. Leave the hands out, or type hours.')
  return { is: 'job', name: name.charAt(0).toUpperCase() + name.slice(1), ...read, whoIds, ...readClauses(rest, options), isOptional, stage }
}

function readStage(text: string, stageCount: number): { readonly body: string; readonly stage: number | null } {
  const found = /(?:^|\s)@(\d+)\s*$/.exec(text)
  if (!found) return { body: text.trim(), stage: null }
  const stage = Number(found[1])
  if (stage >= stageCount) throw new CalculationError('out-of-range', 'stage', `There is no stage ${stage}; the last is ${stageCount - 1}.`)
  return { body: text.slice(0, found.index).trim(), stage }
}
