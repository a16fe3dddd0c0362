import type { AlarmView, ElectricsView, GapView } from '@bold-ballast/core'
import type { CsvTable } from '../../ui/files/csv-button.tsx'

/** Circuits with their outputs and wires, and what is on each pin. */
export const circuitsTable = ({ wires, outputs }: ElectricsView): CsvTable => ({
  head: [
    'Circuit',
    'A',
    'Start x',
    'Duty',
    'Group',
    'Vital',
    'Output',
    'Trip (A)',
    'Length (m)',
    'Back by',
    'Wire needed (mm2)',
    'Wire laid (mm2)',
    'Drop (V)',
    'Allowed (V)',
    'Behind the switch',
    'Ends',
  ],
  rows: wires.map(({ circuit, needMm2, dropV, allowedV }) => [
    circuit.name,
    circuit.currentA,
    circuit.startFactor,
    circuit.duty,
    circuit.group,
    circuit.isVital ? 'yes' : 'no',
    circuit.output,
    outputs.find(({ key }) => key === circuit.output)?.tripA ?? null,
    circuit.lengthM,
    circuit.return,
    needMm2,
    circuit.areaMm2,
    dropV,
    allowedV,
    circuit.behindKill ? 'yes' : 'no',
    circuit.ends.map(({ connector, pin, colour, splice }) => [connector, pin, colour, splice].filter(Boolean).join(' ')).join('; '),
  ]),
})

/** Limits as a dash takes them: SI with the unit beside. */
export const alarmsTable = (alarms: readonly AlarmView[]): CsvTable => ({
  head: [
    'Reading',
    'Quantity (SI)',
    'Channel',
    'Stops under',
    'Warns under',
    'Warns over',
    'Stops over',
    'Lasting (s)',
    'Over (m/s)',
    'Second sensor',
    'Good runs',
    'Would have cried',
  ],
  rows: alarms.map(({ check: { name, reading }, runs, cried }) => [
    name,
    reading.quantity,
    reading.role,
    reading.stopLow,
    reading.warnLow,
    reading.warnHigh,
    reading.stopHigh,
    reading.forS,
    reading.aboveMps,
    reading.secondSensor ? 'yes' : 'no',
    runs,
    cried,
  ]),
})

/** Gaps cold and hot, in m. */
export const gapsTable = (gaps: readonly GapView[]): CsvTable => ({
  head: ['Gap', 'Nature', 'Cold (m)', 'Measured', 'Hot (m)', 'Wants (m)', 'Headroom (m)', 'So', 'Access'],
  rows: gaps.map(({ check, coldM, at, hotM, needM, headroomM, verdict }) => [
    check.name,
    check.gap.nature,
    coldM,
    at?.slice(0, 10) ?? null,
    hotM,
    needM,
    headroomM,
    verdict,
    check.gap.access,
  ]),
})
