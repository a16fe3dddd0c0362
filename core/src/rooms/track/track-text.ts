import { CalculationError } from '../../errors.ts'
import type { Track } from '../../records/track/track-kinds.ts'
import { type DecimalMark, parseNumber } from '../../units/parse-number.ts'

type Segment = Track['segments'][number]

const HOW =
  'A straight is its length (221.7), a corner its side, radius and degrees (left 75 26); behind them spiral 12, grade -3 (%), camber 2 (deg) or grip 0.9.'

/** Words that may stand behind a piece, each with a number. */
function readMore(words: string[], mark: DecimalMark, field: string): { spiralM: number; grade: number; camberRad: number; gripFactor: number } {
  const found = { spiralM: 0, grade: 0, camberRad: 0, gripFactor: 1 }
  while (words.length > 0) {
    const word = (words.shift() as string).toLowerCase()
    const next = words.shift()
    if (next === undefined || !['spiral', 'grade', 'camber', 'grip'].includes(word))
      throw new CalculationError('unreadable', field, `“${word}” cannot be read. ${HOW}`)
    const value = parseNumber(next.replace(/(%|m|deg|°)$/i, ''), mark, word)
    if (word === 'spiral') found.spiralM = value
    else if (word === 'grade') found.grade = value / 100
    else if (word === 'camber') found.camberRad = (value * Math.PI) / 180
    else found.gripFactor = value
  }
  return found
}

function readLine(line: string, mark: DecimalMark, number: number): Segment[] {
  const field = `line ${number}`
  const words = line.split(/[\s,;]+/).filter((word) => word !== '' && !/^(m|deg|°|degrees)$/i.test(word))
  const side = /^(left|right|l|r)$/i.exec(words[0] ?? '')?.[0]
  if (side || /^straight$/i.test(words[0] ?? '')) words.shift()
  const numbers: number[] = []
  while (words.length > 0 && /^[-+]?[\d.,]/.test(words[0] as string))
    numbers.push(parseNumber((words.shift() as string).replace(/(m|°|deg)$/i, ''), mark, field))
  const { spiralM, ...more } = readMore(words, mark, field)
  const plain = { curvaturePerM: 0, endCurvaturePerM: null, ...more }
  const [size, degrees] = numbers
  if (size === undefined || numbers.length > 2) throw new CalculationError('unreadable', field, `“${line.trim()}” cannot be read. ${HOW}`)
  if (degrees === undefined) {
    if (side) throw new CalculationError('missing', field, `“${line.trim()}” has no degrees: a corner is its radius and how far it turns. ${HOW}`)
    if (!(size > 0)) throw new CalculationError('out-of-range', field, `A straight of ${size} m: give it a length.`)
    return [{ lengthM: size, ...plain }]
  }
  const radiusM = /^r/i.test(side ?? '') ? -Math.abs(size) : /^l/i.test(side ?? '') ? Math.abs(size) : size
  if (!(Math.abs(radiusM) >= 5 && Math.abs(radiusM) <= 5000 && degrees > 0 && degrees <= 720))
    throw new CalculationError('out-of-range', field, `“${line.trim()}”: a radius is 5 to 5000 m, a corner turns by up to 720 degrees.`)
  const curvaturePerM = 1 / radiusM
  const arcM = (Math.abs(radiusM) * degrees * Math.PI) / 180 - spiralM
  if (!(spiralM >= 0 && arcM > 0)) throw new CalculationError('inconsistent', field, `“${line.trim()}”: its spirals are longer than the corner. Shorten them.`)
  const arc: Segment = { lengthM: arcM, ...plain, curvaturePerM }
  if (spiralM === 0) return [arc]
  return [{ lengthM: spiralM, ...plain, endCurvaturePerM: curvaturePerM }, arc, { lengthM: spiralM, ...plain, curvaturePerM, endCurvaturePerM: 0 }]
}

/**
 * Reads a track that was drawn in words, a piece a line, in metres and degrees: `221.7`, `left 75 26`, `right 40 95 spiral 18 grade -3`. A corner with spirals
 * turns by its degrees in all. Rejects what cannot be read, with the line.
 * @example parseTrackText('100\nleft 30 180\n100\nleft 30 180', '.').length // 4
 */
export function parseTrackText(text: string, mark: DecimalMark): Segment[] {
  const lines = text.split('\n').map((line) => line.trim())
  const found = lines.flatMap((line, i) => (line === '' ? [] : readLine(line, mark, i + 1)))
  if (found.length === 0) throw new CalculationError('missing', 'line 1', `Draw a piece a line. ${HOW}`)
  return found
}

const plain = (value: number) => String(Number(value.toFixed(3)))

function moreText({ grade, camberRad, gripFactor }: Segment): string {
  return [
    grade ? ` grade ${plain(100 * grade)}` : '',
    camberRad ? ` camber ${plain((180 * camberRad) / Math.PI)}` : '',
    gripFactor === 1 ? '' : ` grip ${plain(gripFactor)}`,
  ].join('')
}

const isArc = (segment: Segment | undefined): segment is Segment => segment !== undefined && segment.curvaturePerM !== 0 && segment.endCurvaturePerM === null

/**
 * A track as the lines that draw it again; spirals before and behind an arc are told with it. Undefined where it was traced: its bends are no arcs, or it has
 * more pieces than anybody types.
 * @example trackText([{ lengthM: 100, curvaturePerM: 0, endCurvaturePerM: null, grade: 0, camberRad: 0, gripFactor: 1 }]) // '100'
 */
export function trackText(segments: readonly Segment[]): string | undefined {
  if (segments.length > 300) return undefined
  const lines: string[] = []
  for (let i = 0; i < segments.length; i++) {
    const segment = segments[i] as Segment
    if (segment.curvaturePerM === 0 && segment.endCurvaturePerM === null) {
      lines.push(`${plain(segment.lengthM)}${moreText(segment)}`)
      continue
    }
    const hasSpirals = segment.curvaturePerM === 0
    const arc = hasSpirals ? segments[i + 1] : segment
    const after = hasSpirals ? segments[i + 2] : undefined
    if (!isArc(arc) || (hasSpirals && after?.endCurvaturePerM !== 0)) return undefined
    const radiusM = 1 / arc.curvaturePerM
    const spiralM = hasSpirals ? segment.lengthM : 0
    const degrees = ((arc.lengthM + spiralM) * Math.abs(arc.curvaturePerM) * 180) / Math.PI
    lines.push(`${radiusM > 0 ? 'left' : 'right'} ${plain(Math.abs(radiusM))} ${plain(degrees)}${spiralM ? ` spiral ${plain(spiralM)}` : ''}${moreText(arc)}`)
    if (hasSpirals) i += 2
  }
  return lines.join('\n')
}
