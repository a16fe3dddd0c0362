import { axleDropM } from '../src/aero/axle-springs.ts'
import { coastRoadM, coastTimeS, speedAfter } from '../src/aero/coast-down.ts'
import { fitPair } from '../src/aero/coast-down-fit.ts'
import { airPressurePa, deviceLoads, sumLoads } from '../src/aero/device-loads.ts'
import { contactMps } from '../src/aero/ride-heights.ts'
import { splitterEstimate } from '../src/aero/splitter.ts'
import { coilRateNPerM, wheelRates } from '../src/aero/wheel-rates.ts'
import { effectiveAspect, wingSlope } from '../src/aero/wing.ts'
import { EXAMPLE_HEIGHTS } from '../src/calculations/examples/example-aero.ts'
import { sandwichStiffness } from '../src/structure/sandwich.ts'
import { plateCoefficient, type Strip, stripUnderPressure } from '../src/structure/strip.ts'
import { describeRows, input, list, number, type Row } from './check-rows.ts'
import { rectangularWing } from './lifting-line.ts'

const DEG = Math.PI / 180
const SCHOOL = { slopeSchool: 'lowAspect', sectionShare: 1, spanEfficiency: 1 } as const
const q = (row: Row) => airPressurePa(number(row, 'rho'), number(row, 'v'))
const placed = (downforceM2: number, dragM2: number, xM: number, zM: number) =>
  ({ form: 'place', downforceM2, downforceSdM2: 0, dragM2, dragSdM2: 0, xM, xSdM: 0, zM }) as const
const together = (row: Row) =>
  sumLoads(
    (input(row, 'devices [downforce N, drag N, x m, z m]') as number[][]).map(([f, d, x, z]) =>
      deviceLoads(placed(f as number, d as number, x as number, z as number), number(row, 'L'), 'contactPatches'),
    ),
  )
const bending = (row: Row) => (number(row, 'E') * number(row, 't') ** 3) / 12
const strip = (row: Row, support: Strip['support'], rodNPerM2: number | null = null): Strip => {
  const s = number(row, 'span s (hinge to rod)') as number | undefined
  const lipM = s === undefined ? number(row, 'L') : s + number(row, 'overhang c')
  return { support, lipM, rodAtM: s ?? null, rodNPerM2, bendingNm2: bending(row) }
}
const bent = (row: Row, support: Strip['support'], rod: number | null = null) => stripUnderPressure(strip(row, support, rod), number(row, 'pressure'))
const coasting = (row: Row) => ({
  aN: number(row, 'A'),
  bNPerMps: number(row, 'B') ?? 0,
  cNPerMps2: number(row, 'C'),
  effectiveKg: number(row, 'm_eff'),
})
const fitted = (row: Row) => {
  const run = { timeS: list(row, 't'), speedMps: list(row, 'v') }
  // The same run both ways: no wind, no slope.
  return fitPair({ out: run, back: run }, number(row, 'm_eff') / 1.04, number(row, 'm_eff'))
}

describeRows('published and derived check values of aero and structures', 'check-values-aero.json', {
  'G-q': q,
  'G-drag': (row) => q(row) * number(row, 'CdA'),
  'G-ax-r': (row) => together(row).rearM2,
  'G-bal': (row) => together(row).frontM2 / (together(row).frontM2 + together(row).rearM2),
  'G-wing-front-loss': (row) =>
    deviceLoads(placed(number(row, 'F'), number(row, 'D'), number(row, 'x'), number(row, 'z')), number(row, 'L'), 'contactPatches').frontM2,
  'G-delta-rect-6': (row) => rectangularWing(number(row, 'AR'), number(row, 'a0')).delta,
  'G-slope-low': (row) => wingSlope(number(row, 'AR'), SCHOOL),
  'G-slope-limit': (row) => wingSlope(number(row, 'AR'), SCHOOL),
  'G-AR-endplate': (row) => effectiveAspect({ spanM: number(row, 'b'), chordM: number(row, 'b') / number(row, 'AR'), plateHeightM: number(row, 'h') }),
  'G-wing-F': (row) => q(row) * number(row, 'S') * number(row, 'CL'),
  'G-wing-alpha': (row) => number(row, 'CL') / wingSlope(number(row, 'AR'), { ...SCHOOL, slopeSchool: 'liftingLine' }) / DEG,
  'G-splitter': (row) => q(row) * splitterEstimate({ widthM: number(row, 'A') / 0.15, lipM: 0.15, pressure: number(row, 'dCp'), pressureSd: 0.1 }).downforceM2,
  'G-ss-d': (row) => 1000 * bent(row, 'simplySupported').deflectionM,
  'G-ss-s': (row) => (6 * bent(row, 'simplySupported').momentNmPerM) / number(row, 't') ** 2,
  'G-ov-tip': (row) => 1000 * bent(row, 'hingedRod').deflectionM,
  'G-ov-Mrod': (row) => bent(row, 'hingedRod').rodMomentNmPerM,
  'G-prop-R': (row) => bent(row, 'clampedRod').rodNPerM,
  'G-prop-tip': (row) => 1000 * bent(row, 'clampedRod').deflectionM,
  'G-prop-elastic': (row) => bent(row, 'clampedRod', number(row, 'k_rod')).rodNPerM,
  'G-area-mass': (row) => number(row, 'rho') * number(row, 't'),
  'G-plate-sq': (row) => plateCoefficient(number(row, 'b/a')),
  'G-plate-2': (row) => plateCoefficient(number(row, 'b/a')),
  'G-sand-D': (row) =>
    sandwichStiffness({ skinPa: number(row, 'E_f'), skinM: number(row, 't_f'), corePa: number(row, 'E_c'), coreShearPa: 1e6, coreM: number(row, 'core') })
      .bendingNm2,
  'G-sand-d': (row) => {
    const [d, s, l, w] = [number(row, 'D'), number(row, 'S=G_c b d^2/c'), number(row, 'L'), number(row, 'w')]
    return (
      1000 * (stripUnderPressure({ support: 'simplySupported', lipM: l, rodAtM: null, rodNPerM2: null, bendingNm2: d }, w).deflectionM + (w * l * l) / (8 * s))
    )
  },
  'G-coil': (row) => coilRateNPerM({ shearPa: number(row, 'G'), wireM: number(row, 'd'), coilM: number(row, 'D'), turns: number(row, 'n') }),
  'G-riderate': (row) => wheelRates({ springRateNPerM: number(row, 'kw'), motionRatio: 1, tyreRateNPerM: number(row, 'kt'), sprungKg: null }).rideRateNPerM,
  'G-rideh': (row) => {
    // A tyre that does not give: the spring alone is the ride rate.
    const springs = { ...EXAMPLE_HEIGHTS.rear, springRateNPerM: number(row, 'k_ride each'), motionRatio: 1, tyreRateNPerM: 1e15 }
    return 1000 * axleDropM(springs, number(row, 'F_axle'))
  },
  'G-bottom': (row) => {
    const ratio = number(row, 'MR')
    const front = {
      ...EXAMPLE_HEIGHTS.front,
      springRateNPerM: number(row, 'kw') / ratio ** 2,
      motionRatio: ratio,
      gapM: number(row, 'gap at damper'),
      packerM: 0,
    }
    return contactMps({ ...EXAMPLE_HEIGHTS, front, downforceFrontM2: number(row, 'ClA axle'), airDensityKgM3: number(row, 'rho') }, 'front') ?? 0
  },
  'G-cd-v': (row) => speedAfter(coasting(row), number(row, 'v0'), number(row, 't')),
  'G-cd-t-neg': (row) => coastTimeS(coasting(row), number(row, 'v0'), number(row, 'v1')),
  'G-cd-stop': (row) => coastTimeS(coasting(row), number(row, 'v0'), 0),
  'G-cd-dist': (row) => coastRoadM(coasting(row), number(row, 'v0'), 0),
  'G-cd-fit-A': (row) => fitted(row).aN,
  'G-cd-fit-C': (row) => fitted(row).cNPerMps2,
  'G-cd-CdA': (row) => (2 * number(row, 'C')) / number(row, 'rho'),
})
