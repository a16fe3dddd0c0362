import type { AeroTestKind } from '../../records/aero-test-kinds.ts'
import { type AeroMetric, AERO_METRICS as KEYS, TAPE_METRICS } from '../../records/metric-keys.ts'
import { defineMeasurement, defineMetric, type MeasurementWork, workOfEach } from '../../stages/define-metric.ts'
import type { QuantityKind } from '../../units/units.ts'
import { standingTests } from './car-tests.ts'
import { touchesAero } from './devices.ts'
import { aeroValue } from './stage-aero.ts'

/** What aero rests on beside the car's own lists. */
export const AERO_READS = ['aeroDevices', 'setups', 'readings', 'aeroTests', 'aeroRuns', 'mounts'] as const

const FACTS: Readonly<
  Record<
    AeroMetric,
    {
      readonly word: string
      readonly kind: QuantityKind
      readonly sense: 'atLeast' | 'atMost' | 'between'
      readonly calculation: string
      readonly range?: number
    }
  >
> = {
  downforce: { word: 'Downforce', kind: 'force', sense: 'atLeast', calculation: 'build.aero-at-stage', range: 100 },
  aeroBalance: { word: 'Aero balance', kind: 'share', sense: 'between', calculation: 'build.aero-at-stage', range: 0.2 },
  balanceGap: { word: 'Balance against the weight', kind: 'share', sense: 'between', calculation: 'build.aero-at-stage', range: 0.2 },
  dragArea: { word: 'Drag area', kind: 'area', sense: 'atMost', calculation: 'build.aero-at-stage', range: 0.1 },
  clearance: { word: 'Clearance at speed', kind: 'length', sense: 'atLeast', calculation: 'aero.ride-height', range: 0.1 },
  reachFront: { word: 'Beyond the front bumper', kind: 'length', sense: 'atMost', calculation: 'aero.rule-box', range: 0.1 },
  reachRear: { word: 'Beyond the rear bumper', kind: 'length', sense: 'atMost', calculation: 'aero.rule-box', range: 0.1 },
  reachSide: { word: 'Beyond the body’s side', kind: 'length', sense: 'atMost', calculation: 'aero.rule-box', range: 0.1 },
  wingOverRoof: { word: 'Wing over the roof', kind: 'length', sense: 'atMost', calculation: 'aero.rule-box', range: 0.1 },
  groundHeight: { word: 'Lowest edge over the ground', kind: 'length', sense: 'atLeast', calculation: 'aero.rule-box', range: 0.1 },
  wingChord: { word: 'Wing chord', kind: 'length', sense: 'atMost', calculation: 'aero.rule-box', range: 0.1 },
  wingSpan: { word: 'Wing span', kind: 'length', sense: 'atMost', calculation: 'aero.rule-box', range: 0.1 },
  wingElements: { word: 'Wing elements', kind: 'ratio', sense: 'atMost', calculation: 'aero.rule-box', range: 1 },
  noise: { word: 'Noise at 0.5 m', kind: 'sound', sense: 'atMost', calculation: 'rules.noise', range: 5 },
}
/** Which tests of the whole car prove what is no length by a tape; clearance comes through a model and is never more than calculated. */
const PROVED_BY: Readonly<Partial<Record<AeroMetric, readonly string[]>>> = {
  downforce: ['load'],
  aeroBalance: ['load'],
  balanceGap: ['load', 'mass'],
  dragArea: ['coastDown'],
}
const isTaped = (key: AeroMetric) => (TAPE_METRICS as readonly string[]).includes(key)

export const AERO_METRICS = KEYS.map((key) =>
  defineMetric({
    key,
    ...FACTS[key],
    basis: isTaped(key) ? [] : key === 'balanceGap' ? ['mass', 'air'] : key === 'dragArea' ? [] : ['air'],
    room: 'aero',
    provedBy: isTaped(key) ? ['tape'] : (PROVED_BY[key] ?? []),
    reads: AERO_READS,
    working: key,
  }),
)

export const AERO_VALUES = workOfEach(KEYS, (key) => ({ at: (car, position) => aeroValue(car, position, key) }))

export const AERO_MEASUREMENTS = [
  defineMeasurement({
    key: 'tape',
    metric: 'reachFront',
    cure: ({ metric, position, isBuilt }, { stage, metric: facts, at }) =>
      metric === 'noise'
        ? {
            head: 'Hold a meter to the exhaust',
            text: isBuilt ? `${stage(position)} is built and nobody read how loud it is.` : 'Nobody read yet how loud the car is.',
            to: at('aero', position, '&tab=car&do=taped'),
          }
        : {
            head: `Hold a tape to ${facts(metric).word.toLowerCase()}`,
            text: isBuilt
              ? `${stage(position)} is built and was never taped.`
              : 'Nothing was taped yet: until then it is worked out from the boxes of the devices.',
            to: at('aero', position, '&tab=car&do=taped'),
          },
  }),
  defineMeasurement({
    key: 'coastDown',
    metric: 'dragArea',
    cure: ({ metric, position, isBuilt }, { stage, metric: facts, at }) => ({
      head: `Coast down, for ${facts(metric).word.toLowerCase()}`,
      text: isBuilt ? `${stage(position)} is built and never coasted.` : 'It never coasted yet: until then drag is the sum of what devices are thought to do.',
      to: at('aero', position, '&tab=proof'),
    }),
  }),
  defineMeasurement({
    key: 'load',
    metric: 'downforce',
    cure: ({ metric, position, isBuilt }, { stage, metric: facts, at }) => ({
      head: `Read the axles at speed, for ${facts(metric).word.toLowerCase()}`,
      text: isBuilt
        ? `${stage(position)} is built and its load was never read.`
        : 'No load was read yet: until then downforce is the sum of what devices are thought to do.',
      to: at('aero', position, '&tab=proof'),
    }),
  }),
]

const isTapeReading = ({ metric, setAside }: { metric: string; setAside: string | null }) =>
  setAside === null && (TAPE_METRICS as readonly string[]).includes(metric)

/** A base that a kind of test of the whole car measures. */
const provedByTest = (kind: AeroTestKind): MeasurementWork => ({
  asksAsBought: false,
  touches: touchesAero,
  isMeasuredAt: (car, position) => standingTests(car, kind).some((test) => test.position === position),
  isEnteredAt: ({ records }, stageId) => records.aeroTests.some((test) => test.kind === kind && test.setAside === null && test.stageId === stageId),
})

export const AERO_PROOFS = {
  coastDown: provedByTest('coastDown'),
  load: provedByTest('steady'),
  tape: {
    touches: touchesAero,
    isMeasuredAt: (car, position) => car.records.readings.some((entry) => isTapeReading(entry) && entry.stageId === car.stages[position]?.id),
    isEnteredAt: ({ records }, stageId) => records.readings.some((entry) => isTapeReading(entry) && entry.stageId === stageId),
  },
} satisfies Record<string, MeasurementWork>
