import type { buildRecordsSchema } from '../../records/records.ts'
import type { z } from '../../zod.ts'

const at = '2026-03-01T10:00:00Z'
const pad = (massKg: number) => ({ massKg })

/** A small invented build for trying the calculations that take one. */
export const EXAMPLE_RECORDS: z.input<typeof buildRecordsSchema> = {
  build: {
    id: 'example',
    name: 'Example',
    discipline: 'track',
    drivenAxles: 'rear',
    wheelbaseM: 2.6,
    trackFrontM: 1.5,
    trackRearM: 1.5,
    reference: { driverKg: 80, fuelL: 20, fuelKgPerL: 0.745 },
    powerBasis: { place: 'hub', standard: 'SAE J1349', boostSchool: 'none' },
  },
  stages: [
    { id: 'bought', position: 0, name: 'As bought' },
    { id: 'strip', position: 1, name: 'Strip' },
  ],
  changes: [
    { id: 'bench', stageId: 'strip', kind: 'off', name: 'rear bench', values: [{ massKg: 18.6, proof: 'measured', at }], doneAt: at },
    { id: 'cage', stageId: 'strip', kind: 'on', name: 'cage', values: [{ massKg: 41, proof: 'guess', at }], state: 'planned' },
  ],
  weighings: [
    { id: 'scales', stageId: 'bought', at: '2026-02-01T10:00:00Z', pads: { LF: pad(340), RF: pad(335), LR: pad(300), RR: pad(305) }, driverInKg: 0, fuelL: 20 },
  ],
  sessions: [{ id: 'visit', stageId: 'bought', at: '2026-02-02T10:00:00Z', dynoName: 'hall', place: 'hub', printedStandard: 'SAE J1349' }],
  pulls: [
    {
      id: 'pull',
      sessionId: 'visit',
      position: 0,
      label: '1',
      peakPowerW: 140_000,
      peakPowerSpeedRpm: 6500,
      peakTorqueNm: 210,
      curve: { stepRpm: 50, firstSpeedRpm: 6400, powerW: [138_000, 139_000, 140_000] },
    },
  ],
}
