import { barPressures, brakeGain, brakeShare, discRiseK, firstToLock, IRON_J_PER_KG_K, idealBrakeShare } from '../brakes/brake-share.ts'
import { driftSeason, USUAL_SPARE_SHARE } from '../tyres/drift-season.ts'
import { readTread, TREAD_SCHOOLS } from '../tyres/tread.ts'
import { COLD_SCHOOLS, coldForHotPa, hotGasK, STANDARD_AIR_PA, tyrePressurePa } from '../tyres/tyre-pressure.ts'
import { z } from '../zod.ts'
import { PRACTICE } from './drive-fields.ts'
import { defineCalculation } from './registry.ts'

const RULES = 'The rules of the Track room'
const DRY = 'Dry gas in a volume that stays; moist air rises 2 to 10 % more'

const pressureCalculation = defineCalculation({
  name: 'tyre.pressure',
  title: 'Pressure of a tyre at another temperature',
  formula: '(p₂ + a)/T₂ = (p₁ + a)/T₁',
  sources: ['H.7: the gas law'],
  assumptions: [DRY, 'Gauges show what is over the air'],
  validRange: 'Over 0 to 10 bar; 234 to 499 K',
  schools: [],
  example: { gaugePa: 160_000, fromK: 291.15, toK: 358.15 },
  input: z.strictObject({ gaugePa: z.number(), fromK: z.number(), toK: z.number(), ambientPa: z.number().default(STANDARD_AIR_PA) }),
  output: z.strictObject({ gaugePa: z.number() }),
  run: (input) => ({ value: { gaugePa: tyrePressurePa(input) } }),
})

const coldCalculation = defineCalculation({
  name: 'tyre.cold-for-hot',
  title: 'Cold pressure that comes to a wanted hot one, by this tyre’s own pair',
  formula: 'T_h = T_c (p_h + a)/(p_c + a); p = (p_w + a) T/T′ − a',
  sources: ['H.7: the gas law', RULES],
  assumptions: [DRY, 'Bled tyres make no pair'],
  validRange: 'As tyre.pressure; hot over cold',
  schools: ['The gas warms up by as much (default), or comes to the same warmth'],
  example: { coldPa: 155_000, coldK: 289.15, hotPa: 198_000, pairAmbientPa: 100_800, wantedHotPa: 195_000, todayK: 282.15, ambientPa: 100_800 },
  input: z.strictObject({
    coldPa: z.number(),
    coldK: z.number(),
    hotPa: z.number(),
    pairAmbientPa: z.number().default(STANDARD_AIR_PA),
    wantedHotPa: z.number(),
    todayK: z.number(),
    ambientPa: z.number().default(STANDARD_AIR_PA),
    school: z.enum(COLD_SCHOOLS).default('sameRise'),
  }),
  output: z.strictObject({ coldPa: z.number(), gasK: z.number() }),
  run: ({ coldPa, coldK, hotPa, pairAmbientPa, wantedHotPa, todayK, ambientPa, school }) => {
    const pair = { coldPa, coldK, hotPa, ambientPa: pairAmbientPa }
    return { value: { coldPa: coldForHotPa({ pair, wantedHotPa, coldK: todayK, ambientPa, school }), gasK: hotGasK(pair) } }
  },
})

const treadCalculation = defineCalculation({
  name: 'tyre.tread',
  title: 'What three temperatures across a tread say',
  formula: 'inner − outer: 5 to 15 K; middle − (inner + outer)/2: ±5 K',
  sources: [PRACTICE],
  assumptions: ['Read at once after hot laps', 'Probe and surface are never mixed'],
  validRange: '240 to 500 K',
  schools: ['By a probe in the rubber, or on its surface'],
  example: { innerK: 351.15, middleK: 347.15, outerK: 344.15, treadBy: 'probe' },
  input: z.strictObject({ innerK: z.number(), middleK: z.number(), outerK: z.number(), treadBy: z.enum(TREAD_SCHOOLS).default('probe') }),
  output: z.strictObject({
    innerOverOuterK: z.number(),
    middleOverEdgesK: z.number(),
    camber: z.enum(['more', 'suits', 'less']),
    pressure: z.enum(['high', 'suits', 'low']),
    treadBy: z.enum(TREAD_SCHOOLS),
  }),
  run: ({ innerK, middleK, outerK, treadBy }) => ({ value: { ...readTread([innerK, middleK, outerK]), treadBy } }),
})

const axle = z.strictObject({
  pistonsOneSideM: z.array(z.number()).max(12),
  padFriction: z.number(),
  effectiveRadiusM: z.number(),
  tyreRadiusM: z.number(),
})
const brakingCar = {
  massKg: z.number().min(50).max(20_000),
  frontShare: z.number().min(0.05).max(0.95),
  centreHeightM: z.number().min(0).max(1.5),
  wheelbaseM: z.number().min(1).max(5),
  dragAreaM2: z.number().min(0).max(10).default(0.75),
  downforceFrontM2: z.number().min(-5).max(20).default(0),
  downforceRearM2: z.number().min(-5).max(20).default(0),
  airDensityKgM3: z.number().min(0).max(1.5).default(1.2),
}
const EXAMPLE_CAR = {
  massKg: 1180,
  frontShare: 0.52,
  centreHeightM: 0.47,
  wheelbaseM: 2.6,
  dragAreaM2: 0.7,
  downforceFrontM2: 0.25,
  downforceRearM2: 0.35,
  airDensityKgM3: 1.19,
}
const FRONT = { pistonsOneSideM: [0.036, 0.04], padFriction: 0.45, effectiveRadiusM: 0.135, tyreRadiusM: 0.308 }
const REAR = { pistonsOneSideM: [0.03, 0.03], padFriction: 0.42, effectiveRadiusM: 0.125, tyreRadiusM: 0.308 }

const balanceCalculation = defineCalculation({
  name: 'brake.balance',
  title: 'Ideal share of the front, which axle locks first, and how warm a disc gets',
  formula: 'φ = N_f/(N_f + N_r) with transfer and downforce; B_f = μ (N_f + DH)/(φ − μH), B_r = μ (N_r − DH)/(1 − φ + μH); ΔT = E/(n m c_p)',
  sources: ['H.6', RULES],
  assumptions: ['Both axles’ tyres have one friction', 'Rolling left out', 'The disc gives nothing away during the stop'],
  validRange: '0 to 150 m/s, 0 to 4 g',
  schools: [
    'At the ideal for the hardest stop plus 3 to 5 points, so that the front locks first (common practice); under the ideal the rear locks first: dangerous',
  ],
  example: { ...EXAMPLE_CAR, brakeFrontShare: 0.678, friction: 1.2, decelerationG: 1.1, speedMps: 50, toMps: 20, discs: 2, discKg: 8 },
  input: z.strictObject({
    ...brakingCar,
    brakeFrontShare: z.number(),
    friction: z.number(),
    decelerationG: z.number(),
    speedMps: z.number(),
    toMps: z.number().default(0),
    discs: z.number().default(2),
    discKg: z.number().default(8),
    heatJPerKgK: z.number().default(IRON_J_PER_KG_K),
  }),
  output: z.strictObject({ idealFrontShare: z.number(), locksFirst: z.enum(['front', 'rear']), locksAtG: z.number(), frontDiscRiseK: z.number() }),
  run: ({ brakeFrontShare, friction, decelerationG, speedMps, toMps, discs, discKg, heatJPerKgK, ...car }) => {
    const lock = firstToLock(car, { frontShare: brakeFrontShare, friction, speedMps })
    return {
      value: {
        idealFrontShare: idealBrakeShare(car, { decelerationG, speedMps }),
        locksFirst: lock.axle,
        locksAtG: lock.decelerationG,
        frontDiscRiseK: discRiseK({ massKg: car.massKg, fromMps: speedMps, toMps, axleShare: brakeFrontShare, discs, discKg, heatJPerKgK }),
      },
      warnings: lock.axle === 'rear' ? ['The rear locks first: the car turns round. Move the balance forward before it is driven hard.'] : [],
    }
  },
})

const shareCalculation = defineCalculation({
  name: 'brake.share-from-pressure',
  title: 'Share of the front from the pressures in both lines',
  formula: 'g = 4 μ A r_eff/r_tyre; share = g_f p_f/(g_f p_f + g_r p_r)',
  sources: ['H.6'],
  assumptions: ['Pistons of one side of the caliper; a sliding caliper has its own on one side alone', 'The ratio of pressures is not the share'],
  validRange: 'Pistons 10 to 100 mm, pads 0.1 to 1',
  schools: ['Logged pressures, or a balance bar with two masters'],
  example: { front: FRONT, rear: REAR, frontPa: 5.2e6, rearPa: 4.6e6 },
  input: z.strictObject({
    front: axle,
    rear: axle,
    frontPa: z.number().max(1e9).optional(),
    rearPa: z.number().max(1e9).optional(),
    bar: z.strictObject({ frontMasterM: z.number(), rearMasterM: z.number(), barFront: z.number() }).optional(),
  }),
  output: z.strictObject({ frontGain: z.number(), rearGain: z.number(), frontShare: z.number(), pressureShare: z.number() }),
  run: ({ front, rear, frontPa, rearPa, bar }) => {
    const [frontGain, rearGain] = [brakeGain(front), brakeGain(rear)]
    const pressures = bar ? barPressures(bar) : { front: frontPa ?? 0, rear: rearPa ?? 0 }
    return {
      value: {
        frontGain,
        rearGain,
        frontShare: brakeShare({ frontGain, rearGain, frontPa: pressures.front, rearPa: pressures.rear }),
        pressureShare: pressures.front / (pressures.front + pressures.rear),
      },
    }
  },
})

const heatCalculation = defineCalculation({
  name: 'brake.heat',
  title: 'How much a stop warms a disc',
  formula: 'ΔT = ½ m (v₁² − v₂²) share/(n m_disc c_p)',
  sources: ['H.6', `Iron 460 J/(kg K) (${PRACTICE})`],
  assumptions: ['Nothing is given away during the stop; air and rolling take nothing'],
  validRange: 'A stop that slows; 1 to 4 discs',
  schools: [],
  example: { massKg: 1250, fromMps: 60, toMps: 20, axleShare: 0.65, discs: 2, discKg: 8 },
  input: z.strictObject({
    massKg: z.number().max(20_000),
    fromMps: z.number().max(150),
    toMps: z.number().default(0),
    axleShare: z.number(),
    discs: z.number().default(2),
    discKg: z.number().max(100),
    heatJPerKgK: z.number().max(5000).default(IRON_J_PER_KG_K),
  }),
  output: z.strictObject({ riseK: z.number() }),
  run: (input) => ({ value: { riseK: discRiseK(input) } }),
})

const seasonCalculation = defineCalculation({
  name: 'drift.season',
  title: 'Rear tyres of a season of drift runs',
  formula: 'tyres = 2 ⌈runs planned/runs a pair (1 + spare)⌉',
  sources: [RULES, `A tenth to spare (${PRACTICE})`],
  assumptions: ['Pairs go on lasting as they did'],
  validRange: 'One run and one used pair at least',
  schools: [],
  example: { runsDriven: 31, pairsUsed: 12, runsPlanned: 90, tyresInStock: 30 },
  input: z.strictObject({
    runsDriven: z.number().max(1e6),
    pairsUsed: z.number().max(1e6),
    runsPlanned: z.number(),
    tyresInStock: z.number().default(0),
    spareShare: z.number().default(USUAL_SPARE_SHARE),
  }),
  output: z.strictObject({ runsPerPair: z.number(), pairsNeeded: z.number(), tyresNeeded: z.number(), tyresShort: z.number() }),
  run: (input) => ({ value: driftSeason(input) }),
})

export const TYRE_AND_BRAKE_CALCULATIONS = [
  pressureCalculation,
  coldCalculation,
  treadCalculation,
  balanceCalculation,
  shareCalculation,
  heatCalculation,
  seasonCalculation,
]
