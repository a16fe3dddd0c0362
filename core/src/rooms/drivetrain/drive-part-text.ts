import { requireRatios } from '../../drivetrain/drive-car.ts'
import { tyreSize } from '../../drivetrain/tyre.ts'
import { CalculationError } from '../../errors.ts'
import { type DriveRole, type PartDrive, partDriveSchema } from '../../records/drive-schemas.ts'
import { issueField, sayIssue } from '../../say-issue.ts'
import { type DecimalMark, parseNumber } from '../../units/parse-number.ts'

type Sort = 'number' | 'numbers' | 'text' | 'share' | 'degrees' | 'degreesList' | 'teeth' | 'pairs' | 'flag'
type Item = readonly [word: string, path: string, sort: Sort]

const AXLE: Item = ['axle', 'axle', 'text']
/** What stands behind each role in a line, by its word; lengths in m, torques in N m, times in s, pressures in Pa, temperatures in K. */
const ITEMS: Readonly<Record<DriveRole, { readonly word: string; readonly items: readonly Item[] }>> = {
  gearbox: {
    word: 'gearbox',
    items: [
      ['gears', 'ratios', 'numbers'],
      ['primary', 'primaryRatio', 'number'],
      ['style', 'style', 'text'],
      ['shift', 'shiftS', 'number'],
      ['efficiency', 'efficiency', 'share'],
      ['known', 'known', 'text'],
    ],
  },
  finalDrive: {
    word: 'final drive',
    items: [
      ['ratio', 'ratio', 'number'],
      ['teeth', 'teeth', 'teeth'],
      ['pairs', 'pairs', 'pairs'],
    ],
  },
  differential: {
    word: 'differential',
    items: [
      AXLE,
      ['kind', 'kind', 'text'],
      ['bias', 'biasRatio', 'number'],
      ['to the rear', 'rearTorqueShare', 'share'],
      ['preload', 'preloadNm', 'number'],
      ['ramps', 'rampsRad', 'degreesList'],
    ],
  },
  tyre: {
    word: 'tyre',
    items: [
      AXLE,
      ['code', 'code', 'text'],
      ['round', 'circumferenceM', 'number'],
      ['round spread', 'circumferenceSdM', 'number'],
      ['construction', 'construction', 'text'],
      ['class', 'class', 'text'],
      ['grip', 'friction.peak', 'number'],
      ['grip spread', 'friction.sd', 'number'],
      ['grip known', 'friction.known', 'text'],
      ['grip school', 'friction.school', 'text'],
      ['falls with load', 'friction.sensitivity', 'number'],
      ['at load', 'friction.referenceLoadN', 'number'],
      ['slides', 'slideShare', 'share'],
      ['inertia', 'wheelInertiaKgM2', 'number'],
      ['made for', 'madeFor', 'text'],
      ['hot front', 'hotPa.front', 'number'],
      ['hot rear', 'hotPa.rear', 'number'],
      ['warm after', 'warmUpLaps', 'number'],
      ['works from', 'windowK.least', 'number'],
      ['works to', 'windowK.most', 'number'],
    ],
  },
  clutch: { word: 'clutch', items: [['behind primary', 'behindPrimary', 'flag']] },
  propShaft: { word: 'prop shaft', items: [] },
  halfShaft: { word: 'half shafts', items: [AXLE] },
  gear: { word: 'gear', items: [['number', 'number', 'number']] },
  steering: { word: 'steering', items: [['lock', 'lockRad', 'degrees']] },
  wheel: {
    word: 'wheel',
    items: [
      AXLE,
      ['width', 'widthM', 'number'],
      ['offset', 'offsetM', 'number'],
      ['spacer', 'spacerM', 'number'],
      ['bolts', 'boltCount', 'number'],
      ['circle', 'boltCircleM', 'number'],
    ],
  },
}

const DEGREE = Math.PI / 180
const plain = (value: number) => String(Number(value.toPrecision(9)))
const at = (value: unknown, path: string) =>
  path.split('.').reduce<unknown>((inner, key) => (inner as Record<string, unknown> | null | undefined)?.[key], value)

function written(value: unknown, sort: Sort): string | null {
  if (value === null || value === undefined || value === false || (Array.isArray(value) && value.length === 0)) return null
  if (sort === 'flag') return ''
  if (sort === 'text') return String(value)
  if (sort === 'share') return `${plain(100 * (value as number))} %`
  if (sort === 'degrees') return plain((value as number) / DEGREE)
  if (sort === 'numbers') return (value as number[]).map(plain).join(' ')
  if (sort === 'degreesList') return (value as number[]).map((each) => plain(each / DEGREE)).join(' ')
  if (sort === 'teeth') return `${(value as { driven: number }).driven}/${(value as { driving: number }).driving}`
  if (sort === 'pairs') return (value as { first: number; second: number }[]).map(({ first, second }) => `${first}/${second}`).join(' ')
  return plain(value as number)
}

/**
 * What a part does in the driveline as one line that `parseDrivePart` takes back: its role, then a word and a value each, parted by semicolons.
 * @example drivePartText({ role: 'gear', number: 5 }) // 'gear; number 5'
 */
export function drivePartText(drive: PartDrive): string {
  const { word, items } = ITEMS[drive.role]
  return [
    word,
    ...items.flatMap(([name, path, sort]) => (written(at(drive, path), sort) === null ? [] : [`${name} ${written(at(drive, path), sort)}`.trim()])),
  ].join('; ')
}

function readValue(text: string, sort: Sort, name: string, mark: DecimalMark): unknown {
  const number = (each: string) => parseNumber(each, mark, name)
  const ratioOf = (each: string) => {
    const found = /^(\d+)\s*\/\s*(\d+)$/.exec(each)
    if (!found) throw new CalculationError('unreadable', 'drive', `“${each}” behind ${name} is no pair of teeth. Type it as 37/9.`)
    return [Number(found[1]), Number(found[2])] as const
  }
  if (sort === 'flag') return true
  if (text === '') throw new CalculationError('missing', 'drive', `Nothing stands behind “${name}”. Type its value.`)
  if (sort === 'text') return text
  if (sort === 'share') return number(text.replace(/\s*%$/, '')) / 100
  if (sort === 'degrees') return number(text.replace(/\s*(°|deg|degrees)$/i, '')) * DEGREE
  if (sort === 'numbers') return text.split(/\s+/).map(number)
  if (sort === 'degreesList') return text.split(/\s+/).map((each) => number(each) * DEGREE)
  if (sort === 'teeth') return { driven: ratioOf(text)[0], driving: ratioOf(text)[1] }
  if (sort === 'pairs') return text.split(/\s+/).map((each) => ({ first: ratioOf(each)[0], second: ratioOf(each)[1] }))
  return number(text.replace(/\s*(s|m|n·m|nm|kg·m²)$/i, ''))
}

/**
 * Reads what a part does in the driveline from a line such as `gearbox; gears 3.36 2.07 1.43; shift 0.3` or `tyre; axle rear; code 245/40R17; class soft`.
 * Rejects a role, a word or a value that is none, with those that are, and ratios that do not fall.
 * @example parseDrivePart('half shafts; axle front', '.') // { role: 'halfShaft', axle: 'front' }
 */
export function parseDrivePart(text: string, mark: DecimalMark): PartDrive {
  const [head = '', ...rest] = text.split(';').map((each) => each.trim())
  const role = (Object.keys(ITEMS) as DriveRole[]).find((each) => ITEMS[each].word === head.toLowerCase())
  if (!role)
    throw new CalculationError(
      'unknown',
      'drive',
      `“${head}” is no role in the driveline. Begin with one of: ${Object.values(ITEMS)
        .map(({ word }) => word)
        .join(', ')}.`,
    )
  const { items } = ITEMS[role]
  const made: Record<string, unknown> = { role }
  for (const piece of rest.filter((each) => each !== '')) {
    // The longest word that fits: "grip spread" is not "grip".
    const found = items
      .filter(([name]) => piece.toLowerCase() === name || piece.toLowerCase().startsWith(`${name} `))
      .sort(([a], [b]) => b.length - a.length)[0]
    if (!found)
      throw new CalculationError(
        'unknown',
        'drive',
        `“${piece}” says nothing of a ${ITEMS[role].word}. Use: ${items.map(([name]) => name).join(', ') || 'its role alone'}.`,
      )
    const [name, path, sort] = found
    const [outer = '', inner] = path.split('.')
    const value = readValue(piece.slice(name.length).trim(), sort, name, mark)
    made[outer] = inner === undefined ? value : { ...(made[outer] as object | undefined), [inner]: value }
  }
  const read = partDriveSchema.safeParse(made)
  if (read.success) {
    if (read.data.role === 'gearbox') requireRatios(read.data.ratios)
    if (read.data.role === 'tyre' && read.data.code !== null) tyreSize(read.data.code)
    return read.data
  }
  const issue = read.error.issues[0]
  throw new CalculationError(
    'bad-input',
    'drive',
    issue ? `${ITEMS[role].word}: ${wordOf(role, issueField(issue))} ${sayIssue(issue)}` : 'This cannot be read.',
  )
}

const wordOf = (role: DriveRole, field: string) => ITEMS[role].items.find(([, path]) => field === path || field.startsWith(`${path}.`))?.[0] ?? field
