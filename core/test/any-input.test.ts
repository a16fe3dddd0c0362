import { describe, expect, it, test } from 'vitest'
import { CALCULATIONS, runCalculation, z } from '../src/index.ts'

// Every registered calculation under inputs that nobody should send: each leaf of its example at extremes, lists emptied or very long, keys it does not know.
const EXTREMES = [0, -0, 1, -1, 0.5, 25, 1e6, 1e30, -1e30, 1e-30, 5e-324, 1.7e308]
const LONG = 100_000
const LIMIT_MS = 2000
type Path = readonly (string | number)[]
type Schema = { type?: string; properties?: Record<string, Schema>; items?: Schema; anyOf?: Schema[]; additionalProperties?: Schema }

const at = (value: unknown, path: Path): unknown => path.reduce<unknown>((inner, key) => (inner as Record<string | number, unknown> | undefined)?.[key], value)

function put(value: unknown, path: Path, leaf: unknown): unknown {
  const copy = structuredClone(value)
  const holder = at(copy, path.slice(0, -1)) as Record<string | number, unknown>
  holder[path.at(-1) as string | number] = leaf
  return copy
}

function places(value: unknown, path: Path = []): Path[] {
  if (Array.isArray(value)) return [path, ...value.slice(0, 2).flatMap((item, i) => places(item, [...path, i]))]
  if (value !== null && typeof value === 'object') return Object.entries(value).flatMap(([key, item]) => places(item, [...path, key]))
  return [path]
}

function strangeInputs(example: unknown, schema: Schema): unknown[] {
  const inputs: unknown[] = [null, [], 'text', 7, {}, { ...(example as object), colour: 'red' }]
  for (const path of places(example)
    .filter((entry) => entry.length > 0)
    .slice(0, 60)) {
    const value = at(example, path)
    if (typeof value === 'number') inputs.push(...EXTREMES.map((extreme) => put(example, path, extreme)), put(example, path, 'ten'), put(example, path, null))
    if (!Array.isArray(value)) continue
    inputs.push(put(example, path, []), put(example, path, value.slice(0, 1)))
    if (value.length > 0) inputs.push(put(example, path, Array(LONG).fill(value[0])))
    if (typeof value[0] === 'number')
      inputs.push(
        put(
          example,
          path,
          value.map(() => 0),
        ),
      )
  }
  for (const [key, field] of Object.entries(schema.properties ?? {}))
    if (!(key in (example as object)) && (field.type === 'number' || field.type === 'integer'))
      inputs.push(...EXTREMES.map((extreme) => ({ ...(example as object), [key]: extreme })))
  return inputs
}

/** Whether a path leads to a field that the schema has; numbers are places in lists. */
function isField(schema: Schema | undefined, path: readonly string[]): boolean {
  const [head, ...rest] = path
  if (head === undefined) return true
  if (!schema) return false
  if (schema.anyOf) return schema.anyOf.some((option) => isField(option, path))
  if (/^\d+$/.test(head)) return isField(schema.items, rest)
  return isField(schema.properties?.[head] ?? schema.additionalProperties, rest)
}

const SCHEMA_WORDS = /Invalid|expected |received|Too (small|big)|Unrecognized|NaN|undefined|\[object/

describe.each(CALCULATIONS.filter(({ needsSolver }) => !needsSolver).map((calculation) => [calculation.name, calculation] as const))('%s', (_, calculation) => {
  const schema = z.toJSONSchema(calculation.input, { io: 'input' }) as Schema
  it('answers with finite numbers, or refuses in words with a field it has, in time', () => {
    for (const input of strangeInputs(calculation.example, schema)) {
      const begun = performance.now()
      const answer = runCalculation(calculation, input)
      const shown = JSON.stringify(input)?.slice(0, 200)
      expect(performance.now() - begun, shown).toBeLessThan(LIMIT_MS)
      if (answer.ok) {
        expect(calculation.output.safeParse(answer.value).success, shown).toBe(true)
        continue
      }
      const { field, message, code } = answer.error
      expect(code, shown).toMatch(/^[a-z-]+$/)
      expect(message, `${shown}: ${message}`).not.toMatch(SCHEMA_WORDS)
      expect(message, shown).toMatch(/[.?]$/)
      const isKnown = field === 'input' || message.includes('is not a field here') || isField(schema, field.replaceAll(/\[(\d+)\]/g, '.$1').split('.'))
      expect(isKnown, `${shown}: ${field}`).toBe(true)
    }
  })
})

test.each([
  ['air.density', { temperatureK: 25 }, 'temperatureK', /25 K is -248\.15 °C; 25 °C is 298\.15 K/],
  ['dyno.wheel-to-crank', { wheelPowerW: 300 }, 'wheelPowerW', /300 kW is 300000 W/],
  ['mass.corner-balance', { wheelbaseM: 2650 }, 'wheelbaseM', /2650 mm is 2\.65 m/],
] as const)('%s asks whether a slip of the unit is meant, and takes it if it is', (name, slip, field, message) => {
  const calculation = CALCULATIONS.find((entry) => entry.name === name)
  if (!calculation) throw new Error(name)
  const input = { ...(calculation.example as object), ...slip }
  expect(runCalculation(calculation, input)).toMatchObject({ ok: false, error: { code: 'implausible', field, message: expect.stringMatching(message) } })
  const meant = runCalculation(calculation, { ...input, asMeant: true })
  expect(meant.ok || meant.error.code !== 'implausible').toBe(true)
})

test.each([
  [
    'a part that comes off takes its yaw inertia along',
    'mass.combine',
    {
      parts: [
        { massKg: 1200, xM: 1, yM: 0, zM: 0, yawInertiaKgM2: 1308 },
        { massKg: -50, xM: 1, yM: 0, zM: 0, yawInertiaKgM2: 8 },
      ],
    },
    'yawInertiaKgM2',
    1300,
  ],
  [
    'a limit below the sweep is where its formula says',
    'engine.rating-chain',
    { targetPowerW: 300_000, demands: [{ kind: 'power', value: 300_000 }], ratings: [{ id: 'a', kind: 'power', limit: 15_000 }] },
    'headrooms.0.limitPowerW',
    15_000,
  ],
  [
    'a straight line through a wide window stays one',
    'dyno.smooth',
    { speedRpm: [0, 10_000], value: [0, 10_000], method: 'savitzkyGolay', windowRpm: 3510, order: 6, stepRpm: 10 },
    'value.500',
    5000,
  ],
] as const)('%s', (_, name, input, path, expected) => {
  const answer = runCalculation(CALCULATIONS.find((entry) => entry.name === name) as never, input)
  expect(answer.ok && Number(at(answer.value, path.split('.')))).toBeCloseTo(expected, 6)
})

test.each([
  ['a window wider than its series', 'dyno.smooth', { speedRpm: [3000, 3100, 3200], value: [1, 2, 3], method: 'movingAverage', windowRpm: 4000 }, 'windowRpm'],
  ['a band of values below zero', 'dyno.powerband', { speedRpm: [3000, 4000], value: [-1, -2] }, 'value'],
  ['a dead time without a speed', 'engine.injector', { deadTimeS: 0.001, speedRpm: undefined }, 'speedRpm'],
  ['air from above 11 km', 'air.density-altitude', { pressurePa: 15_000, temperatureK: 250 }, 'pressurePa'],
] as const)('%s is refused', (_, name, more, field) => {
  const calculation = CALCULATIONS.find((entry) => entry.name === name)
  if (!calculation) return
  const answer = runCalculation(calculation, { ...(calculation.example as object), ...more })
  expect(answer).toMatchObject({ ok: false, error: { field } })
})
