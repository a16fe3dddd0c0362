import { readFileSync } from 'node:fs'
import { CALCULATIONS, describeCalculation, findCalculation, runCalculation } from '../core/src/index.ts'
import { solverTools } from '../server/src/solver/solver.ts'

// The registry on the command line: npm run --silent calc -- air.density < input.json; with no name it lists all, with schemas.
const [name] = process.argv.slice(2)
const print = (value: unknown) => process.stdout.write(`${JSON.stringify(value, null, 2)}\n`)

async function answer(): Promise<boolean> {
  if (!name) {
    print(CALCULATIONS.map(describeCalculation))
    return true
  }
  const refuse = (code: string, field: string, message: string) => {
    print({ ok: false, error: { code, field, message } })
    return false
  }
  const calculation = findCalculation(name)
  if (!calculation) return refuse('unknown', 'name', `No calculation is named "${name}". Leave the name out to list them.`)
  let input: unknown
  try {
    input = JSON.parse(readFileSync(0, 'utf8'))
  } catch {
    return refuse('unreadable', 'input', 'Standard input is not JSON. Give one JSON object.')
  }
  const found = runCalculation(calculation, input, calculation.needsSolver ? await solverTools() : {})
  print(found)
  return found.ok
}

process.exitCode = (await answer()) ? 0 : 1
