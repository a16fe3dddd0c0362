import type { RecordsAnswer } from '@bold-ballast/contract'
import { api } from '../../data/api.ts'
import { RecordForm } from '../../ui/forms/record-form.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { outlineBody, outlineDefaults, outlineFieldSpecs } from './outline-form.ts'

/** The car by a tape, and the speed and schools that its aero is quoted by. */
export function OutlinePanel({ records, onDone }: { records: RecordsAnswer; onDone: () => void }) {
  const { build } = records
  const { units } = useQuantities()
  const [patch] = api.usePatchBuildMutation()
  return (
    <RecordForm
      key={build.version}
      draftKey={`${build.id}.outline`}
      fields={outlineFieldSpecs}
      defaults={outlineDefaults(build, units)}
      submitLabel="Store the outline"
      toBody={(read) => ({ version: build.version, ...outlineBody(read, build) })}
      send={(body) => patch({ buildId: build.id, body }).unwrap()}
      onDone={onDone}
    />
  )
}
