import { CalculationError } from '../../errors.ts'
import type { Circuit } from '../../records/systems-kinds.ts'
import { type DecimalMark, parseNumber } from '../../units/parse-number.ts'

/** A circuit as it is written, without an id. */
export type CircuitBody = Omit<Circuit, 'id'>

const SHAPE = 'circuit fan 22 A 3.6 m; behind it: x3 (at its start), group run, vital, duty 60 %, chassis, pin O3, 4 mm2, measured, live'
/** What draws several times its current as it starts (common practice, no source). */
const STARTS_HARD = /\b(pumps?|fans?|wipers?|motors?|lamps?|lights?|compressor)\b/i
const USUAL_START = 3
const SIGNAL_DROP = 0.01

type Clause = readonly [pattern: RegExp, take: (found: RegExpExecArray, mark: DecimalMark) => Partial<CircuitBody>]

const CLAUSES: readonly Clause[] = [
  [/\s(?:x|start\s+x?)\s*([\d.,]+)(?=\s|$)/i, ([, n = ''], mark) => ({ startFactor: parseNumber(n, mark, 'start') })],
  [/\sduty\s+([\d.,]+)\s*%(?=\s|$)/i, ([, n = ''], mark) => ({ duty: parseNumber(n, mark, 'duty') / 100 })],
  [/\s([\d.,]+)\s*(?:mm2|mm²)(?=\s|$)/i, ([, n = ''], mark) => ({ areaMm2: parseNumber(n, mark, 'area') })],
  [/\sgroup\s+(?:"([^"]+)"|(\S+))/i, ([, quoted, plain]) => ({ group: (quoted ?? plain ?? '').trim() })],
  [/\spin(?:ned)?\s+(?:to\s+)?(\S+)/i, ([, key = '']) => ({ output: key, isPinned: true })],
  [/\svital(?=\s|$)/i, () => ({ isVital: true })],
  [/\schassis(?=\s|$)/i, () => ({ return: 'chassis' })],
  [/\ssignal(?=\s|$)/i, () => ({ kind: 'signal', dropShare: SIGNAL_DROP })],
  [/\s(?:live|outside)(?=\s|$)/i, () => ({ behindKill: false })],
  [/\s(measured|catalogue|guess)(?:ed)?(?=\s|$)/i, ([, word = '']) => ({ known: word.toLowerCase() as Circuit['known'] })],
]

/**
 * Reads one circuit: its name, what it draws, how long its wire is one way, then in any order what else is known: `fan 22 A 3.6 m x3 group run vital`. A motor or a lamp starts
 * with three times its current where nothing is said. Rejects a line without a current, and 0 A, which draws nothing.
 * @example readCircuitLine('circuit fan 22 A 3.6 m', '.').startFactor // 3
 */
export function readCircuitLine(text: string, mark: DecimalMark): CircuitBody {
  let rest = ` ${text.trim().replace(/^circuit\s+/i, '')} `
  let found: Partial<CircuitBody> = {}
  for (const [pattern, take] of CLAUSES) {
    const hit = pattern.exec(rest)
    if (!hit) continue
    found = { ...found, ...take(hit, mark) }
    rest = rest.slice(0, hit.index) + rest.slice(hit.index + hit[0].length)
  }
  const draw = /\s([\d.,]+)\s*A(?:\s*(?:±|\+-)\s*([\d.,]+)\s*A?)?(?=\s|$)/i.exec(rest)
  const isSignal = found.kind === 'signal'
  if (!draw && !isSignal) throw new CalculationError('missing', 'currentA', `Say what it draws: ${SHAPE}.`)
  if (draw) rest = rest.slice(0, draw.index) + rest.slice(draw.index + draw[0].length)
  const run = /\s([\d.,]+)\s*m(?=\s|$)/i.exec(rest)
  if (run) rest = rest.slice(0, run.index) + rest.slice(run.index + run[0].length)
  const name = rest.trim()
  if (name === '') throw new CalculationError('missing', 'name', `The circuit has no name. A line is: ${SHAPE}.`)
  if (/\d+\s*(?:A|mm|cm|V)\b/.test(name)) throw new CalculationError('unreadable', 'line', `“${name}” was not understood. A line is: ${SHAPE}.`)
  const currentA = draw ? parseNumber(draw[1] as string, mark, 'current') : 0
  if (!isSignal && !(currentA > 0)) throw new CalculationError('out-of-range', 'currentA', '0 A draws nothing. Type what it draws.')
  return {
    stageId: null,
    name: name.charAt(0).toUpperCase() + name.slice(1),
    kind: 'power',
    currentA,
    sdA: draw?.[2] ? parseNumber(draw[2], mark, 'spread') : null,
    known: 'guess',
    duty: 1,
    startFactor: STARTS_HARD.test(name) ? USUAL_START : 1,
    group: null,
    isVital: false,
    lengthM: run ? parseNumber(run[1] as string, mark, 'length') : null,
    return: 'wire',
    jointOhm: 0,
    areaMm2: null,
    temperatureK: 333.15,
    dropShare: 0.03,
    output: null,
    isPinned: false,
    behindKill: true,
    ends: [],
    note: null,
    ...found,
  }
}
