import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { buildBody, changeBody, makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

describe('records', () => {
  it('makes a build once however often it is sent, with its stage 0', async () => {
    const body = buildBody()
    const first = await server.call('POST', '/api/builds', body, { 'x-person': encodeURIComponent('Ilse Ø') })
    const second = await server.call('POST', '/api/builds', body)
    expect([first.status, second.status]).toEqual([201, 200])
    expect(first.body.createdBy).toBe('Ilse Ø')
    const stages = await server.call('GET', `/api/builds/${body.id}/stages`)
    expect(stages.body).toHaveLength(1)
    expect(stages.body[0]).toMatchObject({ position: 0, name: 'As bought', version: 1 })
  })

  it('stores a line once, fills in when it was done, and answers the same again', async () => {
    const { path, stageOne } = await makeBuild(server)
    const body = changeBody(stageOne)
    const first = await server.call('POST', `${path}/changes`, body)
    const again = await server.call('POST', `${path}/changes`, body)
    expect([first.status, again.status]).toEqual([201, 200])
    expect(again.body.doneAt).toBe(first.body.doneAt)
    expect((await server.call('GET', `${path}/changes`)).body).toHaveLength(1)
    const other = await server.call('POST', `${path}/changes`, { ...body, name: 'another part' })
    expect(other).toMatchObject({ status: 409, body: { code: 'duplicate' } })
  })

  it('refuses a stale write with the record as it stands, and logs each change', async () => {
    const { path, stageOne } = await makeBuild(server)
    const { body: made } = await server.call('POST', `${path}/changes`, changeBody(stageOne))
    const mine = await server.call('PATCH', `${path}/changes/${made.id}`, { version: 1, name: 'rear bench' }, { 'x-person': 'Ilse' })
    const theirs = await server.call('PATCH', `${path}/changes/${made.id}`, { version: 1, name: 'back seat' })
    expect(mine).toMatchObject({ status: 200, body: { version: 2, name: 'rear bench', values: made.values, count: 1 } })
    expect(theirs).toMatchObject({
      status: 409,
      type: expect.stringContaining('application/problem+json'),
      body: { code: 'stale', current: { version: 2, name: 'rear bench' } },
    })
    expect(theirs.body.detail).toMatch(/Ilse/)
    const log = await server.call('GET', `${path}/log`)
    const fields = [{ field: 'name', before: 'bench', after: 'rear bench' }]
    expect(log.body.entries[0]).toMatchObject({ resource: 'changes', action: 'update', by: 'Ilse', name: 'rear bench', fields })
  })

  it('deletes by a mark and puts back', async () => {
    const { path, stageOne } = await makeBuild(server)
    const { body: made } = await server.call('POST', `${path}/changes`, changeBody(stageOne))
    const gone = await server.call('DELETE', `${path}/changes/${made.id}`, { version: 1 })
    expect(gone.body.deletedAt).toEqual(expect.any(String))
    expect((await server.call('GET', `${path}/changes`)).body).toEqual([])
    expect((await server.call('GET', `${path}/changes/${made.id}`)).status).toBe(404)
    expect((await server.call('PATCH', `${path}/changes/${made.id}`, { version: 2, name: 'x' })).status).toBe(404)
    const back = await server.call('POST', `${path}/changes/${made.id}/restore`, { version: 2 })
    expect(back.body).toMatchObject({ deletedAt: null, version: 3 })
  })

  it('keeps history and record together: a refused write leaves no line', async () => {
    const { path, stageOne } = await makeBuild(server)
    const before = (await server.call('GET', `${path}/log`)).body.entries.length
    await server.call('POST', `${path}/changes`, { ...changeBody(stageOne), fromChangeId: randomUUID() })
    expect((await server.call('GET', `${path}/log`)).body.entries).toHaveLength(before)
  })

  it('moves stages only where nothing was done', async () => {
    const { path, stageZero, stageOne } = await makeBuild(server)
    const two = randomUUID()
    await server.call('POST', `${path}/stages`, { id: two, position: 2, name: 'Aero' })
    const order = (ids: string[], version = 1) => ({ stages: ids.map((id) => ({ id, version })) })
    const moved = await server.call('PUT', `${path}/stage-order`, order([stageZero, two, stageOne]))
    expect(moved.body.map((stage: { id: string }) => stage.id)).toEqual([stageZero, two, stageOne])
    const stale = await server.call('PUT', `${path}/stage-order`, order([stageZero, stageOne, two]))
    expect(stale).toMatchObject({ status: 409 })
    await server.call('POST', `${path}/changes`, changeBody(two))
    const versions = {
      stages: [
        { id: stageZero, version: 1 },
        { id: stageOne, version: 2 },
        { id: two, version: 2 },
      ],
    }
    expect(await server.call('PUT', `${path}/stage-order`, versions)).toMatchObject({ status: 422, body: { code: 'rule-broken' } })
  })

  test.each([
    ['a line of stage 0', 'changes', (ids: Ids) => changeBody(ids.stageZero), /Stage 0/],
    ['a line of another build', 'changes', () => changeBody(randomUUID()), /no such stage/],
    [
      'a negative mass',
      'changes',
      (ids: Ids) => ({ ...changeBody(ids.stageOne), values: [{ massKg: -3, proof: 'guess', at: '2026-03-01T10:00:00Z' }] }),
      /values.0.massKg/,
    ],
    [
      'an absurd mass',
      'changes',
      (ids: Ids) => ({ ...changeBody(ids.stageOne), values: [{ massKg: 6000, proof: 'guess', at: '2026-03-01T10:00:00Z' }] }),
      /5000/,
    ],
    ['a range without an upper value', 'targets', () => ({ id: randomUUID(), metric: 'frontShare', sense: 'between', value: 0.5 }), /upper value/],
    [
      'a factor of zero',
      'expectations',
      (ids: Ids) => ({ id: randomUUID(), stageId: ids.stageOne, mode: 'times', value: 0, proof: 'guess' }),
      /more than zero/,
    ],
    ['a second stage 0', 'stages', () => ({ id: randomUUID(), position: 0, name: 'x' }), /made with the build/],
  ] as const)('refuses %s in words', async (_, resource, body, sentence) => {
    const ids = await makeBuild(server)
    const answer = await server.call('POST', `${ids.path}/${resource}`, body(ids))
    expect(answer.status).toBe(422)
    expect(answer.body.detail).toMatch(sentence)
  })

  it('allows one target for a metric and due stage', async () => {
    const { path } = await makeBuild(server)
    const target = () => ({ id: randomUUID(), metric: 'massReady', sense: 'atMost', value: 1200 })
    expect((await server.call('POST', `${path}/targets`, target())).status).toBe(201)
    expect(await server.call('POST', `${path}/targets`, target())).toMatchObject({ status: 409, body: { detail: expect.stringMatching(/target/) } })
  })

  it('does not delete a stage that something rests on', async () => {
    const { path, stageOne, stageZero } = await makeBuild(server)
    await server.call('POST', `${path}/changes`, changeBody(stageOne))
    expect((await server.call('DELETE', `${path}/stages/${stageOne}`, { version: 1 })).body.detail).toMatch(/ledger lines/)
    expect((await server.call('DELETE', `${path}/stages/${stageZero}`, { version: 1 })).body.detail).toMatch(/as bought/)
  })
})

interface Ids {
  stageZero: string
  stageOne: string
}
