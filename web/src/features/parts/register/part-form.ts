import {
  CalculationError,
  drivePartText,
  FUEL_ROLES,
  type FuelRole,
  LIFE_UNITS,
  PART_STATUSES,
  parseDrivePart,
  parseRatingLine,
  ratingLine,
  type Stage,
} from '@bold-ballast/core'
import { type Named, named } from '../../../shared/fields/own-fields.ts'
import { placeDefaults, placeFields, readPlace } from '../../../shared/fields/place-fields.ts'
import { isLifeUnit, STATUS_WORDS, type StoredPart, USUAL_KINDS } from '../../../shared/part-words.ts'
import type { FormReader, FormValues } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { typedAgain, typedText, usualText } from '../../../ui/quantity.ts'

export const partFieldSpecs = (stages: readonly Stage[], kinds: readonly string[], units: Record<string, string>, others: readonly Named[]): FieldSpec[] => [
  {
    name: 'kind',
    label: 'Kind',
    hint: 'What it does. Parts of one kind are compared, and one replaces the other.',
    suggestions: [...new Set([...kinds, ...USUAL_KINDS])],
  },
  { name: 'name', label: 'Name' },
  {
    name: 'fuelRole',
    label: 'In the fuel system',
    type: 'select',
    options: [{ value: '', label: 'as its kind says' }, ...FUEL_ROLES.map((value) => ({ value, label: FUEL_ROLE_WORDS[value] }))],
    hint: 'Injectors and feed pumps get their limit from the engine plan’s pressure and duty.',
  },
  { name: 'status', label: 'It is', type: 'select', options: PART_STATUSES.map((value) => ({ value, label: STATUS_WORDS[value] })) },
  {
    name: 'stage',
    label: 'Fitted at stage',
    type: 'select',
    options: [
      { value: '', label: 'from the start, or not decided' },
      ...stages.map((stage) => ({ value: stage.id, label: `${stage.position} ${stage.name}` })),
    ],
  },
  { name: 'count', label: 'Pieces' },
  { name: 'mass', label: 'Mass of one', hint: `${units.mass} unless a unit is typed; “guess” or “catalogue” after it where it was not weighed` },
  {
    name: 'ratings',
    label: 'What it can take, one a line',
    hint: (units) =>
      `Such as: gearbox torque ${usualText(units, 'torque', 480)} · power ${usualText(units, 'power', 350_000)} measured · boost ${usualText(units, 'pressure', 180_000)} guess · duty 85 % · fuel flow 850 cc/min each (an injector’s static flow, a pump’s at its pressure). A torque says where: crank, gearbox, axle or wheel.`,
    type: 'textarea',
    section: 'Ratings',
    isWide: true,
  },
  {
    name: 'drive',
    label: 'In the driveline',
    section: 'Driveline',
    hint: 'Such as: gearbox; gears 3.36 2.07 1.43; shift 0.3 · final drive; ratio 4.1 · tyre; axle rear; code 245/40R17; class soft · differential; axle rear; kind plate · gear; number 5. Empty where it does nothing there.',
    isWide: true,
  },
  { name: 'fittedOn', label: 'Fitted on', type: 'date', hint: 'Empty: when its ledger line was done, else with its stage.' },
  { name: 'orderedOn', label: 'Ordered on', type: 'date', section: 'On its way' },
  { name: 'leadDays', label: 'Days from order to arrival', hint: 'A guess, or what the seller says. Empty: 14.' },
  { name: 'promisedOn', label: 'Promised for', type: 'date' },
  { name: 'cameOn', label: 'Came on', type: 'date', hint: 'These days move its status.' },
  { name: 'cost', label: 'Cost of all pieces', section: 'Money and life', hint: 'A plain number, in your money.' },
  {
    name: 'costKnown',
    label: 'The cost is',
    type: 'select',
    options: [
      { value: '', label: 'a guess' },
      { value: 'catalogue', label: 'out of a catalogue' },
    ],
  },
  { name: 'paid', label: 'Paid for all pieces' },
  { name: 'life', label: 'Life', hint: 'Such as: 4 days, 60 hours, 12 events.' },
  {
    name: 'extras',
    label: 'What has to be bought with it, one a line',
    hint: (units) => `Name; mass; cost. Such as: mounts; ${usualText(units, 'mass', 2.1)}; 300`,
    type: 'textarea',
    isWide: true,
  },
  {
    name: 'outer',
    label: 'Outer sizes, mm',
    hint: 'Length x width x height, with all that sticks out: 600 x 420 x 60. Held against the spaces of the car under Systems.',
  },
  { name: 'takeOffMinutes', label: 'Off and on again, minutes', section: 'To have it off' },
  { name: 'takeOffPeople', label: 'Hands that it takes', hint: 'Empty: one.' },
  {
    name: 'behind',
    label: 'What has to come off first',
    hint: 'Names of parts, with commas between.',
    suggestions: others.map(({ name }) => name),
  },
  { name: 'tools', label: 'Tools' },
  { name: 'fixings', label: 'Fixings that are used up', hint: 'Such as: 6 bolts M8, gasket.' },
  { name: 'pros', label: 'For it', section: 'Notes' },
  { name: 'cons', label: 'Against it' },
  { name: 'serial', label: 'Serial number or batch' },
  { name: 'isShared', label: 'On the shelf that every build sees', type: 'checkbox' },
  ...placeFields('place', 'Where it sits', 'May stay empty.'),
]

const FUEL_ROLE_WORDS: Record<FuelRole, string> = {
  injectors: 'injectors',
  feedPump: 'a feed pump: carries the rail',
  liftPump: 'a lift pump: fills the feed pumps’ pot',
  sparePump: 'a spare pump: runs when another has failed',
}

const PROOF = /\s*\b(guess|catalogue|weighed|measured)\s*$/i

function readMass(read: FormReader) {
  const typed = read.raw('mass')
  if (typed === '') return null
  const word = PROOF.exec(typed)?.[1]?.toLowerCase()
  const found = read.typedQuantity('mass', typed.replace(PROOF, ''), 'mass', 'Mass of one')
  if (found && !(found.value > 0 && found.value <= 5000)) read.refuse('mass', 'The mass of one piece lies over 0 and up to 5 000 kg.')
  const proof = word === 'guess' || word === 'catalogue' ? word : 'measured'
  return { massKg: found?.value ?? 1, sdKg: found?.sd ?? null, proof, typed }
}

function readLife(read: FormReader) {
  const typed = read.raw('life')
  if (typed === '') return null
  const found = /^([\d.,\s]+?)\s*(?:track |race |dyno |running )?(hours?|days?|events?)$/i.exec(typed)
  const unit = `${found?.[2]?.toLowerCase().replace(/s$/, '')}s`
  const amount = found ? read.typedQuantity('life', found[1] as string, 'ratio', 'Life')?.value : undefined
  if (!amount || amount <= 0 || !isLifeUnit(unit)) {
    read.refuse('life', `"${typed}" cannot be read. Type a number and one of: ${LIFE_UNITS.join(', ')}.`)
    return null
  }
  return { amount, unit }
}

const plainNumber = (read: FormReader, name: string, text: string | undefined, label: string) => {
  if (!text) return null
  const value = read.typedQuantity(name, text, 'ratio', label)?.value ?? null
  if (value !== null && value < 0) read.refuse(name, `${label} is under zero. Type what it costs.`)
  return value
}

const readExtras = (read: FormReader) =>
  read.lines('extras').map((line) => {
    const [name = '', mass, cost] = line.split(/\s*;\s*/)
    if (name === '') read.refuse('extras', `"${line}" has no name. Type name; mass; cost.`)
    const kg = mass ? (read.typedQuantity('extras', mass, 'mass', 'The mass of what comes with it')?.value ?? null) : null
    if (kg !== null && kg <= 0) read.refuse('extras', `The mass in "${line}" must be more than zero, or left out.`)
    return { name, massKg: kg, cost: plainNumber(read, 'extras', cost, 'The cost of what comes with it') }
  })

const MM_PER_M = 1000
const LARGEST_MM = 10_000

/** "600 x 420 x 60", in mm. */
function readOuter(read: FormReader): StoredPart['outer'] {
  const text = read.raw('outer')
  if (text === '') return null
  const sizes = text
    .replace(/mm/gi, '')
    .split(/\s*[x×]\s*/i)
    .map((size) => Number(size.replace(',', '.')))
  const [lengthM = 0, widthM = 0, heightM = 0] = sizes.map((size) => size / MM_PER_M)
  if (sizes.length !== 3 || sizes.some((size) => !(size >= 1 && size <= LARGEST_MM)))
    read.refuse('outer', `“${text}” is not three sizes. Type length x width x height in mm: 600 x 420 x 60.`)
  return { lengthM, widthM, heightM }
}

const TAKE_OFF = ['takeOffMinutes', 'takeOffPeople', 'behind', 'tools', 'fixings'] as const

const readRatings = (read: FormReader) =>
  read.lines('ratings').flatMap((line) => {
    try {
      const found = parseRatingLine(line, read)
      if (found.of === 'injectorDuty' && found.limit > 1) read.refuse('ratings', 'A duty is 100 % at most.')
      return [found]
    } catch (error) {
      if (!(error instanceof CalculationError)) throw error
      read.refuse('ratings', error.message)
      return []
    }
  })

function readDrive(read: FormReader) {
  const typed = read.raw('drive')
  if (typed === '') return null
  try {
    return parseDrivePart(typed, read.decimalMark)
  } catch (error) {
    if (!(error instanceof CalculationError)) throw error
    read.refuse('drive', error.message)
    return null
  }
}

/** What it takes to have it off; nothing where nobody said anything. */
function readTakeOff(read: FormReader, others: readonly Named[]) {
  if (TAKE_OFF.every((name) => read.raw(name) === '')) return null
  const minutes = plainNumber(read, 'takeOffMinutes', read.raw('takeOffMinutes'), 'The time to have it off')
  if (minutes === 0) read.refuse('takeOffMinutes', 'It takes more than no time. Leave it empty where nobody knows.')
  return {
    minutes,
    people: read.raw('takeOffPeople') === '' ? 1 : read.count('takeOffPeople', 'Hands that it takes', 1, 20),
    behindIds: named('behind', others, 'part').read(read, 'behind'),
    tools: read.optional('tools'),
    fixings: read.optional('fixings'),
  }
}

/** A part as it was typed; `others` are the parts it may stand behind. */
export const partBody = (read: FormReader, others: readonly Named[]): Record<string, unknown> => ({
  kind: read.text('kind', 'Kind'),
  name: read.text('name', 'Name'),
  fuelRole: read.optional('fuelRole'),
  status: read.raw('status'),
  stageId: read.optional('stage'),
  count: read.raw('count') === '' ? 1 : read.count('count', 'Pieces', 1, 1000),
  mass: readMass(read),
  ratings: readRatings(read),
  drive: readDrive(read),
  fittedOn: read.optional('fittedOn'),
  orderedOn: read.optional('orderedOn'),
  leadDays: read.raw('leadDays') === '' ? null : read.count('leadDays', 'Days from order to arrival', 0, 400),
  promisedOn: read.optional('promisedOn'),
  cameOn: read.optional('cameOn'),
  cost: plainNumber(read, 'cost', read.raw('cost'), 'Cost'),
  costKnown: read.optional('costKnown'),
  paid: plainNumber(read, 'paid', read.raw('paid'), 'What was paid'),
  life: readLife(read),
  extras: readExtras(read),
  outer: readOuter(read),
  takeOff: readTakeOff(read, others),
  pros: read.optional('pros'),
  cons: read.optional('cons'),
  serial: read.optional('serial'),
  isShared: read.flag('isShared'),
  place: readPlace(read, 'place'),
})

const number = (value: number | null) => (value === null ? '' : String(value))

/** The texts that a form of a part starts with. */
export function partDefaults(part: Omit<StoredPart, 'id'>, units: Parameters<typeof ratingLine>[1], others: readonly Named[]): FormValues {
  const { mass, life, takeOff } = part
  const proof = mass && mass.proof !== 'measured' ? ` ${mass.proof}` : ''
  return {
    kind: part.kind,
    name: part.name,
    fuelRole: part.fuelRole ?? '',
    status: part.status,
    stage: part.stageId ?? '',
    count: String(part.count),
    mass: mass ? `${typedAgain('mass', { value: mass.massKg, sd: mass.sdKg, typed: mass.typed?.replace(PROOF, '') }, units.mass)}${proof}` : '',
    drive: part.drive ? drivePartText(part.drive) : '',
    fittedOn: part.fittedOn ?? '',
    ratings: part.ratings.map((rating) => ratingLine(rating, units)).join('\n'),
    orderedOn: part.orderedOn ?? '',
    leadDays: number(part.leadDays ?? null),
    promisedOn: part.promisedOn ?? '',
    cameOn: part.cameOn ?? '',
    cost: number(part.cost),
    costKnown: part.costKnown === 'catalogue' ? 'catalogue' : '',
    paid: number(part.paid ?? null),
    life: life ? `${life.amount} ${life.unit}` : '',
    extras: part.extras
      .map(({ name, massKg, cost }) => [name, massKg === null ? '' : typedText('mass', massKg, units.mass), number(cost)].join('; ').replace(/(; )+$/, ''))
      .join('\n'),
    outer: part.outer ? [part.outer.lengthM, part.outer.widthM, part.outer.heightM].map((size) => Number((size * MM_PER_M).toFixed(1))).join(' x ') : '',
    takeOffMinutes: number(takeOff?.minutes ?? null),
    takeOffPeople: takeOff && takeOff.people > 1 ? String(takeOff.people) : '',
    behind: (takeOff?.behindIds ?? []).flatMap((id) => others.find((each) => each.id === id)?.name ?? []).join(', '),
    tools: takeOff?.tools ?? '',
    fixings: takeOff?.fixings ?? '',
    pros: part.pros ?? '',
    cons: part.cons ?? '',
    serial: part.serial ?? '',
    isShared: String(part.isShared),
    ...placeDefaults('place', part.place, units.length),
  }
}
