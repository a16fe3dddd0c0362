import type { ColumnMapping } from '@bold-ballast/core'
import { expect, test } from 'vitest'
import { withColumn } from './column-table.tsx'

const columns: ColumnMapping[] = [
  { heading: 'A', role: 'speed', unit: 'rpm' },
  { heading: 'B', role: 'power', unit: 'kW' },
  { heading: 'C', role: 'other', unit: '' },
]

test.each([
  ['a unit alone', 'B', { unit: 'hp' }, [columns[0], { heading: 'B', role: 'power', unit: 'hp' }, columns[2]]],
  ['a role that another has', 'C', { role: 'power' }, [columns[0], { heading: 'B', role: 'other', unit: '' }, { heading: 'C', role: 'power', unit: '' }]],
  ['a role that many may have', 'B', { role: 'other' }, [columns[0], { heading: 'B', role: 'other', unit: '' }, columns[2]]],
  ['the role it has', 'A', { role: 'speed' }, columns],
] as const)('%s', (_, heading, change, expected) => {
  expect(withColumn(columns, heading, change)).toEqual(expected)
})
