import { barPressures, brakeGain, brakeShare } from '../../brakes/brake-share.ts'
import type { BrakeSystem } from '../../records/brake-kinds.ts'
import type { Car } from '../../stages/car.ts'
import { hasSize, radiusOf, tyresOf } from '../drivetrain/drive-inputs.ts'
import { driveStage } from '../drivetrain/stage-inputs.ts'

/** The brakes that stand at a stage: its own, else the latest before it. */
export function brakesAtStage(car: Car, position: number): BrakeSystem | undefined {
  for (let at = position; at >= 0; at--) {
    const found = car.records.brakeSystems.find(({ stageId }) => stageId === car.stages[at]?.id)
    if (found) return found
  }
  return undefined
}

/** Radii of the tyres of both axles, m; a usual one where no size is on record. Both ends alike, it drops out of a share. */
function tyreRadii(car: Car, position: number): { front: number; rear: number } {
  const { front, rear } = tyresOf(car, driveStage(car, position).line)
  const of = (tyre: typeof front) => (hasSize(tyre?.drive) ? radiusOf(tyre.drive).value : null)
  const [a, b] = [of(front), of(rear)]
  return { front: a ?? b ?? 0.31, rear: b ?? a ?? 0.31 }
}

/** Force at the road for the pressure in each axle's lines, N/Pa. */
export function brakeGains(car: Car, position: number, brakes: BrakeSystem): { front: number; rear: number } {
  const radii = tyreRadii(car, position)
  const gain = (axle: BrakeSystem['front'], tyreRadiusM: number) => brakeGain({ ...axle, tyreRadiusM })
  return { front: gain(brakes.front, radii.front), rear: gain(brakes.rear, radii.rear) }
}

/** The front's share of the braking by the hardware of a stage; undefined without brakes on record. */
export function brakeShareAt(car: Car, position: number): { value: number; brakes: BrakeSystem } | undefined {
  const brakes = brakesAtStage(car, position)
  if (!brakes) return undefined
  const gains = brakeGains(car, position, brakes)
  const { masters } = brakes
  const line = masters ? barPressures({ frontMasterM: masters.frontM, rearMasterM: masters.rearM, barFront: masters.barFront }) : { front: 1, rear: 1 }
  const value = brakeShare({ frontGain: gains.front, rearGain: gains.rear, frontPa: line.front, rearPa: line.rear * brakes.rearValve })
  return { value, brakes }
}
