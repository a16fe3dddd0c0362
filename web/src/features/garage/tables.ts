import type { GarageEntry } from '@bold-ballast/contract'
import { inUnits, type Units } from '../../shared/table-cells.ts'
import type { CsvTable } from '../../ui/files/csv-button.tsx'

export const garageTable = (entries: readonly GarageEntry[], units: Units): CsvTable => ({
  head: ['Build', 'Discipline', 'Class', 'Stage', 'State', `Mass (${units.mass})`, `Power to weight (${units.powerToMass})`, 'Limits broken', 'Late stages'],
  rows: entries.map((entry) => [
    entry.build.name,
    entry.build.discipline,
    entry.build.className,
    entry.reachedName,
    entry.reachedState,
    inUnits(units)('mass', entry.mass?.value),
    inUnits(units)('powerToMass', entry.powerToMass?.value),
    entry.brokenLimits,
    entry.lateStages,
  ]),
})
