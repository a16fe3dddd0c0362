import { airPressurePa } from '../../aero/device-loads.ts'
import { rideHeights } from '../../aero/ride-heights.ts'
import { isMeasured } from '../../proof/quantity.ts'
import { AERO_METRICS, type AeroMetric, TAPE_METRICS } from '../../records/metric-keys.ts'
import type { Car } from '../../stages/car.ts'
import { metricFrame, ofStage, type Working, type WorkingLine, type WorkingMaker } from '../../stages/working-line.ts'
import { frontShareAt } from '../weight/metrics.ts'
import { basisOf } from './basis.ts'
import { carTests } from './car-tests.ts'
import { AERO_METRICS as DECLARED } from './metrics.ts'
import { aeroValue, heightsAtStage, stageAero } from './stage-aero.ts'
import type { Side } from './totals.ts'

/** What a sum starts from where a test of the whole car stands in it, and which devices it adds since. */
function testLines(car: Car, side: Side, metric: AeroMetric, q: number): WorkingLine[] {
  const { test } = side
  const found = test && carTests(car).find(({ id }) => id === test.anchor.testId)
  if (!test || !found) return []
  const { proof } = test.anchor
  const label = `${found.name}, ${found.at.slice(0, 10)}, at stage ${found.position}`
  if (metric === 'dragArea') return found.drag ? [{ label: `${label}: coasting`, value: found.drag.areaM2, kind: 'area', isSigned: true, proof }] : []
  return (['front', 'rear'] as const).flatMap((axle): WorkingLine[] =>
    found.loads ? [{ label: `${label}: on the ${axle} tyres`, value: q * found.loads[`${axle}M2`], kind: 'force', isSigned: true, proof }] : [],
  )
}

/** What each device adds to a number, in the order of the list; behind a test, those that differ since, less what they did at it. */
function deviceLines(car: Car, position: number, metric: AeroMetric): WorkingLine[] {
  const aero = stageAero(car, position)
  const q = airPressurePa(car.records.build.airDensityKgM3, basisOf(car).speedMps)
  const side = aero?.[metric === 'dragArea' ? 'drag' : 'loads']
  const since = side?.test?.since
  const gone = (since ?? []).filter((name) => !aero?.lines.some(({ device }) => device.name === name))
  const lines = (aero?.lines ?? []).flatMap(({ device, notch, areas }): WorkingLine[] => {
    if (since && !since.includes(device.name)) return []
    if (!areas) return [{ label: `${device.name}: ${notch.countsAsNothing ? 'counts as nothing' : 'nobody knows'}`, value: null, kind: 'force' }]
    const proof = notch.proof ?? 'guess'
    const label = device.notches.length > 1 ? `${device.name}, ${notch.name}` : device.name
    if (metric === 'dragArea') return [{ label, value: areas.dragM2, kind: 'area', isSigned: true, proof }]
    if (metric === 'downforce') return [{ label, value: q * (areas.frontM2 + areas.rearM2), kind: 'force', isSigned: true, proof }]
    return [
      { label: `${label}, on the front tyres`, value: q * areas.frontM2, kind: 'force', isSigned: true, proof },
      { label: `${label}, on the rear tyres`, value: q * areas.rearM2, kind: 'force', isSigned: true, proof },
    ]
  })
  const off = gone.map((name): WorkingLine => ({ label: `${name}: in the car at the test, not now`, value: null, kind: 'force' }))
  return [...(side ? testLines(car, side, metric, q) : []), ...lines, ...off]
}

function heightLines(car: Car, position: number): WorkingLine[] {
  const input = heightsAtStage(car, position)
  if (!input) return []
  const found = rideHeights(input, basisOf(car).speedMps)
  return [
    { label: 'front axle sinks', value: found.frontDropM, kind: 'length' },
    { label: 'rear axle sinks', value: found.rearDropM, kind: 'length' },
    ...input.points.map(({ name }, i): WorkingLine => ({ label: name, value: found.pointsM[i] ?? null, kind: 'length' })),
  ]
}

function linesOf(car: Car, position: number, metric: AeroMetric): WorkingLine[] {
  if (metric === 'clearance') return heightLines(car, position)
  if (metric === 'balanceGap') {
    const share = frontShareAt(car, position)
    return [
      ...deviceLines(car, position, metric),
      { label: 'share of the weight on the front', value: share?.value ?? null, kind: 'share', proof: share?.proof ?? 'guess' },
    ]
  }
  return ['downforce', 'dragArea', 'aeroBalance'].includes(metric) ? deviceLines(car, position, metric) : []
}

const restsOnTest = (car: Car, position: number, metric: AeroMetric) => {
  const aero = stageAero(car, position)
  if (metric === 'dragArea') return (aero?.drag.test ?? null) !== null
  return ['downforce', 'aeroBalance', 'balanceGap'].includes(metric) && (aero?.loads.test ?? null) !== null
}

function metricWorking(metric: AeroMetric) {
  return (car: Car, position: number): Working | undefined => {
    const value = aeroValue(car, position, metric)
    const declared = DECLARED.find(({ key }) => key === metric)
    if (!value || !declared) return undefined
    return {
      ...metricFrame(car, position, declared, value),
      lines: linesOf(car, position, metric),
      remarks: [
        ...((TAPE_METRICS as readonly string[]).includes(metric) && isMeasured(value.proof)
          ? [metric === 'noise' ? 'Read with a meter, brought to 0.5 m as in the free field.' : 'Read with a tape on the car as it stands.']
          : []),
        ...(restsOnTest(car, position, metric) ? ['It starts from a test of the whole car; devices of another notch count by the step between the two.'] : []),
        ...(['downforce', 'aeroBalance', 'balanceGap', 'dragArea'].includes(metric) && !isMeasured(value.proof)
          ? ['Estimates leave out how devices feed each other; a test of the whole car replaces them.']
          : []),
      ],
    }
  }
}

/** Every metric of the room, by its key. */
export const AERO_WORKINGS = Object.fromEntries(AERO_METRICS.map((metric) => [metric, ofStage(metricWorking(metric))])) as Record<AeroMetric, WorkingMaker>
