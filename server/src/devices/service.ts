import { type ChildProcess, spawn } from 'node:child_process'
import { existsSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { DEVICE_PORTS, type DeviceCommand, type DeviceEntry, type DeviceEvent, type DeviceKind, REAL_COMMANDS } from '@bold-ballast/contract'
import { AppError } from '../http/problem.ts'
import { DeviceConnection } from './connection.ts'

const PROBE_MS = 400
const START_MS = 15_000

/** The simulated device beside this program: built, or as it is written. */
function standInCommand(kind: DeviceKind): string[] {
  const built = fileURLToPath(new URL(`./devices/standins/${kind}.js`, import.meta.url))
  return existsSync(built) ? [built] : ['--import', 'tsx', fileURLToPath(new URL(`./standins/${kind}.ts`, import.meta.url))]
}

/** Devices on this machine: found on their ports, kept connected, asked, and simulated ones started and stopped. */
export class DeviceService {
  private readonly ports: { readonly first: number; readonly last: number }
  private readonly open = new Map<number, DeviceConnection>()
  private readonly standIns = new Map<number, ChildProcess>()
  /** How each one who listens is taken off the connection it listens to now. */
  private readonly heard = new Map<(event: DeviceEvent) => void, () => void>()
  /** Who listened to a device that was let go, by its port. */
  private readonly left = new Map<number, readonly ((event: DeviceEvent) => void)[]>()

  constructor(ports: { readonly first: number; readonly last: number } = DEVICE_PORTS) {
    this.ports = ports
  }

  list(): DeviceEntry[] {
    return [...this.open.values()].flatMap(({ hello, port, state }): DeviceEntry[] => {
      if (!hello) return []
      const { device: kind, name, serial, isSimulated } = hello
      return [{ id: String(port), kind, name, serial, isSimulated, state, ...(hello.device === 'logger' ? { channels: hello.channels } : {}) }]
    })
  }

  /** Looks at every port that is not open yet, all at once. */
  async find(): Promise<DeviceEntry[]> {
    for (const [port, device] of this.open) if (device.state === 'lost') this.forget(port)
    await Promise.all(this.freePorts().map((port) => this.tryPort(port)))
    return this.list()
  }

  private freePorts(): number[] {
    const { first, last } = this.ports
    return Array.from({ length: last - first + 1 }, (_, i) => first + i).filter((port) => !this.open.has(port))
  }

  private async tryPort(port: number): Promise<boolean> {
    const device = new DeviceConnection(port)
    if (!(await device.open(PROBE_MS))) {
      device.close()
      return false
    }
    this.open.set(port, device)
    for (const listener of this.left.get(port) ?? []) if (this.heard.has(listener)) this.heard.set(listener, device.listen(listener))
    this.left.delete(port)
    return true
  }

  /** Lets a device go; those who listen hear of it, and of the next one on its port. */
  private forget(port: number): void {
    const device = this.open.get(port)
    device?.close()
    const listeners = device?.takeListeners() ?? []
    for (const listener of listeners) listener({ type: 'state', state: 'lost', at: new Date().toISOString() })
    if (listeners.length > 0) this.left.set(port, listeners)
    this.open.delete(port)
  }

  private device(id: string): DeviceConnection {
    const found = this.open.get(Number(id))
    if (!found) throw new AppError('not-found', 'There is no such device. Find the devices again.')
    return found
  }

  async command(id: string, command: DeviceCommand): Promise<void> {
    const device = this.device(id)
    const { hello } = device
    if (hello && !hello.isSimulated && !REAL_COMMANDS[hello.device].includes(command.type))
      throw new AppError('rule-broken', 'Only a simulated device can be told what happens to it.')
    const refusal = await device.ask(command)
    if (refusal) throw new AppError('rule-broken', refusal)
  }

  /** One that this server has not met since it was started is looked for on its port first. */
  async listen(id: string, listener: (event: DeviceEvent) => void): Promise<() => void> {
    const port = Number(id)
    if (this.freePorts().includes(port)) await this.tryPort(port)
    this.heard.set(listener, this.device(id).listen(listener))
    return () => {
      this.heard.get(listener)?.()
      this.heard.delete(listener)
    }
  }

  /** Starts a simulated device as a process of its own on the next free port. */
  async startStandIn(kind: DeviceKind = 'scales'): Promise<DeviceEntry> {
    for (const port of this.freePorts()) {
      const child = spawn(process.execPath, [...standInCommand(kind), String(port)], { stdio: ['pipe', 'pipe', 'ignore'] })
      if (!(await isReady(child))) {
        child.kill('SIGKILL')
        continue
      }
      this.standIns.set(port, child)
      child.once('exit', () => this.standIns.delete(port))
      if (await this.tryPort(port)) return this.list().find(({ id }) => id === String(port)) as DeviceEntry
      child.kill('SIGKILL')
    }
    throw new AppError('rule-broken', `No port from ${this.ports.first} to ${this.ports.last} is free for another simulated device. Stop one first.`)
  }

  /** Stops a simulated device that was started here; one that runs by itself is only let go. */
  stopStandIn(id: string): void {
    this.device(id)
    this.standIns.get(Number(id))?.kill('SIGKILL')
    this.forget(Number(id))
  }

  /** Aborted when no device is listened to any more. */
  readonly closed = new AbortController()

  close(): void {
    this.closed.abort()
    for (const port of this.open.keys()) this.forget(port)
    for (const child of this.standIns.values()) child.kill('SIGKILL')
  }
}

function isReady(child: ChildProcess): Promise<boolean> {
  return new Promise((resolve) => {
    const timer = setTimeout(() => resolve(false), START_MS)
    const end = (isThere: boolean) => {
      clearTimeout(timer)
      resolve(isThere)
    }
    child.stdout?.once('data', () => end(true))
    child.once('exit', () => end(false))
    child.once('error', () => end(false))
  })
}
