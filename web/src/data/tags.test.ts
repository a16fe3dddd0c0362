import { afterEach, beforeEach, expect, it, vi } from 'vitest'
import { api } from './api.ts'
import { store } from './store.ts'

const LISTS = { changes: [], photos: [], limits: [], sessions: [], lifts: [] }
const answers: Record<string, unknown> = { 'builds/b/records': LISTS }
let asked: string[]

beforeEach(() => {
  asked = []
  vi.stubGlobal('fetch', async (request: Request) => {
    const route = new URL(request.url, 'http://here').pathname.replace('/api/', '')
    asked.push(`${request.method} ${route}`)
    return new Response(JSON.stringify(answers[route] ?? {}), { headers: { 'content-type': 'application/json' } })
  })
  vi.stubGlobal(
    'Request',
    class extends Request {
      constructor(input: RequestInfo | URL, init?: RequestInit) {
        super(typeof input === 'string' ? new URL(input, 'http://here') : input, init)
      }
    },
  )
})
afterEach(() => {
  store.dispatch(api.util.resetApiState())
  vi.unstubAllGlobals()
})

const settled = () => vi.waitFor(() => expect(Object.values(store.getState().api.queries).every((query) => query?.status === 'fulfilled')).toBe(true))

/** Which answers are read again after a write. */
async function readAgain(write: () => Promise<unknown>): Promise<string[]> {
  await settled()
  asked = []
  await write()
  await new Promise((resolve) => setTimeout(resolve, 20))
  await settled()
  return asked
    .filter((entry) => entry.startsWith('GET'))
    .map((entry) => entry.slice(4))
    .sort()
}
const open = (id: string) => {
  const { records, board, weight, power } = api.endpoints
  void store.dispatch(records.initiate(id))
  void store.dispatch(board.initiate(id))
  void store.dispatch(weight.initiate(id))
  void store.dispatch(power.initiate(id))
}
const create = (buildId: string, resource: 'changes' | 'photos' | 'limits' | 'sessions' | 'lifts') => () =>
  store.dispatch(api.endpoints.createRecord.initiate({ buildId, resource, body: {} }))

it.each([
  ['photos', ['builds/b/records']],
  ['limits', ['builds/b/board', 'builds/b/records']],
  ['lifts', ['builds/b/board', 'builds/b/records', 'builds/b/weight']],
  ['sessions', ['builds/b/board', 'builds/b/power', 'builds/b/records']],
  ['changes', ['builds/b/board', 'builds/b/power', 'builds/b/records', 'builds/b/weight']],
] as const)('a new record of %s makes only those answers be read again that read it', async (resource, expected) => {
  open('b')
  expect(await readAgain(create('b', resource))).toEqual(expected)
})

it('a write to another build leaves this one alone, unless this one learns from the garage', async () => {
  open('b')
  expect(await readAgain(create('other', 'changes'))).toEqual([])
  answers['builds/learner/records'] = { ...LISTS, build: { guessPairsFrom: 'garage' } }
  open('learner')
  expect(await readAgain(create('other', 'changes'))).toEqual(['board', 'power', 'records', 'weight'].map((name) => `builds/learner/${name}`))
})

it('what is deleted may take others along: everything of the build is read again', async () => {
  open('b')
  const remove = () => store.dispatch(api.endpoints.removeRecord.initiate({ buildId: 'b', resource: 'photos', id: 'p', version: 1 }))
  expect(await readAgain(remove)).toEqual(['board', 'power', 'records', 'weight'].map((name) => `builds/b/${name}`))
})
