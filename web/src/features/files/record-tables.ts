import type { GarageEntry, StoredRecords } from '@bold-ballast/contract'
import { type Board, fromSi, METRIC_INFO, PAD_NAMES, type PowerRoom, type QuantityKind, spreadFromSi, type WeightRoom } from '@bold-ballast/core'
import type { CsvTable } from '../../ui/csv-button.tsx'

type Units = Record<QuantityKind, string>

const shown = (units: Units) => (kind: QuantityKind, value: number | null | undefined) =>
  value === null || value === undefined ? null : fromSi(kind, value, units[kind])
const spread = (units: Units) => (kind: QuantityKind, sd: number | null | undefined) =>
  sd === null || sd === undefined ? null : spreadFromSi(kind, sd, units[kind])
const nameOf = (records: StoredRecords, id: string | null) => {
  const stage = id === null ? records.stages.at(-1) : records.stages.find((entry) => entry.id === id)
  return stage ? `${stage.position} ${stage.name}` : null
}

export const garageTable = (entries: readonly GarageEntry[], units: Units): CsvTable => ({
  head: ['Build', 'Discipline', 'Class', 'Stage', 'State', `Mass (${units.mass})`, `Power to weight (${units.powerToMass})`, 'Limits broken', 'Late stages'],
  rows: entries.map((entry) => [
    entry.build.name,
    entry.build.discipline,
    entry.build.className,
    entry.reachedName,
    entry.reachedState,
    shown(units)('mass', entry.mass?.value),
    shown(units)('powerToMass', entry.powerToMass?.value),
    entry.brokenLimits,
    entry.lateStages,
  ]),
})

export const stagesTable = (records: StoredRecords, board: Board): CsvTable => ({
  head: ['Place', 'Stage', 'Date', 'State', 'Note'],
  rows: records.stages.map((stage, at) => [stage.position, stage.name, stage.date, board.stages[at]?.state ?? null, stage.note]),
})

export const goalsTable = (records: StoredRecords, units: Units): CsvTable => ({
  head: ['Goal', 'Metric', 'Unit', 'Sense', 'Value', 'Upper value', 'Stage', 'Source', 'Typed'],
  rows: [...records.targets, ...records.limits].map((record) => {
    const { kind, word } = METRIC_INFO[record.metric]
    const isTarget = 'dueStageId' in record
    return [
      isTarget ? 'target' : 'limit',
      word,
      units[kind],
      record.sense,
      shown(units)(kind, record.value),
      isTarget ? shown(units)(kind, record.highValue) : null,
      nameOf(records, isTarget ? record.dueStageId : record.fromStageId),
      isTarget ? null : record.source,
      record.typed ?? null,
    ]
  }),
})

export const expectationsTable = (records: StoredRecords, units: Units): CsvTable => ({
  head: ['Stage', 'Mode', `Value (${units.power}, or a factor)`, 'Spread', 'How we know', 'Typed'],
  rows: records.expectations.map(({ stageId, mode, value, sd, proof, typed }) => [
    nameOf(records, stageId),
    mode,
    mode === 'times' ? value : shown(units)('power', value),
    mode === 'times' ? sd : spread(units)('power', sd),
    proof,
    typed ?? null,
  ]),
})

export const weighingsTable = (records: StoredRecords, room: WeightRoom, units: Units): CsvTable => {
  const mass = (value: number | null | undefined) => shown(units)('mass', value)
  const unit = units.mass
  return {
    head: [
      'At',
      'Stage',
      'Scales',
      ...PAD_NAMES.map((pad) => `${pad} (${unit})`),
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
        nameOf(records, weighing.stageId),
        weighing.scales,
        ...PAD_NAMES.map((pad) => mass(weighing.pads[pad]?.massKg)),
        mass(weighing.driverInKg),
        shown(units)('volume', weighing.fuelL),
        mass(figures?.reference?.massKg),
        spread(units)('mass', figures?.reference?.sdKg),
        mass(figures?.unexplained?.massKg),
        spread(units)('mass', figures?.unexplained?.sdKg),
        weighing.setAside,
      ]
    }),
  }
}

export const pullsTable = (records: StoredRecords, room: PowerRoom, units: Units): CsvTable => ({
  head: [
    'At',
    'Dyno',
    'Place',
    'Stage',
    'Standard',
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
    const figures = room.sessions.find((entry) => entry.sessionId === session.id)
    return [
      [
        session.at,
        session.dynoName,
        session.place,
        nameOf(records, session.stageId),
        session.printedStandard,
        pull.label,
        shown(units)('power', pull.peakPowerW),
        pull.peakPowerSpeedRpm,
        shown(units)('torque', pull.peakTorqueNm),
        figures?.power?.factor ?? null,
        pull.setAside,
        figures?.reason ?? figures?.role ?? null,
      ],
    ]
  }),
})
