import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { joinAs, makeOwner, otherGarage, type Signed, TestBrowser } from '../../test/people.ts'
import { routesOf } from '../../test/routes-of.ts'
import { buildBody, startTestServer, type TestServer } from '../../test/test-server.ts'
import { findRoute, ROUTES, type RouteRule } from './route-table.ts'

let server: TestServer
const CALLERS = ['nobody', 'stranger', 'viewer', 'guest', 'crew', 'owner'] as const
type CallerName = (typeof CALLERS)[number]
const browsers = {} as Record<CallerName, TestBrowser>
let owner: Signed & { garageId: string }
let buildId = ''
let foreignBuild = ''

beforeAll(async () => {
  server = await startTestServer()
  owner = await makeOwner(server)
  const build = buildBody()
  buildId = build.id
  expect((await owner.browser.call('POST', '/api/builds', build)).status).toBe(201)
  browsers.nobody = new TestBrowser(server)
  browsers.owner = owner.browser
  browsers.crew = (await joinAs(server, owner, 'Tomas', { role: 'crew' })).browser
  browsers.viewer = (await joinAs(server, owner, 'Wen', { role: 'viewer' })).browser
  browsers.guest = (await joinAs(server, owner, 'Maro', { role: 'crew', buildId, until: new Date(Date.now() + 3_600_000).toISOString() })).browser
  const stranger = await otherGarage(server, 'Petra')
  browsers.stranger = stranger.browser
  const foreign = buildBody()
  foreignBuild = foreign.id
  expect((await stranger.browser.call('POST', '/api/builds', foreign)).status).toBe(201)
})
afterAll(() => server.stop())

const keyOf = ({ method, path }: RouteRule) => `${method.toLowerCase()} ${path}`

it('every address that Express holds stands in the table, and no other', () => {
  const served = new Set(routesOf(server.app))
  expect(ROUTES.map(keyOf).filter((key) => !served.has(key))).toEqual([])
  const known = new Set(ROUTES.map(keyOf))
  expect([...served].filter((key) => !known.has(key))).toEqual([])
})

test.each(ROUTES.map((rule) => [keyOf(rule), rule] as const))('%s is found by its own address', (_, rule) => {
  const path = rule.path.replaceAll(/:\w+/g, 'x')
  expect(findRoute(rule.method, path)?.rule).toBe(rule)
})

/** Roles over the build, the garage and the machine, as the page of the crew has them. */
const REACH: Record<RouteRule['least'], readonly CallerName[]> = {
  anyone: CALLERS,
  signedIn: ['stranger', 'viewer', 'guest', 'crew', 'owner'],
  viewer: ['viewer', 'guest', 'crew', 'owner'],
  crew: ['guest', 'crew', 'owner'],
  goals: ['guest', 'crew', 'owner'],
  owner: ['owner'],
}

/** A guest of a build is nobody in its garage; whoever writes anywhere may have the devices of the machine. */
function mayPass(rule: RouteRule, caller: CallerName): boolean {
  if (rule.over === 'device') return ['stranger', 'guest', 'crew', 'owner'].includes(caller)
  return REACH[rule.least].includes(caller) && !(rule.over === 'garage' && caller === 'guest')
}

/** What refuses somebody before the address itself is asked. */
function refusal(rule: RouteRule, caller: CallerName): string | null {
  if (mayPass(rule, caller)) return null
  if (caller === 'nobody') return 'signed-out'
  if (rule.over === 'device') return 'may-not'
  const isUnseen = caller === 'stranger' || (rule.over === 'garage' && caller === 'guest')
  return isUnseen ? 'not-found' : 'may-not'
}

const GATE_CODES = ['signed-out', 'may-not']
/** Sign-in answers by itself, and streams do not end; both are tried elsewhere. */
const ASIDE = /^\/(owner|sign-in|hand-over|join|sign-out|sign-out-everywhere|password|code|devices\/stand-ins|devices\/find)$|stream$|^\/live$/

describe.each(CALLERS)('%s', (caller) => {
  test.each(ROUTES.filter(({ path }) => !ASIDE.test(path)).map((rule) => [`${rule.method} ${rule.path}`, rule] as const))('%s', async (_, rule) => {
    const path = rule.path.replace(':buildId', buildId).replace(':garageId', owner.garageId).replaceAll(/:\w+/g, randomUUID())
    // A body that no address takes: whoever is let through is refused for it, and nothing is written.
    const body = rule.method === 'GET' ? undefined : { nothing: 'like this' }
    const type = /(pull|log)-files$/.test(path) ? 'text/csv' : path.endsWith('photo-files') ? 'image/png' : 'application/json'
    const answer = await browsers[caller].call(rule.method, `/api${path}`, body, { 'content-type': type })
    const wanted = refusal(rule, caller)
    if (wanted === null) {
      expect(GATE_CODES, answer.text).not.toContain(answer.body?.code)
      return
    }
    expect(answer.body?.code, answer.text).toBe(wanted)
    const status = { 'signed-out': 401, 'may-not': 403, 'not-found': 404 }[wanted]
    expect(answer.status).toBe(status)
  })
})

describe('what one may not see', () => {
  it('answers as what is not there, to the letter', async () => {
    for (const path of ['board', 'records', 'changes', `changes/${randomUUID()}`, 'log']) {
      const hidden = await browsers.crew.call('GET', `/api/builds/${foreignBuild}/${path}`)
      const missing = await browsers.crew.call('GET', `/api/builds/${randomUUID()}/${path}`)
      expect([hidden.status, hidden.text]).toEqual([missing.status, missing.text])
    }
    const write = await browsers.crew.call('POST', `/api/builds/${foreignBuild}/zones`, { id: randomUUID(), name: 'nose' })
    expect([write.status, write.body.detail]).toEqual([404, 'There is no such build.'])
  })
  it('stands in no list, and in no shelf', async () => {
    const seen = async (caller: CallerName) => (await browsers[caller].call('GET', '/api/builds')).body.map(({ build }: { build: { id: string } }) => build.id)
    expect(await seen('crew')).toEqual([buildId])
    expect(await seen('guest')).toEqual([buildId])
    expect(await seen('stranger')).toEqual([foreignBuild])
    const shared = { id: randomUUID(), kind: 'injectors', name: 'long nozzle', isShared: true }
    expect((await browsers.stranger.call('POST', `/api/builds/${foreignBuild}/parts`, shared)).status).toBe(201)
    expect((await browsers.crew.call('GET', '/api/shelf/parts')).body).toEqual([])
    expect((await browsers.stranger.call('GET', '/api/shelf/parts')).body).toHaveLength(1)
  })
  it('is not told by a taken id, a build file or a batch', async () => {
    const taken = await browsers.crew.call('POST', '/api/builds', { ...buildBody(foreignBuild), name: 'Mine' })
    expect(taken.body).toMatchObject({ code: 'duplicate' })
    const file = {
      format: 'bold-ballast-build',
      formatVersion: 1,
      build: buildBody(foreignBuild),
      stages: [{ id: randomUUID(), position: 0, name: 'As bought' }],
    }
    const update = await browsers.crew.call('POST', `/api/build-files?mode=preview&as=update&importId=${randomUUID()}`, file)
    expect(update.body).toMatchObject({ status: 404, code: 'not-found' })
    const anew = await browsers.crew.call('POST', `/api/build-files?mode=preview&as=new&importId=${randomUUID()}`, file)
    expect(anew.body).toMatchObject({ isHere: false, getsNewIds: true })
  })
})

describe('goals', () => {
  const target = () => ({ id: randomUUID(), metric: 'massReady', sense: 'atMost', value: 1200 })
  it('are moved by the crew or by owners alone, whatever way they are written', async () => {
    expect((await browsers.crew.call('POST', `/api/builds/${buildId}/targets`, target())).status).toBe(201)
    expect((await owner.browser.call('PATCH', `/api/garages/${owner.garageId}`, { goalsBy: 'owners' })).status).toBe(200)
    const alone = await browsers.crew.call('POST', `/api/builds/${buildId}/limits`, { ...target(), source: 'own' })
    expect(alone.body).toMatchObject({ code: 'may-not', detail: expect.stringMatching(/Ilse can do it/) })
    const stages = (await browsers.crew.call('GET', `/api/builds/${buildId}/stages`)).body.map(({ id, position, name }: Record<string, unknown>) => ({
      id,
      position,
      name,
    }))
    const file = { format: 'bold-ballast-build', formatVersion: 1, build: buildBody(buildId), stages, targets: [target()] }
    const imported = await browsers.crew.call('POST', `/api/build-files?mode=import&as=update&missing=delete&importId=${randomUUID()}`, file)
    expect(imported.body, imported.text).toMatchObject({ code: 'may-not' })
    const { entries } = (await browsers.crew.call('GET', `/api/builds/${buildId}/log`)).body
    const undo = await browsers.crew.call('POST', `/api/builds/${buildId}/log/${entries[0].id}/undo`, {})
    expect(undo.body, undo.text).toMatchObject({ code: 'may-not' })
    expect((await owner.browser.call('POST', `/api/builds/${buildId}/log/${entries[0].id}/undo`, {})).status).toBe(200)
  })
})
