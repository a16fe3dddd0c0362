import type { FormReader, FormValues } from '../../ui/forms/form-reader.ts'
import { typedText } from '../../ui/quantity.ts'

/** The air of a day out of three fields, pressure as it stands there: all of them or none. */
export function readAir(read: FormReader): { pressurePa: number; pressureKind: 'station'; temperatureK: number; relativeHumidity: number } | null {
  if (['pressure', 'temperature', 'humidity'].every((name) => read.raw(name) === '')) return null
  return {
    pressurePa: read.quantity('pressure', 'Air pressure', 'pressure').value,
    pressureKind: 'station',
    temperatureK: read.quantity('temperature', 'Air temperature', 'temperature').value,
    relativeHumidity: read.quantity('humidity', 'Relative humidity', 'share').value,
  }
}

/** The air of a dyno or a weather station as texts of its three fields. */
export const airValues = (
  { pressurePa, temperatureK, relativeHumidity }: { readonly pressurePa: number; readonly temperatureK: number; readonly relativeHumidity: number },
  units: Readonly<Record<string, string>>,
): FormValues => ({
  pressure: typedText('pressure', pressurePa, units.pressure as string),
  temperature: typedText('temperature', temperatureK, units.temperature as string),
  humidity: typedText('share', relativeHumidity, '%'),
})
