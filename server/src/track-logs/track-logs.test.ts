import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
let path = ''
let trackId = ''
let stageId = ''
beforeAll(async () => {
  server = await startTestServer()
  const ids = await makeBuild(server)
  path = ids.path
  stageId = ids.stageZero
  trackId = randomUUID()
  const ring = { lengthM: 600, curvaturePerM: (2 * Math.PI) / 600 }
  const made = await server.call('POST', `${path}/tracks`, { id: trackId, name: 'Ring', segments: [ring] })
  expect(made.status, made.text).toBe(201)
})
afterAll(() => server.stop())

async function newSession(kind = 'laps'): Promise<string> {
  const id = randomUUID()
  const made = await server.call('POST', `${path}/track-sessions`, { id, stageId, trackId, at: '2026-03-01T10:00:00Z', kind })
  expect(made.status, made.text).toBe(201)
  return id
}

const RATE = 50
/** A lap of 20 s at 30 m/s, some times over, with the logger's own count. */
const rows = (seconds: number) =>
  Array.from({ length: seconds * RATE }, (_, i) => `${(i / RATE).toFixed(2)},${(30 + Math.sin(i / 40)).toFixed(3)},${1 + Math.floor(i / RATE / 20)}`)
const text = (seconds: number) => ['Time (s),Speed (m/s),Lap', ...rows(seconds)].join('\r\n')

const send = (mode: string, sessionId: string, body: string | Buffer, { importId = randomUUID() as string, logId = randomUUID() as string, more = '' } = {}) =>
  server.call(
    'POST',
    `${path}/track-sessions/${sessionId}/log-files?mode=${mode}&importId=${importId}&logId=${logId}&fileName=day.csv&loggerName=Box${more}`,
    body,
    { 'content-type': 'text/csv' },
  )

describe('a log of a session', () => {
  it('is looked at without being stored, then stored once with its laps as one entry of the log', async () => {
    const sessionId = await newSession()
    const body = text(65)
    const seen = await send('preview', sessionId, body)
    expect(seen.body).toMatchObject({
      rowCount: 65 * RATE,
      delimiter: ',',
      problems: [],
      noLaps: null,
      laps: [
        { fromS: 20, lapS: 20 },
        { fromS: 40, lapS: 20 },
      ],
    })
    expect((await server.call('GET', `${path}/track-logs`)).body).toEqual([])
    const ids = { importId: randomUUID(), logId: randomUUID() }
    for (const status of [201, 201]) expect((await send('import', sessionId, body, ids)).status).toBe(status)
    const [log, ...others] = (await server.call('GET', `${path}/track-logs`)).body
    expect(others).toEqual([])
    expect(log).toMatchObject({ id: ids.logId, fileName: 'day.csv', loggerName: 'Box', rowCount: 65 * RATE, origin: null })
    expect(log.channels.map(({ role, unit }: { role: string; unit: string }) => [role, unit])).toEqual([
      ['time', 's'],
      ['speed', 'm/s'],
      ['lap', ''],
    ])
    const laps = (await server.call('GET', `${path}/laps`)).body.filter((lap: { trackSessionId: string }) => lap.trackSessionId === sessionId)
    expect(laps.map(({ lapS, logId, fromS }: { lapS: number; logId: string; fromS: number }) => [lapS, logId, fromS])).toEqual([
      [20, ids.logId, 20],
      [20, ids.logId, 40],
    ])
    expect((await server.call('GET', `${path}/track-sessions/${sessionId}`)).body).toMatchObject({ logger: 'recorded', timing: 'gps' })
    const [entry] = (await server.call('GET', `${path}/log`)).body.entries
    expect(entry).toMatchObject({ action: 'batch' })
    expect((await server.call('POST', `${path}/log/${entry.id}/undo`, {})).status).toBe(200)
    expect((await server.call('GET', `${path}/track-logs`)).body).toEqual([])
    expect((await server.call('GET', `${path}/laps`)).body).toEqual([])
    expect((await server.call('GET', `${path}/track-sessions/${sessionId}`)).body).toMatchObject({ logger: 'none' })
  })
  it('leaves laps alone that the session has, and is kept without any where none can be read', async () => {
    const sessionId = await newSession()
    await server.call('POST', `${path}/laps`, { id: randomUUID(), trackSessionId: sessionId, position: 0, lapS: 20.1 })
    expect((await send('import', sessionId, text(65))).status).toBe(201)
    const straight = await newSession('straight')
    const kept = await send('import', straight, ['time,speed', ...rows(10).map((row) => row.split(',').slice(0, 2).join(','))].join('\n'))
    expect(kept.status, kept.text).toBe(201)
    const laps = (await server.call('GET', `${path}/laps`)).body as { trackSessionId: string; lapS: number }[]
    expect(laps.filter(({ trackSessionId }) => trackSessionId === sessionId).map(({ lapS }) => lapS)).toEqual([20.1])
    expect(laps.filter(({ trackSessionId }) => trackSessionId === straight)).toEqual([])
  })
  it('says its columns, and is read by what a person says of them', async () => {
    const sessionId = await newSession()
    const odd = ['A,B,C', ...rows(30)].join('\n')
    expect((await send('preview', sessionId, odd)).body.detail).toMatch(/No line heads a time/)
    const { body } = await send('columns', sessionId, odd)
    expect(body.columns.map(({ heading, role }: { heading: string; role: string }) => [heading, role])).toEqual([
      ['A', 'other'],
      ['B', 'other'],
      ['C', 'other'],
    ])
    const mapping = [
      { heading: 'A', role: 'time', unit: 's' },
      { heading: 'B', role: 'speed', unit: 'm/s' },
      { heading: 'C', role: 'lap', unit: '' },
    ]
    const read = await send('preview', sessionId, odd, { more: `&mapping=${encodeURIComponent(JSON.stringify(mapping))}` })
    expect(read.body, read.text).toMatchObject({ rowCount: 1500 })
    const stored = { id: randomUUID(), loggerName: 'Box', columns: mapping }
    expect((await server.call('POST', `${path}/logger-mappings`, stored)).status).toBe(201)
    expect((await server.call('POST', `${path}/logger-mappings`, { ...stored, id: randomUUID(), loggerName: 'BOX' })).status).toBe(409)
  })
  test.each([
    ['a binary file', Buffer.from([0x50, 0x4b, 3, 4, 0, 0, 0, 0]), 422, /not a text file/],
    ['an empty file', ' ', 422, /empty/],
    ['a log that recorded nothing', 'time,speed\n0,1\n1,1', 422, /recorded nothing/],
    ['a clock alone', ['time,horse', ...rows(30)].join('\n'), 422, /No line heads a time/],
  ] as const)('%s is refused and nothing is stored', async (_, body, status, words) => {
    const sessionId = await newSession()
    const answer = await send('import', sessionId, body)
    expect(answer.status).toBe(status)
    expect(answer.body.detail).toMatch(words)
    expect((await server.call('GET', `${path}/track-sessions/${sessionId}`)).body).toMatchObject({ logger: 'none', version: 1 })
  })
  it('a file over 250 MB is refused before it is read', async () => {
    const sessionId = await newSession()
    const headers = { 'content-type': 'text/csv', 'content-length': String(251 * 1024 * 1024) }
    const address = `${path}/track-sessions/${sessionId}/log-files?mode=preview&importId=${randomUUID()}&logId=${randomUUID()}&fileName=a.csv`
    expect(await server.call('POST', address, 'time,speed\n', headers)).toMatchObject({ status: 413, body: { detail: expect.stringMatching(/250 MB/) } })
  })
})

describe('samples of a log', () => {
  let logId = ''
  const SECONDS = 2000
  beforeAll(async () => {
    logId = randomUUID()
    const made = await send('import', await newSession(), text(SECONDS), { logId })
    expect(made.status, made.text).toBe(201)
  })
  const samples = async (query: string) => (await server.call('GET', `${path}/track-logs/${logId}/samples?channels=1${query}`)).body
  const speedAt = (i: number) => Math.fround(30 + Math.sin(i / 40))

  it('are whole where they are few, over the edge of two pieces too', async () => {
    const fromS = 65_536 / RATE - 5
    const { perEntry, timeS, channels } = await samples(`&fromS=${fromS}&toS=${fromS + 10}&most=4000`)
    expect(perEntry).toBe(1)
    expect(channels[0].most).toBeNull()
    expect(timeS[0]).toBeLessThanOrEqual(fromS)
    expect(timeS.at(-1)).toBeGreaterThanOrEqual(fromS + 10)
    for (const [i, t] of (timeS as number[]).entries()) expect(channels[0].least[i]).toBeCloseTo(speedAt(Math.round(t * RATE)), 2)
  })
  test.each([
    [4000, 64],
    [200, 4096],
  ])('in at most %i entries each is of %i', async (most, per) => {
    const { perEntry, timeS, channels } = await samples(`&most=${most}`)
    expect(perEntry).toBe(per)
    expect(timeS).toHaveLength(Math.ceil((SECONDS * RATE) / per))
    const least = Math.min(...Array.from({ length: per }, (_, i) => speedAt(i)))
    const mostOf = Math.max(...Array.from({ length: per }, (_, i) => speedAt(i)))
    expect(channels[0].least[0]).toBeCloseTo(least, 2)
    expect(channels[0].most[0]).toBeCloseTo(mostOf, 2)
  })
  it('go into the build’s file where that is asked, and come back as they were', async () => {
    const plain = await server.callForBytes('GET', `${path}/file`)
    const whole = await server.callForBytes('GET', `${path}/file?logs=yes`)
    const import_ = async (bytes: Buffer) => {
      const made = await server.call('POST', `/api/build-files?mode=import&as=new&importId=${randomUUID()}`, bytes, { 'content-type': 'application/zip' })
      expect(made.status, made.text).toBe(201)
      const to = `/api/builds/${made.body.buildId}`
      const logs = (await server.call('GET', `${to}/track-logs`)).body as { id: string; rowCount: number }[]
      const log = logs.find(({ rowCount }) => rowCount === SECONDS * RATE)
      return server.call('GET', `${to}/track-logs/${log?.id}/samples?channels=0,1,2&fromS=100&toS=110`)
    }
    const without = await import_(plain)
    expect(without).toMatchObject({ status: 404, body: { detail: expect.stringMatching(/came in without them/) } })
    const { body } = await import_(whole)
    const own = await server.call('GET', `${path}/track-logs/${logId}/samples?channels=0,1,2&fromS=100&toS=110`)
    expect(body).toEqual(own.body)
  })
})
