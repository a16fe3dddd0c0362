import { METRIC_INFO, type TechSheet } from '@bold-ballast/core'
import type { CsvTable } from '../../ui/files/csv-button.tsx'
import { inUnits, spreadIn, type Units } from '../table-cells.ts'

/** The rules of a book with what the car says to each, as a table. */
export const rulesTable = ({ rows }: TechSheet, units: Units): CsvTable => ({
  head: ['Rule', 'Where', 'Sense', 'Value', 'Upper value', 'Unit', 'The car', 'Spread', 'Proof', 'Read on', 'Verdict', 'Why it is not shown'],
  rows: rows.map(({ rule, standing, readOn }) => {
    const kind = rule.metric ? METRIC_INFO[rule.metric].kind : null
    const shown = (value: number | null | undefined) => (kind ? inUnits(units)(kind, value) : null)
    return [
      rule.text,
      rule.from,
      rule.sense,
      shown(rule.value),
      shown(rule.highValue),
      kind ? units[kind] : null,
      shown(standing?.value),
      kind ? spreadIn(units)(kind, standing?.sd) : null,
      standing?.proof ?? null,
      readOn.join(' '),
      standing?.word ?? null,
      standing?.problem ?? null,
    ]
  }),
})
