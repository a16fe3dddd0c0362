import { YARDSTICKS } from '../drivetrain/yardsticks.ts'
import { CalculationError } from '../errors.ts'
import { driveStage } from '../rooms/drivetrain/stage-inputs.ts'
import { yardstickAt } from '../rooms/drivetrain/stage-yardsticks.ts'
import { z } from '../zod.ts'
import { openAt, proofField, stageInput } from './build.ts'
import { PRACTICE } from './drive-fields.ts'
import { EXAMPLE_RECORDS } from './examples/example-records.ts'
import { defineCalculation } from './registry.ts'

const yardstick = z.strictObject({ value: z.number(), sd: z.number(), proof: proofField, fromStageId: z.string().nullable() }).nullable()

/** The example build with a driveline: enough to be driven. */
const DRIVEN: typeof EXAMPLE_RECORDS = {
  ...EXAMPLE_RECORDS,
  parts: [
    { id: 'box', kind: 'gearbox', name: 'five-speed', status: 'fitted', drive: { role: 'gearbox', ratios: [3.4, 2.08, 1.46, 1.12, 0.91] } },
    { id: 'final', kind: 'final drive', name: 'short', status: 'fitted', drive: { role: 'finalDrive', ratio: 4.1 } },
    { id: 'tyre', kind: 'tyre', name: 'street', status: 'fitted', drive: { role: 'tyre', code: '205/50R15', class: 'street' } },
  ],
}

export const yardsticksAtStageCalculation = defineCalculation({
  name: 'build.yardsticks-at-stage',
  title: 'Times and speeds of a car at a stage, with their spread',
  formula: 'V(n) = reading at k · calc(n)/calc(k), else calc(n); sd by two runs for each unsure number',
  sources: ['The rules of the build’s records', `Model 2 % from rest, 1 % rolling (${PRACTICE})`],
  assumptions: [
    'A reading stands for the car of its day',
    'Each gear is left where the next accelerates as hard',
    'Numbers nobody gave are named as guesses and priced in the spread',
  ],
  validRange: 'A build with a curve of power, axle loads, gears, a final and the size of its driven tyres',
  schools: ['The clock of the build: with or without a roll-out'],
  example: { records: DRIVEN, stageId: 'strip' },
  input: stageInput,
  output: z.strictObject(Object.fromEntries(YARDSTICKS.map((key) => [key, yardstick])) as Record<(typeof YARDSTICKS)[number], typeof yardstick>),
  isLong: true,
  run: (input) => {
    const { car, position } = openAt(input)
    const { missing } = driveStage(car, position)
    if (missing.length > 0) throw new CalculationError('missing', 'records', `Missing: ${missing.map(({ what }) => what).join('; ')}. Give it in the records.`)
    const value = Object.fromEntries(
      YARDSTICKS.map((key) => {
        const found = yardstickAt(car, position, key)
        return [
          key,
          found
            ? {
                value: found.value,
                sd: found.sd,
                proof: found.proof,
                fromStageId: found.fromPosition === null ? null : (car.stages[found.fromPosition]?.id ?? null),
              }
            : null,
        ]
      }),
    )
    return { value: value as never }
  },
})
