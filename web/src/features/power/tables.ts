import type { StoredRecords } from '@bold-ballast/contract'
import { type PowerRoom, settingOf } from '@bold-ballast/core'
import { inUnits, stageCell, type Units } from '../../shared/table-cells.ts'
import type { CsvTable } from '../../ui/files/csv-button.tsx'

export const pullsTable = (records: StoredRecords, room: PowerRoom, units: Units): CsvTable => ({
  head: [
    'At',
    'Dyno',
    'Place',
    'Stage',
    'Standard',
    'Setting',
    'Pull',
    `Peak as printed (${units.power})`,
    'At (rpm)',
    `Peak torque (${units.torque})`,
    'Factor to the basis',
    'Set aside',
    'Session counts',
  ],
  rows: records.pulls.flatMap((pull) => {
    const session = records.sessions.find((entry) => entry.id === pull.sessionId)
    if (!session) return []
    const setting = settingOf(session, pull.settingId)
    const figures = room.sessions.find((entry) => entry.sessionId === session.id && entry.settingId === setting.id)
    return [
      [
        session.at,
        session.dynoName,
        session.place,
        stageCell(records, session.stageId),
        session.printedStandard,
        setting.name,
        pull.label,
        inUnits(units)('power', pull.peakPowerW),
        pull.peakPowerSpeedRpm,
        inUnits(units)('torque', pull.peakTorqueNm),
        figures?.power?.factor ?? null,
        pull.setAside,
        figures?.reason ?? figures?.role ?? null,
      ],
    ]
  }),
})
