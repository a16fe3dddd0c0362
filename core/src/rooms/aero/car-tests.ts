import { fittedCoastDown } from '../../aero/coast-down-drag.ts'
import { type MeasuredDownforce, measuredDownforce } from '../../aero/measured-downforce.ts'
import { type PitotPoint, type PitotSpeeds, pitotSpeeds } from '../../aero/pitot-speeds.ts'
import { airDensity } from '../../air/density.ts'
import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import type { AeroRun, AeroTest, AeroTestKind } from '../../records/aero-test-kinds.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import { rememberByIndex } from '../../stages/remember.ts'
import { massOf } from '../weight/mass-at-stage.ts'
import type { Held } from './anchors.ts'
import { basisOf } from './basis.ts'
import { devicesAtStage } from './devices.ts'
import { axleAtStage } from './springs.ts'
import { pickedNotch } from './totals.ts'

/** How well density is known with an air record, and by the build's air alone, over itself (common practice, no source). */
const RECORDED_AIR_SD = 0.005
const UNRECORDED_AIR_SD = 0.03
/** Of one reading of a damper or a height, and how well spring and tyre are known, over themselves (common practice, no source). */
const READING_SD_M = 0.0003
const RATE_RELATIVE_SD = { wheel: 0.02, damper: 0.02, height: 0.05 } as const
/** Speed at which rolling has doubled where nobody said (common practice, no source). */
const USUAL_ROLLING_SPEED_MPS = 120
/** Of the car's middle where nobody lifted it (common practice, no source). */
const USUAL_CENTRE_HEIGHT_M = 0.5

/** One pair of coast-downs by itself. */
export interface TestPair {
  readonly runId: string
  readonly version: number
  readonly position: number
  readonly dragAreaM2: number
  readonly rollingCoefficient: number
  readonly windMps: number
  readonly grade: number
  readonly residualMps: number
  readonly setAside: string | null
}

export interface TestDrag {
  readonly areaM2: number
  readonly sdM2: number
  readonly rollingCoefficient: number
  readonly systematicSdM2: number
}

/** A test of the car with what came of it. */
export interface CarTest {
  readonly id: string
  readonly version: number
  readonly name: string
  readonly at: string
  readonly kind: AeroTestKind
  readonly position: number
  readonly setAside: string | null
  readonly airDensityKgM3: number
  readonly hasAir: boolean
  readonly held: readonly Held[]
  readonly pairs: readonly TestPair[]
  readonly drag: TestDrag | null
  readonly loads: MeasuredDownforce | null
  /** What a pitot tube said, where it was read at every point that counts; loads are on its speeds then. */
  readonly pitot: Omit<PitotSpeeds, 'airSpeedMps'> | null
  /** Why nothing came of it, or why it stands for no stage; null where it stands for its own. */
  readonly whyNot: string | null
}

/** Density of the air of a test; the build's where the test has none of its own that can be used. */
function airOf({ records }: Car, { ambient }: AeroTest): { airDensityKgM3: number; airDensitySd: number; hasAir: boolean } {
  const found = ambient?.pressureKind === 'station' ? attempt(() => airDensity(ambient).densityKgM3) : undefined
  if (typeof found === 'number') return { airDensityKgM3: found, airDensitySd: RECORDED_AIR_SD * found, hasAir: true }
  const { airDensityKgM3 } = records.build
  return { airDensityKgM3, airDensitySd: UNRECORDED_AIR_SD * airDensityKgM3, hasAir: false }
}

const versionOf = (record: object): number => (record as { readonly version?: number }).version ?? 1
const runsOf = ({ records }: Car, test: AeroTest): AeroRun[] =>
  records.aeroRuns.filter(({ testId }) => testId === test.id).sort((a, b) => a.position - b.position)

/** What the masses and the air of a test make of kept fits. */
function fitted(car: Car, test: AeroTest, runs: readonly AeroRun[]) {
  const { massKg, massSdKg, rotatingKg } = test
  const { rollingSchool, rollingSpeedMps } = basisOf(car)
  const { airDensityKgM3, airDensitySd } = airOf(car, test)
  const fits = runs.flatMap(({ coast }) => (coast ? [coast.fit] : []))
  return fittedCoastDown({
    fits,
    massKg,
    massSdKg,
    rotatingKg,
    airDensityKgM3,
    airDensitySd,
    rollingSchool,
    rollingSpeedMps: rollingSpeedMps ?? USUAL_ROLLING_SPEED_MPS,
  })
}

function pairsOf(car: Car, test: AeroTest, runs: readonly AeroRun[]): TestPair[] {
  return runs.flatMap((run): TestPair[] => {
    const found = attempt(() => fitted(car, test, [run]))
    const own = found instanceof CalculationError ? undefined : found.fits[0]
    if (!own || found instanceof CalculationError) return []
    const { dragAreaM2, windMps, grade, residualMps } = own
    const { rollingCoefficient } = found
    return [
      { runId: run.id, version: versionOf(run), position: run.position, dragAreaM2, rollingCoefficient, windMps, grade, residualMps, setAside: run.setAside },
    ]
  })
}

type Steady = NonNullable<AeroRun['steady']>

/** Speeds of the air by the tube, where it was read at every point; null where it was not. */
function pitotOf(counting: readonly Steady[], airDensityKgM3: number): PitotSpeeds | null {
  const points = counting.flatMap(({ direction, points: own }) =>
    own.flatMap(({ speedMps, pitotPa }): PitotPoint[] => (pitotPa !== null && direction !== null ? [{ speedMps, pitotPa, direction }] : [])),
  )
  const count = counting.reduce((sum, { points: own }) => sum + own.length, 0)
  return points.length === count ? pitotSpeeds(points, airDensityKgM3) : null
}

/** Loads of a steady test by the springs of its stage; all its runs read the same way, on one line, over the air's speed where a tube read it. */
function steadyOf(car: Car, test: AeroTest, position: number, runs: readonly AeroRun[]): MeasuredDownforce & Pick<CarTest, 'pitot'> {
  const counting = runs.flatMap(({ steady, setAside }) => (steady && setAside === null ? [steady] : []))
  const [first] = counting
  if (!first) throw new CalculationError('missing', 'points', 'No point counts. Type what the axles read at three speeds at least.')
  if (counting.some(({ reading }) => reading !== first.reading))
    throw new CalculationError('inconsistent', 'reading', 'The runs of this test were read in different ways. Begin a test for each.')
  const [front, rear] = [axleAtStage(car, position, 'front'), axleAtStage(car, position, 'rear')]
  if (!front || !rear) throw new CalculationError('missing', 'springs', 'Load is read through the springs: type those of this stage under Ride height.')
  const points = counting.flatMap((each) => each.points)
  const axle = (own: typeof front, key: 'frontM' | 'rearM') => ({
    springs: own.springs,
    reading: first.reading,
    travelM: points.map((point) => point[key]),
    readingSdM: READING_SD_M,
    rateRelativeSd: RATE_RELATIVE_SD[first.reading],
  })
  const { airDensityKgM3 } = airOf(car, test)
  const pitot = pitotOf(counting, airDensityKgM3)
  const measured = measuredDownforce({
    speedMps: pitot?.airSpeedMps ?? points.map(({ speedMps }) => speedMps),
    airDensityKgM3,
    front: axle(front, 'frontM'),
    rear: axle(rear, 'rearM'),
    decelerationMps2: points.some(({ decelerationMps2 }) => decelerationMps2 !== null) ? points.map(({ decelerationMps2 }) => decelerationMps2 ?? 0) : null,
    massKg: massOf(car, position)?.value ?? test.massKg,
    centreHeightM: USUAL_CENTRE_HEIGHT_M,
    wheelbaseM: car.builds[position]?.wheelbaseM ?? car.records.build.wheelbaseM,
  })
  return { ...measured, pitot: pitot && { factor: pitot.factor, headWindMps: pitot.headWindMps } }
}

/** Why a test is none of the stage it was entered at: a device of it was not yet on, or one of a later stage was; null where it is. */
function whyOther(car: Car, test: AeroTest, position: number): string | null {
  const at = Date.parse(test.at)
  for (const { name, changeId, offChangeId } of car.records.aeroDevices)
    for (const id of [changeId, offChangeId]) {
      const line = id === null ? undefined : car.lineById.get(id)
      if (!line) continue
      const wasDone = line.doneAtMs !== null && line.doneAtMs <= at
      if (line.stagePosition <= position && !wasDone) return `${name} was not done by then: the test is not of this stage as it stands.`
      if (line.stagePosition > position && wasDone) return `${name} of a later stage was done by then: the test is not of this stage as it stands.`
    }
  return null
}

/** What came of one test. */
function resultOf(car: Car, test: AeroTest): CarTest {
  const position = Math.max(0, stageIndex(car, test.stageId))
  const runs = runsOf(car, test)
  const picks = Object.fromEntries(test.picks.map(({ deviceId, notchId }) => [deviceId, notchId]))
  const held = devicesAtStage(car, position).map((device) => ({ id: device.id, name: device.name, notch: pickedNotch(device, picks) }))
  const drag =
    test.kind === 'coastDown'
      ? attempt(() =>
          fitted(
            car,
            test,
            runs.filter(({ setAside }) => setAside === null),
          ),
        )
      : null
  const steady = test.kind === 'steady' ? attempt(() => steadyOf(car, test, position, runs)) : null
  const { pitot = null, ...loads } = steady === null || steady instanceof CalculationError ? {} : steady
  const failure = [drag, steady].find((found) => found instanceof CalculationError) as CalculationError | undefined
  const { airDensityKgM3, hasAir } = airOf(car, test)
  return {
    id: test.id,
    version: versionOf(test),
    name: test.placeName,
    at: test.at,
    kind: test.kind,
    position,
    setAside: test.setAside,
    airDensityKgM3,
    hasAir,
    held,
    pairs: pairsOf(car, test, runs),
    drag:
      drag && !(drag instanceof CalculationError)
        ? { areaM2: drag.dragAreaM2, sdM2: drag.dragAreaSdM2, rollingCoefficient: drag.rollingCoefficient, systematicSdM2: drag.systematicSdM2 }
        : null,
    loads: 'frontM2' in loads ? loads : null,
    pitot,
    whyNot: failure?.message ?? whyOther(car, test, position),
  }
}

const allTests = rememberByIndex((car: Car, _all: number): readonly CarTest[] =>
  car.records.aeroTests.map((test) => resultOf(car, test)).sort((a, b) => Date.parse(a.at) - Date.parse(b.at)),
)

/**
 * Every test of a build with what came of it, earliest first.
 * @example carTests(CAR) // []
 */
export const carTests = (car: Car): readonly CarTest[] => allTests(car, 0)

/**
 * The tests of one kind that stand for the stage they were entered at and count.
 * @example standingTests(CAR, 'coastDown') // []
 */
export const standingTests = (car: Car, kind: AeroTestKind): readonly CarTest[] =>
  carTests(car).filter((test) => test.kind === kind && test.setAside === null && test.whyNot === null)
