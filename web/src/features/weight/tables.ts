import type { StoredRecords } from '@bold-ballast/contract'
import { PAD_NAMES, type WeightRoom } from '@bold-ballast/core'
import { inUnits, spreadIn, stageCell, type Units } from '../../shared/table-cells.ts'
import type { CsvTable } from '../../ui/files/csv-button.tsx'

export const weighingsTable = (records: StoredRecords, room: WeightRoom, units: Units): CsvTable => {
  const mass = (value: number | null | undefined) => inUnits(units)('mass', value)
  const unit = units.mass
  return {
    head: [
      'At',
      'Stage',
      'Scales',
      ...PAD_NAMES.map((pad) => `${pad} (${unit})`),
      `Front axle (${unit})`,
      `Rear axle (${unit})`,
      `Total read (${unit})`,
      `Driver (${unit})`,
      `Fuel (${units.volume})`,
      `At the reference (${unit})`,
      `Spread (${unit})`,
      `Unexplained (${unit})`,
      `Spread of it (${unit})`,
      'Set aside',
    ],
    rows: records.weighings.map((weighing) => {
      const figures = room.weighings.find((entry) => entry.weighingId === weighing.id)
      return [
        weighing.at,
        stageCell(records, weighing.stageId),
        weighing.scales,
        ...PAD_NAMES.map((pad) => mass(weighing.pads[pad]?.massKg)),
        mass(weighing.axles?.front.massKg),
        mass(weighing.axles?.rear.massKg),
        mass(weighing.total?.massKg),
        mass(weighing.driverInKg),
        inUnits(units)('volume', weighing.fuelL),
        mass(figures?.reference?.massKg),
        spreadIn(units)('mass', figures?.reference?.sdKg),
        mass(figures?.unexplained?.massKg),
        spreadIn(units)('mass', figures?.unexplained?.sdKg),
        weighing.setAside,
      ]
    }),
  }
}
