import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'
import { rebuildOldCurves } from './rebuild-curves.ts'

let server: TestServer
let path = ''
let files = ''
beforeAll(async () => {
  server = await startTestServer()
  const ids = await makeBuild(server)
  path = ids.path
  const session = {
    id: randomUUID(),
    stageId: ids.stageZero,
    at: '2026-03-01T10:00:00Z',
    dynoName: 'hub',
    place: 'hub',
    printedStandard: 'SAE J1349',
  }
  await server.call('POST', `${path}/sessions`, session)
  files = `${path}/sessions/${session.id}/pull-files`
})
afterAll(() => server.stop())

const rows = (count: number, factor = 1) =>
  Array.from({ length: count }, (_, i) => `${3000 + 50 * i},${((300 * (3000 + 50 * i) * Math.PI) / 30000) * factor},300`)
const send = (mode: string, body: string | Buffer, importId: string = randomUUID(), more = '') =>
  server.call('POST', `${files}?mode=${mode}&importId=${importId}${more}`, body, { 'content-type': 'text/csv' })

describe('a pull file', () => {
  it('is previewed without being stored, then stored once', async () => {
    const text = ['rpm,power kW,torque Nm', ...rows(60)].join('\r\n')
    const preview = await send('preview', text)
    expect(preview.body).toMatchObject({ delimiter: 'comma', pulls: [{ rowCount: 60, cutRowCount: 0 }], refusedLineCount: 0 })
    expect((await server.call('GET', `${path}/pulls`)).body).toEqual([])
    const importId = randomUUID()
    expect((await send('import', text, importId)).status).toBe(201)
    expect((await send('import', text, importId)).body).toHaveLength(1)
    const { body } = await server.call('GET', `${path}/pulls`)
    expect(body).toHaveLength(1)
    expect(body[0].peakPowerW).toBeCloseTo((300 * 5950 * Math.PI) / 30, 3)
    expect(body[0].curve.powerW).toHaveLength(60)
    const samples = await server.knex('pull_channels').where({ pullId: body[0].id }).orderBy('position')
    expect(samples.map((channel) => channel.name)).toEqual(['rpm', 'power', 'torque'])
    expect(samples[0].samples.readDoubleLE(8)).toBe(3050)
  })

  it('reads a Western file that is not UTF-8', async () => {
    const text = Buffer.concat([
      Buffer.from('rpm;power kW;torque Nm;intake \u00b0C\n', 'latin1'),
      Buffer.from(
        rows(20)
          .map((row) => `${row.replaceAll(',', ';')};21`)
          .join('\n'),
      ),
    ])
    expect((await send('preview', text)).body.pulls).toHaveLength(1)
  })

  it('reads a file of two bytes a letter by its own mark, in either order', async () => {
    const little = Buffer.from(
      `\ufeff${['Engine speed\tPower\tTorque', '[rpm]\t[kW]\t[N·m]', ...rows(200).map((row) => row.replaceAll(',', '\t'))].join('\r\n')}`,
      'utf16le',
    )
    for (const text of [little, Buffer.from(little).swap16()]) {
      const { body } = await send('preview', text)
      expect(body.columns?.map(({ unit }: { unit: string }) => unit)).toEqual(['rpm', 'kW', 'N·m'])
      expect(body.pulls).toMatchObject([{ rowCount: 200 }])
    }
  })

  it('stores pulls that stand beside each other, each by itself', async () => {
    const text = ['RPM;Run 1 kW;Run 2 kW', ...rows(60).map((row) => `${row.split(',')[0]};${row.split(',')[1]};${row.split(',')[1]}`)].join('\n')
    const made = await send('import', text)
    expect(made.status, made.text).toBe(201)
    expect(made.body.map(({ label }: { label: string }) => label)).toEqual(['1', '2'])
  })

  test.each([
    ['a wrong unit', ['rpm,power kW,torque Nm', ...rows(40, 1.3410220896)].join('\n'), 422, /power is in hp but labelled kW/],
    ['too few rows', ['rpm,power kW,torque Nm', ...rows(8)].join('\n'), 422, /at least 10/],
    ['a binary file', Buffer.from([0x50, 0x4b, 3, 4, 0, 0, 0, 0]), 422, /not a text file/],
    ['an empty file', ' ', 422, /empty/],
    ['another delimiter', 'rpm|power kW|torque Nm\n3000|90|300', 422, /one column only/],
  ] as const)('%s is refused and nothing is stored', async (_, body, status, sentence) => {
    const before = (await server.call('GET', `${path}/pulls`)).body.length
    const answer = await send('import', body)
    expect(answer.status).toBe(status)
    expect(answer.body.detail).toMatch(sentence)
    expect((await server.call('GET', `${path}/pulls`)).body).toHaveLength(before)
  })

  it('takes the unit a person picked', async () => {
    const text = ['rpm,power kW,torque Nm', ...rows(40, 1.3410220896)].join('\n')
    expect(
      (await send('preview', text, randomUUID(), `&mapping=${encodeURIComponent('[{"heading":"power kW","role":"power","unit":"hp"}]')}`)).body.crossCheckRatio,
    ).toBeCloseTo(1, 4)
  })

  it('refuses a file that says it is over 100 MB before reading it', async () => {
    const headers = { 'content-type': 'text/csv', 'content-length': String(101 * 1024 * 1024) }
    const answer = await server.call('POST', `${files}?mode=preview&importId=${randomUUID()}`, 'rpm,power kW\n', headers)
    expect(answer).toMatchObject({ status: 413, body: { code: 'too-large', detail: expect.stringMatching(/100 MB/) } })
  })
})

describe('a file that nobody can guess', () => {
  const text = ['Hall east', 'CH1,CH2,CH3', ...rows(40)].join('\r\n')
  const mapping = JSON.stringify([
    { heading: 'CH1', role: 'speed', unit: 'rpm' },
    { heading: 'CH2', role: 'power', unit: 'kW' },
    { heading: 'CH3', role: 'torque', unit: 'N·m' },
  ])
  it('says its columns and first rows, and is read by what a person says of them', async () => {
    const shown = await send('columns', text)
    expect(shown.body).toMatchObject({ delimiter: 'comma', columns: [{ heading: 'CH1', role: 'other' }, { heading: 'CH2' }, { heading: 'CH3' }] })
    expect(shown.body.firstRows[0]).toEqual(rows(1)[0]?.split(','))
    expect((await send('preview', text)).status).toBe(422)
    const read = await send('preview', text, randomUUID(), `&mapping=${encodeURIComponent(mapping)}`)
    expect(read.body).toMatchObject({ pulls: [{ rowCount: 40 }], notes: ['One line before the heading was left out.'] })
  })
  it('refuses a mapping that is none', async () => {
    for (const bad of ['not json', '[{"heading":"CH1","role":"horse","unit":""}]'])
      expect((await send('preview', text, randomUUID(), `&mapping=${encodeURIComponent(bad)}`)).body.detail).toMatch(/no list of columns/)
  })
  it('keeps the mapping of a dyno once, whatever the case of its name', async () => {
    const body = (dynoName: string) => ({ id: randomUUID(), dynoName, columns: JSON.parse(mapping) })
    expect((await server.call('POST', `${path}/dyno-mappings`, body('East hall'))).status).toBe(201)
    expect((await server.call('POST', `${path}/dyno-mappings`, body('east HALL'))).status).toBe(409)
  })
})

it('gives the samples of a pull as they were imported', async () => {
  const [pull] = (await send('import', ['rpm,power kW,torque Nm,AFR', ...rows(20).map((row, i) => `${row},${i === 3 ? '' : 12}`)].join('\n'))).body
  const { channels } = (await server.call('GET', `${path}/pulls/${pull.id}/samples`)).body
  expect(channels.map(({ role }: { role: string }) => role)).toEqual(['speed', 'power', 'torque', 'lambda'])
  expect(channels[3].values.slice(2, 5)).toEqual([12, null, 12])
  expect(pull.alongside.lambda.at(-1)).toBeCloseTo(12 / 14.7, 9)
  expect((await server.call('GET', `${path}/pulls/${randomUUID()}/samples`)).status).toBe(404)
})

it('curves that an earlier core worked out are made anew from the samples', async () => {
  const build = await makeBuild(server)
  const session = {
    id: randomUUID(),
    stageId: build.stageZero,
    at: '2026-02-01T10:00:00Z',
    dynoName: 'hall',
    place: 'hub',
    printedStandard: 'none',
  }
  await server.call('POST', `${build.path}/sessions`, session)
  const text = ['rpm,power kW,torque Nm', ...rows(40)].join('\n')
  const route = `${build.path}/sessions/${session.id}/pull-files?mode=import&importId=${randomUUID()}`
  const [pull] = (await server.call('POST', route, text, { 'content-type': 'text/csv' })).body
  await server
    .knex('pulls')
    .where({ id: pull.id })
    .update({ curveVersion: 0, peakPowerW: 1, curvePowerW: [1] })
  expect(await rebuildOldCurves(server.knex)).toBe(1)
  expect(await rebuildOldCurves(server.knex)).toBe(0)
  const [again] = (await server.call('GET', `${build.path}/pulls`)).body
  expect(again).toMatchObject({ peakPowerW: pull.peakPowerW, curve: pull.curve, version: pull.version })
})
