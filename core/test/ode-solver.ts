import { createRequire } from 'node:module'

interface OdeSolver {
  absoluteTolerance: number
  relativeTolerance: number
  solve(slope: (x: number, y: number[]) => number[], from: number, start: number[], to: number): { y: number[] }
}

/** A general solver of differential equations, to hold closed forms against. */
export const { Solver } = createRequire(import.meta.url)('odex') as { Solver: new (size: number) => OdeSolver }
