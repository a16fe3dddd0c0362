import net from 'node:net'

// A simulated four-pad scale set, as a process of its own: node scales.js PORT [NAME]. It speaks the protocol of docs/device-protocol.md
// on loopback, settles, has noise and zero drift, and can lose a pad or run low, as real ones do.

const PADS = ['LF', 'RF', 'LR', 'RR'] as const
type PadName = (typeof PADS)[number]
type Four = Record<PadName, number>

const PERIOD_MS = 200
const RESOLUTION_KG = 0.1
const NOISE_KG = 0.08
/** The share of the way to a new load that a pad goes in one period. */
const SETTLING = 0.28
const STABLE_KG = 0.4

const four = (value: number): Four => ({ LF: value, RF: value, LR: value, RR: value })
const load: Four = four(0)
const felt: Four = four(0)
const zero: Four = four(0)
const battery: Four = four(0.9)
const out = new Set<PadName>()
let driftKgPerMinute = 0
let sequence = 0

/** Normal noise from a seeded generator (mulberry32 and Box and Muller), so that two runs read alike. */
let seed = 20_261_124
function random(): number {
  seed = (seed + 0x6d2b79f5) | 0
  let t = Math.imul(seed ^ (seed >>> 15), 1 | seed)
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
  return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
}
const noise = () => NOISE_KG * Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())

const isPad = (value: unknown): value is PadName => PADS.includes(value as PadName)

function reading(): object {
  const pads: Record<string, object | null> = {}
  for (const pad of PADS) {
    felt[pad] += SETTLING * (load[pad] - felt[pad])
    zero[pad] += (driftKgPerMinute * PERIOD_MS) / 60_000
    battery[pad] = Math.max(0, battery[pad] - 1e-6)
    const isStable = Math.abs(load[pad] - felt[pad]) < STABLE_KG
    const raw = felt[pad] + zero[pad] + noise()
    const isSilent = out.has(pad) || battery[pad] === 0
    pads[pad] = isSilent ? null : { kg: Math.round(raw / RESOLUTION_KG) * RESOLUTION_KG, isStable, battery: battery[pad] }
  }
  return { type: 'reading', sequence: sequence++, pads }
}

/** What a command does, or the sentence that refuses it. */
function obey(command: Record<string, unknown>): string | null {
  if (command.type === 'tare') for (const pad of PADS) zero[pad] = -felt[pad]
  else if (command.type === 'load') {
    const wanted = command.loadKg as Partial<Four>
    for (const pad of PADS) load[pad] = Math.min(2000, Math.max(0, Number(wanted?.[pad]) || 0))
  } else if (command.type === 'drop' && isPad(command.pad)) {
    if (command.isOut) out.add(command.pad)
    else out.delete(command.pad)
  } else if (command.type === 'drift') driftKgPerMinute = Number(command.kgPerMinute) || 0
  else if (command.type === 'battery' && isPad(command.pad)) battery[command.pad] = Math.min(1, Math.max(0, Number(command.level) || 0))
  else return 'This scale set does not know that command.'
  return null
}

const port = Number(process.argv[2])
const name = process.argv[3] ?? 'Simulated four-pad scales'
const server = net.createServer((socket) => {
  const say = (message: object) => socket.write(`${JSON.stringify(message)}\n`)
  say({ type: 'hello', protocol: 1, device: 'scales', name, serial: `SIM-${port}`, resolutionKg: RESOLUTION_KG, isSimulated: true })
  const ticking = setInterval(() => say(reading()), PERIOD_MS)
  let rest = ''
  socket.setEncoding('utf8')
  socket.on('data', (text: string) => {
    rest += text
    const lines = rest.split('\n')
    rest = lines.pop() ?? ''
    if (rest.length > 4096) socket.destroy()
    for (const line of lines.filter((entry) => entry.trim() !== '')) {
      let command: Record<string, unknown>
      try {
        command = JSON.parse(line) as Record<string, unknown>
      } catch {
        say({ type: 'refused', id: 0, message: 'That line is not JSON.' })
        continue
      }
      const id = Number.isInteger(command.id) ? (command.id as number) : 0
      const refusal = obey(command)
      say(refusal === null ? { type: 'done', id } : { type: 'refused', id, message: refusal })
    }
  })
  socket.on('error', () => {})
  socket.on('close', () => clearInterval(ticking))
})
server.on('error', (error: NodeJS.ErrnoException) => {
  process.stderr.write(`${error.code === 'EADDRINUSE' ? `Port ${port} is taken.` : error.message}\n`)
  process.exit(1)
})
server.listen(port, '127.0.0.1', () => process.stdout.write(`ready ${port}\n`))
// The set ends with whoever started it.
process.stdin.resume().on('end', () => process.exit(0))
