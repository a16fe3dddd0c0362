/** What a column of a file is, by its heading as it stands there. */
export interface Column<Role extends string> {
  readonly heading: string
  readonly role: Role
  readonly unit: string
}

/** What a column can be, and the units that it may be in where it has one. "other" may stand many times. */
export interface ColumnRole<Role extends string> {
  readonly role: Role
  readonly word: string
  readonly units?: readonly string[]
}

/** The mapping with one column of it changed; a role that can stand once is taken from the column that had it. */
export function withColumn<Role extends string>(
  columns: readonly Column<Role>[],
  heading: string,
  change: Partial<Omit<Column<Role>, 'heading'>>,
): Column<Role>[] {
  const isTaken = change.role !== undefined && change.role !== 'other'
  return columns.map((column) => {
    if (column.heading === heading) return { ...column, ...(change.role === undefined || change.role === column.role ? {} : { unit: '' }), ...change }
    return isTaken && column.role === change.role ? { ...column, role: 'other' as Role, unit: '' } : column
  })
}

/** Which column of a file is what: as it was guessed or remembered, and as a person says. */
export function ColumnTable<Role extends string>({
  columns,
  firstRows,
  change,
  roles,
}: {
  columns: readonly Column<Role>[]
  firstRows: readonly (readonly string[])[]
  change: (columns: Column<Role>[]) => void
  roles: readonly ColumnRole<Role>[]
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
          const known = roles.find((each) => each.role === role)?.units
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
                  onChange={(event) => change(withColumn(columns, heading, { role: event.target.value as Role }))}
                  className="w-full"
                >
                  {roles.map((each) => (
                    <option key={each.role} value={each.role}>
                      {each.word}
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
