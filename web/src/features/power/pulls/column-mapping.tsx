import type { PullColumns } from '@bold-ballast/contract'
import { type ChannelRole, COLUMN_ROLES, type ColumnMapping } from '@bold-ballast/core'

export const ROLE_WORDS: Record<ChannelRole, string> = {
  speed: 'engine speed',
  power: 'power',
  torque: 'torque',
  boost: 'boost',
  lambda: 'lambda or AFR',
  intakeTemperature: 'intake temperature',
  roadSpeed: 'road or roller speed',
  time: 'time',
  pull: 'number of the pull',
  other: 'something else, kept',
}
const UNITS: Partial<Record<ChannelRole, readonly string[]>> = {
  speed: ['rpm'],
  power: ['kW', 'hp', 'PS', 'W'],
  torque: ['N·m', 'lb·ft', 'kgf·m'],
  boost: ['kPa', 'bar', 'psi', 'hPa'],
  lambda: ['λ', 'AFR', 'AFR 14.1', 'AFR 9.8', 'AFR 9.0'],
  intakeTemperature: ['°C', '°F', 'K'],
}

/** The mapping with one column of it changed; a role that can stand once is taken from the column that had it. */
export function withColumn(columns: readonly ColumnMapping[], heading: string, change: Partial<Omit<ColumnMapping, 'heading'>>): ColumnMapping[] {
  const isTaken = change.role !== undefined && change.role !== 'other'
  return columns.map((column) => {
    if (column.heading === heading) return { ...column, ...(change.role === undefined || change.role === column.role ? {} : { unit: '' }), ...change }
    return isTaken && column.role === change.role ? { ...column, role: 'other', unit: '' } : column
  })
}

/** Which column of a file is what: as it was guessed or remembered, and as a person says. */
export function ColumnTable({
  columns,
  firstRows,
  change,
}: {
  columns: readonly ColumnMapping[]
  firstRows: PullColumns['firstRows']
  change: (columns: ColumnMapping[]) => void
}) {
  return (
    <table className="my-2 w-full border-collapse">
      <thead>
        <tr className="border-b border-line">
          <th className="p-1">Column</th>
          <th className="p-1">First values</th>
          <th className="p-1">It is</th>
          <th className="p-1">In</th>
        </tr>
      </thead>
      <tbody>
        {columns.map(({ heading, role, unit }, at) => {
          const known = UNITS[role]
          return (
            <tr key={heading} className="border-b border-line align-baseline">
              <td className="p-1 font-semibold">{heading || `column ${at + 1}`}</td>
              <td className="max-w-[120px] truncate p-1 font-mono text-xs text-quiet">
                {firstRows
                  .slice(0, 3)
                  .map((row) => row[at] ?? '')
                  .join('  ')}
              </td>
              <td className="p-1">
                <select
                  value={role}
                  aria-label={`${heading} is`}
                  onChange={(event) => change(withColumn(columns, heading, { role: event.target.value as ChannelRole }))}
                  className="w-full"
                >
                  {COLUMN_ROLES.map((value) => (
                    <option key={value} value={value}>
                      {ROLE_WORDS[value]}
                    </option>
                  ))}
                </select>
              </td>
              <td className="p-1">
                {known && (
                  <select
                    value={unit}
                    aria-label={`${heading} is in`}
                    onChange={(event) => change(withColumn(columns, heading, { unit: event.target.value }))}
                    className="w-full"
                  >
                    <option value="">as the file says</option>
                    {[...new Set([...known, ...(unit ? [unit] : [])])].map((value) => (
                      <option key={value} value={value}>
                        {value}
                      </option>
                    ))}
                  </select>
                )}
              </td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}
