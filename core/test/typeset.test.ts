import { describe, expect, test } from 'vitest'
import { CALCULATIONS, typesetOf } from '../src/index.ts'

/** The symbols of a line of TeX: letters and Greek letters with their marks and indices, without words, numbers and functions. */
function symbolsIn(line: string): string[] {
  const plain = line
    .replace(/\\text\{[^}]*\}/g, ' ')
    .replace(/\\(frac|tfrac|sqrt|left|right|quad|cdot|sum|int|ln|log|exp|sin|cos|tan|min|max|le|ge|to|pi|setminus|propto|circ)(?![a-z])/g, ' ')
    .replace(/\\[,;!]/g, ' ')
    .replace(/_\{(in|out)\}/g, ' ')
  return [...plain.matchAll(/(?:\\(?:dot|bar|hat) )?(?:\\Delta ?)?(?:\\[a-zA-Z]+|[A-Za-z])(?:_(?:\{[^}]*\}|[A-Za-z0-9]|\\[a-z]+))?/g)].map(([found]) =>
    found.trim(),
  )
}
const NOT_SYMBOLS = /^(d|dn|i|k|j|in|out|up|down|T|x|[a-z]{3,})$/
const base = (tex: string) => tex.replace(/^\\bar /, '').replace(/_(\{[^}]*\}|.|\\[a-z]+)$/, '')

describe.each(CALCULATIONS.map(({ name }) => name))('the formula of %s', (name) => {
  const { lines, symbols } = typesetOf(name)
  test('is set, and each of its symbols has a meaning', () => {
    expect(lines.length).toBeGreaterThan(0)
    const known = new Set(symbols.flatMap(({ tex }) => [tex, base(tex)]))
    for (const symbol of lines.flatMap(symbolsIn))
      if (!NOT_SYMBOLS.test(symbol))
        expect(
          [symbol, base(symbol)].some((tex) => known.has(tex)),
          symbol,
        ).toBe(true)
  })
  test('explains no symbol that is not in it', () => {
    for (const { tex, meaning } of symbols) {
      expect(lines.join(' '), tex).toContain(tex)
      expect(meaning).not.toBe('')
    }
  })
})
