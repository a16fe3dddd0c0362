import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { changeBody, makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

const weighing = (massKg: number) => [{ massKg, sdKg: null, proof: 'measured', typed: `${massKg} kg`, at: '2026-03-01T10:00:00Z', instrument: null }]

/** A build whose papers say 500 kg. */
async function lightBuild() {
  const { path, stageOne } = await makeBuild(server)
  const baselineMass = { massKg: 500, sdKg: null, proof: 'catalogue', typed: null, hasDriver: true, hasFuel: true }
  expect((await server.call('PATCH', path, { version: 1, baselineMass })).status).toBe(200)
  return { path, stageOne }
}

describe('more off than the car weighs', () => {
  it('is refused with the field and the cure, whichever way it is written, and nothing is stored', async () => {
    const { path, stageOne } = await lightBuild()
    const body = (massKg: number) => ({ ...changeBody(stageOne), kind: 'off', values: weighing(massKg) })
    const refused = await server.call('POST', `${path}/changes`, body(600))
    expect(refused).toMatchObject({ status: 422, body: { errors: [{ path: 'values', message: expect.stringMatching(/off a car of 500 kg\. Check/) }] } })
    const stored = (await server.call('POST', `${path}/changes`, body(200))).body
    const patched = await server.call('PATCH', `${path}/changes/${stored.id}`, { version: stored.version, values: weighing(700) })
    expect(patched).toMatchObject({ status: 422, body: { errors: [{ path: 'values' }] } })
    const writes = [200, 150].map((massKg) => ({ kind: 'create', resource: 'changes', body: { ...body(massKg), id: randomUUID() } }))
    const batch = await server.call('POST', `${path}/batches`, { batchId: randomUUID(), writes })
    expect(batch).toMatchObject({
      status: 422,
      body: { errors: [{ path: 'writes.0.body.values', message: expect.stringMatching(/than the car weighs at stage 1/) }] },
    })
    expect((await server.call('GET', `${path}/changes`)).body).toHaveLength(1)
  })
  it('leaves what is no line to the route, and a build that is not there', async () => {
    const { path, stageOne } = await lightBuild()
    expect((await server.call('POST', `${path}/changes`, { ...changeBody(stageOne), values: 'heavy' })).status).toBe(422)
    expect((await server.call('POST', `/api/builds/${randomUUID()}/changes`, changeBody(stageOne))).status).toBe(404)
  })
})
