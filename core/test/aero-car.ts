import { wingEstimate } from '../src/aero/wing.ts'
import { EXAMPLE_WING } from '../src/calculations/examples/example-aero.ts'
import { EXAMPLE_RECORDS } from '../src/calculations/examples/example-records.ts'
import { buildRecordsSchema } from '../src/records/records.ts'
import { openCar } from '../src/stages/car.ts'

// The car of the aero room's worked example; invented.
export const AT = '2026-05-01T10:00:00Z'
export const OUTLINE = {
  frontOverhangM: 0.9,
  rearOverhangM: 1,
  bodyWidthM: 1.74,
  roofHeightM: 1.43,
  roofFrontXM: 1.1,
  roofRearXM: 2.4,
  scuttleXM: 0.5,
  scuttleHeightM: 0.95,
  noseHeightM: 0.6,
  tailHeightM: 1,
  undersideM: 0.12,
  wheelRadiusM: 0.32,
}
export const axles = (frontM2: number, frontSdM2: number, rearM2: number, rearSdM2: number, dragM2: number, dragSdM2: number, proof = 'guess') => ({
  form: 'axles',
  frontM2,
  frontSdM2,
  rearM2,
  rearSdM2,
  dragM2,
  dragSdM2,
  proof,
  at: AT,
})
export const place = (downforceM2: number, downforceSdM2: number, dragM2: number, dragSdM2: number, proof = 'calculated') => ({
  form: 'place',
  downforceM2,
  downforceSdM2,
  dragM2,
  dragSdM2,
  proof,
  at: AT,
})
export const notch = (name: string, ...values: object[]) => ({ id: name, name, values })
// The devices of the worked example; invented.
const HOLES = [-2, 0, 2, 4, 6].map((degrees) => {
  const angleRad = (degrees * Math.PI) / 180
  return { angleRad, ...wingEstimate({ ...EXAMPLE_WING, angleRad }) }
})
export const DEVICES = [
  { id: 'body', kind: 'body', name: 'body, as bought', notches: [notch('one', axles(-0.02, 0.04, -0.07, 0.05, 0.7, 0.05))] },
  {
    id: 'splitter',
    kind: 'splitter',
    name: 'splitter',
    changeId: 'lip',
    box: { xFrontM: -1.1, xRearM: -0.4, yInnerM: 0, yOuterM: 0.8, zBottomM: 0.065, zTopM: 0.135 },
    notches: [
      notch('one', { ...place(0.208, 0.0646632, 0.006, 0.006), estimate: { of: 'splitter', widthM: 1.6, lipM: 0.2, pressure: 0.65, pressureSd: 0.2021 } }),
    ],
  },
  {
    id: 'canards',
    kind: 'canards',
    name: 'canards',
    changeId: 'canards',
    box: { xFrontM: -0.7, xRearM: -0.4, yInnerM: 0.6, yOuterM: 0.905, zBottomM: 0.3, zTopM: 0.4 },
    notches: [notch('one', place(0.02, 0.01, 0.01, 0.005, 'guess'))],
  },
  { id: 'floor', kind: 'floor', name: 'floor', changeId: 'floor', notches: [notch('one', axles(0.06, 0.05, 0.14, 0.09, -0.015, 0.03, 'catalogue'))] },
  {
    id: 'wing',
    kind: 'wing',
    name: 'wing',
    changeId: 'wing',
    wing: { spanM: 1.4, chordsM: [0.26], pivotXM: 3.45, pivotZM: 1.405, endPlate: { lengthM: 0.26, heightM: 0.22, topM: 0.015 } },
    notches: HOLES.map(({ angleRad, downforceM2, downforceSdM2, dragM2, dragSdM2 }, i) => ({
      ...notch(`hole ${i + 1}`, {
        ...place(downforceM2, downforceSdM2, dragM2, dragSdM2),
        estimate: { of: 'wing', zeroLiftRad: EXAMPLE_WING.zeroLiftRad, place: 'behindRoof', slopeSchool: 'lowAspect' },
      }),
      angleRad,
    })),
  },
]
const line = (id: string, massKg: number) => ({
  id,
  stageId: 'strip',
  kind: 'on',
  name: id,
  state: 'planned',
  values: [{ massKg, sdKg: null, proof: 'guess', typed: null, at: AT }],
})
/** The car with other records in place of its own. */
export const carWith = (more: object = {}) =>
  openCar(
    buildRecordsSchema.parse({
      ...EXAMPLE_RECORDS,
      build: {
        ...EXAMPLE_RECORDS.build,
        wheelbaseM: 2.65,
        outline: OUTLINE,
        suspension: {
          front: { wheelRateNPerM: 52_000, tyreRateNPerM: 230_000, motionRatio: 0.94, threadPitchM: 0.0015 },
          rear: { wheelRateNPerM: 46_000, tyreRateNPerM: 230_000, motionRatio: 0.72, threadPitchM: 0.0015 },
        },
      },
      changes: [...(EXAMPLE_RECORDS.changes ?? []), line('lip', 6), line('canards', 1.2), line('floor', 9), line('wing', 11)],
      aeroDevices: DEVICES,
      setups: [{ id: 'su', stageId: 'strip', picks: [{ deviceId: 'wing', notchId: 'hole 4' }], front: null, rear: null }],
      ...more,
    }),
  )
export const STAGES = EXAMPLE_RECORDS.stages ?? []
export const LAST = STAGES.length - 1
