/** Round steps of an axis that so many of them fit on at the most: one, two or five of a power of ten. */
export function axisStep(span: number, most = 6): number {
  const power = 10 ** Math.floor(Math.log10(Math.max(span, 1e-9) / most))
  return [1, 2, 5, 10].map((by) => by * power).find((step) => span / step <= most) ?? 10 * power
}

/** The multiples of a step from one number to another. */
export function ticksWithin(low: number, high: number, step: number): number[] {
  const first = Math.ceil(low / step - 1e-9)
  return Array.from({ length: Math.max(0, Math.floor(high / step + 1e-9) - first + 1) }, (_, i) => (first + i) * step)
}
