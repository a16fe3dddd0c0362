import type { AlarmView, CoolerBeside, ElectricsView, GapView, LoomView } from '@bold-ballast/core'
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
  head: ['Gap', 'Nature', 'Cold (m)', 'By wheels (m)', 'Measured', 'Hot (m)', 'Wants (m)', 'Headroom (m)', 'So', 'Access'],
  rows: gaps.map(({ check, coldM, byWheelsM, at, hotM, needM, headroomM, verdict, unknown }) => [
    check.name,
    check.gap.nature,
    coldM,
    byWheelsM,
    at?.slice(0, 10) ?? null,
    hotM,
    needM,
    headroomM,
    verdict ?? unknown,
    check.gap.access,
  ]),
})

/** What is on each pin and each splice. */
export const pinsTable = ({ connectors, splices }: LoomView): CsvTable => ({
  head: ['Connector or splice', 'Pin', 'Colour', 'On it'],
  rows: [
    ...connectors.flatMap(({ name, pins }) => pins.map(({ pin, colour, circuits }) => [name, pin, colour, circuits.join('; ')])),
    ...splices.map(({ name, circuits }) => [`splice ${name}`, null, null, circuits.join('; ')]),
  ],
})

/** Coolers side by side. */
export const coolersTable = (coolers: readonly CoolerBeside[]): CsvTable => ({
  head: ['Core', 'Settles (K)', 'One spread (K)', 'Chance under the limit', 'Mass with fluid (kg)', 'Front share', 'Cost', 'Refused'],
  rows: coolers.map(({ name, hot, chanceUnder, massKg, frontShare, cost, refused }) => [
    name,
    hot?.settledK ?? null,
    hot?.sdK ?? null,
    chanceUnder,
    massKg,
    frontShare,
    cost,
    refused,
  ]),
})
