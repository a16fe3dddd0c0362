import { describe, expect, it, test } from 'vitest'
import { CalculationError } from '../../errors.ts'
import { parseTrackText, trackText } from './track-text.ts'

describe('a track in words', () => {
  it('is drawn, and told again as it was', () => {
    const text = '221.7\nleft 75 26\nright 75 52\nright 40 95 spiral 18 grade -3\n50 grade 2'
    const segments = parseTrackText(text, '.')
    expect(segments.length).toBe(7)
    expect(segments[2]?.curvaturePerM).toBeCloseTo(-1 / 75, 12)
    // A corner with spirals turns by its degrees in all.
    const turn = segments
      .slice(3, 6)
      .reduce((sum, { lengthM, curvaturePerM, endCurvaturePerM }) => sum + (lengthM * (curvaturePerM + (endCurvaturePerM ?? curvaturePerM))) / 2, 0)
    expect((turn * 180) / Math.PI).toBeCloseTo(-95, 9)
    expect(trackText(segments)).toBe(text)
    expect(parseTrackText('-75 52', '.')[0]?.curvaturePerM).toBeLessThan(0)
  })
  test.each([
    ['left 75', /no degrees/],
    ['left 2 90', /radius is 5/],
    ['left 30 20 spiral 40', /longer than the corner/],
    ['100 slope 3', /cannot be read/],
    ['', /Draw a piece/],
    ['-5', /give it a length/],
  ])('refuses %s', (text, words) => {
    expect(() => parseTrackText(text, '.')).toThrow(words)
    expect(() => parseTrackText(text, '.')).toThrow(CalculationError)
  })
})
