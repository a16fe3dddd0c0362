import { requireRatios } from '../../drivetrain/drive-car.ts'
import { tyreSize } from '../../drivetrain/tyre.ts'
import { CalculationError } from '../../errors.ts'
import type { PartDrive } from '../../records/drive-schemas.ts'
import { type DecimalMark, parseNumber } from '../../units/parse-number.ts'
import { parseQuantity } from '../../units/parse-quantity.ts'

/** What a typed line says of the driveline: parts by what they do, and what is chosen and not bolted. */
export interface ReadDriveLine {
  readonly gearbox: { readonly ratios?: readonly number[]; readonly primaryRatio?: number; readonly shiftS?: number } | null
  readonly finalDrive: { readonly ratio: number; readonly teeth: { readonly driven: number; readonly driving: number } | null } | null
  readonly tyres: readonly { readonly axle: 'both' | 'front' | 'rear'; readonly code: string | null; readonly circumferenceM: number | null }[]
  readonly differential: 'open' | 'plate' | 'helical' | 'welded' | null
  readonly lockRad: number | null
  readonly topRpm: number | null
  readonly launchRpm: number | null
}

const WORDS = ['gears', 'primary', 'final', 'front tyre', 'rear tyre', 'tyre', 'red', 'launch', 'shift', 'diff', 'lock'] as const
type Word = (typeof WORDS)[number]
const ALIASES: Readonly<Record<string, Word>> = { gear: 'gears', tyres: 'tyre', redline: 'red', differential: 'diff' }
const STARTS = new RegExp(`\\b(${[...WORDS, ...Object.keys(ALIASES)].sort((a, b) => b.length - a.length).join('|')})\\b`, 'gi')

/** The words of a line with what stands behind each, in their order. */
function pieces(text: string): { word: Word; rest: string }[] {
  const found = [...text.matchAll(STARTS)]
  const first = found[0]
  if (!first || text.slice(0, first.index).trim() !== '')
    throw new CalculationError(
      'unreadable',
      'line',
      `Begin with one of: ${WORDS.join(', ')}; such as gears 3.36 2.07 1.43 final 41/11 tyre 245/40R17 red 7200.`,
    )
  return found.map((match, i) => {
    const said = match[0].toLowerCase()
    return { word: ALIASES[said] ?? (said as Word), rest: text.slice(match.index + match[0].length, found[i + 1]?.index).trim() }
  })
}

const numbersOf = (rest: string, mark: DecimalMark, field: string) => {
  const parts = rest.split(/[\s;]+/).filter((part) => part !== '')
  return parts.map((part) => parseNumber(part, mark, field))
}

function readFinal(rest: string, mark: DecimalMark): NonNullable<ReadDriveLine['finalDrive']> {
  const teeth = /^(\d{1,3})\s*[/:]\s*(\d{1,3})$/.exec(rest)
  const ratio = teeth ? Number(teeth[1]) / Number(teeth[2]) : parseNumber(rest, mark, 'final')
  if (!(ratio >= 1.5 && ratio <= 8))
    throw new CalculationError('out-of-range', 'final', `A final drive of ${Number(ratio.toFixed(3))} is none: 1.5 to 8, or teeth as 41/11.`)
  return { ratio, teeth: teeth ? { driven: Number(teeth[1]), driving: Number(teeth[2]) } : null }
}

function readTyre(rest: string, axle: 'both' | 'front' | 'rear', mark: DecimalMark): ReadDriveLine['tyres'][number] {
  if (/^\d{2,3}\s*\/|x|×/i.test(rest)) {
    tyreSize(rest)
    return { axle, code: rest.replace(/\s+/g, ''), circumferenceM: null }
  }
  const { value } = parseQuantity(rest, 'length', { defaultUnit: 'm', decimalMark: mark, field: 'tyre' })
  if (!(value >= 0.9 && value <= 3.2))
    throw new CalculationError('out-of-range', 'tyre', 'A tyre is a code, such as 245/40R17, or its roll-out over one turn: 0.9 to 3.2 m.')
  return { axle, code: null, circumferenceM: value }
}

const inRange = (value: number, least: number, most: number, field: string, words: string): number => {
  if (!(value >= least && value <= most)) throw new CalculationError('out-of-range', field, words)
  return value
}

/**
 * Reads a line that says a driveline, in any order: `gears 3.36 2.07 1.43 1.13 .93 primary 1.6 final 41/11 tyre 245/40R17 red 7200 launch 4500 shift .3 s
 * diff welded lock 41`. Finals by ratio or teeth, tyres by code or roll-out, for both axles or one. Rejects what cannot be read, ratios that do not fall and
 * sizes that cannot be, with the cure.
 * @example parseDriveLine('gears 3.36 2.07 final 41/11 red 7200', '.').finalDrive.teeth // { driven: 41, driving: 11 }
 */
export function parseDriveLine(text: string, mark: DecimalMark): ReadDriveLine {
  let box = null as ReadDriveLine['gearbox']
  const line = { finalDrive: null, tyres: [], differential: null, lockRad: null, topRpm: null, launchRpm: null } as {
    -readonly [Key in keyof Omit<ReadDriveLine, 'gearbox'>]: ReadDriveLine[Key]
  }
  for (const { word, rest } of pieces(text)) {
    if (rest === '') throw new CalculationError('missing', 'line', `Nothing stands behind “${word}”. Type its value.`)
    const number = () => parseNumber(rest.replace(/\s*(rpm|°|deg|degrees)$/i, ''), mark, word)
    if (word === 'gears') box = { ...box, ratios: requireRatios(numbersOf(rest, mark, 'gears')) }
    else if (word === 'primary') box = { ...box, primaryRatio: inRange(number(), 0.3, 4, 'primary', 'A primary ratio lies from 0.3 to 4.') }
    else if (word === 'shift')
      box = {
        ...box,
        shiftS: inRange(
          parseQuantity(rest, 'duration', { defaultUnit: 's', decimalMark: mark, field: 'shift' }).value,
          0,
          3,
          'shift',
          'A shift takes 0 to 3 s.',
        ),
      }
    else if (word === 'final') line.finalDrive = readFinal(rest, mark)
    else if (word === 'tyre') line.tyres = [...line.tyres, readTyre(rest, 'both', mark)]
    else if (word === 'front tyre' || word === 'rear tyre') line.tyres = [...line.tyres, readTyre(rest, word === 'front tyre' ? 'front' : 'rear', mark)]
    else if (word === 'red') line.topRpm = inRange(number(), 500, 25_000, 'red', 'A redline lies from 500 to 25 000 rpm.')
    else if (word === 'launch') line.launchRpm = inRange(number(), 300, 20_000, 'launch', 'A launch begins from 300 to 20 000 rpm.')
    else if (word === 'lock') line.lockRad = (inRange(number(), 6, 80, 'lock', 'A lock lies from 6 to 80 degrees at the wheels.') * Math.PI) / 180
    else line.differential = readDifferential(rest)
  }
  if (line.launchRpm !== null && line.topRpm !== null && line.launchRpm >= line.topRpm)
    throw new CalculationError('inconsistent', 'launch', 'The launch lies at the redline or over it. Type a lower launch speed.')
  return { gearbox: box, ...line }
}

function readDifferential(rest: string): NonNullable<ReadDriveLine['differential']> {
  const found = (['open', 'plate', 'helical', 'welded'] as const).find((kind) => kind === rest.toLowerCase())
  if (found) return found
  throw new CalculationError('unknown', 'diff', `“${rest}” is no differential here: open, plate, helical or welded.`)
}

/**
 * What a read line says, in words, part by part.
 * @example driveLineWords(parseDriveLine('final 41/11', '.')) // ['final 3.727 (41/11)']
 */
export function driveLineWords({ gearbox, finalDrive, tyres, differential, lockRad, topRpm, launchRpm }: ReadDriveLine): string[] {
  return [
    ...(gearbox?.ratios ? [`${gearbox.ratios.length} gears ${gearbox.ratios.map((ratio) => ratio.toFixed(2)).join(' ')}`] : []),
    ...(gearbox?.primaryRatio === undefined ? [] : [`primary ${gearbox.primaryRatio}`]),
    ...(gearbox?.shiftS === undefined ? [] : [`a shift takes ${gearbox.shiftS} s`]),
    ...(finalDrive ? [`final ${finalDrive.ratio.toFixed(3)}${finalDrive.teeth ? ` (${finalDrive.teeth.driven}/${finalDrive.teeth.driving})` : ''}`] : []),
    ...tyres.map(({ axle, code, circumferenceM }) => `${axle === 'both' ? '' : `${axle} `}tyre ${code ?? `${circumferenceM?.toFixed(3)} m round`}`),
    ...(differential ? [`differential ${differential}`] : []),
    ...(lockRad === null ? [] : [`lock ${Math.round((lockRad * 180) / Math.PI)}°`]),
    ...(topRpm === null ? [] : [`engine to ${topRpm} rpm`]),
    ...(launchRpm === null ? [] : [`launch at ${launchRpm} rpm`]),
  ]
}

/** A part that a line makes, or alters where the stage has one of its place already. */
export interface DriveLinePart {
  readonly slot: string
  readonly kind: string
  readonly name: string
  readonly drive: PartDrive
}

const BOX = { role: 'gearbox', primaryRatio: 1, style: 'hPattern', shiftS: null, efficiency: null, known: 'catalogue' } as const
const TYRE = {
  role: 'tyre',
  construction: 'radial',
  class: null,
  friction: null,
  slideShare: null,
  wheelInertiaKgM2: null,
  madeFor: null,
  hotPa: null,
  warmUpLaps: 2,
  windowK: null,
} as const

/**
 * The parts of a read line; of a gearbox only what was typed differs from the one that stands there. Rejects a shift or a primary without gears.
 * @example driveLineParts(parseDriveLine('final 4.1', '.'), null)[0].name // 'Final 4.10'
 */
export function driveLineParts(line: ReadDriveLine, standing: Extract<PartDrive, { role: 'gearbox' }> | null): DriveLinePart[] {
  const parts: DriveLinePart[] = []
  if (line.gearbox) {
    const ratios = line.gearbox.ratios ?? standing?.ratios
    if (!ratios) throw new CalculationError('missing', 'gears', 'No gears stand there yet. Begin with them: gears 3.36 2.07 1.43.')
    const { primaryRatio, shiftS } = line.gearbox
    const drive = {
      ...BOX,
      ...standing,
      ratios: [...ratios],
      ...(primaryRatio === undefined ? {} : { primaryRatio }),
      ...(shiftS === undefined ? {} : { shiftS }),
    }
    parts.push({ slot: 'gearbox', kind: 'gearbox', name: `${ratios.length} gears, first ${(ratios[0] as number).toFixed(2)}`, drive })
  }
  if (line.finalDrive) {
    const { ratio, teeth } = line.finalDrive
    parts.push({
      slot: 'finalDrive',
      kind: 'final drive',
      name: teeth ? `Final ${teeth.driven}/${teeth.driving}` : `Final ${ratio.toFixed(2)}`,
      drive: { role: 'finalDrive', ratio, teeth, pairs: [] },
    })
  }
  for (const { axle, code, circumferenceM } of line.tyres)
    parts.push({
      slot: axle === 'both' ? 'tyre' : `tyre ${axle}`,
      kind: axle === 'both' ? 'tyres' : `${axle} tyres`,
      name: `${code ?? `${circumferenceM?.toFixed(3)} m round`}${axle === 'both' ? '' : `, ${axle}`}`,
      drive: { ...TYRE, axle, code, circumferenceM, circumferenceSdM: null },
    })
  if (line.differential)
    parts.push({
      slot: 'differential rear',
      kind: 'differential',
      name: `${line.differential.charAt(0).toUpperCase()}${line.differential.slice(1)}`,
      drive: { role: 'differential', axle: 'rear', kind: line.differential, biasRatio: null, rearTorqueShare: null, preloadNm: null, rampsRad: [] },
    })
  if (line.lockRad !== null)
    parts.push({
      slot: 'steering',
      kind: 'steering',
      name: `Lock ${Math.round((line.lockRad * 180) / Math.PI)}°`,
      drive: { role: 'steering', lockRad: line.lockRad },
    })
  return parts
}
