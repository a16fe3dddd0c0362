import { itemAt } from '../item-at.ts'
import type { Lap } from './lap.ts'
import { type Cell, type TrackLine, trackCells } from './track.ts'

/** A corner of a track: where it begins, where it is tightest, where it ends. */
export interface Corner {
  readonly name: string
  readonly fromM: number
  readonly atM: number
  readonly toM: number
  /** Where it is tightest, 1/m, left positive. */
  readonly curvaturePerM: number
}

/** A bend that is wider than this is no corner, 1/m. */
const LEAST_CURVATURE = 1 / 400
const STEP_M = 2

/** Runs of cells that turn one way. */
function bends(cells: readonly Cell[]): Corner[] {
  const found: Corner[] = []
  let open: { fromM: number; atM: number; toM: number; curvaturePerM: number } | null = null
  const close = () => {
    if (open) found.push({ name: String(found.length + 1), ...open })
    open = null
  }
  for (const { curvaturePerM, atM, lengthM } of cells) {
    if (Math.abs(curvaturePerM) < LEAST_CURVATURE) {
      close()
      continue
    }
    if (open && Math.sign(open.curvaturePerM) !== Math.sign(curvaturePerM)) close()
    if (!open) open = { fromM: atM, atM: atM + lengthM / 2, toM: atM + lengthM, curvaturePerM }
    else {
      open.toM = atM + lengthM
      // The middle of a bend of one radius: the first cell that is tighter by rounding alone does not take it.
      if (Math.abs(curvaturePerM) > Math.abs(open.curvaturePerM) * 1.000001) {
        open.atM = atM + lengthM / 2
        open.curvaturePerM = curvaturePerM
      }
    }
  }
  close()
  return found
}

/**
 * The corners of a track in their order, named by its marks where one lies in them, else by number. Source: common practice; wider than 400 m is no corner.
 * Rejects what `requireTrack` rejects.
 * @example cornersOf(SKARVHOLM).length // 12
 */
export function cornersOf(track: TrackLine, marks: readonly { readonly atM: number; readonly kind: string; readonly name: string }[] = []): readonly Corner[] {
  const own = marks.filter(({ kind }) => kind === 'corner')
  return bends(trackCells(track, STEP_M)).map((corner) => {
    const mark = own.find(({ atM }) => atM >= corner.fromM && atM <= corner.toM)
    return mark
      ? { ...corner, name: mark.name, atM: mark.atM }
      : { ...corner, atM: corner.atM === corner.fromM + 1 ? (corner.fromM + corner.toM) / 2 : corner.atM }
  })
}

/**
 * The least speed of a lap in each corner, m/s.
 * @example slowestIn(lapOf(SKARVHOLM, LAP_CAR), cornersOf(SKARVHOLM)).length // 12
 */
export function slowestIn(lap: Pick<Lap, 'cells' | 'speedMps'>, corners: readonly Corner[]): readonly number[] {
  return corners.map(({ fromM, toM }) => {
    let least = Number.POSITIVE_INFINITY
    lap.cells.forEach(({ atM, lengthM }, i) => {
      if (atM + lengthM >= fromM && atM <= toM) least = Math.min(least, itemAt(lap.speedMps, i))
    })
    return least
  })
}
