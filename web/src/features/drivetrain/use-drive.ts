import type { RecordsAnswer } from '@bold-ballast/contract'
import { type Course, type DriveRoomStage, SURFACES, type Surface } from '@bold-ballast/core'
import { useMemo } from 'react'
import { useAddress } from '../../ui/hooks/use-address.ts'

/** The course that is looked at: the one in the address, the Board's, or the first. */
export function pickedCourse(records: RecordsAnswer, id: string): Course | null {
  const { courses, build } = records
  return courses.find((course) => course.id === id) ?? courses.find((course) => course.id === build.driveBasis?.courseId) ?? courses[0] ?? null
}

/** What is looked at beside the stage: final drive, surface and course, all in the address. */
export function useDrive(records: RecordsAnswer, made: DriveRoomStage) {
  const address = useAddress()
  const typed = Number(address.get('final'))
  const own = made.car?.finalRatio ?? null
  const finalRatio = typed >= 0.5 && typed <= 12 ? typed : own
  const asked = address.get('surface')
  const surface: Surface = SURFACES.find((each) => each === asked) ?? 'dry'
  const share = surface === 'dry' ? 1 : made.surfaces[surface]
  const car = useMemo(() => (made.car && finalRatio !== null ? { ...made.car, finalRatio, surfaceFactor: share } : null), [made.car, finalRatio, share])
  const course = pickedCourse(records, address.get('course'))
  const setFinal = (ratio: number | null) => address.set({ final: ratio === null || ratio === own ? '' : String(Number(ratio.toFixed(3))) })
  return { address, car, finalRatio, setFinal, surface, course }
}
