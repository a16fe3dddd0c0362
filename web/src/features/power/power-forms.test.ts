import { type EnginePlan, type PullPlan, type QuantityKind, UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import type { StoredPart } from '../../shared/part-words.ts'
import { FormReader, type FormValues } from '../../ui/forms/form-reader.ts'
import { partBody, partDefaults } from '../parts/register/part-form.ts'
import { partsTable, readPartsCsv } from '../parts/register/parts-csv.ts'
import { clock, FIRST_HOURS, hoursForm } from './hours/hours-form.ts'
import { planForm } from './plan/plan-form.ts'

const reader = (values: FormValues, set: 'metric' | 'imperial' = 'metric') => new FormReader(values, UNIT_SETS[set] as Record<QuantityKind, string>, '.')

const PLAN: Omit<EnginePlan, 'id' | 'stageId'> = {
  target: { powerW: 290_000, place: 'wheel', typed: '290 kW' },
  engine: {
    displacementM3: 0.00249,
    cylinders: 5,
    strokes: 4,
    boreM: 0.0825,
    strokeM: 0.0932,
    rodM: 0.144,
    valvesPerCylinder: 4,
    compressionRatio: 8.9,
    redlineRpm: 7400,
    veCurve: [
      { speedRpm: 3000, volumetricEfficiency: 0.94 },
      { speedRpm: 6500, volumetricEfficiency: 1.04 },
    ],
  },
  air: {
    isBoosted: true,
    ambientPressurePa: 100_500,
    ambientTemperatureK: 295.15,
    beforeLossPa: 2000,
    afterLossPa: 9000,
    compressorEfficiency: 0.72,
    flowReference: '298 K, 100 kPa',
    coolerEffectiveness: 0.78,
    coolantTemperatureK: 298.15,
    intakeRiseK: 10,
  },
  burn: { bsfcKgPerJ: 430 / 3.6e9, lambda: 0.81, ethanolShare: 0.78, powerSpeedRpm: 6400, torqueRise: 1.12, heatSchool: 'shareOfFuel', coolantShare: 0.25 },
  injectors: { count: 5, ratedFlowM3PerS: 1000e-6 / 60, ratedPressurePa: 300_000, pressureDifferencePa: 300_000, dutyLimit: 0.85, deadTimeS: 0.0009 },
  pump: {
    count: 2,
    spareCount: 1,
    points: [
      { pressurePa: 300_000, flowM3PerS: 300 / 3.6e6, currentA: 11.5 },
      { pressurePa: 500_000, flowM3PerS: 265 / 3.6e6, currentA: null },
    ],
    basePressurePa: 300_000,
    lineLossPa: 20_000,
    margin: 0.2,
  },
}

/** Every number of two trees agrees to six digits, and everything else is the same. */
function expectClose(found: unknown, wanted: unknown, path = ''): void {
  if (wanted === 0) expect(found, path).toBe(0)
  else if (typeof wanted === 'number') expect((found as number) / wanted, path).toBeCloseTo(1, 5)
  else if (wanted && typeof wanted === 'object')
    for (const [key, value] of Object.entries(wanted)) expectClose((found as Record<string, unknown>)[key], value, `${path}.${key}`)
  else expect(found, path).toEqual(wanted)
}

describe('an engine plan in a form', () => {
  test.each(['metric', 'imperial'] as const)('is read back as it was, in %s units', (set) => {
    const read = reader(planForm.defaults(PLAN, UNIT_SETS[set]), set)
    const body = planForm.body(read)
    expect(read.errors).toEqual({})
    expectClose(body, PLAN)
  })
  it('without injectors and pumps has none', () => {
    const values = planForm.defaults({ ...PLAN, injectors: null, pump: null }, UNIT_SETS.metric)
    expect(planForm.body(reader(values))).toMatchObject({ injectors: null, pump: null })
  })
  test.each([
    ['engine-veCurve', '', /Give one point at least/],
    ['engine-veCurve', '6500 9.8', /from 0.2 to 1.6/],
    ['engine-veCurve', '6500', /needs 2 a line/],
    ['burn-ethanolShare', '140 %', /from 0 to 100 %/],
    ['injectors-dutyLimit', '0.85', /from 30 to 100 %/],
    ['engine-cylinders', '4.5', /whole number from 1 to 24/],
    ['pump-points', '300; 340; 12; 9', /needs 2 or 3/],
    ['burn-lambda', 'rich', /cannot be read/],
    ['burn-lambda', '3', /from 0.6 to 1.3/],
    ['engine-displacementM3', '40 L', /from 0 to 30 L/],
    ['engine-displacementM3', '0', /more than zero/],
    ['engine-boreM', '3 m', /from 0 to 300 mm/],
    ['pump-points', '9000; 340', /from 0 to 2000/],
  ])('refuses %s of "%s"', (field, text, sentence) => {
    const read = reader({ ...planForm.defaults(PLAN, UNIT_SETS.metric), [field]: text })
    planForm.body(read)
    expect(read.errors[field]).toMatch(sentence)
  })
})

const FIRST = hoursForm.defaults(FIRST_HOURS, UNIT_SETS.metric)

describe('hours in a form', () => {
  it('start with usual numbers, and are read back as they were', () => {
    const read = reader({ ...FIRST, changes: 'boost 120 kPa; 5; 4\ncams', pullSdW: '1.4 kW', 'stops-intakeOverK': '60' })
    const body = hoursForm.body(read) as never as PullPlan
    expect(read.errors).toEqual({})
    expect(body).toMatchObject({
      bookedS: 14_400,
      setUpS: 1800,
      pullS: 60,
      pullSdW: 1400,
      returnsToBase: true,
      stops: { intakeOverK: 333.15, lambdaOver: 0.9, knock: null },
    })
    expect(body.changes).toEqual([
      { name: 'boost 120 kPa', setUpS: 300, pulls: 4 },
      { name: 'cams', setUpS: 0, pulls: 3 },
    ])
    expectClose(hoursForm.body(reader(hoursForm.defaults(body, UNIT_SETS.metric))), body)
  })
  test.each([
    ['changes', 'boost; 5; many', /cannot be read/],
    ['bookedS', '40 h', /from 0 to 1440 min/],
    ['stops-headroomUnder', '95 %', /from 0 to 90 %/],
    ['basePulls', '0', /whole number from 1/],
  ])('refuse %s of "%s"', (field, text, sentence) => {
    const read = reader({ ...FIRST, [field]: text })
    hoursForm.body(read)
    expect(read.errors[field]).toMatch(sentence)
  })
  test.each([
    [0, '0:00'],
    [3900, '1:05'],
    [14_399, '4:00'],
  ])('%d s is %s', (seconds, text) => {
    expect(clock(seconds)).toBe(text)
  })
})

const TYPED: FormValues = {
  kind: 'injectors',
  fuelRole: 'injectors',
  name: 'four-hole',
  status: 'fitted',
  stage: '',
  count: '4',
  mass: '75 g catalogue',
  ratings: 'fuel flow 1000 cc/min each on petrol\nduty 85 %',
  drive: 'clutch; behind primary',
  fittedOn: '2026-03-08',
  orderedOn: '2026-02-10',
  promisedOn: '2026-02-24',
  cameOn: '2026-03-01',
  leadDays: '14',
  cost: '620',
  costKnown: 'catalogue',
  paid: '640.5',
  life: '40 hours',
  takeOffMinutes: '38',
  takeOffPeople: '2',
  behind: 'wing',
  tools: '32 mm hub socket',
  outer: '600 x 420 x 60',
  fixings: '6 bolts M8',
  extras: 'adapters; 0.2 kg; 60\nloom',
  pros: 'quiet',
  cons: '',
  serial: '=17',
  isShared: 'true',
  placeX: '400 mm',
  placeY: '0 mm',
  placeZ: '800 mm',
}
const OTHERS = [{ id: 'w', name: 'wing' }]
const part = (): StoredPart => ({ id: 'p', ...partBody(reader(TYPED), OTHERS) }) as never as StoredPart
const wing = (): StoredPart => ({ id: 'w', ...partBody(reader({ kind: 'wing', name: 'wing', status: 'fitted' }), []) }) as never as StoredPart
const stages = [{ id: 's0', position: 0, name: 'As bought', date: null, note: null }]

describe('a part in a form', () => {
  it('is read as it was typed, and shown so again', () => {
    const made = part()
    expect(made).toMatchObject({
      count: 4,
      mass: { massKg: 0.075, proof: 'catalogue' },
      life: { amount: 40, unit: 'hours' },
      extras: [
        { name: 'adapters', massKg: 0.2, cost: 60 },
        { name: 'loom', massKg: null, cost: null },
      ],
      ratings: [
        { of: 'fuelFlow', isEach: true, ethanolShare: 0 },
        { of: 'injectorDuty', limit: 0.85 },
      ],
      isShared: true,
      drive: { role: 'clutch', behindPrimary: true },
      fittedOn: '2026-03-08',
      orderedOn: '2026-02-10',
      promisedOn: '2026-02-24',
      cameOn: '2026-03-01',
      leadDays: 14,
      costKnown: 'catalogue',
      paid: 640.5,
      outer: { lengthM: 0.6, widthM: 0.42, heightM: 0.06 },
      takeOff: { minutes: 38, people: 2, behindIds: ['w'], tools: '32 mm hub socket', fixings: '6 bolts M8' },
      place: { xM: 0.4, yM: 0, zM: 0.8 },
    })
    expect(partDefaults(made, UNIT_SETS.metric, OTHERS)).toEqual(TYPED)
  })
  it('goes out as CSV and in again without loss', async () => {
    const table = partsTable([part(), wing()], stages, UNIT_SETS.metric)
    const { default: Papa } = await import('papaparse')
    const text = Papa.unparse([table.head as string[], ...table.rows.map((row) => row.map((cell) => cell ?? ''))] as string[][])
    const { rows, unknown } = await readPartsCsv(text, { units: UNIT_SETS.metric, decimalMark: '.', stages, parts: OTHERS })
    expect(unknown).toEqual([])
    expect(rows[0]?.refusal).toBeNull()
    // What comes off first is named, and is the part of that name in the same file.
    const { takeOff, ...others } = part()
    const read = rows[0]?.body as unknown as StoredPart
    expect(read.takeOff).toEqual({ ...takeOff, behindIds: [rows[1]?.body?.id] })
    expect({ ...read, id: 'p', takeOff: null }).toEqual({ ...others, takeOff: null })
  })
  test.each([
    ['kind,part\nclutch,', /Name is empty/],
    ['part,kind,ratings\na,clutch,torque 480', /does not say where/],
    ['part,kind,for the fuel\na,pump,pumping', /nothing a part does for the fuel/],
    ['part,kind,ratings\na,clutch,crank torque many', /cannot be read/],
    ['part,kind,stage\na,clutch,9', /no stage "9"/],
    ['part,kind,life\na,clutch,long', /Type a number and one of/],
    ['part,kind,cost\na,clutch,-5', /under zero/],
    ['part,kind,qty\na,clutch,2.5', /whole number/],
    ['part,kind,in the driveline\na,box,gearbox; gears 2 3', /must be smaller|ratios/],
    ['part,kind,driveline\na,wing,wing', /no role in the driveline/],
  ])('a row that cannot be read says why: %j', async (text, sentence) => {
    const { rows } = await readPartsCsv(text, { units: UNIT_SETS.metric, decimalMark: '.', stages, parts: OTHERS })
    expect(rows[0]).toMatchObject({ body: null, refusal: expect.stringMatching(sentence) })
  })
  it('needs columns for kind and part, and names those it does not know', async () => {
    await expect(readPartsCsv('a,b\n1,2', { units: UNIT_SETS.metric, decimalMark: '.', stages, parts: OTHERS })).rejects.toThrow(/“Kind” and one “Part”/)
    const { rows, unknown } = await readPartsCsv('Colour,part,KIND,stage\nred,a,clutch,as bought', {
      units: UNIT_SETS.metric,
      decimalMark: '.',
      stages,
      parts: OTHERS,
    })
    expect(unknown).toEqual(['Colour'])
    expect(rows[0]?.body).toMatchObject({ kind: 'clutch', stageId: 's0', status: 'wanted' })
  })
})
