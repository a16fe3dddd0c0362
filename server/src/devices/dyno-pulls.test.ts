import net from 'node:net'
import type { DeviceEvent } from '@bold-ballast/contract'
import { describe, expect, it } from 'vitest'
import { until } from '../../test/until.ts'
import { DeviceConnection } from './connection.ts'
import { DeviceService } from './service.ts'

/** A dyno of another maker's adapter on a port: what it says is written by the test. */
async function oddDyno(): Promise<{ port: number; say: (...messages: object[]) => void; drop: () => void; close: () => void }> {
  const sockets = new Set<net.Socket>()
  const hello = { type: 'hello', protocol: 1, device: 'dyno', name: 'odd', serial: '7', place: 'hub', samplesPerS: 50, isSimulated: false }
  const line = (message: object) => `${JSON.stringify(message)}\n`
  const server = net.createServer((socket) => {
    sockets.add(socket)
    socket.on('error', () => {})
    socket.on('close', () => sockets.delete(socket))
    socket.write(line(hello))
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  return {
    port: (server.address() as net.AddressInfo).port,
    say: (...messages) => {
      for (const socket of sockets) socket.write(messages.map(line).join(''))
    },
    drop: () => {
      for (const socket of sockets) socket.destroy()
    },
    close: () => server.close(),
  }
}

describe('pulls of a dyno', () => {
  // Without coolant and fuel pressure, as an older adapter says it.
  const sample = (pull: number, timeS: number, more: object = {}) => ({
    type: 'sample',
    pull,
    timeS,
    speedRpm: 3000 + 100 * timeS,
    torqueNm: 300,
    powerW: 94_000,
    boostPa: null,
    lambda: 0.86,
    intakeK: 310,
    ...more,
  })
  const pullsOf = (events: readonly DeviceEvent[]) => {
    const pulls = new Map<string, number[]>()
    for (const event of events)
      if (event.type === 'samples') pulls.set(event.pullId, [...(pulls.get(event.pullId) ?? []), ...event.samples.map(({ timeS }) => timeS)])
    return [...pulls.values()]
  }
  const open = async () => {
    const odd = await oddDyno()
    const device = new DeviceConnection(odd.port)
    expect(await device.open(2000)).toBe(true)
    const events: DeviceEvent[] = []
    device.listen((event) => events.push(event))
    const end = () => {
      device.close()
      odd.close()
    }
    return { odd, device, events, end }
  }

  it('are kept apart, and the latest twelve are told to a page that is opened later', async () => {
    const { odd, device, events, end } = await open()
    for (let pull = 1; pull <= 14; pull++) odd.say(sample(pull, 0), sample(pull, 0.02))
    await until(() => pullsOf(events).length === 14)
    expect(pullsOf(events)).toEqual(Array.from({ length: 14 }, () => [0, 0.02]))
    const later: DeviceEvent[] = []
    device.listen((event) => later.push(event))
    expect(later.flatMap((event) => (event.type === 'samples' ? [event.samples[0]?.pull] : []))).toEqual(Array.from({ length: 12 }, (_, i) => i + 3))
    end()
  }, 15_000)

  it('go on after the line was lost in the middle, and are others when the dyno counts from 1 once more', async () => {
    const { odd, device, events, end } = await open()
    odd.say(sample(1, 0), sample(1, 0.02))
    await until(() => pullsOf(events)[0]?.length === 2)
    odd.drop()
    await until(() => device.state === 'lost')
    await until(() => device.state === 'connected')
    odd.say(sample(1, 0.04))
    await until(() => pullsOf(events)[0]?.length === 3)
    odd.say(sample(1, 0), sample(1, 0.02))
    await until(() => pullsOf(events).length === 2)
    expect(pullsOf(events)).toEqual([
      [0, 0.02, 0.04],
      [0, 0.02],
    ])
    end()
  }, 20_000)

  it('may say coolant and fuel pressure, or leave them out', async () => {
    const { odd, events, end } = await open()
    odd.say(sample(1, 0), sample(1, 0.02, { coolantK: 361.5, fuelPressurePa: 381_000 }), sample(1, 0.04, { coolantK: 'hot' }))
    await until(() => pullsOf(events)[0]?.length === 2)
    const told = events.flatMap((event) => (event.type === 'samples' ? event.samples : []))
    expect(told.map(({ coolantK, fuelPressurePa }) => [coolantK, fuelPressurePa])).toEqual([
      [null, null],
      [361.5, 381_000],
    ])
    end()
  }, 15_000)

  it('are found on their port by a page that asks a server which was started anew', async () => {
    const odd = await oddDyno()
    const fresh = new DeviceService({ first: odd.port, last: odd.port })
    const events: DeviceEvent[] = []
    await fresh.listen(String(odd.port), (event) => events.push(event))
    odd.say(sample(1, 0))
    await until(() => pullsOf(events).length === 1)
    await expect(fresh.listen(String(odd.port + 1), () => {})).rejects.toThrow(/no such device/)
    fresh.close()
    odd.close()
  }, 15_000)
})
