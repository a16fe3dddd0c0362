import { isOffWanted, PAD_NAMES, type SetupSheet, type SheetCell, type SheetRow } from '@bold-ballast/core'

/** A row of two sheets side by side. */
export interface ComparedRow {
  readonly row: SheetRow
  readonly other: SheetRow | null
  /** Places at which the two differ in what is wanted, or was read. */
  readonly differs: ReadonlySet<string>
  /** Places at which what was read is off what is wanted. */
  readonly off: ReadonlySet<string>
}

type Value = SheetCell['wanted']
/** Numbers that came over a unit and back are the same as they were. */
const agree = (one: Value, other: Value) =>
  typeof one === 'number' && typeof other === 'number' ? Math.abs(one - other) <= 1e-4 * Math.max(Math.abs(one), Math.abs(other)) : one === other

/** What is wanted on both is held against each other; where one wants nothing, what it read stands for it. */
function same(one: SheetCell | undefined, other: SheetCell | undefined): boolean {
  const said = (cell: SheetCell | undefined) => cell?.wanted ?? cell?.read ?? null
  return agree(said(one), said(other))
}

/** Every row of a sheet with that of another beside it; rows that only the other has stand with nothing here. */
export function comparedRows(sheet: SetupSheet, beside: SetupSheet | null): ComparedRow[] {
  const others = new Map((beside?.rows ?? []).map((row) => [row.key, row]))
  const own = new Set(sheet.rows.map(({ key }) => key))
  const emptied = (row: SheetRow): SheetRow => ({ ...row, cells: row.cells.map(({ at }) => ({ at, cell: { wanted: null, read: null } })) })
  const rows = [...sheet.rows, ...(beside?.rows ?? []).filter(({ key }) => !own.has(key)).map(emptied)]
  return rows.map((row) => {
    const other = others.get(row.key) ?? null
    const differs = row.cells.filter(({ at, cell }) => beside !== null && !same(cell, other?.cells.find((each) => each.at === at)?.cell)).map(({ at }) => at)
    return {
      row,
      other,
      differs: new Set(differs),
      off: new Set(row.cells.filter(({ cell }) => isOffWanted(row.kind, cell)).map(({ at }) => at)),
    }
  })
}

/** Which of four columns a place fills: an axle two, the car all. */
export function spanOf(at: SheetRow['cells'][number]['at']): number {
  return (PAD_NAMES as readonly string[]).includes(at) ? 1 : at === 'car' ? 4 : 2
}
