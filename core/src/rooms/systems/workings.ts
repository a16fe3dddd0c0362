import type { Metric } from '../../records/metric-keys.ts'
import type { Car } from '../../stages/car.ts'
import type { StageValue } from '../../stages/stage-value.ts'
import { metricFrame, ofStage, type WorkingLine, type WorkingMaker } from '../../stages/working-line.ts'
import { circuitsAtStage, currentSdA, supplyOf } from './electrics.ts'
import { coolantAtStage, coolantHotValue, gapsOf, leastGapValue, SYSTEMS_METRICS, supplyMarginValue } from './metrics.ts'

const frame = (car: Car, position: number, key: Metric, value: StageValue) => {
  const declared = SYSTEMS_METRICS.find((metric) => metric.key === key)
  return declared && metricFrame(car, position, declared, value)
}
const percent = (share: number) => `${(100 * share).toFixed(0)} %`

const coolantWorking = ofStage((car, position) => {
  const [view, value] = [coolantAtStage(car, position), coolantHotValue(car, position)]
  const head = value && frame(car, position, 'coolantHot', value)
  if (!view || 'refused' in view || !head) return undefined
  const { setup, hot } = view
  const { plan } = setup
  const lines: WorkingLine[] = [
    {
      label: setup.heatFrom === 'typed' ? 'heat, as typed' : `heat by the engine plan, ${percent(setup.loadShare)} of it over a lap`,
      value: setup.heatW,
      kind: 'power',
      proof: setup.isLoadUsual && setup.heatFrom === 'enginePlan' ? 'guess' : 'calculated',
    },
    { label: 'air of the hot day', value: plan.hot.airK, kind: 'temperature' },
    { label: 'road speed', value: plan.hot.speedMps, kind: 'speed' },
    {
      label: `air in the core over it${setup.isFaceUsual ? ', as is usual where it sits' : ''}`,
      value: setup.faceShare,
      kind: 'share',
      proof: setup.isFaceUsual ? 'guess' : 'catalogue',
    },
    {
      label: setup.ratingFrom === 'rating' ? 'rated heat' : 'heat of a logged lap, in place of a rating',
      value: setup.rating.ratedW,
      kind: 'power',
      proof: setup.ratingFrom === 'logged' ? 'measured' : (plan.rating?.known ?? 'guess'),
    },
    { label: 'doubt of the heat', value: hot.byHeatK, kind: 'ratio', note: 'K' },
    { label: 'doubt of the air', value: hot.byFaceK, kind: 'ratio', note: 'K' },
    { label: setup.loggedShare === null ? 'doubt of the rating' : 'spread of the logged laps', value: hot.byRatingK, kind: 'ratio', note: 'K' },
  ]
  return {
    ...head,
    lines,
    remarks: [
      ...(plan.logged.length > 0
        ? [`${plan.logged.length} logged ${plan.logged.length === 1 ? 'lap makes' : 'laps make'} it ${setup.factor.toFixed(3)} times what the rating says.`]
        : []),
      ...(plan.thermostatK !== null && view.hotK > hot.settledK ? ['The thermostat holds it up: it would settle lower.'] : []),
      'It holds by this sum; whether hoses, cap and pump do is looked at on the car.',
    ],
  }
})

const TOLD = 14

const supplyWorking = ofStage((car, position) => {
  const value = supplyMarginValue(car, position)
  const head = value && frame(car, position, 'supplyMargin', value)
  const { supply } = car.records.build
  const circuits = circuitsAtStage(car.records, position)
  const found = supplyOf(car.records.build, circuits)
  if (!head || !supply) return undefined
  const draws = [...circuits].filter(({ currentA, duty }) => currentA * duty > 0).sort((a, b) => b.currentA * b.duty - a.currentA * a.duty)
  const lines: WorkingLine[] = [
    { label: `alternator hot, ${percent(supply.hotShare)} of ${supply.alternatorA} A`, value: supply.alternatorA * supply.hotShare, kind: 'current' },
    ...draws.slice(0, TOLD).map(
      (each): WorkingLine => ({
        label: each.name,
        value: -each.currentA * each.duty,
        sd: currentSdA(each) * each.duty,
        kind: 'current',
        isSigned: true,
        proof: each.known,
      }),
    ),
    ...(found ? [{ label: 'left at idle', value: found.idleA, kind: 'current', isSigned: true } as const] : []),
  ]
  return { ...head, lines, remarks: draws.length > TOLD ? [`${draws.length - TOLD} smaller circuits are counted and not shown.`] : [] }
})

const gapWorking = ofStage((car, position) => {
  const value = leastGapValue(car, position)
  const head = value && frame(car, position, 'leastGap', value)
  if (!head) return undefined
  const gaps = [...gapsOf(car, position)].sort((a, b) => (a.hotM ?? Number.POSITIVE_INFINITY) - (b.hotM ?? Number.POSITIVE_INFINITY))
  const [least] = gaps
  const own: WorkingLine[] =
    least?.coldM == null || least.hotM === null
      ? []
      : [
          { label: `${least.check.name}, cold`, value: least.coldM, kind: 'length', proof: 'measured' },
          { label: 'grows towards it', value: -(least.coldM - least.hotM - least.check.gap.moveM), kind: 'length', isSigned: true },
          { label: 'rocks towards it', value: -least.check.gap.moveM, kind: 'length', isSigned: true },
          { label: 'wants to stay', value: least.needM, kind: 'length' },
        ]
  const others = gaps.slice(1, TOLD).map(
    ({ check, hotM, coldM }): WorkingLine => ({
      label: `${check.name}${coldM === null ? ', not measured' : ''}`,
      value: hotM,
      kind: 'length',
      isSigned: true,
    }),
  )
  return { ...head, lines: [...own, ...others], remarks: ['How hot a neighbour gets is not reckoned: stick on a strip and enter the reading.'] }
})

export const SYSTEMS_WORKINGS = { coolantHot: coolantWorking, supplyMargin: supplyWorking, leastGap: gapWorking } satisfies Record<string, WorkingMaker>
