import { hotGap } from '../../checks/hot-gap.ts'
import type { Check, CheckGap, Mark } from '../../records/check-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { checksInCar, marksByCheck } from '../checks/states.ts'
import { needOfGap } from '../checks/usual.ts'
import { type GapMove, gapMove } from '../drivetrain/wheel-places.ts'

/** How well a gap is measured where nobody said, m, and how well its growth and its rocking are known (common practice, no source). */
const TAPE_SD_M = 0.001
const GROWTH_SHARE = 0.2

export interface GapView {
  readonly check: Check & { readonly gap: CheckGap }
  /** As it was measured cold, carried to the wheels of the stage where it follows them; null: nobody measured it, or it cannot be carried. */
  readonly coldM: number | null
  readonly at: string | null
  /** How much more of it the wheels of this stage leave than those it was measured with; 0: the same. */
  readonly byWheelsM: number
  /** Why what was measured says nothing of this stage. */
  readonly unknown: string | null
  readonly hotM: number | null
  readonly sdM: number | null
  readonly needM: number
  readonly isNeedUsual: boolean
  readonly headroomM: number | null
  readonly verdict: 'touches' | 'tight' | 'holds' | null
  /** Nothing grows or rocks: what was measured stands as it is. */
  readonly isPlain: boolean
}

const isGap = (check: Check): check is Check & { gap: CheckGap } => check.gap !== null

/** The measurement that a gap stands by: the last one of the stage or before it. */
function lastRead(marks: readonly Mark[], stagePlaces: ReadonlyMap<string, number>, position: number): Mark | undefined {
  return marks.find(({ value, stageId }) => value !== null && (stagePlaces.get(stageId) ?? 0) <= position)
}

/** What the wheels of a stage do to a gap that was measured at another. */
const byWheels = (records: Pick<BuildRecords, 'parts' | 'stages'>, { besideWheel }: CheckGap, measuredAt: number, position: number): GapMove =>
  besideWheel === null ? { is: 'same' } : gapMove(records, besideWheel, measuredAt, position)

/**
 * Gaps of the car of a stage, cold as measured and hot as reckoned, the smallest headroom first; those that nobody measured last.
 * @example gapsAtStage(CHECKED, 1) // []
 */
export function gapsAtStage(records: Pick<BuildRecords, 'checks' | 'marks' | 'parts' | 'stages'>, position: number): GapView[] {
  const marks = marksByCheck(records.marks)
  const places = new Map(records.stages.map((stage) => [stage.id, stage.position]))
  return checksInCar(records, position)
    .filter(isGap)
    .map((check): GapView => {
      const { expansionPerK, lengthM, riseK, towardShare, moveM, needM: own } = check.gap
      const needM = needOfGap(check.gap)
      const read = lastRead(marks.get(check.id) ?? [], places, position)
      const head = { check, needM, isNeedUsual: own === null, isPlain: moveM === 0 && !(expansionPerK && lengthM && riseK) }
      const none = { ...head, coldM: null, at: null, byWheelsM: 0, unknown: null, hotM: null, sdM: null, headroomM: null, verdict: null }
      if (!read || read.value === null) return none
      const move = byWheels(records, check.gap, places.get(read.stageId) ?? 0, position)
      if (move.is === 'unknown') return { ...none, at: read.at, unknown: move.reason }
      const byWheelsM = move.is === 'moved' ? move.byM : 0
      // What is closed by wider wheels is less than nothing: they touch.
      const coldM = Math.max(0, read.value + byWheelsM)
      const found = hotGap({ coldM, expansionPerK: expansionPerK ?? 0, lengthM: lengthM ?? 0, riseK: riseK ?? 0, towardShare, moveM, needM })
      const sdM = Math.hypot(read.sd ?? TAPE_SD_M, GROWTH_SHARE * (coldM - found.hotM), move.is === 'moved' ? move.sdM : 0)
      return { ...head, isPlain: head.isPlain && move.is === 'same', coldM, at: read.at, byWheelsM, unknown: null, sdM, ...found }
    })
    .sort((a, b) => (a.headroomM ?? Number.POSITIVE_INFINITY) - (b.headroomM ?? Number.POSITIVE_INFINITY) || a.check.name.localeCompare(b.check.name))
}
