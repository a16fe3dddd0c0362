import { CalculationError, type DecimalMark, parseNumber, parseQuantity, type QuantityKind, type ReadQuantity } from '@bold-ballast/core'

export type FormValues = Record<string, string>

/** Reads the texts of a form into record fields and collects every refusal by field, so that all are shown at once. */
export class FormReader {
  readonly errors: Record<string, string> = {}
  private readonly values: FormValues
  readonly units: Record<QuantityKind, string>
  readonly decimalMark: DecimalMark

  constructor(values: FormValues, units: Record<QuantityKind, string>, decimalMark: DecimalMark) {
    this.values = values
    this.units = units
    this.decimalMark = decimalMark
  }

  raw(name: string): string {
    return (this.values[name] ?? '').trim()
  }

  refuse(name: string, message: string): void {
    this.errors[name] ??= message
  }

  text(name: string, label: string): string {
    if (this.raw(name) === '') this.refuse(name, `${label} is empty. Type it.`)
    return this.raw(name)
  }

  optional(name: string): string | null {
    return this.raw(name) || null
  }

  flag(name: string): boolean {
    return this.values[name] === 'true'
  }

  quantity(name: string, label: string, kind: QuantityKind, unit = this.units[kind]): ReadQuantity {
    if (this.raw(name) === '') this.refuse(name, `${label} is empty. Type a number, with its unit if it is not ${unit}.`)
    else {
      const found = this.typedQuantity(name, this.raw(name), kind, label, unit)
      if (found) return found
    }
    return { value: Number.NaN, unit: '', typed: '' }
  }

  /** A quantity that is only a part of what the field holds; null, and the field refused, where it cannot be read. */
  typedQuantity(name: string, text: string, kind: QuantityKind, label = name, unit = this.units[kind]): ReadQuantity | null {
    try {
      return parseQuantity(text, kind, { defaultUnit: unit, decimalMark: this.decimalMark, field: label })
    } catch (error) {
      if (!(error instanceof CalculationError)) throw error
      this.refuse(name, error.message)
      return null
    }
  }

  optionalQuantity(name: string, label: string, kind: QuantityKind): ReadQuantity | null {
    return this.raw(name) === '' ? null : this.quantity(name, label, kind)
  }

  /** The lines of a field, without empty ones. */
  lines(name: string): string[] {
    return this.raw(name)
      .split('\n')
      .map((line) => line.trim())
      .filter((line) => line !== '')
  }

  /** A whole number within bounds. */
  count(name: string, label: string, low: number, high: number): number {
    const value = this.number(name, label)
    if (!Number.isInteger(value) || value < low || value > high) this.refuse(name, `${label} must be a whole number from ${low} to ${high}.`)
    return value
  }

  /**
   * A list of points, one a line, each of as many quantities as there are kinds, parted by blanks ("3000 0.92") or, where units are typed, by
   * semicolons ("300 kPa; 340 L/h"). A quantity that may be left out comes last.
   */
  points(name: string, label: string, kinds: readonly { readonly kind: QuantityKind; readonly isOptional?: boolean }[]): (number | null)[][] {
    return this.lines(name).flatMap((line) => {
      const cells = line.includes(';') ? line.split(/\s*;\s*/) : line.split(/\s+(?=[-+.\d])/)
      const fewest = kinds.filter(({ isOptional }) => !isOptional).length
      if (cells.length < fewest || cells.length > kinds.length) {
        this.refuse(
          name,
          `"${line}" has ${cells.length} numbers; ${label} needs ${fewest === kinds.length ? fewest : `${fewest} or ${kinds.length}`} a line. Put semicolons between where units are typed.`,
        )
        return []
      }
      const isLeftOut = (i: number) => cells[i] === undefined || (cells[i] === '' && kinds[i]?.isOptional === true)
      const values = kinds.map(({ kind }, i) => (isLeftOut(i) ? null : (this.typedQuantity(name, cells[i] as string, kind, label)?.value ?? Number.NaN)))
      return values.some((value) => value !== null && Number.isNaN(value)) ? [] : [values]
    })
  }

  number(name: string, label: string): number {
    try {
      return parseNumber(this.raw(name), this.decimalMark, label)
    } catch (error) {
      if (!(error instanceof CalculationError)) throw error
      this.refuse(name, error.message)
      return Number.NaN
    }
  }

  /** A local date and time as an instant. */
  instant(name: string, label: string): string {
    const at = new Date(this.raw(name))
    if (Number.isNaN(at.getTime())) {
      this.refuse(name, `${label} is no date and time. Pick one.`)
      return ''
    }
    return at.toISOString()
  }
}

/** An instant as the local text a date and time field takes. */
export function localTime(instant: Date): string {
  const shifted = new Date(instant.getTime() - instant.getTimezoneOffset() * 60_000)
  return shifted.toISOString().slice(0, 16)
}
