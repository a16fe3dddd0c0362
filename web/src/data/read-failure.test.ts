import { expect, test } from 'vitest'
import { readFailure } from './api.ts'

const problem = (status: number) => ({ type: 'about:blank', title: 'No', status, detail: 'The name is empty.', code: 'bad-input' })

test.each<[string, unknown, object]>([
  ['a refusal', { status: 422, data: problem(422) }, { isAway: false, message: 'The name is empty.', problem: { status: 422 } }],
  ['a conflict', { status: 409, data: problem(409) }, { isAway: false, problem: { status: 409 } }],
  ['a database that is away', { status: 503, data: problem(503) }, { isAway: true, problem: { status: 503 } }],
  ['no answer', { status: 'FETCH_ERROR', error: 'failed' }, { isAway: true, problem: null }],
  ['an answer too late', { status: 'TIMEOUT_ERROR', error: 'late' }, { isAway: true, problem: null }],
  ['an answer that was cut off', { status: 'PARSING_ERROR', originalStatus: 201, data: '{"id":"3' }, { isAway: true, problem: null }],
  ['a fault of our own', new TypeError('x is undefined'), { isAway: false, problem: null }],
  ['nothing', undefined, { isAway: false, problem: null }],
])('%s', (_, error, expected) => expect(readFailure(error)).toMatchObject(expected))
