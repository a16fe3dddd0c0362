/** Round steps of an axis that so many of them fit on at the most: one, two or five of a power of ten. */
export function axisStep(span: number, most = 6): number {
  const power = 10 ** Math.floor(Math.log10(Math.max(span, 1e-9) / most))
  return [1, 2, 5, 10].map((by) => by * power).find((step) => span / step <= most) ?? 10 * power
}
