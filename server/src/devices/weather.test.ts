import type { DeviceEvent } from '@bold-ballast/contract'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { until } from '../../test/until.ts'
import { DeviceService } from './service.ts'

const FIRST = 47_240
let service: DeviceService
let id = ''
let off: () => void
const events: DeviceEvent[] = []
const latest = () => events.findLast((event) => event.type === 'air') as Extract<DeviceEvent, { type: 'air' }> | undefined

beforeAll(async () => {
  service = new DeviceService({ first: FIRST, last: FIRST + 1 })
  const entry = await service.startStandIn('weather')
  expect(entry).toMatchObject({ kind: 'weather', isSimulated: true })
  id = entry.id
  off = await service.listen(id, (event) => events.push(event))
}, 30_000)
afterAll(() => {
  off()
  service.close()
})

describe('a simulated weather station', () => {
  it('reads its air again and again', async () => {
    await until(() => events.filter(({ type }) => type === 'air').length >= 2)
    expect(latest()?.air.pressurePa).toBeGreaterThan(99_000)
  })
  it('has the weather it is told', async () => {
    await service.command(id, { type: 'weather', air: { pressurePa: 89_300, temperatureK: 291.15, relativeHumidity: 0.5, windMps: null } })
    await until(() => Math.abs((latest()?.air.pressurePa ?? 0) - 89_300) < 40)
    expect(latest()?.air).toMatchObject({ windMps: null, temperatureK: expect.closeTo(291.15, 0) })
  })
  it('refuses what is for another device', async () => {
    await expect(service.command(id, { type: 'tare' })).rejects.toThrow('This weather station does not know that command.')
  })
  it('tells a page that comes later what it reads', async () => {
    const again: DeviceEvent[] = []
    const stop = await service.listen(id, (event) => again.push(event))
    expect(again.map(({ type }) => type)).toEqual(['state', 'air'])
    stop()
  })
})
