import { noiseFrom, serveStandIn } from './stand-in.ts'

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

const noise = noiseFrom(20_261_124)

const isPad = (value: unknown): value is PadName => PADS.includes(value as PadName)

function reading(): object {
  const pads: Record<string, object | null> = {}
  for (const pad of PADS) {
    felt[pad] += SETTLING * (load[pad] - felt[pad])
    zero[pad] += (driftKgPerMinute * PERIOD_MS) / 60_000
    battery[pad] = Math.max(0, battery[pad] - 1e-6)
    const isStable = Math.abs(load[pad] - felt[pad]) < STABLE_KG
    const raw = felt[pad] + zero[pad] + NOISE_KG * noise()
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

const device = serveStandIn({
  hello: (name, serial) => ({ type: 'hello', protocol: 1, device: 'scales', name, serial, resolutionKg: RESOLUTION_KG, isSimulated: true }),
  name: 'Simulated four-pad scales',
  obey,
})
setInterval(() => device.say(reading()), PERIOD_MS)
