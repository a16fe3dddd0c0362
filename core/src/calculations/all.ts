import { AERO_CALCULATIONS } from './aero.ts'
import { AERO_TEST_CALCULATIONS } from './aero-tests.ts'
import { AIR_CALCULATIONS } from './air.ts'
import { BUILD_CALCULATIONS } from './build.ts'
import { aeroAtStageCalculation } from './build-aero.ts'
import { yardsticksAtStageCalculation } from './build-drive.ts'
import { lapAtStageCalculation } from './build-lap.ts'
import { CENTRE_CALCULATIONS } from './centres.ts'
import { CORNER_CALCULATIONS } from './corners.ts'
import { DRIVETRAIN_CALCULATIONS } from './drivetrain.ts'
import { DRIVETRAIN_RUN_CALCULATIONS } from './drivetrain-runs.ts'
import { DRIVETRAIN_SLIDE_CALCULATIONS } from './drivetrain-slides.ts'
import { DYNO_CALCULATIONS } from './dyno.ts'
import { DYNO_PULL_CALCULATIONS } from './dyno-pulls.ts'
import { ENGINE_CALCULATIONS } from './engine.ts'
import { flowCalculation, nitrousCalculation } from './flow-and-nitrous.ts'
import { LAP_CALCULATIONS } from './laps.ts'
import { MASS_CALCULATIONS } from './mass.ts'
import { PLAN_CALCULATIONS } from './plans.ts'
import type { Calculation } from './registry.ts'
import { STRUCTURE_CALCULATIONS } from './structure.ts'
import { TRACK_CALCULATIONS } from './track.ts'
import { TRACK_LOG_CALCULATIONS } from './track-logs.ts'
import { TYRE_AND_BRAKE_CALCULATIONS } from './tyres-and-brakes.ts'
import { CHECK_CALCULATIONS } from './workshop/checks.ts'
import { COOLING_CALCULATIONS } from './workshop/cooling.ts'
import { COST_CALCULATIONS } from './workshop/costs-and-decisions.ts'
import { ELECTRIC_CALCULATIONS } from './workshop/electrics.ts'
import { JOBS_CALCULATIONS } from './workshop/jobs.ts'
import { RULE_CALCULATIONS } from './workshop/rules.ts'

/** Every calculation a person might quote, by its stable name; each file lists its own. */
export const CALCULATIONS: readonly Calculation[] = [
  ...AIR_CALCULATIONS,
  ...DYNO_CALCULATIONS,
  ...DYNO_PULL_CALCULATIONS,
  ...ENGINE_CALCULATIONS,
  nitrousCalculation,
  flowCalculation,
  ...PLAN_CALCULATIONS,
  ...CENTRE_CALCULATIONS,
  ...CORNER_CALCULATIONS,
  ...MASS_CALCULATIONS,
  ...DRIVETRAIN_CALCULATIONS,
  ...DRIVETRAIN_RUN_CALCULATIONS,
  ...DRIVETRAIN_SLIDE_CALCULATIONS,
  ...AERO_CALCULATIONS,
  ...AERO_TEST_CALCULATIONS,
  ...STRUCTURE_CALCULATIONS,
  ...TRACK_CALCULATIONS,
  ...TRACK_LOG_CALCULATIONS,
  ...LAP_CALCULATIONS,
  ...TYRE_AND_BRAKE_CALCULATIONS,
  ...JOBS_CALCULATIONS,
  ...COST_CALCULATIONS,
  ...RULE_CALCULATIONS,
  ...CHECK_CALCULATIONS,
  ...ELECTRIC_CALCULATIONS,
  ...COOLING_CALCULATIONS,
  ...BUILD_CALCULATIONS,
  yardsticksAtStageCalculation,
  aeroAtStageCalculation,
  lapAtStageCalculation,
]

/**
 * The registered calculation of a name; undefined where there is none.
 * @example findCalculation('air.density').title // 'Density of moist air'
 */
export const findCalculation = (name: string): Calculation | undefined => CALCULATIONS.find((calculation) => calculation.name === name)
