import { useNavigate } from 'react-router'
import { api } from '../../data/api.ts'
import { buildForm } from '../../shared/fields/build-form.ts'
import { RecordForm } from '../../ui/forms/record-form.tsx'
import { useQuantities } from '../../ui/quantity.ts'

/** What a new build begins with (common practice, no source). */
const USUAL = {
  discipline: 'timeAttack',
  drivenAxles: 'rear',
  reference: { driverKg: 80, fuelL: 20, fuelKgPerL: 0.745 },
  powerBasis: { place: 'hub', standard: 'asPrinted', boostSchool: 'none' },
}

export function NewBuildPage() {
  const navigate = useNavigate()
  const { units } = useQuantities()
  const [create] = api.useCreateBuildMutation()
  return (
    <main id="page" tabIndex={-1} className="mx-auto w-full max-w-[760px] px-5 py-6 outline-none">
      <title>New build · Bold Ballast</title>
      <h1 className="mb-4">A new build</h1>
      <RecordForm
        draftKey="build"
        fields={buildForm.specs()}
        defaults={buildForm.defaults(USUAL, units)}
        submitLabel="Make the build"
        toBody={(read, id) => ({ id, ...buildForm.body(read) })}
        send={(body) => create(body).unwrap()}
        onDone={(body) => void navigate(`/builds/${String(body.id)}/plan`)}
      />
    </main>
  )
}
