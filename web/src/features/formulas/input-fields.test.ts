import { CALCULATIONS, describeCalculation, findCalculation, highsSolver, parseNumber, runCalculation } from '@bold-ballast/core'
import loadHighs from 'highs'
import { describe, expect, it, test } from 'vitest'
import { answerRows, fieldTitle, type InputSchema, inputFields, readInput } from './input-fields.ts'

const tools = { solveMilp: highsSolver(await loadHighs()) }
const number = (text: string, field: string) => parseNumber(text, '.', field)
const fieldsOf = (name: string) => {
  const calculation = findCalculation(name)
  if (!calculation) throw new Error(name)
  return inputFields(describeCalculation(calculation).input as InputSchema, calculation.example)
}
const filled = (fields: ReturnType<typeof inputFields>) => Object.fromEntries(fields.map((field) => [field.path.join('.'), field.shown]))

describe.each(CALCULATIONS.map((calculation) => [calculation.name, calculation] as const))('the form of %s', (name, calculation) => {
  it('starts with an example that works, and gives the same as the example itself', () => {
    const fields = fieldsOf(name)
    const { input, errors } = readInput(fields, filled(fields), number)
    expect(errors).toEqual({})
    const answer = runCalculation(calculation, input, tools)
    expect(answer, JSON.stringify(answer).slice(0, 300)).toMatchObject({ ok: true })
    expect(answer).toEqual(runCalculation(calculation, calculation.example, tools))
  })
  it('says where it holds and where it comes from', () => {
    expect(calculation.validRange.length).toBeGreaterThan(5)
    expect(calculation.sources.length).toBeGreaterThan(0)
  })
})

describe('reading a form', () => {
  it('names each field that cannot be read', () => {
    const fields = fieldsOf('mass.forecast')
    const { errors } = readInput(fields, { ...filled(fields), knownKg: '', parts: '[{', limitKg: 'much' }, number)
    expect(errors).toEqual({
      knownKg: 'knownKg is empty. Type it.',
      parts: expect.stringMatching(/is not JSON/),
      limitKg: expect.stringMatching(/cannot be read as a number/),
    })
  })
  test.each([
    [['pressurePa'], 'pressure, Pa'],
    [['pads', 'LF', 'massKg'], 'pads LF mass, kg'],
    [['speedRpm'], 'speed, rpm'],
    [['wheelRateNPerM', 'LF'], 'wheel rate LF, N/m'],
    [['cornersKg', 'RR'], 'corners RR, kg'],
    [['turns', 'LR'], 'turns LR'],
    [['ratedFlowM3PerS'], 'rated flow, m³/s'],
    [['bsfcKgPerJ'], 'bsfc, kg/J'],
    [['heatingValueJPerKg'], 'heating value, J/kg'],
    [['topAccelerationMps2'], 'top acceleration, m/s²'],
    [['displacementM3'], 'displacement, m³'],
    [['mountLoadN'], 'mount load, N'],
    [['wattPerKg'], 'watt, per kg'],
    [['frontShare'], 'front share, 0 to 1'],
    [['relativeHumidity'], 'relative humidity, 0 to 1'],
    [['boostSchool'], 'boost school'],
  ])('%j is titled %j', (path, title) => {
    expect(fieldTitle(path)).toBe(title)
  })
  it('shows an answer row by row', () => {
    expect(answerRows({ densityKgM3: 1.2, figures: null, parts: [{ massKg: 2 }] })).toEqual([
      { name: 'density, kg/m³', value: 1.2 },
      { name: 'figures', value: 'none' },
      { name: 'parts 1 mass, kg', value: 2 },
    ])
  })
})
