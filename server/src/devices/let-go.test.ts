import net from 'node:net'
import { DEVICE_PROTOCOL_VERSION, type DeviceEvent } from '@bold-ballast/contract'
import { afterEach, expect, it } from 'vitest'
import { until } from '../../test/until.ts'
import { DeviceService } from './service.ts'

const FIRST = 46_420
let service: DeviceService
let devices: net.Server[] = []
afterEach(async () => {
  service.close()
  for (const device of devices) device.close()
  devices = []
})

const HELLO = { type: 'hello', protocol: DEVICE_PROTOCOL_VERSION, device: 'scales', name: 'four pads', serial: '7', isSimulated: false, resolutionKg: 0.1 }
/** A device of our own that says hello and then what a test wants. */
const deviceAt = (port: number, talk: (socket: net.Socket) => void): Promise<net.Server> =>
  new Promise((resolve) => {
    const device = net.createServer((socket) => {
      socket.on('error', () => {})
      socket.write(`${JSON.stringify(HELLO)}\n`)
      talk(socket)
    })
    devices.push(device)
    device.listen(port, '127.0.0.1', () => resolve(device))
  })

it('a device that floods is let go', async () => {
  service = new DeviceService({ first: FIRST, last: FIRST })
  let ended = false
  await deviceAt(FIRST, (socket) => {
    socket.on('close', () => {
      ended = true
    })
    const line = `${JSON.stringify({ type: 'noise', of: 'x'.repeat(900) })}\n`.repeat(40)
    const flood = () => {
      while (!socket.destroyed && socket.write(line));
    }
    socket.on('drain', flood)
    setTimeout(flood, 300)
  })
  expect(await service.find()).toHaveLength(1)
  await until(() => ended)
  expect(ended).toBe(true)
})

it('who listens hears of the next device on the same port, after the first was let go', async () => {
  service = new DeviceService({ first: FIRST + 1, last: FIRST + 1 })
  const made = await service.startStandIn()
  const events: DeviceEvent[] = []
  const stop = await service.listen(made.id, (event) => events.push(event))
  service.stopStandIn(made.id)
  await until(() => events.some((event) => event.type === 'state' && event.state === 'lost'))
  events.length = 0
  // The port is free some moments after its process has gone.
  for (let tries = 0; service.list().length === 0 && tries < 20; tries++) {
    await service.startStandIn().catch(() => new Promise((resolve) => setTimeout(resolve, 100)))
  }
  await until(() => events.some(({ type }) => type === 'reading'))
  expect(events[0]).toMatchObject({ type: 'state', state: 'connected' })
  stop()
}, 30_000)

it('a device that went on talking while this thread was held up is not taken for silent', async () => {
  service = new DeviceService({ first: FIRST, last: FIRST })
  const states: string[] = []
  const { id } = await service.startStandIn('scales')
  const off = await service.listen(id, (event) => event.type === 'state' && states.push(event.state))
  for (let i = 0; i < 2; i++) {
    // A process of its own, it talks on; the thread that would hear it sleeps for longer than silence may last.
    Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 3200)
    await new Promise((resolve) => setTimeout(resolve, 300))
  }
  const asked = service.command(id, { type: 'tare' })
  await new Promise((resolve) => setImmediate(resolve))
  Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 2500)
  await asked
  off()
  expect(states).toEqual(['connected'])
}, 20_000)
