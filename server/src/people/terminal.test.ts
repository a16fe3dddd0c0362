import { afterAll, beforeAll, expect, it } from 'vitest'
import { makeOwner, PASSWORD, TestBrowser } from '../../test/people.ts'
import { buildBody, startTestServer, type TestServer } from '../../test/test-server.ts'
import { atTerminal } from './terminal.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

const say = (...words: string[]) => atTerminal(server.knex, words, 'http://here')
const tokenIn = (text: string) => text.split('/join#')[1] as string

it('makes the first owner by a link, which closes the garage when it is used', async () => {
  expect(await say('list')).toMatch(/^Nobody signs in yet/)
  const browser = new TestBrowser(server)
  expect((await browser.call('GET', '/api/me')).body.mode).toBe('open')
  const answer = await browser.call('POST', '/api/join', { token: tokenIn(await say('owner', 'Ilse')), name: 'Ilse', login: 'ilse', password: PASSWORD })
  expect(answer.body, answer.text).toMatchObject({ mode: 'closed', person: { name: 'Ilse' }, garages: [{ role: 'owner' }] })
  expect(await say('list')).toBe('Ilse (ilse): active, owner')
  expect((await server.call('GET', '/api/builds')).status).toBe(401)
})

it('makes a second garage, whose owner sees nothing of the first', async () => {
  await expect(say('garage', 'Club')).rejects.toThrow(/garage "ITS NAME" "OWNER"/)
  await expect(say('garage', 'Garage', 'Petra')).rejects.toThrow(/named "Garage" already/)
  const petra = new TestBrowser(server)
  const token = tokenIn(await say('garage', 'Club', 'Petra'))
  const joined = await petra.call('POST', '/api/join', { token, name: 'Petra', login: 'petra', password: PASSWORD })
  expect(joined.body.garages).toMatchObject([{ name: 'Club', role: 'owner' }])
  expect((await petra.call('GET', '/api/builds')).body).toEqual([])
  const build = buildBody()
  expect((await petra.call('POST', '/api/builds', build)).status).toBe(201)
  const [row] = await server.knex('builds').where({ id: build.id }).select('garageId')
  expect(row.garageId).toBe(joined.body.garages[0].garageId)
})

it('resets a password, switches off, and says what it does not know', async () => {
  const browser = new TestBrowser(server)
  const reset = await browser.call('POST', '/api/join', { token: tokenIn(await say('reset', 'ILSE')), password: 'another four words' })
  expect(reset.body).toMatchObject({ person: { name: 'Ilse' } })
  await expect(say('reset', 'nobody')).rejects.toThrow(/Nobody signs in as "nobody"/)
  await expect(say('paint')).rejects.toThrow(/list \| owner NAME/)
  expect(await say('off', 'ilse')).toMatch(/^Ilse is switched off/)
  expect((await browser.call('GET', '/api/builds')).status).toBe(401)
})

it('opens again: sign-ins end, people and log stay, and an owner made anew closes it', async () => {
  expect(await say('open')).toMatch(/^Anyone at this machine/)
  expect(await say('open')).toMatch(/nothing changed/)
  await new Promise((done) => setTimeout(done, 1100))
  expect((await server.call('GET', '/api/builds')).status).toBe(200)
  expect(await server.knex('people').orderBy('createdAt').select('name')).toEqual([{ name: 'Ilse' }, { name: 'Petra' }])
  expect((await makeOwner(server, 'Wen')).garageId).toBeTruthy()
  expect((await server.call('GET', '/api/builds')).status).toBe(401)
})

it('makes the owner of a server that others can reach, which answers nobody before', async () => {
  const outside = await startTestServer({ front: { isTls: false, publicUrl: new URL('https://cars.example'), isOutside: true } })
  const headers = { host: 'cars.example' }
  const browser = new TestBrowser(outside)
  expect((await browser.call('GET', '/api/builds', undefined, headers)).body.detail).toMatch(/it has no owner/)
  expect((await browser.call('POST', '/api/owner', { name: 'Eve', login: 'eve', password: PASSWORD }, headers)).status).toBe(403)
  expect((await outside.call('GET', '/api/health', undefined, { host: 'anything.example' })).status).toBe(200)
  expect((await outside.call('GET', '/api/me', undefined, { host: 'anything.example' })).body.code).toBe('not-allowed')
  const token = tokenIn(await atTerminal(outside.knex, ['owner', 'Ilse'], 'https://cars.example'))
  expect((await browser.call('POST', '/api/join', { token, name: 'Ilse', login: 'ilse', password: PASSWORD }, headers)).status).toBe(200)
  expect((await browser.call('GET', '/api/builds', undefined, headers)).status).toBe(200)
  expect((await browser.call('GET', '/api/builds', undefined, { ...headers, origin: 'https://cars.example' })).status).toBe(200)
  expect((await browser.call('GET', '/api/builds', undefined, { ...headers, origin: 'http://cars.example' })).status).toBe(403)
  await outside.stop()
})
