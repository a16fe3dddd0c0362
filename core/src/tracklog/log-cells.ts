import { itemAt } from '../item-at.ts'

/** One cell of a clock: seconds, h:m:s, or an ISO instant; undefined where it is none. Only plain seconds take the unit of the heading. */
export function clockOf(cell: string): { readonly value: number; readonly isPlain: boolean } | undefined {
  const text = cell.trim()
  if (text === '') return undefined
  if (/^-?\d+([.,]\d+)?(e[+-]?\d+)?$/i.test(text)) return { value: Number(text.replace(',', '.')), isPlain: true }
  const parts = /^(?:(\d+):)?(\d+):(\d+(?:[.,]\d+)?)$/.exec(text)
  if (parts) return { value: 3600 * Number(parts[1] ?? 0) + 60 * Number(parts[2]) + Number(itemAt(parts, 3).replace(',', '.')), isPlain: false }
  const at = Date.parse(text)
  return Number.isNaN(at) ? undefined : { value: at / 1000, isPlain: false }
}

/** Whether a row holds words alone: units below a heading. */
export const isUnitRow = (cells: readonly string[]) => {
  const filled = cells.map((cell) => cell.trim()).filter(Boolean)
  return filled.length > 0 && filled.every((cell) => !/^[-+]?\d/.test(cell) && cell.length < 16)
}
