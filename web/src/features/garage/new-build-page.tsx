import { useNavigate } from 'react-router'
import { api } from '../../data/api.ts'
import { buildBody, buildFieldSpecs } from '../../shared/build-form.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { RecordForm } from '../../ui/record-form.tsx'

export function NewBuildPage() {
  const navigate = useNavigate()
  const { units } = useQuantities()
  const [create] = api.useCreateBuildMutation()
  const defaults = {
    discipline: 'timeAttack',
    drivenAxles: 'rear',
    driver: '80 kg',
    fuel: '20 L',
    fuelDensity: '0.745 kg/L',
    place: 'hub',
    standard: 'SAE J1349',
    boostSchool: 'none',
  }
  return (
    <main id="page" tabIndex={-1} className="mx-auto w-full max-w-[760px] px-5 py-6 outline-none">
      <title>New build · Bold Ballast</title>
      <h1 className="mb-4">A new build</h1>
      <RecordForm
        draftKey="build"
        fields={buildFieldSpecs(units)}
        defaults={defaults}
        submitLabel="Make the build"
        toBody={(read, id) => ({ id, ...buildBody(read) })}
        send={(body) => create(body).unwrap()}
        onDone={(body) => void navigate(`/builds/${String(body.id)}/plan`)}
      />
    </main>
  )
}
