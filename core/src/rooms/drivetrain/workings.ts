import { DRIVETRAIN_METRICS, type DrivetrainMetric } from '../../records/metric-keys.ts'
import type { Car } from '../../stages/car.ts'
import { metricFrame, ofStage, stageName, type Working, type WorkingLine, type WorkingMaker } from '../../stages/working-line.ts'
import { DRIVE_INPUT_WORDS, type DriveInputKey } from './drive-inputs.ts'
import { DRIVETRAIN_METRICS as DECLARED, drivetrainValue } from './metrics.ts'
import { driveStage } from './stage-inputs.ts'
import { stagePath } from './stage-path.ts'
import { worstSlide } from './stage-slide.ts'
import { plannedYardsticks } from './stage-yardsticks.ts'

const isYardstick = (metric: DrivetrainMetric): metric is Exclude<DrivetrainMetric, 'driveHeadroom' | 'slideReserve'> =>
  metric !== 'driveHeadroom' && metric !== 'slideReserve'

/** What each unsure number does to a yardstick, the largest first. */
function spreadLines(car: Car, position: number, metric: DrivetrainMetric, kind: WorkingLine['kind']): WorkingLine[] {
  const spread = isYardstick(metric) ? plannedYardsticks(car, position)?.[metric] : null
  if (!spread) return []
  return spread.inputs.slice(0, 8).map(({ key, byOneSd, isGuess }) => ({
    label: `${DRIVE_INPUT_WORDS[key as DriveInputKey].word}, one spread`,
    value: byOneSd,
    kind,
    isSigned: true,
    proof: isGuess ? ('guess' as const) : ('calculated' as const),
  }))
}

function pathLines(car: Car, position: number): WorkingLine[] {
  return (stagePath(car, position)?.headrooms ?? []).slice(0, 6).flatMap(({ name, gear, demandNm, limitNm, known }) => [
    { label: `${name} carries`, value: limitNm, kind: 'torque' as const, proof: known },
    { label: `${name} meets, worst in gear ${gear}`, value: demandNm, kind: 'torque' as const, proof: 'calculated' as const },
  ])
}

function slideLines(car: Car, position: number): WorkingLine[] {
  const worst = worstSlide(car, position)
  if (!worst) return []
  const { name, speedMps, state, best } = worst
  return [
    { label: `${name}, speed of the rear axle`, value: speedMps, kind: 'speed' },
    { label: 'power at the wheels that it needs', value: state.powerW, kind: 'power' },
    { label: 'speed of the tyres’ tread', value: state.wheelSpeedMps, kind: 'speed' },
    { label: best ? `engine speed in gear ${best.gear}` : 'no gear has the engine on its curve', value: best?.speedRpm ?? null, kind: 'engineSpeed' },
  ]
}

function metricWorking(metric: DrivetrainMetric) {
  return (car: Car, position: number): Working | undefined => {
    const value = drivetrainValue(car, position, metric)
    const declared = DECLARED.find(({ key }) => key === metric)
    if (!value || !declared) return undefined
    const { kind } = declared
    return {
      ...metricFrame(car, position, declared, value),
      lines: [
        ...(metric === 'driveHeadroom'
          ? pathLines(car, position)
          : metric === 'slideReserve'
            ? slideLines(car, position)
            : spreadLines(car, position, metric, kind)),
      ],
      remarks: [
        ...(value.fromPosition === null ? [] : [`Read at ${stageName(car, value.fromPosition)} and carried by the ratio of what is worked out for both.`]),
        ...(metric === 'driveHeadroom' ? ['Shock and shares are common practice, no source; the event’s rules and qualified people decide what may run.'] : []),
        ...driveStage(car, position).warnings,
      ],
    }
  }
}

/** Every metric of the room, by its key. */
export const DRIVETRAIN_WORKINGS = Object.fromEntries(DRIVETRAIN_METRICS.map((metric) => [metric, ofStage(metricWorking(metric))])) as Record<
  DrivetrainMetric,
  WorkingMaker
>
