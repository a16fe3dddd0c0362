import { CalculationError, type DecimalMark, parseEntryLine, parseQuantity, requirePartMass } from '@bold-ballast/core'

export interface PastedLine {
  readonly line: number
  readonly text: string
  readonly body: Record<string, unknown> | null
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
const PROOFS: Record<string, string> = {
  guess: 'guess',
  catalogue: 'catalogue',
  catalog: 'catalogue',
  weighed: 'measured',
  measured: 'measured',
  'weighed twice': 'measured',
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

/**
 * Rows copied from a spreadsheet, or of a CSV file, as ledger lines. With a heading row its columns are read by their names (kind, part, count, zone,
 * mass, how known, cost, hours); a single column is read as typed lines. Every row that cannot be read keeps its number and says why.
 */
export async function readPasted(
  text: string,
  { stageId, massUnit, decimalMark, now }: { stageId: string; massUnit: string; decimalMark: DecimalMark; now: string },
): Promise<PastedLine[]> {
  const { default: Papa } = await import('papaparse')
  const delimiter = text.includes('\t') ? '\t' : text.includes(';') ? ';' : undefined
  const rows = Papa.parse<string[]>(text.trim(), delimiter ? { delimiter, skipEmptyLines: 'greedy' } : { skipEmptyLines: 'greedy' }).data
  const columns = findColumns(rows[0] ?? [])
  const hasHead = columns.has('name') && columns.has('mass')
  const body = (read: { kind: string; name: string; count: number; zone: string | null }, values: readonly object[], more: object = {}) => {
    const isDone = read.kind === 'off' || values.some((value) => (value as { proof?: string }).proof === 'measured')
    const { kind, name, count, zone } = read
    return { id: crypto.randomUUID(), stageId, kind, name, count, zone, values, state: isDone ? 'done' : 'planned', doneAt: isDone ? now : null, ...more }
  }
  const readLine = (line: string) => {
    const read = parseEntryLine(line, { massUnit, decimalMark })
    const value = (mass: NonNullable<typeof read.mass>) => ({ massKg: mass.massKg, sdKg: mass.sdKg, proof: mass.proof, typed: mass.typed, at: now })
    return body(read, [read.guess, read.mass].filter((mass) => mass !== null).map(value))
  }
  const readRow = (cells: readonly string[]) => {
    const cell = (column: string) => (cells[columns.get(column) ?? -1] ?? '').trim()
    const name = cell('name')
    if (name === '') throw new CalculationError('missing', 'name', 'The part has no name.')
    const typed = cell('mass').replace(/^[+\-−]\s*/, '')
    const isNegative = /^[-−]/.test(cell('mass'))
    const kind = normal(cell('kind')) || (isNegative ? 'off' : '')
    if (!['off', 'on', 'transfer'].includes(kind))
      throw new CalculationError('missing', 'kind', `The kind is "${cell('kind')}"; it must be off, on or transfer.`)
    const count = cell('count') === '' ? 1 : Number(cell('count'))
    if (!Number.isInteger(count) || count < 1 || count > 1000)
      throw new CalculationError('out-of-range', 'count', `The count is "${cell('count')}"; give a whole number from 1.`)
    const plain = (column: string) => {
      if (cell(column) === '') return null
      return parseQuantity(cell(column), 'ratio', { defaultUnit: '', decimalMark, field: column }).value
    }
    const more = { cost: plain('cost'), hours: plain('hours') }
    const zone = cell('zone') || null
    if (typed === '' || typed === '?') return body({ kind, name, count, zone }, [], more)
    const heading = rows[0]?.[columns.get('mass') ?? 0] ?? ''
    const mass = parseQuantity(typed, 'mass', { defaultUnit: unitOf(heading, massUnit), decimalMark, field: 'mass' })
    const proof = PROOFS[normal(cell('proof'))] ?? 'measured'
    // A table that was written here gives the mass of all pieces together.
    const pieces = /all pieces/i.test(heading) ? count : 1
    const sdKg = mass.sd === undefined ? null : mass.sd / pieces
    return body({ kind, name, count, zone }, [{ massKg: requirePartMass(mass.value / pieces), sdKg, proof, typed, at: now }], more)
  }
  return rows.slice(hasHead ? 1 : 0).map((cells, i): PastedLine => {
    const shown = cells.join(hasHead ? ', ' : ' ')
    try {
      return { line: i + (hasHead ? 2 : 1), text: shown, body: hasHead ? readRow(cells) : readLine(cells.join(cells.length > 1 ? ' ' : '')), refusal: null }
    } catch (error) {
      if (!(error instanceof CalculationError)) throw error
      return { line: i + (hasHead ? 2 : 1), text: shown, body: null, refusal: error.message }
    }
  })
}
