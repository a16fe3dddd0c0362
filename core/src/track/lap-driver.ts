import { itemAt } from '../item-at.ts'
import type { LapCar, LapGear } from './lap-car.ts'
import type { Cell } from './track.ts'
import type { TyreModel } from './tyre-limits.ts'

/** No car on a lap is slower, m²/s²: a speed squared that falls under it is held there. */
export const LEAST_V2 = 0.25

/** A car on its way forward: its speed, its gear, and how long a shift still lasts. */
export class Driver {
  v = 0
  gear = 0
  shiftLeftS = 0
  upshifts = 0
  isByTyres = false
  isAtTop = false
  readonly #gears: readonly LapGear[]
  readonly #tyres: TyreModel
  readonly #massKg: number
  readonly #shiftS: number

  constructor(car: LapCar, gears: readonly LapGear[], tyres: TyreModel) {
    this.#gears = gears
    this.#tyres = tyres
    this.#massKg = car.massKg
    this.#shiftS = car.gears?.shiftS ?? 0
  }

  /** The gear that pulls best is free: a corner or a slope sets the speed. */
  takeBest(): void {
    let best = 0
    let most = -1
    for (let i = 0; i < this.#gears.length; i++) {
      const gear = itemAt(this.#gears, i)
      const force = this.v <= gear.topMps ? gear.forceN(this.v) : 0
      if (force > most * (1 + 1e-12)) {
        best = i
        most = force
      }
    }
    // Above every gear's end the highest turns slowest.
    this.gear = most > 0 ? best : this.#gears.length - 1
    this.shiftLeftS = 0
  }

  #accelerate(cell: Cell, v: number): number {
    const { left, tractionN, resistanceN, slopeN } = this.#tyres.at(cell, v)
    const gear = itemAt(this.#gears, this.gear)
    const resists = resistanceN + slopeN
    const byEngine = ((this.shiftLeftS > 0 ? 0 : gear.forceN(v)) - resists) / gear.effectiveMassKg
    const byTyres = (left * tractionN - resists) / this.#massKg
    this.isByTyres = byTyres < byEngine
    return this.isByTyres ? byTyres : byEngine
  }

  /** Heun in v²: the mean of what pulls at the begin and at the end. */
  #heun(cell: Cell, s: number): number {
    const { v } = this
    const a = this.#accelerate(cell, v)
    const end = Math.sqrt(Math.max(LEAST_V2, v * v + 2 * a * s))
    const b = this.#accelerate(cell, end)
    return Math.sqrt(Math.max(LEAST_V2, v * v + (a + b) * s))
  }

  /** The part of a distance that the rest of a shift takes. */
  #shiftWithin(cell: Cell, s: number): number {
    let part = Math.min(s, this.shiftLeftS * this.v)
    for (let round = 0; round < 4; round++) part = Math.min(s, 0.5 * this.shiftLeftS * (this.v + this.#heun(cell, part)))
    return part
  }

  /** At the corner's own speed the tyres hold it there, as long as the engine would do more. */
  #isHeld(cell: Cell, cornerMps: number): boolean {
    if (this.v < cornerMps - 1e-9 || this.shiftLeftS > 0) return false
    const { resistanceN, slopeN } = this.#tyres.at(cell, this.v)
    return itemAt(this.#gears, this.gear).forceN(this.v) >= resistanceN + slopeN
  }

  drive(cell: Cell, cornerMps: number): void {
    let rest = cell.lengthM
    this.isAtTop = false
    if (this.#isHeld(cell, cornerMps)) {
      this.isByTyres = true
      return
    }
    for (let part = 0; rest > 1e-9 && part < 40; part++) {
      const gear = itemAt(this.#gears, this.gear)
      if (this.shiftLeftS > 0) {
        const s = this.#shiftWithin(cell, rest)
        const end = this.#heun(cell, s)
        const took = (2 * s) / (this.v + end)
        this.shiftLeftS = s < rest ? 0 : Math.max(0, this.shiftLeftS - took)
        this.v = end
        rest -= s
        continue
      }
      let end = this.#heun(cell, rest)
      if (end > gear.leaveMps && this.v <= gear.leaveMps) {
        const share = (gear.leaveMps ** 2 - this.v ** 2) / (end ** 2 - this.v ** 2)
        rest *= 1 - share
        this.v = gear.leaveMps
        this.gear++
        this.upshifts++
        this.shiftLeftS = this.#shiftS
        continue
      }
      if (end > gear.topMps && !this.isByTyres) {
        end = Math.max(gear.topMps, Math.min(end, this.v))
        this.isAtTop = true
      }
      this.v = end
      rest = 0
    }
  }
}
