import { randomUUID } from 'node:crypto'
import http from 'node:http'
import type { LiveEvent } from '@bold-ballast/contract'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { joinAs, makeOwner, otherGarage, type Signed, TestBrowser } from '../../test/people.ts'
import { buildBody, startTestServer, type TestServer } from '../../test/test-server.ts'
import { until } from '../../test/until.ts'

let server: TestServer
let owner: Signed & { garageId: string }
let buildId = ''
let foreignId = ''
beforeAll(async () => {
  server = await startTestServer()
  owner = await makeOwner(server)
  buildId = buildBody().id
  await owner.browser.call('POST', '/api/builds', buildBody(buildId))
  const other = await otherGarage(server, 'Petra')
  foreignId = buildBody().id
  await other.browser.call('POST', '/api/builds', buildBody(foreignId))
})
afterAll(() => server.stop())

interface Stream {
  readonly events: LiveEvent[]
  readonly ids: string[]
  readonly isOver: () => boolean
  readonly close: () => void
}

/** Reads a stream as the text on server-sent events has it: fields by line, an event by an empty one. */
function listen(browser: TestBrowser, builds: readonly string[], lastEventId?: string): Promise<Stream> {
  const events: LiveEvent[] = []
  const ids: string[] = []
  let isOver = false
  return new Promise((resolve, reject) => {
    const headers = { cookie: browser.cookie, ...(lastEventId ? { 'last-event-id': lastEventId } : {}) }
    const request = http.get({ host: '127.0.0.1', port: server.port, path: `/api/live?builds=${builds.join(',')}`, headers, agent: false }, (response) => {
      let text = ''
      response.on('data', (chunk: Buffer) => {
        text += chunk.toString('utf8')
        const blocks = text.split('\n\n')
        text = blocks.pop() ?? ''
        for (const line of blocks.flatMap((block) => block.split('\n'))) {
          if (line.startsWith('data: ')) events.push(JSON.parse(line.slice(6)) as LiveEvent)
          if (line.startsWith('id: ')) ids.push(line.slice(4))
        }
      })
      response.on('close', () => {
        isOver = true
      })
      if (response.statusCode !== 200) reject(new Error(`${response.statusCode}`))
      resolve({ events, ids, isOver: () => isOver, close: () => request.destroy() })
    })
    request.on('error', (error) => (isOver ? undefined : reject(error)))
  })
}

const of = <Type extends LiveEvent['type']>({ events }: Stream, type: Type) =>
  events.filter((event): event is Extract<LiveEvent, { type: Type }> => event.type === type)
const write = async (browser: TestBrowser) => {
  const answer = await browser.call('POST', `/api/builds/${buildId}/zones`, { id: randomUUID(), name: `nose ${randomUUID()}` })
  expect(answer.status, answer.text).toBe(201)
  return Number(answer.headers['x-log-entry'])
}

describe('a stream', () => {
  it('tells what others write, with the line of the log and who, and what was missed to one who comes back', async () => {
    const tomas = await joinAs(server, owner, 'Tomas', { role: 'crew' })
    const stream = await listen(owner.browser, [buildId])
    await until(() => of(stream, 'here').length > 0)
    const entryId = await write(tomas.browser)
    await until(() => of(stream, 'changed').some((event) => event.entryId === entryId))
    expect(of(stream, 'changed').at(-1)).toEqual({ type: 'changed', buildId, entryId, personId: tomas.id, isFirst: false })
    stream.close()
    const last = stream.ids.at(-1) as string
    expect(Number(last)).toBe(entryId)
    const missed = await write(tomas.browser)
    const back = await listen(owner.browser, [buildId], last)
    await until(() => of(back, 'changed').length > 0)
    expect(of(back, 'changed')[0]).toMatchObject({ entryId: missed, isFirst: false })
    const again = await listen(owner.browser, [buildId], String(missed))
    await until(() => of(again, 'here').length > 0)
    expect(of(again, 'changed')).toEqual([])
    for (const each of [back, again]) each.close()
  })
  it('tells nothing of a build that one may not see', async () => {
    const stream = await listen(owner.browser, [buildId, foreignId])
    await until(() => of(stream, 'here').length > 0)
    expect(JSON.stringify(stream.events.filter((event) => event.type !== 'role'))).not.toContain(foreignId)
    stream.close()
  })
  it('hears of a role within a moment, and ends when the person is signed out everywhere', async () => {
    const maro = await joinAs(server, owner, 'Maro', { role: 'crew', buildId })
    const stream = await listen(maro.browser, [buildId])
    await until(() => of(stream, 'role').some(({ role }) => role === 'crew'))
    const people = (await owner.browser.call('GET', `/api/garages/${owner.garageId}/people`)).body
    const { membershipId } = people.find(({ id }: { id: string }) => id === maro.id).memberships[0]
    await owner.browser.call('PATCH', `/api/garages/${owner.garageId}/memberships/${membershipId}`, { role: 'viewer' })
    await until(() => of(stream, 'role').some(({ role }) => role === 'viewer'))
    await owner.browser.call('DELETE', `/api/garages/${owner.garageId}/memberships/${membershipId}`, {})
    await until(() => of(stream, 'role').some(({ role }) => role === null))
    await maro.browser.call('POST', '/api/sign-out-everywhere', {})
    await until(() => stream.isOver())
    expect(stream.events.at(-1)).toEqual({ type: 'bye' })
  })
  it('is for those who are signed in', async () => {
    await expect(listen(new TestBrowser(server), [buildId])).rejects.toThrow('401')
  })
  it('tells of a gap: after the database was cut off, that pages read again', async () => {
    const stream = await listen(owner.browser, [buildId])
    await until(() => of(stream, 'here').length > 0)
    const before = stream.events.length
    await server.knex.raw("SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() AND query ILIKE 'LISTEN%'")
    await until(() => stream.events.slice(before).some((event) => event.type === 'changed'))
    const entryId = await write(owner.browser)
    await until(() => of(stream, 'changed').some((event) => event.entryId === entryId))
    stream.close()
  })
})

describe('who is where', () => {
  it('is told to the others, each once, and is over after a minute', async () => {
    const pia = await joinAs(server, owner, 'Pia', { role: 'viewer' })
    const stream = await listen(owner.browser, [buildId])
    const beat = (browser: TestBrowser, room: string, page = randomUUID()) => browser.call('PUT', `/api/builds/${buildId}/here`, { page, room, recordId: null })
    expect((await beat(pia.browser, 'board')).status).toBe(200)
    await beat(pia.browser, 'weight')
    await until(() => of(stream, 'here').at(-1)?.people[0]?.room === 'weight')
    expect(of(stream, 'here').at(-1)?.people).toEqual([{ personId: pia.id, name: 'Pia', room: 'weight', recordId: null }])
    await server.knex('presence').update({ at: new Date(Date.now() - 61_000) })
    await beat(owner.browser, 'log')
    await until(() => of(stream, 'here').at(-1)?.people[0]?.name === 'Ilse')
    expect(of(stream, 'here').at(-1)?.people).toHaveLength(1)
    stream.close()
  })
})
