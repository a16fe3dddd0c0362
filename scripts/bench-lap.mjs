// How far the lap is from the same in C: compiled here, driven over the same cells, and held to the same lap time.
import { execFileSync, spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { root } from './install.mjs'

const DRIVES = ['rear', 'front', 'all']

/** What the program reads: all numbers of a car with gears on a closed track. */
function numbersOf(car, cells, rounds) {
  const { curve, gears, reference } = car
  const own = ['massKg', 'frontShare', 'centreHeightM', 'wheelbaseM', 'trackM', 'friction', 'loadSensitivity', 'gripFactor', 'brakingUse', 'dragAreaM2']
  const air = ['downforceFrontM2', 'downforceRearM2', 'rollingCoefficient', 'airDensityKgM3', 'brakeFrontShare']
  return [
    rounds,
    ...[...own, ...air].map((key) => car[key]),
    reference?.massKg ?? car.massKg,
    reference?.frontShare ?? car.frontShare,
    DRIVES.indexOf(car.drivenAxles),
    curve.speedRpm.length,
    ...curve.speedRpm.flatMap((rpm, i) => [rpm, curve.powerW[i]]),
    gears.overallRatios.length,
    gears.radiusM,
    gears.shiftS,
    gears.topRpm,
    ...gears.overallRatios.flatMap((ratio, i) => [ratio, gears.turning[i].share, gears.turning[i].kg]),
    cells.length,
    ...cells.flatMap((cell) => [cell.lengthM, cell.curvaturePerM, cell.grade, cell.camberRad, cell.gripFactor]),
  ]
}

/** Milliseconds of each lap in C; null where no compiler is there. Throws where its lap is another one. */
export function lapsInC({ car, cells, lapS, rounds }) {
  if (spawnSync('cc', ['--version']).status !== 0) return null
  const folder = mkdtempSync(path.join(tmpdir(), 'bold-ballast-lap-'))
  try {
    const program = path.join(folder, 'lap')
    execFileSync('cc', ['-O2', '-std=gnu11', '-o', program, path.join(root, 'scripts/bench-lap.c'), '-lm'])
    const [found, ...ms] = execFileSync(program, { input: numbersOf(car, cells, rounds).join(' '), encoding: 'utf8' })
      .trim()
      .split('\n')
      .map(Number)
    if (!(Math.abs(found - lapS) < 1e-6)) throw new Error(`The lap in C is ${found} s, the other ${lapS} s: they are not the same sum any more.`)
    return ms
  } finally {
    rmSync(folder, { recursive: true })
  }
}
