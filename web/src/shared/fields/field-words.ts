import { fieldUnit } from '@bold-ballast/core'

/** Endings that say what a field is, and need not be said again. */
const SAID = /(Id|At)$/

/** A field's name in words, with its unit: "driverInKg" is "driver in (kg)". */
export function fieldWord(field: string): string {
  const found = fieldUnit(field)
  const bare = (found?.bare ?? field).replace(SAID, '')
  return `${bare.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase()}${found ? ` (${found.unit.symbol})` : ''}`
}

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/i
/** A choice as it is stored: "wornOut" is "worn out". */
const CHOICE = /^[a-z]+([A-Z][a-z]+)+$/

/** A stored value for reading; numbers as stored, what was typed where a value has it, another record by its name. */
export function valueText(value: unknown, nameOf: (id: string) => string | undefined = () => undefined): string {
  if (value === null || value === undefined || value === '') return 'nothing'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (Array.isArray(value)) return value.length === 0 ? 'nothing' : value.map((item) => valueText(item, nameOf)).join(', ')
  if (typeof value === 'object') {
    const { typed, name } = value as { typed?: string; name?: string }
    if (typed) return typed
    if (name) return name
    return Object.entries(value)
      .filter(([, item]) => item !== null)
      .map(([key, item]) => `${fieldWord(key)} ${valueText(item, nameOf)}`)
      .join(', ')
  }
  const text = String(value)
  if (UUID.test(text)) return nameOf(text) ?? 'a record that is gone'
  return CHOICE.test(text) ? text.replace(/([a-z])([A-Z])/g, '$1 $2').toLowerCase() : text
}
