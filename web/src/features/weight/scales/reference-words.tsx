import type { RecordsAnswer } from '@bold-ballast/contract'
import { useQuantities } from '../../../ui/quantity.ts'

/** The condition to which every weighing is brought: "driver 82 kg, 20 L". */
export function ReferenceWords({ records }: { records: RecordsAnswer }) {
  const { text } = useQuantities()
  const { driverKg, fuelL } = records.build.reference
  return (
    <>
      driver {text('mass', driverKg, { isGoal: true })}, {text('volume', fuelL, { isGoal: true })}
    </>
  )
}
