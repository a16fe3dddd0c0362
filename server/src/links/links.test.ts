import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { joinAs, makeOwner, type Signed, TestBrowser } from '../../test/people.ts'
import { buildBody, changeBody, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
let owner: Signed & { garageId: string }
let path = ''
let stages: { id: string; position: number; name: string }[] = []
beforeAll(async () => {
  server = await startTestServer()
  owner = await makeOwner(server)
  const build = { ...buildBody(), name: 'Plover', baselineMass: { massKg: 1300, sdKg: null, proof: 'catalogue', typed: '1300 kg' } }
  await owner.browser.call('POST', '/api/builds', build)
  path = `/api/builds/${build.id}`
  await owner.browser.call('POST', `${path}/stages`, { id: randomUUID(), position: 1, name: 'Strip', note: 'a secret note' })
  stages = (await owner.browser.call('GET', `${path}/stages`)).body
  await owner.browser.call('POST', `${path}/changes`, { ...changeBody(stages[1]?.id as string), name: 'a bench nobody is told of', cost: 731 })
  await owner.browser.call('POST', `${path}/targets`, { id: randomUUID(), metric: 'massReady', sense: 'atMost', value: 1270 })
})
afterAll(() => server.stop())

const make = async (body: object = {}) =>
  (await owner.browser.call('POST', `${path}/links`, body)).body as { id: string; token: string; expiresAt: string | null }
const show = (token: string) => new TestBrowser(server).call('GET', '/api/shared', undefined, { 'x-link': token })
const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-/

describe('a share link', () => {
  it('shows the Board with numbers, spreads, proofs and verdicts, and no id, person, note or part', async () => {
    const { token } = await make()
    const answer = await show(token)
    expect(answer.status, answer.text).toBe(200)
    expect(answer.body).toMatchObject({ buildName: 'Plover', position: null, stages: [{ name: 'As bought' }, { name: 'Strip' }] })
    const mass = answer.body.rows.find(({ metric }: { metric: string }) => metric === 'massReady')
    expect(mass.goal).toMatchObject({ kind: 'target', sense: 'atMost', value: 1270, word: expect.any(String) })
    expect(mass.cells[1]).toMatchObject({ value: expect.any(Number), sd: expect.any(Number), proof: expect.any(String) })
    for (const hidden of [UUID, /Ilse/, /secret note/, /bench/, /731/, /moneyToStage/]) expect(answer.text).not.toMatch(hidden)
    expect(answer.headers).toMatchObject({ 'x-robots-tag': 'noindex', 'cache-control': 'no-store', 'referrer-policy': 'no-referrer' })
  })
  it('of one stage shows that stage’s goals, and is counted', async () => {
    const { id, token } = await make({ stageId: stages[1]?.id })
    expect((await show(token)).body.position).toBe(1)
    await show(token)
    const links = (await owner.browser.call('GET', `${path}/links`)).body as { id: string; opens: number; stageName: string }[]
    expect(links.find((link) => link.id === id)).toMatchObject({ opens: 2, stageName: 'Strip' })
    expect(JSON.stringify(links)).not.toContain(token)
  })
  it('ends: withdrawn, too old, of a deleted build, or never made, told alike', async () => {
    const [withdrawn, old] = [await make(), await make()]
    await owner.browser.call('DELETE', `${path}/links/${withdrawn.id}`, {})
    await server
      .knex('shareLinks')
      .where({ id: old.id })
      .update({ expiresAt: new Date(Date.now() - 1000) })
    const said = await Promise.all([withdrawn.token, old.token, 'never-made-at-all-by-anybody'].map(show))
    expect(said.map(({ status }) => status)).toEqual([410, 410, 410])
    expect(new Set(said.map(({ text }) => text)).size).toBe(1)
  })
  it('is made by owners alone, and lasts a month where nothing is said', async () => {
    const crew = await joinAs(server, owner, 'Tomas', { role: 'crew' })
    expect((await crew.browser.call('POST', `${path}/links`, {})).body).toMatchObject({ code: 'may-not' })
    const days = (Date.parse((await make()).expiresAt as string) - Date.now()) / 86_400_000
    expect(days).toBeCloseTo(30, 2)
    expect((await make({ days: null })).expiresAt).toBeNull()
    expect((await owner.browser.call('POST', `${path}/links`, { stageId: randomUUID() })).status).toBe(404)
  })
  it('is looked at sixty times a minute from one place', async () => {
    const { token } = await make()
    const statuses = []
    for (let i = 0; i < 62; i++) statuses.push((await show(token)).status)
    expect(statuses.filter((status) => status === 429).length).toBeGreaterThan(0)
  })
  it('reads nothing else', async () => {
    const { token } = await make()
    expect((await new TestBrowser(server).call('GET', `${path}/board`, undefined, { 'x-link': token })).status).toBe(401)
  })
})
