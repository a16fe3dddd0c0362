import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { joinAs, makeOwner, type Signed, TestBrowser } from '../../test/people.ts'
import { buildBody, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
let owner: Signed & { garageId: string }
const build = buildBody()
const buildId = build.id
beforeAll(async () => {
  server = await startTestServer()
  const open = new TestBrowser(server)
  await open.call('POST', '/api/builds', build, { 'x-person': 'Ilse' })
  await open.call('POST', `/api/builds/${buildId}/zones`, { id: randomUUID(), name: 'nose' }, { 'x-person': 'Tom' })
  owner = await makeOwner(server)
})
afterAll(() => server.stop())

describe('names of old lines', () => {
  it('become a person’s by a claim that an owner agrees to, and the lines stay as they are', async () => {
    const claims = () => owner.browser.call('GET', `/api/garages/${owner.garageId}/claims`)
    expect((await claims()).body).toEqual(expect.arrayContaining([expect.objectContaining({ name: 'Tom', lineCount: 1, claim: null })]))
    const { id } = await joinAs(server, owner, 'Tomas', { role: 'crew' })
    const before = await server.knex('history').where({ by: 'Tom' }).first()
    expect((await owner.browser.call('POST', `/api/garages/${owner.garageId}/claims`, { name: 'Tom', personId: id })).status).toBe(201)
    const { entries } = (await owner.browser.call('GET', `/api/builds/${buildId}/log?limit=200`)).body
    expect(entries.map(({ by }: { by: string }) => by)).toContain('Tomas')
    expect(entries.map(({ by }: { by: string }) => by)).not.toContain('Tom')
    expect(await server.knex('history').where({ by: 'Tom' }).first()).toEqual(before)
    const claim = (await claims()).body.find(({ name }: { name: string }) => name === 'Tom').claim.id
    expect((await owner.browser.call('DELETE', `/api/garages/${owner.garageId}/claims/${claim}`, {})).status).toBe(200)
  })
})
