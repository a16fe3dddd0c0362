import { FARTHEST_DEG, metresPerDegree, type Origin } from './plane.ts'

/** Where each role stands among the values of a row; under 0: nowhere. */
export interface PlacesOfRoles {
  readonly north: number
  readonly east: number
  readonly speed: number
  readonly wheelSpeed: number
}

/** Turns degrees of a log into metres north and east of its first position, row by row. */
export class LogPlaces {
  origin: Origin | null = null
  /** Positions that lie too far away to be of one drive: left out. */
  jumpCount = 0
  private perDegree = { north: 0, east: 0 }

  /** Degrees in a row's values become metres; no number where there is no position. */
  place(values: Float64Array, { north, east }: PlacesOfRoles): void {
    if (north < 0) return
    const [latitudeDeg, longitudeDeg] = [values[north] as number, values[east] as number]
    values[north] = Number.NaN
    values[east] = Number.NaN
    // Receivers without a fix write noughts.
    if (!(Math.abs(latitudeDeg) <= 85 && Math.abs(longitudeDeg) <= 180) || (latitudeDeg === 0 && longitudeDeg === 0)) return
    if (!this.origin) {
      this.origin = { latitudeDeg, longitudeDeg }
      this.perDegree = metresPerDegree(this.origin)
    }
    const [up, across] = [latitudeDeg - this.origin.latitudeDeg, longitudeDeg - this.origin.longitudeDeg]
    if (Math.abs(up) > FARTHEST_DEG || Math.abs(across) > 2 * FARTHEST_DEG) {
      this.jumpCount++
      return
    }
    values[north] = up * this.perDegree.north
    values[east] = across * this.perDegree.east
  }
}

/** Over a longer step no way is summed, s. */
const LONGEST_STEP_S = 1

/** Sums the way that positions, the speed over ground and the wheels make, over the same steps. */
export class LogWays {
  readonly seen = { placesM: 0, speedM: 0, wheelM: 0 }
  private before: { readonly atS: number; readonly values: Float64Array } | undefined

  add(atS: number, values: Float64Array, { north, east, speed, wheelSpeed }: PlacesOfRoles, hasNoPlaces: boolean): void {
    const { before } = this
    this.before = { atS, values }
    if (!before || atS - before.atS > LONGEST_STEP_S) return
    const moved = (i: number) => (i < 0 ? Number.NaN : (values[i] as number) - (before.values[i] as number))
    const placesM = Math.hypot(moved(east), moved(north))
    const isPlaced = !Number.isNaN(placesM)
    if (isPlaced) this.seen.placesM += placesM
    if (!isPlaced && !hasNoPlaces) return
    const step = atS - before.atS
    const wayOf = (i: number) => {
      const value = i < 0 ? Number.NaN : (values[i] as number)
      return Number.isNaN(value) ? 0 : value * step
    }
    this.seen.speedM += wayOf(speed)
    this.seen.wheelM += wayOf(wheelSpeed)
  }
}
