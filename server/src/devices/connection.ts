import { randomUUID } from 'node:crypto'
import net from 'node:net'
import {
  type AirReading,
  DEVICE_PROTOCOL_VERSION,
  type DeviceEvent,
  type DeviceHello,
  type DynoSample,
  type DynoStatus,
  deviceMessageSchema,
  LONGEST_LINE_BYTES,
  type LoggedTestRun,
  type LoggerStatus,
  type LogLap,
  type LogRun,
  type LogSample,
} from '@bold-ballast/contract'
import { afterSilence } from './after-silence.ts'

const RETRY_MS = 1000
/** A device that says nothing for so long counts as lost. */
const SILENCE_MS = 2500
const ANSWER_MS = 2000
const MOST_BYTES_A_SECOND = 1_000_000
const MOST_UNREAD_BYTES = 64_000
/** How often samples are told, how many of a pull are kept (ten minutes at 50 a second), and how many pulls. */
const SAMPLES_MS = 90
const MOST_SAMPLES = 30_000
const MOST_PULLS = 12
/** Of a logger: so many rows and laps are kept for a page that is loaded again. The log itself is in its own storage. */
const MOST_ROWS = 600
const MOST_LAPS = 200
/** So many runs of a test are kept, and so many rows of each (four minutes at five a second). */
const MOST_RUNS = 12
const MOST_RUN_ROWS = 1200

/** One device on a loopback port: kept connected, told of when it is lost, and asked. Lines it does not send right are left out. */
export class DeviceConnection {
  readonly port: number
  hello: DeviceHello | null = null
  state: 'connected' | 'lost' = 'lost'
  private socket: net.Socket | null = null
  private readonly listeners = new Set<(event: DeviceEvent) => void>()
  private readonly waiting = new Map<number, (refusal: string | null) => void>()
  private nextId = 1
  private status: DynoStatus | null = null
  /** The latest pulls, oldest first. */
  private pulls: { readonly pullId: string; readonly samples: DynoSample[] }[] = []
  private unsent: DynoSample[] = []
  private loggerStatus: LoggerStatus | null = null
  private rows: LogSample[] = []
  private unsentRows: LogSample[] = []
  private laps: LogLap[] = []
  /** Of tests: those that have ended, oldest first, and the one that is driven. */
  private runs: LoggedTestRun[] = []
  private run: { way: LogRun['way']; rows: LogSample[] } | null = null
  private air: AirReading | null = null
  private sending: NodeJS.Timeout | null = null
  private retry: NodeJS.Timeout | null = null
  private stopSilence = () => {}
  private isClosed = false

  constructor(port: number) {
    this.port = port
  }

  /** Resolves to whether a device of our protocol answered within the time. */
  open(withinMs: number): Promise<boolean> {
    return new Promise((resolve) => {
      const timer = setTimeout(() => resolve(false), withinMs)
      this.connect((isThere) => {
        clearTimeout(timer)
        resolve(isThere)
      })
    })
  }

  listen(listener: (event: DeviceEvent) => void): () => void {
    // What waits goes to those who listen already; the new one is told all of the pull.
    this.sendSamples()
    this.listeners.add(listener)
    const at = new Date().toISOString()
    listener({ type: 'state', state: this.state, at })
    if (this.status) listener({ type: 'status', status: this.status, at })
    for (const { pullId, samples } of this.pulls) listener({ type: 'samples', pullId, samples, at })
    if (this.loggerStatus) listener({ type: 'logStatus', status: this.loggerStatus, at })
    if (this.rows.length > 0) listener({ type: 'logSamples', samples: this.rows, at })
    if (this.laps.length > 0) listener({ type: 'laps', laps: this.laps, at })
    for (const run of this.runs) listener({ type: 'run', run, at })
    if (this.air) listener({ type: 'air', air: airOf(this.air), at })
    return () => this.listeners.delete(listener)
  }

  /** Null when the device did it, else why not. */
  ask(command: object): Promise<string | null> {
    const id = this.nextId++
    return new Promise((resolve) => {
      if (!this.socket || this.state === 'lost') return resolve('The device does not answer. Check that it is on, then find it again.')
      const stop = afterSilence(ANSWER_MS, () => {
        this.waiting.delete(id)
        resolve('The device did not answer in time. Try again.')
      })
      this.waiting.set(id, (refusal) => {
        stop()
        resolve(refusal)
      })
      this.socket.write(`${JSON.stringify({ ...command, id })}\n`)
      // One that never reads what it is sent is let go before it fills the memory.
      if (this.socket.writableLength > MOST_UNREAD_BYTES) this.socket.destroy()
    })
  }

  /** Those who listen, for another connection on the same port to take over. */
  takeListeners(): ((event: DeviceEvent) => void)[] {
    const all = [...this.listeners]
    this.listeners.clear()
    return all
  }

  close(): void {
    this.isClosed = true
    if (this.retry) clearTimeout(this.retry)
    this.stopSilence()
    if (this.sending) clearTimeout(this.sending)
    this.socket?.destroy()
  }

  private connect(told: (isThere: boolean) => void = () => {}): void {
    const socket = net.connect({ host: '127.0.0.1', port: this.port })
    this.socket = socket
    let rest = ''
    let since = Date.now()
    let bytes = 0
    socket.setEncoding('utf8')
    socket.on('data', (text: string) => {
      // One that sends far more than any reading needs is let go, and tried again later.
      if (Date.now() - since > 1000) [since, bytes] = [Date.now(), 0]
      bytes += text.length
      if (bytes > MOST_BYTES_A_SECOND) return void socket.destroy()
      const lines = (rest + text).split('\n')
      rest = lines.pop() ?? ''
      if (rest.length > LONGEST_LINE_BYTES) return void socket.destroy()
      for (const line of lines) if (line.trim() !== '') this.take(line, told)
    })
    socket.on('error', () => {})
    socket.on('close', () => {
      told(false)
      this.becomes('lost')
      for (const answer of this.waiting.values()) answer('The device was lost before it answered.')
      this.waiting.clear()
      // Only one that was known is looked for again.
      if (!this.isClosed && this.hello) this.retry = setTimeout(() => this.connect(), RETRY_MS)
    })
  }

  private take(line: string, told: (isThere: boolean) => void): void {
    const message = deviceMessageSchema.safeParse(parse(line)).data
    if (!message) return
    if (message.type === 'hello') {
      if (message.protocol !== DEVICE_PROTOCOL_VERSION) return void this.socket?.destroy()
      this.hello = message
      this.becomes('connected')
      told(true)
    } else if (message.type === 'reading') {
      this.tell({ type: 'reading', reading: message, at: new Date().toISOString() })
    } else if (message.type === 'status') {
      this.sendSamples()
      this.status = message
      this.tell({ type: 'status', status: message, at: new Date().toISOString() })
    } else if (message.type === 'sample') {
      this.takeSample(message)
    } else if (message.type === 'run') {
      this.takeRun(message)
    } else if (message.type === 'air') {
      this.air = message
      this.tell({ type: 'air', air: airOf(message), at: new Date().toISOString() })
    } else if (message.type === 'log-status' || message.type === 'log-sample' || message.type === 'lap') {
      this.takeLogged(message)
    } else {
      this.waiting.get(message.id)?.(message.type === 'done' ? null : message.message)
      this.waiting.delete(message.id)
    }
    this.stopSilence()
    this.stopSilence = afterSilence(SILENCE_MS, () => this.socket?.destroy())
  }

  /** Kept with the pulls before it, and told some at a time. A pull that counts from the start again is another one, whatever its number. */
  private takeSample(sample: DynoSample): void {
    const last = this.pulls.at(-1)?.samples.at(-1)
    if (!last || last.pull !== sample.pull || sample.timeS <= last.timeS) {
      this.sendSamples()
      this.pulls = [...this.pulls.slice(1 - MOST_PULLS), { pullId: randomUUID(), samples: [] }]
    }
    const samples = this.pulls.at(-1)?.samples as DynoSample[]
    if (samples.length >= MOST_SAMPLES) return
    samples.push(sample)
    this.unsent.push(sample)
    this.sending ??= setTimeout(() => this.sendSamples(), SAMPLES_MS)
  }

  /** What a logger says: of itself, a row of its channels, or a lap. One that counts from the start again begins anew. */
  private takeLogged(message: LoggerStatus | LogSample | LogLap): void {
    const at = new Date().toISOString()
    if (message.type === 'log-status') {
      this.loggerStatus = message
      this.tell({ type: 'logStatus', status: message, at })
    } else if (message.type === 'lap') {
      this.laps = [...(message.lap <= (this.laps.at(-1)?.lap ?? 0) ? [] : this.laps.slice(1 - MOST_LAPS)), message]
      this.tell({ type: 'laps', laps: this.laps, at })
    } else {
      if (message.timeS < (this.rows.at(-1)?.timeS ?? 0)) this.rows = []
      this.rows = [...this.rows.slice(1 - MOST_ROWS), message]
      if (this.run && this.run.rows.length < MOST_RUN_ROWS) this.run.rows.push(message)
      this.unsentRows.push(message)
      this.sending ??= setTimeout(() => this.sendSamples(), SAMPLES_MS)
    }
  }

  /** A run of a test is told once it has ended, with all its rows; one that is begun anew before it ended is left out. */
  private takeRun({ way, isOn }: LogRun): void {
    const ended = isOn ? null : this.run
    this.run = isOn ? { way, rows: [] } : null
    if (!ended || ended.rows.length === 0) return
    const run = { runId: randomUUID(), way: ended.way, rows: ended.rows.map(({ timeS, values }) => ({ timeS, values })) }
    this.runs = [...this.runs.slice(1 - MOST_RUNS), run]
    this.tell({ type: 'run', run, at: new Date().toISOString() })
  }

  private sendSamples(): void {
    if (this.sending) clearTimeout(this.sending)
    this.sending = null
    if (this.unsentRows.length > 0) this.tell({ type: 'logSamples', samples: this.unsentRows, at: new Date().toISOString() })
    this.unsentRows = []
    const pullId = this.pulls.at(-1)?.pullId
    if (this.unsent.length === 0 || !pullId) return
    this.tell({ type: 'samples', pullId, samples: this.unsent, at: new Date().toISOString() })
    this.unsent = []
  }

  private becomes(state: 'connected' | 'lost'): void {
    if (this.state === state) return
    this.state = state
    if (state === 'lost') this.stopSilence()
    this.tell({ type: 'state', state, at: new Date().toISOString() })
  }

  private tell(event: DeviceEvent): void {
    for (const listener of this.listeners) listener(event)
  }
}

const airOf = ({ pressurePa, temperatureK, relativeHumidity, windMps }: AirReading) => ({ pressurePa, temperatureK, relativeHumidity, windMps })

function parse(line: string): unknown {
  try {
    return JSON.parse(line)
  } catch {
    return null
  }
}
