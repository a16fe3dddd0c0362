import { describe, expect, it, test } from 'vitest'
import { driveLineParts, driveLineWords, parseDriveLine } from './drive-line.ts'

describe('a line that says a driveline', () => {
  it('is read whole, in any order, by ratio or teeth, code or roll-out', () => {
    const line = parseDriveLine('red 7200 gears 3.36 2.07 1.43 1.13 .93 final 41/11 tyre 245/40R17 shift .3 s launch 4500 rpm diff welded lock 41°', '.')
    expect(line).toMatchObject({ gearbox: { ratios: [3.36, 2.07, 1.43, 1.13, 0.93], shiftS: 0.3 }, topRpm: 7200, launchRpm: 4500, differential: 'welded' })
    expect(line.finalDrive?.ratio).toBeCloseTo(41 / 11, 12)
    expect(line.tyres).toEqual([{ axle: 'both', code: '245/40R17', circumferenceM: null }])
    expect(((line.lockRad ?? 0) * 180) / Math.PI).toBeCloseTo(41, 9)
    expect(driveLineWords(line)).toContain('final 3.727 (41/11)')
  })
  it('takes each axle by itself and a decimal comma', () => {
    const line = parseDriveLine('rear tyre 1962 mm front tyre 225/45R17 final 4,1', ',')
    expect(line.tyres).toEqual([
      { axle: 'rear', code: null, circumferenceM: 1.962 },
      { axle: 'front', code: '225/45R17', circumferenceM: null },
    ])
    expect(line.finalDrive?.ratio).toBeCloseTo(4.1, 12)
  })
  it('alters only what it says of a gearbox that stands there', () => {
    const standing = { role: 'gearbox', ratios: [3.4, 2], primaryRatio: 1.6, style: 'paddle', shiftS: 0.05, efficiency: 0.97, known: 'measured' } as const
    const [part] = driveLineParts(parseDriveLine('shift 0.1', '.'), { ...standing, ratios: [...standing.ratios] })
    expect(part?.drive).toEqual({ ...standing, shiftS: 0.1 })
  })
  test.each<[string, RegExp]>([
    ['gears 3.36 2.07 2.43', /Third \(2\.43\) must be smaller than second \(2\.07\)/],
    ['gears 3.36 0', /Second \(0\)/],
    ['tyre 225/5R17', /An aspect of 5 is no tyre/],
    ['final 12', /A final drive of 12 is none/],
    ['final', /Nothing stands behind “final”/],
    ['red 7000 launch 7200', /The launch lies at the redline/],
    ['diff magic', /no differential here/],
    ['five gears', /Begin with one of/],
    ['', /Begin with one of/],
    ['lock 3', /6 to 80 degrees/],
    ['tyre 4 m', /roll-out over one turn/],
  ])('%s is refused', (text, message) => expect(() => parseDriveLine(text, '.')).toThrow(message))
  it('a shift alone needs gears that stand there', () =>
    expect(() => driveLineParts(parseDriveLine('shift 0.1', '.'), null)).toThrow(/No gears stand there yet/))
})
