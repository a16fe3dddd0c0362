import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { changeBody, makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

const create = (body: object) => ({ kind: 'create', resource: 'changes', body })

describe('many writes as one', () => {
  it('stores all once, changes them together, and takes each back as one entry', async () => {
    const { path, stageOne } = await makeBuild(server)
    const batchId = randomUUID()
    const writes = Array.from({ length: 40 }, (_, i) => create({ ...changeBody(stageOne), name: `clip ${i}` }))
    const first = await server.call('POST', `${path}/batches`, { batchId, writes })
    const again = await server.call('POST', `${path}/batches`, { batchId, writes })
    expect([first.status, again.status]).toEqual([200, 200])
    expect(again.body.map(({ id }: { id: string }) => id)).toEqual(first.body.map(({ id }: { id: string }) => id))
    const lines = async () => (await server.call('GET', `${path}/changes`)).body
    expect(await lines()).toHaveLength(40)
    const edits = first.body.map(({ id, version }: { id: string; version: number }) => ({
      kind: 'update',
      resource: 'changes',
      id,
      body: { version, zone: 'cabin' },
    }))
    await server.call('POST', `${path}/batches`, { batchId: randomUUID(), writes: edits })
    expect((await lines()).every((line: { zone: string; version: number }) => line.zone === 'cabin' && line.version === 2)).toBe(true)
    const [entry] = (await server.call('GET', `${path}/log`)).body.entries
    expect(entry).toMatchObject({ action: 'batch', recordCount: 40, name: '40 records', keptBecause: null })
    expect((await server.call('POST', `${path}/log/${entry.id}/undo`, {})).status).toBe(200)
    expect((await lines()).every((line: { zone: string | null }) => line.zone === null)).toBe(true)
  })

  it('does nothing at all when one of them cannot be, and says which', async () => {
    const { path, stageOne } = await makeBuild(server)
    const good = create({ ...changeBody(stageOne), name: 'good' })
    const cases: [object, number, RegExp][] = [
      [create({ ...changeBody(randomUUID()) }), 422, /Entry 2: .*no such stage/],
      [create({ ...changeBody(stageOne), values: [{ massKg: -1, proof: 'guess', at: '2026-03-01T10:00:00Z' }] }), 422, /Entry 2: .*massKg/],
      [{ kind: 'update', resource: 'changes', id: randomUUID(), body: { version: 1, zone: 'x' } }, 404, /Entry 2/],
    ]
    for (const [bad, status, sentence] of cases) {
      const answer = await server.call('POST', `${path}/batches`, { batchId: randomUUID(), writes: [good, bad] })
      expect(answer.status).toBe(status)
      expect(answer.body.detail).toMatch(sentence)
    }
    expect((await server.call('GET', `${path}/changes`)).body).toEqual([])
    const { body: made } = await server.call('POST', `${path}/changes`, changeBody(stageOne))
    const stale = await server.call('POST', `${path}/batches`, {
      batchId: randomUUID(),
      writes: [good, { kind: 'remove', resource: 'changes', id: made.id, version: 7 }],
    })
    expect(stale).toMatchObject({ status: 409, body: { code: 'stale', current: { id: made.id, version: 1 } } })
    expect((await server.call('GET', `${path}/changes`)).body).toHaveLength(1)
  })
})

describe('guesses of the whole garage', () => {
  it('teach a build that asks for it, and are read anew when another build learns more', async () => {
    const [mine, other] = [await makeBuild(server), await makeBuild(server)]
    const at = '2026-03-01T10:00:00Z'
    const pair = (stageId: string, guessKg: number, massKg: number) => ({
      ...changeBody(stageId),
      values: [
        { massKg: guessKg, proof: 'guess', at },
        { massKg, proof: 'measured', at: '2026-03-02T10:00:00Z' },
      ],
    })
    for (const kg of [11, 11.2, 11.4, 11.1, 11.3]) await server.call('POST', `${other.path}/changes`, pair(other.stageOne, 10, kg))
    const bias = async () => (await server.call('GET', `${mine.path}/weight`)).body.guesses.off
    expect(await bias()).toMatchObject({ isDefault: true, pairCount: 0 })
    await server.call('PATCH', mine.path, { version: 1, guessPairsFrom: 'garage' })
    const learned = await bias()
    expect(learned.isDefault).toBe(false)
    const count = learned.pairCount
    await server.call('POST', `${other.path}/changes`, pair(other.stageOne, 20, 23))
    expect((await bias()).pairCount).toBe(count + 1)
  })
})
