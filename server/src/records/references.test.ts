import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { changeBody, makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

const at = '2026-03-01T10:00:00Z'
const pad = { massKg: 300 }
const post = async (path: string, body: object) => server.call('POST', path, { id: randomUUID(), ...body })
const remove = ({ path }: { path: string }, list: string, id: string) => server.call('DELETE', `${path}/${list}/${id}`, { version: 1 })
const weighing = (stageId: string) => ({ stageId, at, pads: { LF: pad, RF: pad, LR: pad, RR: pad }, driverInKg: 0, fuelL: 20 })
const session = (stageId: string) => ({ stageId, at, dynoName: 'hall', place: 'hub', printedStandard: 'SAE J1349' })
const pull = (sessionId: string) => ({
  sessionId,
  position: 0,
  label: '1',
  peakPowerW: 140_000,
  peakPowerSpeedRpm: 6500,
  peakTorqueNm: 210,
  curve: { stepRpm: 50, firstSpeedRpm: 6400, powerW: [138_000, 139_000, 140_000] },
})

describe('what names a deleted record is refused', () => {
  it('a pull on a deleted session', async () => {
    const build = await makeBuild(server)
    const made = await post(`${build.path}/sessions`, session(build.stageOne))
    expect((await remove(build, 'sessions', made.body.id)).status).toBe(200)
    expect(await post(`${build.path}/pulls`, pull(made.body.id))).toMatchObject({ status: 422, body: { code: 'rule-broken' } })
  })

  it('what was in the car at a deleted weighing', async () => {
    const build = await makeBuild(server)
    const line = await server.call('POST', `${build.path}/changes`, changeBody(build.stageOne))
    const made = await post(`${build.path}/weighings`, weighing(build.stageOne))
    await remove(build, 'weighings', made.body.id)
    const body = { weighingId: made.body.id, changeId: line.body.id, inCar: true }
    expect(await post(`${build.path}/in-cars`, body)).toMatchObject({ status: 422, body: { code: 'rule-broken' } })
  })

  it('a line put back into a deleted stage', async () => {
    const build = await makeBuild(server)
    const line = await server.call('POST', `${build.path}/changes`, changeBody(build.stageOne))
    await remove(build, 'changes', line.body.id)
    expect((await remove(build, 'stages', build.stageOne)).status).toBe(200)
    const back = await server.call('POST', `${build.path}/changes/${line.body.id}/restore`, { version: 2 })
    expect(back).toMatchObject({ status: 422, body: { code: 'rule-broken', detail: expect.stringMatching(/no such stage/) } })
  })
})

type Build = Awaited<ReturnType<typeof makeBuild>>
const list = async ({ path }: Build, name: string) => (await server.call('GET', `${path}/${name}`)).body as { id: string; version: number }[]
const log = async ({ path }: Build) => (await server.call('GET', `${path}/log`)).body.entries
const undo = ({ path }: Build, entry: number) => server.call('POST', `${path}/log/${entry}/undo`, {})

/** A session with a pull, which stands for its stage; a part with its use there. */
async function visit(build: Build) {
  const made = (await post(`${build.path}/sessions`, session(build.stageOne))).body
  const run = (await post(`${build.path}/pulls`, pull(made.id))).body
  await post(`${build.path}/standings`, { stageId: build.stageOne, sessionId: made.id, pullIds: [run.id] })
  const part = (await post(`${build.path}/parts`, { kind: 'clutch', name: 'disc', life: { amount: 20, unit: 'hours' } })).body
  const use = (await post(`${build.path}/part-uses`, { partId: part.id, sessionId: made.id, at, amount: 2 })).body
  return { session: made, pull: run, part, use }
}

describe('what becomes of records when the one they name is deleted', () => {
  it('parts of it go along in one entry of its log, and come back with it, by restoring and by undo', async () => {
    const build = await makeBuild(server)
    const { session: made } = await visit(build)
    const before = (await log(build)).length
    expect((await remove(build, 'sessions', made.id)).status).toBe(200)
    expect([await list(build, 'pulls'), await list(build, 'standings')]).toEqual([[], []])
    const entries = await log(build)
    expect(entries).toHaveLength(before + 1)
    expect(entries[0]).toMatchObject({ action: 'remove', resource: 'sessions', name: 'hall', recordCount: 1, keptBecause: null })
    await server.call('POST', `${build.path}/sessions/${made.id}/restore`, { version: 2 })
    expect([(await list(build, 'pulls')).length, (await list(build, 'standings')).length]).toEqual([1, 1])
    // The restoring is taken back, and that again.
    const taken = await undo(build, (await log(build))[0].id)
    expect(taken.body, taken.text).toMatchObject({ action: 'remove', name: 'hall' })
    expect([await list(build, 'sessions'), await list(build, 'pulls')]).toEqual([[], []])
    expect((await undo(build, (await log(build))[0].id)).body).toMatchObject({ action: 'restore' })
    expect([(await list(build, 'pulls')).length, (await list(build, 'standings')).length]).toEqual([1, 1])
    expect((await server.call('GET', `${build.path}/power`)).body.sessions).toHaveLength(1)
  })

  it('what was deleted before stays deleted when the rest comes back', async () => {
    const build = await makeBuild(server)
    const { session: made, pull: run } = await visit(build)
    await post(`${build.path}/pulls`, { ...pull(made.id), label: '2', position: 1 })
    await remove(build, 'pulls', run.id)
    await remove(build, 'sessions', made.id)
    await server.call('POST', `${build.path}/sessions/${made.id}/restore`, { version: 2 })
    expect((await list(build, 'pulls')).map((entry) => (entry as unknown as { label: string }).label)).toEqual(['2'])
  })

  it('what may do without it forgets it, and remembers it when that is taken back', async () => {
    const build = await makeBuild(server)
    const { session: made, use } = await visit(build)
    await remove(build, 'sessions', made.id)
    expect(await list(build, 'part-uses')).toEqual([expect.objectContaining({ id: use.id, sessionId: null, version: 2 })])
    await undo(build, (await log(build))[0].id)
    expect(await list(build, 'part-uses')).toEqual([expect.objectContaining({ id: use.id, sessionId: made.id })])
  })

  it('a line that another one replaces it by forgets that one', async () => {
    const build = await makeBuild(server)
    const on = (await post(`${build.path}/changes`, { ...changeBody(build.stageOne), kind: 'on' })).body
    const off = (await post(`${build.path}/changes`, { ...changeBody(build.stageOne), toChangeId: on.id })).body
    expect((await remove(build, 'changes', on.id)).status).toBe(200)
    expect((await server.call('GET', `${build.path}/changes/${off.id}`)).body.toChangeId).toBeNull()
  })

  it.each([
    ['weighings', (stageId: string) => weighing(stageId), /has weighings/],
    ['sessions', (stageId: string) => session(stageId), /has dyno sessions/],
    ['changes', (stageId: string) => changeBody(stageId), /has ledger lines/],
    ['parts', (stageId: string) => ({ kind: 'clutch', name: 'disc', stageId }), /has parts/],
    ['targets', (stageId: string) => ({ metric: 'massReady', sense: 'atMost', value: 900, dueStageId: stageId }), /due at this stage/],
    ['limits', (stageId: string) => ({ metric: 'massReady', sense: 'atMost', value: 900, source: 'own', fromStageId: stageId }), /from this stage/],
    [
      'limits',
      (stageId: string) => ({ metric: 'massReady', sense: 'atMost', value: 900, source: 'own', fromStageId: stageId, untilStageId: stageId }),
      /from this stage/,
    ],
  ] as const)('%s keep their stage, and say so', async (resource, body, sentence) => {
    const build = await makeBuild(server)
    expect((await post(`${build.path}/${resource}`, body(build.stageOne))).status).toBe(201)
    expect(await remove(build, 'stages', build.stageOne)).toMatchObject({ status: 422, body: { detail: expect.stringMatching(sentence) } })
  })

  it('an expectation goes with its stage and a limit that ends there keeps it', async () => {
    const build = await makeBuild(server)
    await post(`${build.path}/expectations`, { stageId: build.stageOne, mode: 'to', value: 165_000, proof: 'guess' })
    const until = { metric: 'massReady', sense: 'atMost', value: 900, source: 'own', fromStageId: build.stageZero, untilStageId: build.stageOne }
    const limit = (await post(`${build.path}/limits`, until)).body
    expect((await remove(build, 'stages', build.stageOne)).body.detail).toMatch(/until this stage/)
    await remove(build, 'limits', limit.id)
    expect((await remove(build, 'stages', build.stageOne)).status).toBe(200)
    expect(await list(build, 'expectations')).toEqual([])
  })

  it('goes along in a batch too, which is taken back whole', async () => {
    const build = await makeBuild(server)
    const { part } = await visit(build)
    const batch = { batchId: randomUUID(), writes: [{ kind: 'remove', resource: 'parts', id: part.id, version: 1 }] }
    const done = await server.call('POST', `${build.path}/batches`, batch)
    expect(done.body, done.text).toEqual([expect.objectContaining({ id: part.id })])
    expect((await server.call('POST', `${build.path}/batches`, batch)).body).toEqual([expect.objectContaining({ id: part.id })])
    expect(await list(build, 'part-uses')).toEqual([])
    await undo(build, (await log(build))[0].id)
    expect([(await list(build, 'parts')).length, (await list(build, 'part-uses')).length]).toEqual([1, 1])
  })
})

describe('an id counts within its build alone', () => {
  it('names another record in another build, and nothing of this one there', async () => {
    const [one, two] = [await makeBuild(server), await makeBuild(server)]
    const id = randomUUID()
    const [first, second] = [
      await server.call('POST', `${one.path}/changes`, changeBody(one.stageOne, id)),
      await server.call('POST', `${two.path}/changes`, { ...changeBody(two.stageOne, id), name: 'seat' }),
    ]
    expect([first.status, second.status]).toEqual([201, 201])
    await server.call('PATCH', `${two.path}/changes/${id}`, { version: 1, name: 'front seat' })
    expect((await server.call('GET', `${one.path}/changes/${id}`)).body).toMatchObject({ name: 'bench', version: 1 })
    expect((await server.call('POST', `${one.path}/changes`, { ...changeBody(two.stageOne), name: 'x' })).status).toBe(422)
  })
})

describe('a build that learns from the garage', () => {
  it('shows one mass on Board, in Weight and in the working, also with a rating of torque', async () => {
    const teacher = await makeBuild(server)
    for (let i = 0; i < 6; i++) {
      const values = [
        { massKg: 10, proof: 'guess', at },
        { massKg: 12 + i / 10, proof: 'measured', at },
      ]
      await post(`${teacher.path}/changes`, { ...changeBody(teacher.stageOne), name: `part ${i}`, values })
    }
    const build = await makeBuild(server)
    await server.call('PATCH', build.path, { version: 1, guessPairsFrom: 'garage' })
    await post(`${build.path}/weighings`, weighing(build.stageZero))
    await post(`${build.path}/changes`, { ...changeBody(build.stageOne), kind: 'on', state: 'planned', values: [{ massKg: 50, proof: 'guess', at }] })
    const made = await post(`${build.path}/sessions`, session(build.stageZero))
    await post(`${build.path}/pulls`, pull(made.body.id))
    const rating = { of: 'crankTorque', limit: 260, known: 'catalogue' }
    await post(`${build.path}/parts`, { kind: 'gearbox', name: 'box', status: 'fitted', stageId: build.stageZero, ratings: [rating] })
    const board = (await server.call('GET', `${build.path}/board`)).body
    const weight = (await server.call('GET', `${build.path}/weight`)).body
    const working = (await server.call('GET', `${build.path}/working?of=mass&id=${build.stageOne}`)).body
    const onBoard = board.rows.find((row: { metric: string }) => row.metric === 'massReady').cells[1].value
    expect(weight.guesses.off.isDefault).toBe(false)
    expect(onBoard).toBeCloseTo(weight.forecasts[1].meanKg, 6)
    expect(working.result.value).toBeCloseTo(weight.forecasts[1].meanKg, 6)
  })
})
