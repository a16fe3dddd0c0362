import { CalculationError } from '../errors.ts'
import { carTests } from '../rooms/aero/car-tests.ts'
import { aeroValue, stageAero } from '../rooms/aero/stage-aero.ts'
import { z } from '../zod.ts'
import { openAt, proofField, stageInput } from './build.ts'
import { PRACTICE } from './drive-fields.ts'
import { EXAMPLE_RECORDS } from './examples/example-records.ts'
import { defineCalculation } from './registry.ts'

const METRICS = ['downforce', 'aeroBalance', 'balanceGap', 'dragArea', 'clearance'] as const
const metric = z.strictObject({ value: z.number(), sd: z.number(), proof: proofField, fromStageId: z.string().nullable() }).nullable()

/** The example build with a body and a wing; invented. */
const WINGED: typeof EXAMPLE_RECORDS = {
  ...EXAMPLE_RECORDS,
  aeroDevices: [
    {
      id: 'body',
      kind: 'body',
      name: 'body, as bought',
      notches: [
        {
          id: 'is',
          name: 'as it is',
          values: [
            {
              form: 'axles',
              frontM2: -0.02,
              frontSdM2: 0.04,
              rearM2: -0.07,
              rearSdM2: 0.05,
              dragM2: 0.7,
              dragSdM2: 0.05,
              proof: 'guess',
              at: '2026-05-01T10:00:00Z',
            },
          ],
        },
      ],
    },
    {
      id: 'wing',
      kind: 'wing',
      name: 'wing',
      force: { xM: 3.45, zM: 1.405, xSdM: 0.02 },
      notches: [
        {
          id: 'one',
          name: 'hole 4',
          angleRad: 0.0698,
          values: [
            { form: 'place', downforceM2: 0.3403, downforceSdM2: 0.0589, dragM2: 0.02442, dragSdM2: 0.00623, proof: 'calculated', at: '2026-05-01T10:00:00Z' },
          ],
        },
      ],
    },
  ],
}

export const aeroAtStageCalculation = defineCalculation({
  name: 'build.aero-at-stage',
  title: 'Downforce, balance, drag and clearance of a car at a stage',
  formula: 'V(n) = test at k + devices at n − devices at k, else the sum of devices at n',
  sources: ['The rules of the build’s records', `Another notch by the step, at least 10 % unsure; one pair 5 % (${PRACTICE})`],
  assumptions: ['Devices do not feed each other', 'What is the same at a test and now cancels, known or not'],
  validRange: 'A build with the bare body among its devices, or a test of the whole car',
  schools: ['Balance at the tyres (default) or by downforce alone', 'Rolling as the road shows it, or growing with speed'],
  example: { records: WINGED, stageId: 'strip' },
  input: stageInput,
  output: z.strictObject({
    ...(Object.fromEntries(METRICS.map((key) => [key, metric])) as Record<(typeof METRICS)[number], typeof metric>),
    unknown: z.array(z.string()),
    tests: z.array(
      z.strictObject({
        id: z.string(),
        dragAreaM2: z.number().nullable(),
        frontM2: z.number().nullable(),
        rearM2: z.number().nullable(),
        whyNot: z.string().nullable(),
      }),
    ),
  }),
  run: (input) => {
    const { car, position } = openAt(input)
    const aero = stageAero(car, position)
    if (!aero)
      throw new CalculationError('missing', 'records.aeroDevices', 'No device is in the car at this stage and nothing was tested. Give the bare body at least.')
    const values = METRICS.map((key) => {
      const found = aeroValue(car, position, key)
      if (!found) return [key, null] as const
      const { value, sd, proof, fromPosition } = found
      return [key, { value, sd, proof, fromStageId: fromPosition === null ? null : (car.stages[fromPosition]?.id ?? null) }] as const
    })
    const unknown = [...new Set([...aero.drag.unknown, ...aero.loads.unknown])]
    return {
      value: {
        ...(Object.fromEntries(values) as Record<(typeof METRICS)[number], z.output<typeof metric>>),
        unknown,
        tests: carTests(car).map(({ id, drag, loads, whyNot }) => ({
          id,
          dragAreaM2: drag?.areaM2 ?? null,
          frontM2: loads?.frontM2 ?? null,
          rearM2: loads?.rearM2 ?? null,
          whyNot,
        })),
      },
      warnings: unknown.length > 0 ? [`Nobody knows what these do: ${unknown.join(', ')}.`] : [],
    }
  },
})
