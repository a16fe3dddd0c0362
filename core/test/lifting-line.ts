import { Matrix, solve } from 'ml-matrix'

/**
 * A rectangular wing by lifting line, as a series of sines at points along the span: a second way to slope and induced drag.
 * Source: the monoplane equation (from memory). Slope per radian, and δ of CL²(1 + δ)/(π A).
 */
export function rectangularWing(aspect: number, sectionSlope: number, terms = 80): { slope: number; delta: number } {
  // Odd terms alone: the load is the same left and right. c a0/(4 b) = a0/(4 A).
  const mu = sectionSlope / (4 * aspect)
  const orders = Array.from({ length: terms }, (_, i) => 2 * i + 1)
  const angles = orders.map((_, i) => ((i + 1) * Math.PI) / (2 * terms))
  const left = new Matrix(angles.map((angle) => orders.map((n) => Math.sin(n * angle) * (n * mu + Math.sin(angle)))))
  const right = Matrix.columnVector(angles.map((angle) => mu * Math.sin(angle)))
  const a = solve(left, right).to1DArray()
  const first = a[0] as number
  return { slope: Math.PI * aspect * first, delta: orders.slice(1).reduce((sum, n, i) => sum + n * ((a[i + 1] as number) / first) ** 2, 0) }
}
