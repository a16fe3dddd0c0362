import { CalculationError } from '../errors.ts'
import { lapAtStage } from '../rooms/track/stage-lap.ts'
import { controlTrack } from '../rooms/track/track-sessions.ts'
import { z } from '../zod.ts'
import { openAt, proofField, stageInput } from './build.ts'
import { PRACTICE } from './drive-fields.ts'
import { EXAMPLE_RING } from './examples/example-lap.ts'
import { EXAMPLE_RECORDS } from './examples/example-records.ts'
import { defineCalculation } from './registry.ts'

/** The example build with an oval and a session on it; invented. */
const DRIVEN: typeof EXAMPLE_RECORDS = {
  ...EXAMPLE_RECORDS,
  tracks: [{ id: 'oval', name: 'Oval', segments: EXAMPLE_RING.segments.map(({ lengthM, curvaturePerM }) => ({ lengthM, curvaturePerM })) }],
}

export const lapAtStageCalculation = defineCalculation({
  name: 'build.lap-at-stage',
  title: 'The lap of a car at a stage on its control track',
  formula: 'T(n) = driven at n; else driven at k + model at n − model at k with the grip fitted at k; else a guess',
  sources: ['The rules of the build’s records', `The model is off by a fifth of the change (${PRACTICE})`],
  assumptions: [
    'Not in it: bars, springs, dampers, kerbs, heat and wear of tyres, the line; all of that is in the fitted grip',
    'Another tyre takes the ratio of frictions',
    'A session stands for the car of its day',
  ],
  validRange: 'A build with a track, mass, axle loads and power; without a driven lap a range in whole seconds',
  schools: ['Sessions by their best clean lap, or by the median of their clean laps'],
  example: { records: DRIVEN, stageId: 'strip' },
  input: stageInput,
  output: z.strictObject({
    trackName: z.string(),
    lapS: z.number(),
    sdS: z.number(),
    proof: proofField,
    how: z.enum(['driven', 'fitted', 'guess']),
    fromStageId: z.string().nullable(),
    gripFactor: z.number().nullable(),
    doubts: z.array(z.strictObject({ key: z.string(), isGuess: z.boolean(), aloneS: z.number(), leftS: z.number() })),
  }),
  isLong: true,
  run: (input) => {
    const { car, position } = openAt(input)
    const track = controlTrack(car)
    if (!track) throw new CalculationError('missing', 'records.tracks', 'The build has no track. Draw one, or import a trace.')
    const lap = lapAtStage(car, position)
    if (!lap)
      throw new CalculationError('missing', 'records', 'No lap of this stage: it needs mass, axle loads and power, or a session that was driven with it.')
    return {
      value: {
        trackName: track.name,
        lapS: lap.lapS,
        sdS: lap.sdS,
        proof: lap.proof,
        how: lap.how,
        fromStageId: lap.fromPosition === null ? null : (car.stages[lap.fromPosition]?.id ?? null),
        gripFactor: lap.fit?.gripFactor ?? null,
        doubts: [...lap.doubts],
      },
      warnings: lap.how === 'guess' ? ['Nothing was driven: a range in whole seconds, no lap time.'] : [],
    }
  },
})
