import { describe, expect, it, test } from 'vitest'
import { coastFile } from './coast-file.ts'

const rowsOf = (text: string, mark = ',') => text.split('\n').map((line) => line.split(mark))

describe('a run out of a logger’s file', () => {
  it('is cut from its fastest to its slowest, before the car gains again', () => {
    const found = coastFile(rowsOf('time s,speed m/s\n0,30\n1,40\n2,50\n3,50\n4,45\n5,45.2\n6,40\n7,35\n8,36\n9,38'), ',', 'km/h')
    expect(found.run).toEqual({ timeS: [3, 4, 5, 6, 7], speedMps: [50, 45, 45.2, 40, 35] })
    expect(found).toMatchObject({ namedUnit: 'm/s', cutBeforeS: 3, cutAfterS: 2, timeHeading: 'time s', speedHeading: 'speed m/s' })
  })
  it('is read with lines before the heading, a line of units, decimal commas and other columns between', () => {
    const text = 'Session;north\nTime;Lap;GPS speed\ns;-;km/h\n0,0;1;180,0\n0,5;1;176,4\n0,5;1;176,4\n1,0;;172,8\n1,5;1;'
    const found = coastFile(rowsOf(text, ';'), ';', 'm/s')
    expect(found.run.timeS).toEqual([0, 0.5, 1])
    expect(found.run.speedMps.map((speed) => Number(speed.toFixed(9)))).toEqual([50, 49, 48])
    expect(found.namedUnit).toBe('km/h')
  })
  it('takes the given unit where the file names none, and milliseconds by their unit', () => {
    const found = coastFile(rowsOf('time (ms),speed\n0,50\n500,49'), ',', 'm/s')
    expect(found).toMatchObject({ run: { timeS: [0, 0.5], speedMps: [50, 49] }, namedUnit: null })
  })
  it('is read by what a person said of columns that nobody can guess, in the unit that was said; another file goes by its headings', () => {
    const told = [
      { heading: 'Chan 1', role: 'time', unit: 'ms' },
      { heading: 'Chan 2', role: 'wheelSpeed', unit: 'mph' },
    ]
    const found = coastFile(rowsOf('chan 1,Chan 2\n0,100\n500,90'), ',', 'km/h', told)
    expect(found.run.timeS).toEqual([0, 0.5])
    expect(found.run.speedMps[0]).toBeCloseTo(44.704, 9)
    expect(coastFile(rowsOf('time s,speed m/s\n0,50\n1,49'), ',', 'km/h', told).run.speedMps).toEqual([50, 49])
    // What is said to be something else is not taken for the speed that its heading names.
    expect(() => coastFile(rowsOf('time s,speed\n0,50\n1,49'), ',', 'km/h', [{ heading: 'speed', role: 'other', unit: '' }])).toThrow(/No line heads/)
  })
  test.each([
    ['no such columns', 'lap,rpm\n1,3000', 'missing', /No line heads a time and a speed. Found "lap", "rpm"/],
    ['speed in a unit nobody knows', 'time s,speed furlongs\n0,1', 'unknown-unit', /is in "furlongs"/],
    ['time in a unit nobody knows', 'time h,speed km/h\n0,1', 'unknown-unit', /is in "h"/],
    ['no numbers', 'time s,speed km/h\n,', 'missing', /holds a time and a speed/],
    ['words for numbers', 'time s,speed km/h\n0,fast', 'unreadable', /"fast" cannot be read/],
  ])('%s is refused in words', (_, text, code, message) => {
    expect(() => coastFile(rowsOf(text), ',', 'km/h')).toThrow(expect.objectContaining({ code, message: expect.stringMatching(message) }))
  })
})
