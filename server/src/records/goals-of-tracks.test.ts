import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { changeBody, makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

const target = (more: object) => ({ id: randomUUID(), metric: 'lapTime', sense: 'atMost', value: 84, typed: '84', ...more })

/** A build with so many tracks. */
async function withTracks(names: readonly string[]) {
  const made = await makeBuild(server)
  const ids = names.map(() => randomUUID())
  for (const [i, name] of names.entries()) {
    const body = { id: ids[i], name, isClosed: false, segments: [{ lengthM: 900 }] }
    expect((await server.call('POST', `${made.path}/tracks`, body)).status).toBe(201)
  }
  return { ...made, ids }
}

describe('a goal of laps', () => {
  it('is of the only track where there is one, and of none before a track is drawn', async () => {
    const one = await withTracks(['Field'])
    expect((await server.call('POST', `${one.path}/targets`, target({}))).body).toMatchObject({ trackId: one.ids[0] })
    const none = await makeBuild(server)
    expect((await server.call('POST', `${none.path}/targets`, target({}))).body).toMatchObject({ trackId: null })
  })
  it('stands once for each track and due stage', async () => {
    const { path, ids, stageOne } = await withTracks(['Field', 'Quarry'])
    for (const trackId of ids) expect((await server.call('POST', `${path}/targets`, target({ trackId, dueStageId: stageOne }))).status).toBe(201)
    const again = await server.call('POST', `${path}/targets`, target({ trackId: ids[1], dueStageId: stageOne }))
    expect(again.status).toBe(409)
  })
  it('keeps its track: that cannot be deleted before it', async () => {
    const { path, ids } = await withTracks(['Field', 'Quarry'])
    await server.call('POST', `${path}/targets`, target({ trackId: ids[1] }))
    const gone = await server.call('DELETE', `${path}/tracks/${ids[1]}`, { version: 1 })
    expect(JSON.stringify(gone.body)).toMatch(/A target is set on laps of this track/)
    expect(gone.status).toBe(422)
  })
  test.each(['targets', 'limits'])('alone is of a track: %s of mass is not', async (resource) => {
    const { path, ids } = await withTracks(['Field'])
    const more = resource === 'limits' ? { source: 'own' } : {}
    const answer = await server.call('POST', `${path}/${resource}`, target({ metric: 'massReady', value: 1200, trackId: ids[0], ...more }))
    expect(answer.status).toBe(422)
    expect(JSON.stringify(answer.body)).toMatch(/Only a goal of laps is of a track/)
  })
})

describe('what a session, a use or an expectation names', () => {
  const dyno = (stageId: string, id = randomUUID()) => ({
    id,
    stageId,
    dynoName: 'hall',
    at: '2026-03-01T10:00:00Z',
    place: 'hub',
    printedStandard: 'none',
    settings: [{ id: 'e85', name: 'alcohol' }],
  })
  it('a setting is one of its dyno session', async () => {
    const { path, ids, stageOne } = await withTracks(['Field'])
    const session = dyno(stageOne)
    const made = await server.call('POST', `${path}/sessions`, session)
    expect(made.status).toBe(201)
    const day = (more: object) => ({ id: randomUUID(), stageId: stageOne, trackId: ids[0], at: '2026-03-02T10:00:00Z', dynoSessionId: session.id, ...more })
    expect((await server.call('POST', `${path}/track-sessions`, day({ dynoSettingId: 'e85' }))).status).toBe(201)
    const odd = await server.call('POST', `${path}/track-sessions`, day({ dynoSettingId: 'petrol' }))
    expect(odd.status).toBe(422)
    expect(JSON.stringify(odd.body)).toMatch(/has no such setting/)
  })
  it('an expectation is of a line or of a wished part', async () => {
    const { path, stageOne } = await makeBuild(server)
    const part = { id: randomUUID(), kind: 'wing', name: 'wing' }
    await server.call('POST', `${path}/parts`, part)
    const change = changeBody(stageOne)
    expect((await server.call('POST', `${path}/changes`, change)).status).toBe(201)
    const body = { id: randomUUID(), stageId: stageOne, metric: 'grip', mode: 'times', value: 1.02, sd: null, proof: 'guess' }
    const both = await server.call('POST', `${path}/expectations`, { ...body, partId: part.id, changeId: change.id })
    expect(JSON.stringify(both.body)).toMatch(/of a line or of a wished part/)
    expect((await server.call('POST', `${path}/expectations`, { ...body, changeId: change.id })).status).toBe(201)
  })
  it('a fit is of sessions of its track, and a track has one', async () => {
    const { path, ids, stageOne } = await withTracks(['Field', 'Quarry'])
    const session = { id: randomUUID(), stageId: stageOne, trackId: ids[1], at: '2026-03-02T10:00:00Z' }
    await server.call('POST', `${path}/track-sessions`, session)
    const choice = (more: object) => ({ id: randomUUID(), trackId: ids[0], trackSessionIds: [], factors: 'gripAndBraking', ...more })
    expect(JSON.stringify((await server.call('POST', `${path}/lap-fits`, choice({ trackSessionIds: [session.id] }))).body)).toMatch(/of another track/)
    expect((await server.call('POST', `${path}/lap-fits`, choice({}))).status).toBe(201)
    expect((await server.call('POST', `${path}/lap-fits`, choice({}))).status).toBe(409)
  })
})
