import type { DeviceCommand, SimulatedCar } from '@bold-ballast/contract'
import { gridSpeedRpm, type PowerRoom, torqueFromPowerNm } from '@bold-ballast/core'
import type { FormReader } from '../../../ui/forms/form-reader.ts'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { typedText, useQuantities } from '../../../ui/quantity.ts'

const FIRST_CURVE = '2500 210\n3500 330\n4500 370\n6000 350\n7200 290'

/** The stage's own curve as points, so that the simulated car is this one. */
function stageCurve(room: PowerRoom, position: number, torqueUnit: string): string | null {
  const curve = room.stages[position]?.curve
  if (!curve) return null
  const step = Math.max(1, Math.ceil(curve.powerW.length / 24))
  return curve.powerW
    .flatMap((powerW, i) => {
      const speed = gridSpeedRpm(curve, i)
      return i % step === 0 || i === curve.powerW.length - 1
        ? [`${speed} rpm; ${typedText('torque', Number(torqueFromPowerNm(powerW, speed).toFixed(1)), torqueUnit)}`]
        : []
    })
    .join('\n')
}

function readCar(read: FormReader): SimulatedCar {
  const curve = read
    .points('curve', 'the torque curve', [{ kind: 'engineSpeed' }, { kind: 'torque' }])
    .map(([speedRpm, torqueNm]) => ({ speedRpm: speedRpm as number, torqueNm: torqueNm as number }))
  if (curve.length < 2) read.refuse('curve', 'A torque curve needs two points or more, such as 3000 320.')
  const share = (name: string, label: string) => {
    const { value } = read.quantity(name, label, 'share')
    if (value < 0 || value > 0.05) read.refuse(name, `${label} lies from 0 to 5 %.`)
    return value
  }
  return {
    torqueCurve: curve,
    mode: read.raw('mode') as SimulatedCar['mode'],
    inertiaKgM2: read.number('inertia', 'Inertia'),
    rateRpmPerS: read.number('rate', 'Rate'),
    boostPa: read.quantity('boost', 'Boost', 'pressure').value,
    ambient: {
      pressurePa: read.quantity('pressure', 'Air pressure', 'pressure').value,
      temperatureK: read.quantity('temperature', 'Air temperature', 'temperature').value,
      relativeHumidity: read.quantity('humidity', 'Humidity', 'share').value,
    },
    noiseShare: share('noise', 'Noise'),
    soakShare: share('soak', 'Heat soak'),
  }
}

/** What stands on a simulated dyno: an engine's curve, inertia or brake, air, noise and heat. */
export function SimulatedCarForm({
  room,
  position,
  command,
  isPulling,
}: {
  room: PowerRoom
  position: number
  command: (what: DeviceCommand, words: string) => Promise<boolean>
  isPulling: boolean
}) {
  const { units } = useQuantities()
  return (
    <details className="border-t border-line pt-3">
      <summary className="min-h-6 cursor-pointer font-semibold">Simulated: what stands on it</summary>
      <div className="mt-3">
        <RecordForm
          draftKey={`simulated-car.${position}`}
          fields={[
            { name: 'curve', label: 'Torque curve: speed and torque, a point a line', type: 'textarea', isWide: true },
            {
              name: 'mode',
              label: 'It is held',
              type: 'select',
              options: [
                { value: 'brake', label: 'by a brake, at a rate' },
                { value: 'inertia', label: 'by inertia alone' },
              ],
            },
            { name: 'rate', label: 'Rate, rpm/s' },
            { name: 'inertia', label: 'Inertia at the engine, kg·m²' },
            { name: 'boost', label: 'Boost' },
            { name: 'pressure', label: 'Air pressure' },
            { name: 'temperature', label: 'Air temperature' },
            { name: 'humidity', label: 'Humidity' },
            { name: 'noise', label: 'Noise of a sample' },
            { name: 'soak', label: 'Lost to heat with each pull' },
          ]}
          defaults={{
            curve: stageCurve(room, position, units.torque) ?? FIRST_CURVE,
            mode: 'brake',
            rate: '500',
            inertia: '1.1',
            boost: typedText('pressure', 90_000, units.pressure),
            pressure: typedText('pressure', 100_400, units.pressure),
            temperature: typedText('temperature', 295.15, units.temperature),
            humidity: '50 %',
            noise: '0.4 %',
            soak: '0.6 %',
          }}
          submitLabel="Put it on the dyno"
          toBody={(read) => readCar(read) as unknown as Record<string, unknown>}
          send={async (body) => {
            if (!(await command({ type: 'car', car: body as unknown as SimulatedCar }, 'It stands on the dyno.'))) throw new Error('refused')
          }}
          onDone={() => {}}
        />
        <button type="button" className="button mt-3" disabled={isPulling} onClick={() => void command({ type: 'cool' }, 'It has cooled down.')}>
          Let it cool down
        </button>
      </div>
    </details>
  )
}
