import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, it, test } from 'vitest'
import { tableCsv } from './csv-button.tsx'

describe('a table as CSV', () => {
  test.each([
    ['=1+1', "'=1+1"],
    ['+cmd', "'+cmd"],
    ['-bracket', "'-bracket"],
    ['@sum', "'@sum"],
    ['\tx', "'\tx"],
    ['＝1', "'＝1"],
    ['plain', 'plain'],
    ['say "hi", please', 'say "hi", please'],
  ])('the text %j comes back as %j', async (text, expected) => {
    const csv = await tableCsv({ head: ['Part'], rows: [[text]] }, '.')
    expect(Papa.parse<string[]>(csv.trimEnd()).data[1]).toEqual([expected])
    expect(csv.startsWith('Part\r\n') || csv.startsWith('"Part"\r\n')).toBe(true)
  })
  it('leaves numbers alone, below zero too, and writes the picked mark', async () => {
    const table = {
      head: ['Mass (kg)', 'Note'],
      rows: [
        [-12.5, null],
        [1e-7, 'x'],
      ],
    }
    expect(await tableCsv(table, '.')).toBe('Mass (kg),Note\r\n-12.5,\r\n1e-7,x\r\n')
    expect(await tableCsv(table, ',')).toBe('Mass (kg);Note\r\n-12,5;\r\n1e-7;x\r\n')
  })
  it('is as wide in every row as its head, whatever stands in it', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(fc.tuple(fc.string(), fc.double({ noNaN: true })), { maxLength: 6 }), async (rows) => {
        const { data, errors } = Papa.parse<string[]>((await tableCsv({ head: ['a', 'b', 'c'], rows }, '.')).replace(/\r\n$/, ''), {
          delimiter: ',',
          newline: '\r\n',
        })
        expect(errors).toEqual([])
        expect(data.map((cells) => cells.length)).toEqual(Array.from({ length: rows.length + 1 }, () => 3))
        expect(data.slice(1).map((cells) => Number(cells[1]))).toEqual(rows.map(([, number]) => (Object.is(number, -0) ? 0 : number)))
      }),
    )
  })
})
