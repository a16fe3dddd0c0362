import { readFileSync } from 'node:fs'
import { buildFileSchema, type DeviceEvent } from '@bold-ballast/contract'
import { asDriven, type CoastPair, keepFit, loggedTest, makeTrackRoom, openCar } from '@bold-ballast/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { until } from '../../test/until.ts'
import { DeviceService } from './service.ts'

const FIRST = 47_220
/** The demo's car as bought on its airfield. */
const room = makeTrackRoom(openCar(buildFileSchema.parse(JSON.parse(readFileSync(new URL('../../../demo/gannet/build.json', import.meta.url), 'utf8')))))
const airfield = room.tracks.find(({ name }) => name.startsWith('Skarvholm'))
const car = asDriven(room.stages[2])
let service: DeviceService
let id = ''
let off: () => void
const events: DeviceEvent[] = []
beforeAll(async () => {
  service = new DeviceService({ first: FIRST, last: FIRST + 1 })
  const entry = await service.startStandIn('logger')
  id = entry.id
  expect(entry).toMatchObject({ kind: 'logger', isSimulated: true })
  expect(entry.channels?.map(({ name }) => name)).toContain('Lateral acc')
  off = await service.listen(id, (event) => events.push(event))
}, 30_000)
afterAll(() => {
  off()
  service.close()
})
const latest = <Type extends DeviceEvent['type']>(type: Type) =>
  events.findLast((event) => event.type === type) as Extract<DeviceEvent, { type: Type }> | undefined

/** Drag area of pairs in air of 1.2 kg/m³, by a mass of 1300 kg with what turns. */
const coastDownOf = (pairs: readonly CoastPair[]) => pairs.reduce((sum, pair) => sum + (2 * keepFit(pair).cPerM * 1300 * 1.04) / 1.2, 0) / pairs.length

async function send(whole: string): Promise<void> {
  const size = 1500
  const count = Math.ceil(whole.length / size)
  for (let index = 0; index < count; index++) await service.command(id, { type: 'piece', index, count, text: whole.slice(index * size, (index + 1) * size) })
}

describe('a simulated logger', () => {
  it('says each second how it is, and that it does not record', async () => {
    await until(() => latest('logStatus')?.status.isRecording === true)
    await service.command(id, { type: 'record', isOn: false })
    await service.command(id, { type: 'sky', isOpen: false })
    await until(() => latest('logStatus')?.status.isRecording === false)
    expect(latest('logStatus')?.status).toMatchObject({ hasPosition: false, freeShare: 0.82 })
    await service.command(id, { type: 'record', isOn: true })
    await service.command(id, { type: 'sky', isOpen: true })
  })
  it('refuses to drive without a car, pieces out of order, and what is no track', async () => {
    await expect(service.command(id, { type: 'drive', laps: 1, slower: 1, faster: 10 })).rejects.toThrow('No track and no car were sent yet.')
    await expect(service.command(id, { type: 'piece', index: 3, count: 5, text: 'x' })).rejects.toThrow(/Piece 4 came before piece 1/)
    await expect(send('neither')).rejects.toThrow(/no track and car/)
    await expect(service.command(id, { type: 'tare' })).rejects.toThrow(/does not know/)
  })
  it('drives laps of the track and car it was sent, row by row, and tells each', async () => {
    await send(JSON.stringify({ track: airfield, car }))
    await service.command(id, { type: 'drive', laps: 2, slower: 1.01, faster: 30 })
    await until(() => latest('laps')?.laps.length === 2, 20_000)
    const [first = 0, second = 0] = latest('laps')?.laps.map(({ lapS }) => lapS) ?? []
    expect(first).toBeGreaterThan(60)
    expect(Math.abs(second / first - 1)).toBeLessThan(0.01)
    const rows = events.flatMap((event) => (event.type === 'logSamples' ? event.samples : []))
    expect(rows.length).toBeGreaterThan(20)
    for (const { values } of rows) expect(values).toHaveLength(19)
    const speeds = rows.map(({ values }) => values[0] as number)
    expect(Math.max(...speeds)).toBeGreaterThan(150)
    expect(Math.min(...speeds)).toBeLessThan(100)
  }, 40_000)
  it('a page that is loaded again is told the laps and the latest rows', async () => {
    const again: DeviceEvent[] = []
    const stop = await service.listen(id, (event) => again.push(event))
    expect(again.map(({ type }) => type)).toEqual(['state', 'logStatus', 'logSamples', 'laps'])
    stop()
  })
  it('coasts a car down out and back, tells each run whole, and its truth is found again', async () => {
    const dragAreaM2 = 0.8
    const test = {
      kind: 'coastDown',
      massKg: 1300,
      rotatingShare: 0.04,
      dragAreaM2,
      rollingCoefficient: 0.014,
      downforceFrontM2: 0.2,
      downforceRearM2: 0.4,
      airDensityKgM3: 1.2,
      windMps: 1.5,
      gustMps: 0.2,
      grade: 0.003,
      front: null,
      rear: null,
      pitotFactor: 1.05,
      fromMps: 45,
      toMps: 16,
    }
    await expect(service.command(id, { type: 'test', pairs: 1, faster: 60 })).rejects.toThrow('No test was sent yet.')
    await send(JSON.stringify({ test: { ...test, massKg: 1 } }))
    await expect(service.command(id, { type: 'test', pairs: 1, faster: 60 })).rejects.toThrow(/massKg/)
    await send(JSON.stringify({ test }))
    await service.command(id, { type: 'test', pairs: 2, faster: 60 })
    const told = () => events.flatMap((event) => (event.type === 'run' ? [event.run] : []))
    await until(() => told().length === 4, 20_000)
    expect(told().map(({ way }) => way)).toEqual(['out', 'back', 'out', 'back'])
    const channels = service.list()[0]?.channels ?? []
    const { pairs } = loggedTest(channels, told())
    const found = coastDownOf(pairs as never)
    expect(Math.abs(found - dragAreaM2)).toBeLessThan(0.05 * dragAreaM2)
    // A page that comes later is told the runs too, each once.
    const again: DeviceEvent[] = []
    const stop = await service.listen(id, (event) => again.push(event))
    expect(new Set(again.flatMap((event) => (event.type === 'run' ? [event.run.runId] : []))).size).toBe(4)
    stop()
  }, 40_000)
  it('counts as lost after two and a half seconds of silence, and is found again', async () => {
    await service.command(id, { type: 'silence', seconds: 4 })
    await until(() => latest('state')?.state === 'lost', 6000)
    await until(() => latest('state')?.state === 'connected', 8000)
  }, 20_000)
})
