import { centreOfMass, combineMasses } from '../mass/centre-of-mass.ts'
import { centreOfMassHeight } from '../mass/centre-of-mass-height.ts'
import { cornerFigures, knownWithOneDeadPad, missingPads, missingPadsSentence, type Pads } from '../mass/corners.ts'
import { FLOOR_SENTENCE, floorFigures, joinPlacements } from '../mass/placements.ts'
import { cornerWarnings } from '../rooms/weight/weight-room.ts'
import { z } from '../zod.ts'
import { defineCalculation } from './registry.ts'

const pad = z.strictObject({ massKg: z.number().nonnegative(), sdKg: z.number().nonnegative().default(0.5) }).nullable()
const padsSchema = z.strictObject({ LF: pad, RF: pad, LR: pad, RR: pad })
const withSpread = z.strictObject({ value: z.number(), sd: z.number() })
const figuresSchema = z.strictObject({
  totalKg: withSpread,
  frontShare: withSpread,
  leftShare: withSpread,
  crossShareRfLr: withSpread,
  crossShareLfRr: withSpread,
  wedgeKg: withSpread,
})
const knownSchema = z.array(z.strictObject({ label: z.string(), massKg: z.number(), sdKg: z.number() }))

const cornersCalculation = defineCalculation({
  name: 'mass.corners',
  title: 'Total and shares from four pads',
  formula: 'W = ΣW_i; S = Σ_in W_i/W; u_S = √((1 − S)² Σ_in u² + S² Σ_out u²)/W',
  sources: ['First-order propagation, closed form', 'Cross conventions: common practice, no source; both diagonals are named'],
  assumptions: [
    'Spread of a pad where none is given: 0.5 kg (common practice, no source)',
    'Pads level; a corner out of level acts as a perch change and usually exceeds pad accuracy',
    'A second placement on blocks carries ±k h/4 to each corner: give it as blockSpreadKg and do not set cross by it',
    'With the other axle on the bare floor (otherAxleOnFloor) only total and front share are known, with the tilt in their spread',
  ],
  validRange: 'Pads above zero; a total outside 300 to 3 000 kg is kept with a warning',
  schools: ['Cross as right front and left rear, or as left front and right rear: both are given'],
  example: { pads: { LF: { massKg: 322.5 }, RF: { massKg: 311 }, LR: { massKg: 286.5 }, RR: { massKg: 275 } } },
  input: z.strictObject({
    pads: padsSchema,
    secondPlacement: padsSchema.optional(),
    blockSpreadKg: z.number().nonnegative().default(0),
    otherAxleOnFloor: z.strictObject({ padHeightM: z.number(), wheelbaseM: z.number(), centreAboveAxlesM: z.number().optional() }).optional(),
  }),
  output: z.strictObject({
    figures: figuresSchema.nullable(),
    onFloor: z.strictObject({ totalKg: withSpread, frontShare: withSpread, tiltKg: z.number() }).nullable(),
    known: knownSchema,
    refusal: z.string().nullable(),
  }),
  run: ({ pads, secondPlacement, blockSpreadKg, otherAxleOnFloor }) => {
    const joined: Pads = secondPlacement ? joinPlacements(pads, secondPlacement, otherAxleOnFloor ? 0 : blockSpreadKg) : pads
    const missing = missingPads(joined)
    if (missing.length === 1) return { value: { figures: null, onFloor: null, known: knownWithOneDeadPad(joined), refusal: missingPadsSentence(missing) } }
    if (otherAxleOnFloor) return { value: { figures: null, onFloor: floorFigures({ pads: joined, ...otherAxleOnFloor }), known: [], refusal: FLOOR_SENTENCE } }
    const figures = cornerFigures(joined)
    return { value: { figures, onFloor: null, known: [], refusal: null }, warnings: cornerWarnings(figures) }
  },
})

const centreOfMassCalculation = defineCalculation({
  name: 'mass.centre-of-mass',
  title: 'Centre of mass in plan',
  formula: 'a = L W_rear/W; y = (t_f (LF − RF) + t_r (LR − RR))/(2W)',
  sources: ['Moments, closed form'],
  assumptions: ['Tracks between contact centres', 'x rearward of the front axle, y to the left'],
  validRange: 'Four pads read, wheelbase and tracks above zero',
  schools: [],
  example: {
    pads: { LF: { massKg: 322.5 }, RF: { massKg: 311 }, LR: { massKg: 286.5 }, RR: { massKg: 275 } },
    wheelbaseM: 2.65,
    trackFrontM: 1.53,
    trackRearM: 1.515,
  },
  input: z.strictObject({ pads: padsSchema, wheelbaseM: z.number(), trackFrontM: z.number(), trackRearM: z.number() }),
  output: z.strictObject({ behindFrontAxleM: withSpread, leftOfMiddleM: withSpread }),
  run: (input) => ({ value: centreOfMass(input) }),
})

const centreHeightCalculation = defineCalculation({
  name: 'mass.centre-of-mass-height',
  title: 'Height of the centre of mass by lifting an axle',
  formula: 'sin θ = (r_r − r_f + H)/D; W_r/W = (s − q tan θ)/D; h = r_f + s sin θ₀ + q cos θ₀; u_h² = u_r² + (D √2 u_W/(W tan θ))² + (q u_θ/(sin θ cos θ))²',
  sources: ['Moments about the front contact in both attitudes, closed form; several lifts by a straight line of W_r/W on tan θ'],
  assumptions: [
    'Wheels free to roll, suspension locked at ride height, tanks full or empty, everything tied down',
    'Loaded tyre radii; the axle distance is between wheel centres',
    'Chocks at the axle on the ground, nobody under the car, straps to a lift: follow your event’s rules and qualified people',
  ],
  validRange: 'A lift over 5 % of the wheelbase; under 15 % it warns',
  schools: [],
  example: {
    totalKg: 1180,
    rearAxleKg: 569.3385,
    lifts: [{ lifted: 'rear', liftM: 0.55, rearAxleKg: 551.7351 }],
    wheelbaseM: 2.57,
    radiusFrontM: 0.305,
    radiusRearM: 0.305,
  },
  input: z.strictObject({
    totalKg: z.number(),
    rearAxleKg: z.number(),
    lifts: z
      .array(z.strictObject({ lifted: z.enum(['rear', 'front']), liftM: z.number(), rearAxleKg: z.number() }))
      .min(1)
      .max(20),
    wheelbaseM: z.number(),
    radiusFrontM: z.number(),
    radiusRearM: z.number(),
    axleSdKg: z.number().nonnegative().optional(),
    liftSdM: z.number().nonnegative().optional(),
    radiusSdM: z.number().nonnegative().optional(),
  }),
  output: z.strictObject({
    heightM: z.number(),
    sdM: z.number(),
    sdByLift: z.array(z.strictObject({ liftM: z.number(), sdM: z.number() })),
  }),
  run: (input) => {
    const { warnings, heightM, sdM, sdByLift } = centreOfMassHeight(input)
    return { value: { heightM, sdM, sdByLift: [...sdByLift] }, warnings }
  },
})

const combineCalculation = defineCalculation({
  name: 'mass.combine',
  title: 'Parts put together',
  formula: 'x̄ = Σmx/Σm; I_zz = Σ(I_k + m_k((x_k − x̄)² + (y_k − ȳ)²)); a part taken off has a negative mass',
  sources: ['Parallel axis theorem, closed form'],
  assumptions: ['Parts without a place count in the mass and are left out of the centre; their share is stated'],
  validRange: 'Masses other than zero; what comes off is given below zero',
  schools: [],
  example: {
    parts: [
      { massKg: 1180, xM: 1.2, yM: 0, zM: 0.48 },
      { massKg: 24, xM: 2.4, yM: 0, zM: 0.3 },
    ],
  },
  input: z.strictObject({
    parts: z
      .array(
        z.strictObject({
          massKg: z.number(),
          xM: z.number().optional(),
          yM: z.number().optional(),
          zM: z.number().optional(),
          yawInertiaKgM2: z.number().nonnegative().optional(),
        }),
      )
      .max(10_000),
  }),
  output: z.strictObject({ massKg: z.number(), xM: z.number(), yM: z.number(), zM: z.number(), yawInertiaKgM2: z.number(), unplacedShare: z.number() }),
  run: ({ parts }) => ({ value: combineMasses(parts) }),
})

export const CENTRE_CALCULATIONS = [cornersCalculation, centreOfMassCalculation, centreHeightCalculation, combineCalculation]
