const UNITS: readonly (readonly [RegExp, string])[] = [
  [/Kg$/, ' (kg)'],
  [/Pa$/, ' (Pa)'],
  [/W$/, ' (W)'],
  [/L$/, ' (L)'],
  [/M$/, ' (m)'],
  [/Id$/, ''],
  [/At$/, ''],
]

/** A field's name in words, with its unit: "driverInKg" is "driver in (kg)". */
export function fieldWord(field: string): string {
  const unit = UNITS.find(([pattern]) => pattern.test(field))
  const bare = unit ? field.replace(unit[0], '') : field
  return `${bare.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase()}${unit?.[1] ?? ''}`
}

/** A stored value for reading; numbers as stored, what was typed where a value has it. */
export function valueText(value: unknown): string {
  if (value === null || value === undefined || value === '') return 'nothing'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) return value.length === 0 ? 'nothing' : value.map(valueText).join(', ')
  if (typeof value === 'object') {
    const { typed, name } = value as { typed?: string; name?: string }
    if (typed) return typed
    if (name) return name
    return Object.entries(value)
      .filter(([, item]) => item !== null)
      .map(([key, item]) => `${fieldWord(key)} ${valueText(item)}`)
      .join(', ')
  }
  return String(value)
}
