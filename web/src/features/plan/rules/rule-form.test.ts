import type { RecordsAnswer } from '@bold-ballast/contract'
import { chooseUnits, ruleSchema } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { averageText } from '../../../shared/rules/rule-words.ts'
import { FormReader } from '../../../ui/forms/form-reader.ts'
import { bookFile, readBookFile } from './book-file.ts'
import { readAverage, ruleForm } from './rule-form.ts'

const units = chooseUnits('metric', {})
const records = { changes: [{ id: 'c', name: 'flat floor' }], parts: [{ id: 'p', name: 'Short final' }] } as unknown as RecordsAnswer
const form = ruleForm(records)
const read = (values: Record<string, string>) => {
  const reader = new FormReader({ text: 'Least mass', key: 'mass', metric: 'massReady', sense: 'atLeast', ...values }, units, '.')
  return { body: form.body(reader), errors: reader.errors }
}

describe('how power is averaged, as it is typed', () => {
  test.each([
    ['peak -500 0 500', { around: 'peak', offsetsRpm: [-500, 0, 500] }],
    ['at 8000: -500 0 500', { around: 'speed', speedRpm: 8000, offsetsRpm: [-500, 0, 500] }],
    ['peak −250 0 weights 1 3', { around: 'peak', offsetsRpm: [-250, 0], weights: [1, 3] }],
    ['6000 to 7000', { fromRpm: 6000, toRpm: 7000, pulls: 'mean' }],
    ['6000 to 7000 best pull', { fromRpm: 6000, toRpm: 7000, pulls: 'best' }],
    ['peak -500 0 weights 1 2 median', { offsetsRpm: [-500, 0], weights: [1, 2], pulls: 'median' }],
  ])('%s', (text, expected) => {
    const found = readAverage(text)
    expect(found).toMatchObject(expected)
    expect(readAverage(averageText(found as never))).toEqual(found)
  })
  it.each(['', 'somewhere', 'peak', 'at -500 0'])('“%s” is none', (text) => {
    expect(readAverage(text)).toBeNull()
  })
})

describe('a rule in its form', () => {
  it('reads its number in the unit of what it is about', () => {
    expect(read({ value: '1200' }).body).toMatchObject({ value: 1200, metric: 'massReady' })
    expect(read({ metric: 'ruleRatio', value: '5.3' }).body).toMatchObject({ value: 0.0053 })
    expect(read({ metric: 'wingOverRoof', sense: 'atMost', value: '10 cm' }).body).toMatchObject({ value: 0.1 })
  })
  it('reads modifiers, and what it forbids by name', () => {
    const { body, errors } = read({ value: '1', modifiers: 'slick tyres; -0.2\nlong body; 0.1; off', blocks: 'flat floor, Short final' })
    expect(errors).toEqual({})
    expect(body.modifiers).toEqual([
      { name: 'slick tyres', kgPerW: expect.closeTo(-0.0002, 9), applies: true },
      { name: 'long body', kgPerW: expect.closeTo(0.0001, 9), applies: false },
    ])
    expect(body.blocks).toEqual(['c', 'p'])
  })
  it('says which line it does not know, and which average', () => {
    expect(read({ blocks: 'turbo' }).errors.blocks).toMatch(/no line or part called “turbo”/)
    expect(read({ average: 'nearly all' }).errors.average).toMatch(/no way to average/)
  })
})

describe('a rule book as a file', () => {
  const rules = [
    ruleSchema.parse({ key: 'mass', text: 'Least mass', from: '3.1', metric: 'massReady', sense: 'atLeast', value: 1200, blocks: ['c'] }),
    ruleSchema.parse({ key: 'cell', text: 'A fuel cell', sense: 'must' }),
  ]
  const book = { id: 'b', name: 'Harbour Open', edition: '2027', isShared: true, rules }
  it('comes back as it was, without the lines and parts of this build', () => {
    expect(readBookFile(bookFile(book))).toEqual({ name: 'Harbour Open', edition: '2027', unknown: 0, rules: rules.map((rule) => ({ ...rule, blocks: [] })) })
  })
  it('keeps a rule of an unknown kind in words, judged by nobody', () => {
    const raw = { key: 'grip', text: 'No more than 2 g', from: '9', metric: 'cornering', sense: 'atMost', value: 2 }
    const found = readBookFile(bookFile({ ...book, rules: [raw as never] }))
    expect(found.unknown).toBe(1)
    expect(found.rules[0]).toMatchObject({ key: 'grip', text: 'No more than 2 g', from: '9', metric: null, sense: 'must' })
    expect(JSON.parse(found.rules[0]?.unread ?? '')).toMatchObject(raw)
  })
  it.each(['no file', '{}', '{"format":"bold-ballast-build","rules":[]}'])('%s is refused', (text) => {
    expect(() => readBookFile(text)).toThrow()
  })
})
