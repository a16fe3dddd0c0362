import net from 'node:net'
import type { DeviceCommand, DeviceEvent } from '@bold-ballast/contract'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { startTestServer, type TestServer } from '../../test/test-server.ts'
import { until } from '../../test/until.ts'
import { DeviceConnection } from './connection.ts'
import { DeviceService } from './service.ts'

let server: TestServer
const service = new DeviceService({ first: 46_310, last: 46_312 })
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(async () => {
  service.close()
  await server.stop()
})

describe('a simulated scale set', () => {
  it('settles, is zeroed, loses a pad, and is told of when it goes and comes', async () => {
    const device = await service.startStandIn()
    expect(device).toMatchObject({ isSimulated: true, state: 'connected' })
    const events: DeviceEvent[] = []
    const stop = await service.listen(device.id, (event) => events.push(event))
    const pads = () => {
      const last = events.findLast((event) => event.type === 'reading')
      return last?.type === 'reading' ? last.reading.pads : undefined
    }
    await service.command(device.id, { type: 'load', loadKg: { LF: 300, RF: 290, LR: 280, RR: 270 } })
    await until(() => pads()?.LF?.isStable === false)
    await until(() => pads()?.LF?.isStable && Math.abs(pads()?.LF?.kg ?? 0) > 299)
    expect(Math.abs((pads()?.RR?.kg ?? 0) - 270)).toBeLessThan(1)
    await service.command(device.id, { type: 'tare' })
    await until(() => Math.abs(pads()?.LF?.kg ?? 9) < 1)
    await service.command(device.id, { type: 'drop', pad: 'LR', isOut: true })
    await until(() => pads()?.LR === null)
    expect(pads()?.LF).not.toBeNull()
    await service.command(device.id, { type: 'battery', pad: 'RF', level: 0.05 })
    await until(() => (pads()?.RF?.battery ?? 1) < 0.06)
    stop()
    service.stopStandIn(device.id)
    expect(service.list()).toEqual([])
  }, 30_000)

  it('is refused over HTTP what it does not know, and streamed as events', async () => {
    const made = await server.call('POST', '/api/devices/stand-ins', {})
    expect(made.status, made.text).toBe(201)
    const bad = await server.call('POST', `/api/devices/${made.body.id}/commands`, { type: 'explode' })
    expect(bad.status).toBe(422)
    expect((await server.call('POST', '/api/devices/99/commands', { type: 'tare' })).status).toBe(404)
    const stream = await fetch(`http://127.0.0.1:${server.port}/api/devices/${made.body.id}/stream`)
    expect(stream.headers.get('content-type')).toMatch(/text\/event-stream/)
    const reader = stream.body?.getReader()
    let text = ''
    while (!text.includes('"reading"')) text += new TextDecoder().decode((await reader?.read())?.value)
    expect(text).toMatch(/"state":"connected"/)
    await reader?.cancel()
    await server.call('DELETE', `/api/devices/stand-ins/${made.body.id}`, {})
    expect((await server.call('GET', '/api/devices')).body).toEqual([])
  }, 30_000)
})

describe('a simulated dyno', () => {
  const car = {
    torqueCurve: [
      { speedRpm: 2000, torqueNm: 300 },
      { speedRpm: 4000, torqueNm: 400 },
      { speedRpm: 6000, torqueNm: 300 },
    ],
    inertiaKgM2: 2,
    rateRpmPerS: 2000,
    boostPa: 0,
    // Dry air of 99 kPa and 298 K: the torque is the curve's own.
    ambient: { pressurePa: 99_000, temperatureK: 298, relativeHumidity: 0 },
    noiseShare: 0,
    soakShare: 0,
  } as const
  const open = async () => {
    const device = await service.startStandIn('dyno')
    const events: DeviceEvent[] = []
    const listen = () => service.listen(device.id, (event) => events.push(event))
    const stop = await listen()
    return {
      ask: (command: DeviceCommand) => service.command(device.id, command),
      listen,
      events,
      samples: () => events.flatMap((event) => (event.type === 'samples' ? event.samples : [])),
      status: () => {
        const last = events.findLast((event) => event.type === 'status')
        return last?.type === 'status' ? last.status : undefined
      },
      end: () => {
        stop()
        service.stopStandIn(device.id)
      },
    }
  }

  it('makes a braked pull at its rate and of the curve it was told, whole', async () => {
    const dyno = await open()
    await dyno.ask({ type: 'car', car: { ...car, torqueCurve: [...car.torqueCurve], mode: 'brake' } })
    await dyno.ask({ type: 'pull' })
    await until(() => dyno.status()?.ended === 'whole')
    const samples = dyno.samples()
    // 4 000 rpm at 2 000 rpm/s, 50 samples a second.
    expect(samples.length).toBeGreaterThanOrEqual(100)
    expect(samples.length).toBeLessThanOrEqual(102)
    for (const { speedRpm, torqueNm, powerW, timeS, boostPa } of samples) {
      expect(torqueNm).toBeCloseTo(speedRpm <= 4000 ? 300 + (speedRpm - 2000) / 20 : 400 - (speedRpm - 4000) / 20, 1)
      expect(Math.abs(powerW - (torqueNm * speedRpm * Math.PI) / 30)).toBeLessThan(10)
      expect(speedRpm).toBeCloseTo(2000 + 2000 * timeS, 0)
      expect(boostPa).toBeNull()
    }
    dyno.end()
  }, 20_000)

  it('is stopped in the middle and keeps what it read, told whole to a page that is opened later', async () => {
    const dyno = await open()
    await dyno.ask({ type: 'car', car: { ...car, torqueCurve: [...car.torqueCurve], mode: 'inertia', inertiaKgM2: 20 } })
    await dyno.ask({ type: 'pull' })
    await expect(dyno.ask({ type: 'pull' })).rejects.toThrow(/running already/)
    await until(() => dyno.samples().length > 20)
    await dyno.ask({ type: 'stop' })
    await until(() => dyno.status()?.ended === 'stopped')
    await expect(dyno.ask({ type: 'stop' })).rejects.toThrow(/No pull is running/)
    const before = dyno.samples().length
    dyno.events.length = 0
    const stop = await dyno.listen()
    expect(dyno.samples()).toHaveLength(before)
    stop()
    dyno.end()
  }, 20_000)
})

describe('a device that misbehaves', () => {
  const hello = { type: 'hello', protocol: 1, device: 'scales', name: 'odd', serial: '1', resolutionKg: 0.5, isSimulated: false }
  const pad = { kg: 1, isStable: true, battery: 1 }
  const reading = { type: 'reading', sequence: 0, pads: { LF: pad, RF: pad, LR: pad, RR: pad } }
  const serve = (greet: (socket: net.Socket) => void): Promise<{ port: number; close: () => void; sockets: Set<net.Socket> }> =>
    new Promise((resolve) => {
      const sockets = new Set<net.Socket>()
      const odd = net.createServer((socket) => {
        sockets.add(socket)
        socket.on('error', () => {})
        greet(socket)
      })
      odd.listen(0, '127.0.0.1', () => resolve({ port: (odd.address() as net.AddressInfo).port, sockets, close: () => odd.close() }))
    })

  it('is not taken for one when it speaks another protocol or nothing', async () => {
    for (const greet of [(socket: net.Socket) => socket.write(`${JSON.stringify({ ...hello, protocol: 9 })}\n`), () => {}]) {
      const odd = await serve(greet)
      const device = new DeviceConnection(odd.port)
      expect(await device.open(300)).toBe(false)
      device.close()
      odd.close()
    }
  })

  it('has its broken lines left out, is told of when it is lost in the middle, and found again', async () => {
    const odd = await serve((socket) => {
      socket.write(`${JSON.stringify(hello)}\nnot json\n{"type":"reading","pads":7}\n`)
      socket.write(JSON.stringify(reading).slice(0, 20))
      setTimeout(() => socket.write(`${JSON.stringify(reading).slice(20)}\n`), 50)
    })
    const device = new DeviceConnection(odd.port)
    const events: DeviceEvent[] = []
    device.listen((event) => events.push(event))
    expect(await device.open(1000)).toBe(true)
    await until(() => events.some((event) => event.type === 'reading'))
    expect(events.filter((event) => event.type === 'reading')).toHaveLength(1)
    for (const socket of odd.sockets) socket.destroy()
    await until(() => events.at(-1)?.type === 'state' && device.state === 'lost')
    expect(await device.ask({ type: 'tare' })).toMatch(/does not answer/)
    await until(() => device.state === 'connected')
    device.close()
    odd.close()
  }, 15_000)

  it('a real one cannot be told what stands on it', async () => {
    const odd = await serve((socket) => socket.write(`${JSON.stringify(hello)}\n`))
    const real = new DeviceService({ first: odd.port, last: odd.port })
    const [device] = await real.find()
    await expect(real.command(String(device?.id), { type: 'drift', kgPerMinute: 1 })).rejects.toThrow(/Only a simulated device/)
    real.close()
    odd.close()
  })
})
