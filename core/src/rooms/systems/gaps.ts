import { hotGap } from '../../checks/hot-gap.ts'
import type { Check, CheckGap, Mark } from '../../records/check-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { checksInCar, marksByCheck } from '../checks/states.ts'
import { needOfGap } from '../checks/usual.ts'

/** How well a gap is measured where nobody said, m, and how well its growth and its rocking are known (common practice, no source). */
const TAPE_SD_M = 0.001
const GROWTH_SHARE = 0.2

export interface GapView {
  readonly check: Check & { readonly gap: CheckGap }
  /** As it was measured cold; null: nobody measured it. */
  readonly coldM: number | null
  readonly at: string | null
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
      if (!read || read.value === null) return { ...head, coldM: null, at: null, hotM: null, sdM: null, headroomM: null, verdict: null }
      const found = hotGap({ coldM: read.value, expansionPerK: expansionPerK ?? 0, lengthM: lengthM ?? 0, riseK: riseK ?? 0, towardShare, moveM, needM })
      const sdM = Math.hypot(read.sd ?? TAPE_SD_M, GROWTH_SHARE * (read.value - found.hotM))
      return { ...head, coldM: read.value, at: read.at, sdM, ...found }
    })
    .sort((a, b) => (a.headroomM ?? Number.POSITIVE_INFINITY) - (b.headroomM ?? Number.POSITIVE_INFINITY) || a.check.name.localeCompare(b.check.name))
}
