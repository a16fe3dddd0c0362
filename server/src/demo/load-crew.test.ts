import path from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { TestBrowser } from '../../test/people.ts'
import { startTestServer, type TestServer } from '../../test/test-server.ts'
import { loadCrewOnce } from './load-crew.ts'
import { loadDemoOnce } from './load-demo.ts'

let server: TestServer
let passwords: ReadonlyMap<string, string> | null
const weekAgo = Date.now() - 7 * 86_400_000
beforeAll(async () => {
  server = await startTestServer()
  await loadDemoOnce(server.knex, fileURLToPath(new URL(`..${path.sep}..${path.sep}..${path.sep}demo`, import.meta.url)), weekAgo - 86_400_000)
  passwords = await loadCrewOnce(server.knex, weekAgo)
})
afterAll(() => server.stop())

const signedIn = async (login: string) => {
  const browser = new TestBrowser(server)
  expect((await browser.call('POST', '/api/sign-in', { login, password: passwords?.get(login) })).status).toBe(200)
  return browser
}

it('is a week of four people, nineteen entries, with a goal that was moved', async () => {
  const browser = await signedIn('wen')
  const builds = (await browser.call('GET', '/api/builds')).body as { build: { id: string; name: string } }[]
  const id = builds.find(({ build }) => build.name === 'Gannet')?.build.id
  const { entries } = (await browser.call('GET', `/api/builds/${id}/log`)).body
  expect(entries).toHaveLength(20)
  expect(new Set(entries.slice(0, 19).map(({ by }: { by: string }) => by))).toEqual(new Set(['Ilse', 'Tomas', 'Wen', 'Maro']))
  const last = (await browser.call('GET', `/api/builds/${id}/stages`)).body.at(-1).id
  const since = (await browser.call('GET', `/api/builds/${id}/since?from=${entries[19].id}&metric=massReady&stage=${last}`)).body
  expect(since.moved.spells.some(({ kind }: { kind: string }) => kind === 'goals')).toBe(true)
  expect(since.moved.nowWithOldGoal).not.toBeNull()
})

it('lets its guest into one build, and is made once', async () => {
  const builds = (await (await signedIn('maro')).call('GET', '/api/builds')).body as { build: { name: string } }[]
  expect(builds.map(({ build }) => build.name)).toEqual(['Gannet'])
  expect(await loadCrewOnce(server.knex, weekAgo)).toBeNull()
})
