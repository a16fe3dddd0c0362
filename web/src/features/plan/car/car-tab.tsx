import type { RecordsAnswer } from '@bold-ballast/contract'
import { api } from '../../../data/api.ts'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { carBody, carDefaults, carFieldSpecs } from './car-form.ts'

/** The car itself: dimensions, reference, places, springs, and the schools its numbers follow. */
export function CarTab({ records }: { records: RecordsAnswer }) {
  const { build } = records
  const { units } = useQuantities()
  const [patch] = api.usePatchBuildMutation()
  const defaults = carDefaults(build, units)
  return (
    <div className="max-w-[760px]">
      <RecordForm
        key={build.version}
        draftKey={`car.${build.id}.${build.version}`}
        fields={carFieldSpecs(records.courses)}
        defaults={defaults}
        submitLabel="Store the car"
        toBody={(read) => ({ version: build.version, ...carBody(read, build, defaults) })}
        send={(body) => patch({ buildId: build.id, body }).unwrap()}
        onDone={() => {}}
      />
    </div>
  )
}
