import { fieldUnit } from '@bold-ballast/core'

/** Endings that say what a field is, and need not be said again. */
const SAID = /(Id|At)$/

/** A field's name in words, with its unit: "driverInKg" is "driver in (kg)". */
export function fieldWord(field: string): string {
  const found = fieldUnit(field)
  const bare = (found?.bare ?? field).replace(SAID, '')
  return `${bare.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase()}${found ? ` (${found.unit.symbol})` : ''}`
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
