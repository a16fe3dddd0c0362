import { randomUUID } from 'node:crypto'
import { dueAt } from '@bold-ballast/core'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

const C = 273.15
const reading = (more: object) => ({ quantity: 'temperature', ...more })
const cooling = (more: object) => ({
  areaM2: 0.24,
  flowM3PerS: 0.002,
  fluidL: 12,
  hot: { speedMps: 38, airK: 303.15 },
  stopK: 378.15,
  ...more,
})

describe('what a check, a circuit or a cooler is refused for', () => {
  test.each([
    ['checks', { kind: 'reading', name: 'Coolant', reading: reading({ warnHigh: C + 110, stopHigh: C + 105 }) }, /Warn lies over stop/],
    ['checks', { kind: 'reading', name: 'Press', reading: { quantity: 'pressure', warnLow: 3e5, stopLow: 4e5 } }, /Warn lies under stop/],
    ['checks', { kind: 'reading', name: 'Cold', reading: reading({ stopLow: -5 }) }, /under absolute zero/],
    ['checks', { kind: 'gear', name: 'Belts', gear: { madeOn: '2027-01-01', expiresOn: '2026-01-01' } }, /expire before it was made/],
    ['checks', { kind: 'level', name: 'Oil' }, /Say which fluid it is/],
    ['checks', { kind: 'gap', name: 'Pipe' }, /Say what the gap is to/],
    [
      'power-boxes',
      {
        name: 'box',
        outputs: [
          { key: 'a', ratedA: 10 },
          { key: 'A', ratedA: 20 },
        ],
      },
      /Output a is named twice/,
    ],
    ['power-boxes', { name: 'box', outputs: [] }, /outputs/],
    ['circuits', { name: 'Fan', currentA: 0 }, /0 A draws nothing/],
    ['cooling-plans', cooling({ logged: [{ speedMps: 30, airK: 340, coolantK: 330, heatW: 9e4 }] }), /air is hotter than what it cools/],
    ['cooling-plans', cooling({ faceShare: 1.2 }), /faceShare/],
    ['cooling-plans', cooling({ rating: { ratedW: 9e4, ratedItdK: 0, ratedFaceMps: 10, ratedFlowM3PerS: 0.0016 } }), /ratedItdK/],
    ['cooling-plans', cooling({ stopK: 340 }), /stop before it is warm/],
  ] as const)('%s %#', async (resource, body, words) => {
    const { path, stageOne } = await makeBuild(server)
    const own = resource === 'checks' || resource === 'circuits' ? body : { stageId: stageOne, ...body }
    const answer = await server.call('POST', `${path}/${resource}`, { id: randomUUID(), ...own })
    expect(answer.status).toBe(422)
    expect(JSON.stringify(answer.body)).toMatch(words)
    expect((await server.call('GET', `${path}/${resource}`)).body).toEqual([])
  })
  test.each([
    [{ result: 'ok', value: 300 }, /is no reading/],
    [{ result: 'ok', value: -4 }, /absolute zero/],
    [{ result: 'ok', value: 32 }, /A gap of 32 m\? Type its unit/],
  ])('a mark of %j', async (mark, words) => {
    const { path, stageOne } = await makeBuild(server)
    const kinds = [
      { kind: 'look', name: 'Hoses' },
      { kind: 'reading', name: 'Coolant', reading: reading({}) },
      { kind: 'gap', name: 'Pipe to shaft', gap: { neighbour: 'shaft' } },
    ]
    const check = kinds[[300, -4, 32].indexOf(mark.value)] as object
    const checkId = randomUUID()
    expect((await server.call('POST', `${path}/checks`, { id: checkId, ...check })).status).toBe(201)
    const answer = await server.call('POST', `${path}/marks`, { id: randomUUID(), checkId, stageId: stageOne, at: '2027-03-01T10:00:00Z', ...mark })
    expect([answer.status, JSON.stringify(answer.body)]).toEqual([422, expect.stringMatching(words)])
  })
})

it('a check holds what its kind needs and nothing of another', async () => {
  const { path } = await makeBuild(server)
  const made = await server.call('POST', `${path}/checks`, { id: randomUUID(), kind: 'bolt', name: 'Nuts', gap: { neighbour: 'x' }, level: { fluid: 'oil' } })
  expect(made.body).toMatchObject({ bolt: { count: 1, torqueNm: null }, gap: null, level: null })
})

it('a hundred marks sent twice by a tablet that was away are stored once each', async () => {
  const { path, stageOne } = await makeBuild(server)
  const checkId = randomUUID()
  await server.call('POST', `${path}/checks`, { id: checkId, kind: 'look', name: 'Hoses' })
  const marks = Array.from({ length: 100 }, (_, i) => ({
    id: randomUUID(),
    checkId,
    stageId: stageOne,
    at: `2027-03-01T10:${String(i % 60).padStart(2, '0')}:00Z`,
    result: i % 9 === 0 ? 'bad' : 'ok',
  }))
  for (const mark of [...marks, ...marks]) await server.call('POST', `${path}/marks`, mark)
  const stored = (await server.call('GET', `${path}/marks`)).body as { id: string }[]
  expect(stored.map(({ id }) => id).sort()).toEqual(marks.map(({ id }) => id).sort())
})

it('a check that goes takes its marks along and brings them back; its job stays', async () => {
  const { path, stageOne } = await makeBuild(server)
  const [checkId, taskId] = [randomUUID(), randomUUID()]
  const check = await server.call('POST', `${path}/checks`, { id: checkId, kind: 'look', name: 'Hoses' })
  await server.call('POST', `${path}/marks`, { id: randomUUID(), checkId, stageId: stageOne, at: '2027-03-01T10:00:00Z', result: 'bad' })
  await server.call('POST', `${path}/tasks`, { id: taskId, stageId: stageOne, position: 1, name: 'Put right', guessH: 1, checkId })
  await server.call('DELETE', `${path}/checks/${checkId}`, { version: check.body.version })
  expect((await server.call('GET', `${path}/marks`)).body).toEqual([])
  expect((await server.call('GET', `${path}/tasks/${taskId}`)).body.checkId).toBeNull()
  await server.call('POST', `${path}/checks/${checkId}/restore`, { version: check.body.version + 1 })
  expect((await server.call('GET', `${path}/marks`)).body).toHaveLength(1)
})

it('a build that went through a file has the same due list', async () => {
  const { path, buildId, stageOne } = await makeBuild(server)
  const names = ['Hoses', 'Nuts', 'Belts']
  const bodies = [{ kind: 'look' }, { kind: 'bolt', isSafety: true }, { kind: 'gear', gear: { expiresOn: '2027-02-01' } }]
  for (const [i, body] of bodies.entries()) {
    const id = randomUUID()
    await server.call('POST', `${path}/checks`, { id, name: names[i], rounds: ['event'], ...body })
    if (i !== 1)
      await server.call('POST', `${path}/marks`, {
        id: randomUUID(),
        checkId: id,
        stageId: stageOne,
        at: '2027-01-01T10:00:00Z',
        result: i === 0 ? 'bad' : 'ok',
      })
  }
  const dueOf = async (id: string) => {
    const records = (await server.call('GET', `/api/builds/${id}/records`)).body
    return dueAt(records, { event: null, position: 1, today: '2027-03-01', round: 'event' }).map(({ check, reason }) => [check.name, reason])
  }
  const file = await server.callForBytes('GET', `${path}/file`)
  const answer = await server.call('POST', `/api/build-files?mode=import&as=new&importId=${randomUUID()}`, file, { 'content-type': 'application/zip' })
  expect(answer.status, JSON.stringify(answer.body)).toBe(201)
  const due = await dueOf(buildId)
  expect(due).toEqual(
    expect.arrayContaining([
      ['Hoses', 'bad'],
      ['Nuts', 'never'],
      ['Belts', 'expires'],
    ]),
  )
  expect(await dueOf(answer.body.buildId)).toEqual(due)
})
