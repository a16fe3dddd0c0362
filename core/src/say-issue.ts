import type { z } from './zod.ts'

type Issue = z.core.$ZodIssue

const TYPE_WORDS: Readonly<Record<string, string>> = {
  number: 'a number',
  int: 'a whole number',
  string: 'a text',
  boolean: 'true or false',
  array: 'a list',
  object: 'a group of fields',
  record: 'a group of fields',
  null: 'nothing',
}
const FORMAT_WORDS: Readonly<Record<string, string>> = {
  datetime: 'a time with its zone, such as 2026-06-14T10:00:00Z',
  date: 'a day, such as 2026-06-14',
  uuid: 'an id as this program makes them',
}

const size = (count: number | bigint, one: string, many: string) => `${count} ${Number(count) === 1 ? one : many}`

function tooSmall(issue: Extract<Issue, { code: 'too_small' }>): string {
  const { origin, minimum, inclusive } = issue
  if (origin === 'string') return Number(minimum) === 1 ? 'is empty. Type it.' : `is too short. Type at least ${size(minimum, 'letter', 'letters')}.`
  if (origin === 'array' || origin === 'set') return `holds too little. Give at least ${size(minimum, 'entry', 'entries')}.`
  return `is too small. It must be ${inclusive ? `${minimum} or more` : `more than ${minimum}`}.`
}

function tooBig(issue: Extract<Issue, { code: 'too_big' }>): string {
  const { origin, maximum, inclusive } = issue
  if (origin === 'string') return `is too long. Use at most ${size(maximum, 'letter', 'letters')}.`
  if (origin === 'array' || origin === 'set') return `holds too much. Give at most ${size(maximum, 'entry', 'entries')}.`
  return `is too large. It must be ${inclusive ? `${maximum} or less` : `less than ${maximum}`}.`
}

/**
 * What is wrong with a field, as the end of a sentence that begins with its name: what it must be, never the words of a schema.
 * @example sayIssue({ code: 'too_small', origin: 'number', minimum: 0, inclusive: false, path: [], message: '' }) // 'is too small. It must be more than 0.'
 */
export function sayIssue(issue: Issue): string {
  switch (issue.code) {
    case 'too_small':
      return tooSmall(issue)
    case 'too_big':
      return tooBig(issue)
    case 'invalid_type': {
      const wanted = TYPE_WORDS[issue.expected] ?? 'of another kind'
      return /received undefined$/.test(issue.message) ? `is missing. Give ${wanted}.` : `cannot be read. It must be ${wanted}.`
    }
    case 'invalid_value':
      return issue.values.length === 1
        ? `must be ${String(issue.values[0])}. Give it so.`
        : `is none of ${issue.values.map(String).join(', ')}. Give one of them.`
    case 'invalid_format':
      return `cannot be read. It must be ${FORMAT_WORDS[issue.format] ?? 'written as the documents say'}.`
    case 'unrecognized_keys':
      return 'is not a field here. Leave it out or correct its name.'
    case 'not_multiple_of':
      return `must be a multiple of ${issue.divisor}. Round it.`
    case 'invalid_union':
      return 'fits none of what may stand here. Give it as the documents say.'
    case 'custom':
      return issue.message
    default:
      return 'cannot be read. Give it as the documents say.'
  }
}

/**
 * The field that an issue is about, by its path; the unknown one where a field is not known here.
 * @example issueField({ code: 'unrecognized_keys', keys: ['colour'], path: ['parts', 0], message: '' }) // 'parts.0.colour'
 */
export const issueField = (issue: Issue): string => [...issue.path, ...(issue.code === 'unrecognized_keys' ? issue.keys.slice(0, 1) : [])].join('.')
