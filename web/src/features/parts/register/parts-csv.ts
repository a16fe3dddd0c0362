import { CalculationError, type DecimalMark, FUEL_ROLES, type QuantityKind, ratingLine, type Stage } from '@bold-ballast/core'
import type { Named } from '../../../shared/fields/own-fields.ts'
import type { StoredPart } from '../../../shared/part-words.ts'
import type { CsvTable } from '../../../ui/files/csv-button.tsx'
import { FormReader, type FormValues } from '../../../ui/forms/form-reader.ts'
import { typedText } from '../../../ui/quantity.ts'
import { partBody, partDefaults } from './part-form.ts'

type Units = Record<QuantityKind, string>

/** Heading of each column and the field of the form it is read into; lists are parted by a bar. */
const COLUMNS: readonly (readonly [heading: string, field: string, others?: readonly string[]])[] = [
  ['Kind', 'kind', ['what']],
  ['Part', 'name', ['name']],
  ['Status', 'status'],
  ['Stage', 'stage'],
  ['Pieces', 'count', ['count', 'qty', 'quantity']],
  ['Mass of one', 'mass', ['mass', 'weight']],
  ['Ratings', 'ratings', ['rating']],
  ['Cost', 'cost', ['price']],
  ['Life', 'life'],
  ['Comes with', 'extras', ['extras']],
  ['Outer sizes (mm)', 'outer', ['outer', 'size']],
  ['Off and on again (min)', 'takeOffMinutes'],
  ['Hands to have it off', 'takeOffPeople'],
  ['Comes off first', 'behind'],
  ['Tools', 'tools'],
  ['Fixings used up', 'fixings'],
  ['For it', 'pros', ['pros']],
  ['Against it', 'cons', ['cons']],
  ['Serial', 'serial', ['batch', 'serial number']],
  ['For the fuel', 'fuelRole'],
  ['In the driveline', 'drive', ['driveline']],
  ['Fitted on', 'fittedOn'],
  ['Ordered on', 'orderedOn'],
  ['Days from order to arrival', 'leadDays', ['lead']],
  ['Promised for', 'promisedOn'],
  ['Came on', 'cameOn'],
  ['The cost is', 'costKnown'],
  ['Paid', 'paid'],
  ['Shared', 'isShared'],
  ['Behind the front axle', 'placeX'],
  ['Left of the middle', 'placeY'],
  ['Above the ground', 'placeZ'],
]

const LIST_FIELDS = new Set(['ratings', 'extras'])
const stageNumber = (stages: readonly Stage[], id: string | null) => stages.find((stage) => stage.id === id)?.position ?? null

/** The register as a table that `readPartsCsv` takes back without loss; units stand in the cells. */
export const partsTable = (parts: readonly StoredPart[], stages: readonly Stage[], units: Units): CsvTable => ({
  head: COLUMNS.map(([heading]) => heading),
  rows: parts.map((part) => {
    const values = partDefaults({ ...part, ratings: part.ratings.map((rating) => ({ ...rating, typed: ratingLine(rating, units) })) }, units, parts)
    return COLUMNS.map(([, field]) => {
      if (field === 'stage') return stageNumber(stages, part.stageId)
      if (field === 'mass' && part.mass && !part.mass.typed) return `${typedText('mass', part.mass.massKg, units.mass)} ${part.mass.proof}`
      const text = values[field] ?? ''
      return text === '' ? null : LIST_FIELDS.has(field) ? text.replaceAll('\n', ' | ') : text
    })
  }),
})

export interface ReadPart {
  readonly line: number
  readonly name: string
  readonly body: Record<string, unknown> | null
  readonly refusal: string | null
}

const normal = (text: string) => text.trim().toLowerCase()
const STATUS: Record<string, string> = {
  'worn out': 'wornOut',
  worn: 'wornOut',
  fitted: 'fitted',
  here: 'here',
  ordered: 'ordered',
  wanted: 'wanted',
  wornout: 'wornOut',
}

/**
 * Parts of a CSV text by its heading row: columns in any order, by name; those it does not know are left out. Every row that cannot be read says why.
 * Rejects a text without columns for kind and part.
 */
export async function readPartsCsv(
  text: string,
  { units, decimalMark, stages, parts }: { units: Units; decimalMark: DecimalMark; stages: readonly Stage[]; parts: readonly Named[] },
): Promise<{ rows: ReadPart[]; unknown: string[] }> {
  const { default: Papa } = await import('papaparse')
  const rows = Papa.parse<string[]>(text.replace(/^\ufeff/, '').trim(), { skipEmptyLines: 'greedy' }).data
  const [head = [], ...body] = rows
  const fieldOf = (heading: string) => COLUMNS.find(([own, , others = []]) => normal(own) === normal(heading) || others.includes(normal(heading)))?.[1]
  const fields = head.map(fieldOf)
  if (!fields.includes('kind') || !fields.includes('name'))
    throw new CalculationError('missing', 'file', 'The first line must name a column “Kind” and one “Part”. Name them so and read the file again.')
  const nameAt = fields.indexOf('name')
  // Parts of the file may name each other, whatever their order.
  const ids = body.map(() => crypto.randomUUID())
  const others = [...body.map((cells, i) => ({ id: ids[i] as string, name: (cells[nameAt] ?? '').trim() })), ...parts]
  return {
    unknown: head.filter((_, i) => fields[i] === undefined),
    rows: body.map((cells, i): ReadPart => {
      const values: FormValues = {}
      fields.forEach((field, at) => {
        // A cell that was guarded against spreadsheets loses its guard.
        const cell = (cells[at] ?? '').trim().replace(/^'(?=[=+\-@])/, '')
        if (field && values[field] === undefined) values[field] = LIST_FIELDS.has(field) ? cell.split('|').join('\n') : cell
      })
      values.status = values.status ? (STATUS[normal(values.status)] ?? values.status) : 'wanted'
      values.isShared = String(/^(true|yes|1)$/i.test(values.isShared ?? ''))
      const stage = values.stage
        ? stages.find((entry) => String(entry.position) === values.stage || normal(entry.name) === normal(values.stage ?? ''))
        : undefined
      const read = new FormReader({ ...values, stage: stage?.id ?? '' }, units, decimalMark)
      if (values.stage && !stage) read.refuse('stage', `There is no stage "${values.stage}". Give its number or its name.`)
      if (!Object.values(STATUS).includes(values.status))
        read.refuse('status', `"${values.status}" is no status. Use wanted, ordered, here, fitted or worn out.`)
      if (values.fuelRole && !FUEL_ROLES.some((role) => role === values.fuelRole))
        read.refuse('fuelRole', `"${values.fuelRole}" is nothing a part does for the fuel. Use one of: ${FUEL_ROLES.join(', ')}; or leave it empty.`)
      const made = {
        id: ids[i],
        ...partBody(
          read,
          others.filter(({ id }) => id !== ids[i]),
        ),
      }
      const [refusal = null] = Object.values(read.errors)
      return { line: i + 2, name: values.name ?? '', body: refusal === null ? made : null, refusal }
    }),
  }
}
