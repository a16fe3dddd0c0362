import type { DecimalMark } from '../units/parse-number.ts'

/** Numbers with thousands between marks, by the mark: "2,500", "1,234.5". */
const SHAPES = [
  { decimal: '.', thousands: ',', shape: /^[+-]?(\d+|\d{1,3}(,\d{3})+)(\.\d+)?$/ },
  { decimal: ',', thousands: '.', shape: /^[+-]?(\d+|\d{1,3}(\.\d{3})+)(,\d+)?$/ },
] as const

/**
 * How the numbers of a file are written, from some of its cells. The decimal mark is a comma where the delimiter is not a comma and no cell has a point
 * between digits. Thousands are marked where both marks occur, each number that has the one is of the shape of thousands, and others show decimals.
 */
export function numberMarks(cells: readonly string[], delimiter: string): { decimal: DecimalMark; thousands: DecimalMark | undefined } {
  const numbers = cells.map((cell) => cell.trim()).filter((cell) => /^[+-]?\d[\d.,]*$/.test(cell))
  const has = (mark: DecimalMark) => numbers.some((cell) => cell.includes(mark))
  const both = SHAPES.find(({ decimal, shape }) => !(decimal === ',' && delimiter === ',') && has('.') && has(',') && numbers.every((cell) => shape.test(cell)))
  if (both) return { decimal: both.decimal, thousands: both.thousands }
  const isComma = delimiter !== ',' && cells.some((cell) => /\d,\d/.test(cell)) && !cells.some((cell) => /\d\.\d/.test(cell))
  return { decimal: isComma ? ',' : '.', thousands: undefined }
}
