import type { FormReader } from '../../ui/forms/form-reader.ts'

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
