import { describe, expect, it, test } from 'vitest'
import { parseTimedLine } from './timed-line.ts'

const read = (text: string) => parseTimedLine(text, { decimalMark: '.', speedUnit: 'km/h' })

describe('a timed line', () => {
  test.each<[string, object]>([
    ['timed 0-100 4.83 beacon', { metric: 'zeroTo100', value: 4.83, sd: null, timing: 'beacon', surface: 'dry' }],
    ['60 ft 1.95 ± 0.02 gps damp', { metric: 'sixtyFoot', value: 1.95, sd: 0.02, timing: 'gps', surface: 'damp' }],
    ['0-60 mph 4.4', { metric: 'zeroTo60Mph', value: 4.4, timing: null }],
    ['quarter mile 12.9 watch', { metric: 'quarterMile', value: 12.9, timing: 'watch' }],
    ['100-200 11.2 s film', { metric: 'from100To200', value: 11.2, timing: 'film' }],
  ])('%s', (text, wanted) => expect(read(text)).toMatchObject(wanted))
  it('takes speeds in the picked unit, or the one that is typed', () => {
    expect(read('trap speed 180').value).toBeCloseTo(50, 9)
    expect(read('top speed 100 mph').value).toBeCloseTo(44.704, 6)
  })
  test.each<[string, RegExp]>([
    ['timed lap 90', /Begin with what was timed/],
    ['0-100', /Begin with what was timed/],
    ['0-100 fast', /cannot be read|number/i],
    ['0-100 0.2', /A time lies from 0\.5 to 120 s/],
    ['top speed 900', /A speed lies from 18 to 540 km\/h/],
  ])('%s is refused', (text, message) => expect(() => read(text)).toThrow(message))
})
