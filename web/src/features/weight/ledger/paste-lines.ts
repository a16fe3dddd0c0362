import { CalculationError, type DecimalMark, parseQuantity, type ReadEntry, requirePartMass, writtenMass } from '@bold-ballast/core'
import { lineBody, type NamedLine, type ReadLine, readLine } from './entry-body.ts'

export interface PastedLine {
  readonly line: number
  readonly text: string
  readonly body: Record<string, unknown> | null
  /** How it was read; null where it was refused. */
  readonly reading: ReadLine | null
  readonly refusal: string | null
}

const COLUMNS: Record<string, readonly string[]> = {
  kind: ['kind', 'off/on', 'direction'],
  name: ['part', 'name', 'item', 'what'],
  count: ['count', 'pieces', 'qty', 'quantity', 'number'],
  zone: ['zone', 'where', 'area', 'place'],
  mass: ['mass', 'weight', 'weighed', 'kg', 'lb'],
  proof: ['how we know', 'how known', 'proof'],
  cost: ['cost', 'price'],
  hours: ['hours', 'time'],
}
const PROOFS: Record<string, NonNullable<ReadEntry['mass']>['proof']> = {
  guess: 'guess',
  catalogue: 'catalogue',
  catalog: 'catalogue',
  weighed: 'measured',
  measured: 'measured',
  'weighed twice': 'measured',
  'worked out': 'calculated',
  calculated: 'calculated',
}

const normal = (text: string) => text.trim().toLowerCase()

/** The unit that a heading names in brackets or after a comma, as in "Mass (lb)". */
const unitOf = (heading: string, fallback: string) => /[([,]\s*(kg|g|lb|oz)\s*[)\]]?\s*$/i.exec(heading)?.[1]?.toLowerCase() ?? fallback

function findColumns(row: readonly string[]): Map<string, number> {
  const found = new Map<string, number>()
  row.forEach((cell, at) => {
    const word = normal(cell)
      .replace(/[([,].*$/, '')
      .trim()
    for (const [column, names] of Object.entries(COLUMNS)) if (names.includes(word) && !found.has(column)) found.set(column, at)
  })
  return found
}

export interface PasteContext {
  readonly stageId: string
  readonly massUnit: string
  readonly decimalMark: DecimalMark
  /** The time that new lines get. */
  readonly at: string
  readonly lines: readonly NamedLine[]
}

/**
 * Rows copied from a spreadsheet, or of a CSV file, as ledger lines. With a heading row its columns are read by their names (kind, part, count, zone,
 * mass, how known, cost, hours); a single column is read as typed lines, which may name each other. Every row that cannot be read keeps its number and says why.
 */
export async function readPasted(text: string, context: PasteContext): Promise<PastedLine[]> {
  const { stageId, massUnit, decimalMark, at } = context
  const { default: Papa } = await import('papaparse')
  const delimiter = text.includes('\t') ? '\t' : text.includes(';') ? ';' : undefined
  const rows = Papa.parse<string[]>(text.trim(), delimiter ? { delimiter, skipEmptyLines: 'greedy' } : { skipEmptyLines: 'greedy' }).data
  const columns = findColumns(rows[0] ?? [])
  const hasHead = columns.has('name') && columns.has('mass')
  const lines = [...context.lines]
  const keep = (reading: ReadLine, more: object = {}) => {
    const body = { ...lineBody(crypto.randomUUID(), reading, { stageId, box: null }, at), ...more }
    lines.push(body as unknown as NamedLine)
    return { body, reading, refusal: null }
  }
  const typedLine = (line: string) => {
    const reading = readLine(line, massUnit, decimalMark, { stageId, box: null, lines })
    return reading.read ? keep(reading) : { body: null, reading: null, refusal: reading.refusal }
  }
  const row = (cells: readonly string[]) => {
    const heading = rows[0]?.[columns.get('mass') ?? 0] ?? ''
    const { read, more } = readRow((column) => (cells[columns.get(column) ?? -1] ?? '').trim(), heading, { massUnit, decimalMark })
    return keep({ read, differenceKg: null, other: null, refusal: '' }, more)
  }
  return rows.slice(hasHead ? 1 : 0).map((cells, i): PastedLine => {
    const place = { line: i + (hasHead ? 2 : 1), text: cells.join(hasHead ? ', ' : ' ') }
    try {
      return { ...place, ...(hasHead ? row(cells) : typedLine(cells.join(cells.length > 1 ? ' ' : ''))) }
    } catch (error) {
      if (!(error instanceof CalculationError)) throw error
      return { ...place, body: null, reading: null, refusal: error.message }
    }
  })
}

/** A row of a table, by its columns. */
function readRow(
  cell: (column: string) => string,
  heading: string,
  { massUnit, decimalMark }: Pick<PasteContext, 'massUnit' | 'decimalMark'>,
): { read: ReadEntry; more: object } {
  const name = cell('name')
  if (name === '') throw new CalculationError('missing', 'name', 'The part has no name. Give it one, or leave the row out.')
  const typed = cell('mass').replace(/^[+\-−]\s*/, '')
  const isNegative = /^[-−]/.test(cell('mass'))
  const kind = normal(cell('kind')) || (isNegative ? 'off' : '')
  if (kind !== 'off' && kind !== 'on' && kind !== 'transfer')
    throw new CalculationError('missing', 'kind', `The kind is "${cell('kind')}"; it must be off, on or transfer.`)
  const column = cell('count') === '' ? null : /^\d+$/.test(cell('count')) ? Number(cell('count')) : Number.NaN
  if (column !== null && !(column >= 1 && column <= 1000))
    throw new CalculationError('out-of-range', 'count', `The count is "${cell('count')}"; give a whole number from 1 to 1000.`)
  const plain = (name: string) => (cell(name) === '' ? null : parseQuantity(cell(name), 'ratio', { defaultUnit: '', decimalMark, field: name }).value)
  const more = { cost: plain('cost'), hours: plain('hours') }
  const shared = { kind, name, zone: cell('zone') || null, guess: null, waits: false, from: null, replaces: null } as const
  if (typed === '' || typed === '?') return { read: { ...shared, count: column ?? 1, mass: null }, more }
  const mass = writtenMass(typed, { massUnit: unitOf(heading, massUnit), decimalMark })
  if (mass?.before !== '')
    throw new CalculationError('unreadable', 'mass', `"${typed}" cannot be read as a mass. Type a number with its unit, such as 18.6 kg, or ? for not known.`)
  if (column !== null && mass.count !== null && mass.count !== column)
    throw new CalculationError('ambiguous', 'count', `The row says ${column} pieces and its mass ${mass.count}. Keep one of the two.`)
  const word = normal(cell('proof'))
  if (word !== '' && !PROOFS[word])
    throw new CalculationError('unknown', 'proof', `How it is known says "${cell('proof')}". Write guess, catalogue, weighed or worked out, or leave it empty.`)
  const proof = PROOFS[word] ?? (mass.isRough ? 'guess' : 'measured')
  const count = column ?? mass.count ?? 1
  // A table that was written here gives the mass of all pieces together.
  const pieces = /all pieces/i.test(heading) ? count : 1
  const sdKg = mass.sdKg === null ? null : mass.sdKg / pieces
  return { read: { ...shared, count, mass: { massKg: requirePartMass(mass.massKg / pieces), sdKg, proof, typed } }, more }
}
