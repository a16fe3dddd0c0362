import { CalculationError, UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { FormReader, type FormValues } from '../../ui/forms/form-reader.ts'
import { readPeak } from './pulls/read-peak.ts'
import { nextSetting, sessionBody, whyUncounted } from './pulls/session-form.ts'

const base: FormValues = {
  dynoName: 'hall',
  at: '2026-06-14T10:00',
  stage: 's',
  place: 'hub',
  printedStandard: 'none',
  setting0name: 'spring',
  setting0control: 'gauge',
  setting0boost: '135 kPa',
}
const read = (more: FormValues, ids = ['a', 'b']) => {
  const reader = new FormReader({ ...base, ...more }, UNIT_SETS.metric, '.')
  return { body: sessionBody(reader, ids) as { settings: object[] }, errors: reader.errors }
}

describe('the settings of a session', () => {
  it('stand in their order, and one that is left empty is left out', () => {
    const { body, errors } = read(
      { setting1name: 'cams', setting1control: 'gauge', setting1boost: '1.5 bar', setting1nitrous: '50 kW', setting1wasSet: 'cams advanced' },
      ['a', 'b', 'c'],
    )
    expect(errors).toEqual({})
    expect(body.settings).toEqual([
      { id: 'a', name: 'spring', fuel: null, ethanolShare: null, boostControl: 'gauge', boostPa: 135_000, nitrousShot: null, wasSet: null },
      {
        id: 'b',
        name: 'cams',
        fuel: null,
        ethanolShare: null,
        boostControl: 'gauge',
        boostPa: 150_000,
        nitrousShot: { powerW: 50_000, typed: '50 kW' },
        wasSet: 'cams advanced',
      },
    ])
  })
  test.each<[string, FormValues, string, RegExp]>([
    ['a second without a name', { setting1boost: '1 bar', setting1control: 'gauge' }, 'setting1name', /has no name/],
    ['a boost held by nothing', { setting0control: 'none' }, 'setting0control', /held by nothing/],
    ['ethanol that is no share', { setting0ethanol: 'much' }, 'setting0ethanol', /cannot be read/],
  ])('refuse %s', (_, more, field, message) => expect(read(more).errors[field]).toMatch(message))
  it('begin with the fuel and the boost control of the one before', () => {
    expect(nextSetting(1, { setting0fuel: 'E85', setting0control: 'gauge' })).toEqual({ setting1fuel: 'E85', setting1ethanol: '', setting1control: 'gauge' })
  })
})

describe('a figure that would count nowhere', () => {
  const basis = { place: 'hub', standard: 'SAE J1349', boostSchool: 'none' } as const
  it('says so while it is typed, with the way out where there is one', () => {
    expect(whyUncounted({ place: 'hub', printedStandard: 'STD J607' }, { powerBasis: basis })).toMatchObject({ isMended: true })
    expect(whyUncounted({ place: 'roller', printedStandard: 'SAE J1349' }, { powerBasis: basis })).toMatchObject({ isMended: false })
    expect(whyUncounted({ place: 'hub', printedStandard: 'STD J607', pressure: '100 kPa' }, { powerBasis: basis })).toBeNull()
    // A turbo whose correction cannot be redone without air counts nowhere either.
    const boosted = { place: 'hub', printedStandard: 'SAE J1349', setting0control: 'gauge' }
    expect(whyUncounted(boosted, { powerBasis: basis })).toMatchObject({ isMended: true, why: expect.stringMatching(/under boost/) })
    expect(whyUncounted({ place: 'hub', printedStandard: 'STD J607' }, { powerBasis: { ...basis, standard: 'asPrinted' } })).toBeNull()
  })
})

describe('a peak alone, as it is read aloud', () => {
  test.each([
    ['300', 300_000, null],
    ['650 hp at 6500 rpm', 650 * 745.699871582, 6500],
    ['410 PS @ 7000', 410 * 735.49875, 7000],
  ])('"%s"', (text, watts, rpm) => {
    const peak = readPeak(text, UNIT_SETS.metric, '.')
    expect(peak).toEqual({ peakPowerW: expect.closeTo(watts, 3), peakPowerSpeedRpm: rpm, peakTorqueNm: null })
  })
  test.each(['', 'a lot', '0 kW', '-5 kW', '300 kW at 0', '300 furlong'])('"%s" is refused in words', (text) => {
    const peak = readPeak(text, UNIT_SETS.metric, '.')
    expect(peak).toBeInstanceOf(CalculationError)
    expect((peak as CalculationError).message).toMatch(/\.$/)
  })
})
