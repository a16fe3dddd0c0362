import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { smallBuildFile } from '../../test/random-build.ts'
import { buildBody, changeBody, makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

type Made = Awaited<ReturnType<typeof makeBuild>>
const as = (person: string) => ({ 'x-person': person })
const pad = { massKg: 300 }
const weighed = async (build: Made) => {
  await server.call('POST', `${build.path}/weighings`, {
    id: randomUUID(),
    stageId: build.stageZero,
    at: '2026-03-01T10:00:00Z',
    pads: { LF: pad, RF: pad, LR: pad, RR: pad },
    driverInKg: 0,
    fuelL: 20,
    fuelSdL: 1,
  })
  return build
}
const planned = (build: Made, name: string, massKg: number, person: string) =>
  server.call(
    'POST',
    `${build.path}/changes`,
    { ...changeBody(build.stageOne), name, state: 'planned', values: [{ massKg, proof: 'measured', at: '2026-03-01T10:00:00Z' }] },
    as(person),
  )
const entryOf = ({ headers }: { headers: Record<string, unknown> }) => Number(headers['x-log-entry'])
const since = (build: Made, query: string) => server.call('GET', `${build.path}/since?${query}`)

describe('what moved a number since', () => {
  it('a line of the log: each person’s step, and a goal that moved', async () => {
    const build = await weighed(await makeBuild(server))
    const target = { id: randomUUID(), metric: 'massReady', sense: 'atMost', value: 1250, dueStageId: build.stageOne }
    const mark = entryOf(await server.call('POST', `${build.path}/targets`, target))
    await planned(build, 'bench', 18, 'Ilse')
    await planned(build, 'tailgate', 12, 'Ilse')
    await planned(build, 'glass', 5, 'Wen')
    await server.call('PATCH', `${build.path}/targets/${target.id}`, { version: 1, value: 1245 }, as('Wen'))
    const { status, body } = await since(build, `from=${mark}&metric=massReady&stage=${build.stageOne}`)
    expect(status).toBe(200)
    expect(body).toMatchObject({ from: mark, lineCount: 4, stageId: build.stageOne })
    const { spells, before, now } = body.moved
    expect(spells.map(({ by, step, movesGoal, lineCount }: Record<string, unknown>) => [by, Math.round(step as number), movesGoal, lineCount])).toEqual([
      ['Ilse', -30, false, 2],
      ['Wen', -5, false, 1],
      ['Wen', 0, true, 1],
    ])
    expect(now.value - before.value).toBeCloseTo(-35, 6)
    // What stands now is what the Board says.
    const board = (await server.call('GET', `${build.path}/board`)).body
    const row = board.rows.find(({ metric }: { metric: string }) => metric === 'massReady')
    expect(now).toMatchObject({ value: row.cells[1].value, sd: row.cells[1].sd, verdict: { word: row.goal.verdict.word } })
    const ends = (await since(build, `from=${mark}&stage=${build.stageOne}&ends=yes`)).body.moved
    expect(ends).toEqual({ ...body.moved, spells: [] })
  })
  it('the beginning of a day; a build that was not there then has no number', async () => {
    const build = await weighed(await makeBuild(server))
    await planned(build, 'bench', 18, 'Ilse')
    const young = (await since(build, 'from=2020-01-01')).body
    expect([young.moved.before.value, young.fromAt !== null]).toEqual([null, true])
    expect((await since(build, '')).body.from).toBe(young.from)
    const tomorrow = new Date(Date.now() + 2 * 86_400_000).toISOString().slice(0, 10)
    expect((await since(build, `from=${tomorrow}`)).body).toMatchObject({ lineCount: 0, moved: { spells: [] } })
    expect((await since(build, 'from=0')).body).toMatchObject({ from: 0, fromAt: null, moved: { before: { value: null } } })
  })
  test.each([
    ['a metric nobody knows', 'metric=colour', 422],
    ['a day that is none', 'from=2026-13-40', 422],
    ['a line of another log', 'from=999999999', 404],
  ])('refuses %s', async (_, query, status) => {
    const build = await makeBuild(server)
    expect((await since(build, query)).status).toBe(status)
  })
})

describe('as it stood behind a line of the log', () => {
  it('the Board and the build file are those of then, whatever came after', async () => {
    const build = await weighed(await makeBuild(server))
    const line = await planned(build, 'bench', 18, 'Ilse')
    const at = entryOf(line)
    const board = async (query = '') => (await server.call('GET', `${build.path}/board${query}`)).body
    const then = await board()
    await server.call('DELETE', `${build.path}/changes/${line.body.id}`, { version: 1 })
    await planned(build, 'glass', 5, 'Wen')
    await server.call('PATCH', build.path, { version: 1, name: 'Tern, second life' })
    expect(await board(`?at=${at}`)).toEqual(then)
    expect(await board()).not.toEqual(then)
    const bytes = await server.callForBytes('GET', `${build.path}/file?at=${at}`)
    const report = await server.call('POST', `/api/build-files?mode=import&as=new&importId=${randomUUID()}&missing=keep`, bytes, {
      'content-type': 'application/zip',
    })
    expect(report.status).toBe(201)
    const again = `/api/builds/${report.body.buildId}`
    expect((await server.call('GET', `${again}/changes`)).body.map(({ name }: { name: string }) => name)).toEqual(['bench'])
    expect((await server.call('GET', `${again}/records`)).body.build.name).toBe('Tern')
  })
  it('is refused behind a line of another build, and before the build was', async () => {
    const [one, other] = [await makeBuild(server), await makeBuild(server)]
    const foreign = entryOf(await planned(other, 'bench', 18, 'Ilse'))
    for (const what of ['board', 'file']) expect((await server.call('GET', `${one.path}/${what}?at=${foreign}`)).status).toBe(404)
    expect((await server.call('GET', `${one.path}/board?at=nothing`)).status).toBe(422)
  })
})

describe('ids that were used before', () => {
  it('a build’s id answers whoever made it, and tells nobody else what stands there', async () => {
    const body = buildBody()
    await server.call('POST', '/api/builds', body, as('Ilse'))
    await server.call('PATCH', `/api/builds/${body.id}`, { version: 1, name: 'Secret car' }, as('Ilse'))
    expect((await server.call('POST', '/api/builds', body, as('Ilse'))).body.name).toBe('Secret car')
    const other = await server.call('POST', '/api/builds', body, as('Wen'))
    expect([other.status, other.text.includes('Secret')]).toEqual([409, false])
  })
  it('the id of an import answers for its own build and person alone', async () => {
    const importId = randomUUID()
    const file = () => ({ ...smallBuildFile(), build: { ...smallBuildFile().build, id: randomUUID() } })
    const [mine, theirs] = [file(), { ...file(), build: { ...file().build, name: 'Theirs' } }]
    const take = (body: object, person: string) =>
      server.call('POST', `/api/build-files?mode=import&as=new&importId=${importId}&missing=keep`, body, as(person))
    expect((await take(mine, 'Ilse')).status).toBe(201)
    expect((await take(mine, 'Ilse')).body.buildId).toBe(mine.build.id)
    expect((await take(theirs, 'Wen')).body).toMatchObject({ buildId: theirs.build.id, name: 'Theirs' })
  })
  it('the making of a build is not taken back once it was worked on, whatever the clock said', async () => {
    const build = await makeBuild(server)
    const rows = await server.knex('history').where({ buildId: build.buildId }).orderBy('id')
    // As with a clock set back: all lines of one time.
    await server.knex('history').where({ buildId: build.buildId }).update({ at: rows[0].at })
    const answer = await server.call('POST', `${build.path}/log/${rows[0].id}/undo`, {})
    expect([answer.status, answer.body.detail]).toEqual([422, expect.stringContaining('worked on since')])
  })
})
