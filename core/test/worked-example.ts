import type { BuildRecords } from '../src/records/records.ts'
import { buildRecordsSchema } from '../src/records/records.ts'

/** The worked example of the build's rules: two stages, five lines, two weighings, three pulls. Numbers are invented. */
export function workedExample(): BuildRecords {
  const at = (day: string) => `2026-${day}T10:00:00Z`
  const value = (massKg: number, proof: 'guess' | 'catalogue' | 'measured') => [{ massKg, proof, at: at('02-01') }]
  const pads = (total: number) => ({ LF: { massKg: total * 0.26 }, RF: { massKg: total * 0.26 }, LR: { massKg: total * 0.24 }, RR: { massKg: total * 0.24 } })
  const done = { state: 'done', doneAt: at('03-01') }
  return buildRecordsSchema.parse({
    build: {
      id: 'b',
      name: 'Worked example',
      discipline: 'timeAttack',
      drivenAxles: 'front',
      wheelbaseM: 2.6,
      trackFrontM: 1.5,
      trackRearM: 1.5,
      reference: { driverKg: 80, fuelL: 20, fuelKgPerL: 0.745 },
      powerBasis: { place: 'hub', standard: 'SAE J1349', boostSchool: 'none' },
    },
    stages: [
      { id: 's0', position: 0, name: 'As bought' },
      { id: 's1', position: 1, name: 'Strip and cage' },
      { id: 's2', position: 2, name: 'Glass' },
    ],
    targets: [{ id: 't1', metric: 'massReady', sense: 'atMost', value: 1455, dueStageId: 's2' }],
    changes: [
      { id: 'c1', stageId: 's1', kind: 'off', name: 'bench', values: value(18.6, 'measured'), ...done },
      { id: 'c2', stageId: 's1', kind: 'off', name: 'tailgate', values: value(30.2, 'measured'), ...done },
      { id: 'c3', stageId: 's1', kind: 'transfer', name: 'latch and hinges', fromChangeId: 'c2', values: value(6.5, 'guess'), state: 'planned' },
      { id: 'c4', stageId: 's1', kind: 'on', name: 'moulded tailgate', values: value(12, 'catalogue'), state: 'planned' },
      { id: 'c5', stageId: 's1', kind: 'on', name: 'cage', values: value(41, 'guess'), ...done },
      { id: 'c6', stageId: 's2', kind: 'off', name: 'glass', values: value(14, 'guess'), state: 'planned' },
    ],
    weighings: [
      { id: 'w0', stageId: 's0', at: at('02-02'), pads: pads(1389.4), driverInKg: 0, fuelL: 42, fuelSdL: 2 },
      { id: 'w1', stageId: 's1', at: at('04-01'), pads: pads(1452.3), driverInKg: 82, fuelL: 20, fuelSdL: 1 },
    ],
    sessions: [{ id: 'd0', stageId: 's0', at: at('02-03'), dynoName: 'hub dyno', place: 'hub', printedStandard: 'SAE J1349' }],
    pulls: [116.8, 118, 119.2].map((kilowatts, i) => ({
      id: `p${i}`,
      sessionId: 'd0',
      position: i,
      label: String(i + 1),
      peakPowerW: kilowatts * 1000,
      peakPowerSpeedRpm: 5900,
      peakTorqueNm: 210,
      curve: { stepRpm: 50, firstSpeedRpm: 3000, powerW: [60_000, kilowatts * 1000] },
    })),
  })
}

/** The same records with changes made by a test. */
export const changed = (edit: (records: BuildRecords) => void): BuildRecords => {
  const records = workedExample()
  edit(records)
  return records
}
