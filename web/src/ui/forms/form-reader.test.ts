import { UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it } from 'vitest'
import { makeFormatter, typedText } from '../quantity.ts'
import { FormReader } from './form-reader.ts'

describe('reading a form', () => {
  it('collects every refusal by field and keeps what could be read', () => {
    const read = new FormReader({ name: ' ', mass: '1,200', fuel: '20 L ± 1' }, UNIT_SETS.metric, '.')
    read.text('name', 'Name')
    read.quantity('mass', 'Mass', 'mass')
    expect(read.quantity('fuel', 'Fuel', 'volume')).toMatchObject({ value: 20, sd: 1, typed: '20 L ± 1' })
    read.instant('at', 'When')
    expect(Object.keys(read.errors)).toEqual(['name', 'mass', 'at'])
    expect(read.errors.mass).toMatch(/1200 or 1.200/)
  })
})

describe('showing quantities', () => {
  const metric = makeFormatter(UNIT_SETS.metric)
  const imperial = makeFormatter(UNIT_SETS.imperial)
  it('lets the spread decide the decimals', () => {
    expect(metric('mass', 1469.1, { sd: 1.82 })).toEqual({ number: '1\u202f469.1', unit: 'kg', spread: '± 1.8' })
    expect(metric('share', 0.5169, { sd: 0.00042 })).toMatchObject({ number: '51.690', spread: '± 0.042' })
    expect(imperial('mass', 18.59728717, { sd: 0.1 })).toMatchObject({ number: '41.00', unit: 'lb' })
  })
  it('shows a goal with the digits it needs', () => {
    expect(metric('mass', 1200, { isGoal: true }).number).toBe('1\u202f200')
    expect(metric('mass', 1200.5, { isGoal: true }).number).toBe('1\u202f200.5')
  })
  it('gives text that reads back', () => {
    expect(typedText('power', 300_000, 'kW')).toBe('300 kW')
  })
})
