import { type AeroRoom, type AeroRoomStage, aeroTotals, USUAL_AERO_BASIS } from '@bold-ballast/core'
import { describe, expect, it } from 'vitest'
import { aeroNews } from './news.ts'
import { totalsBasis } from './tab-props.ts'
import { boxVerdicts } from './verdicts.ts'

describe('what the room says', () => {
  const box = { xFrontM: -0.7, xRearM: -0.4, yInnerM: 0.6, yOuterM: 0.905, zBottomM: 0.3, zTopM: 0.4 }
  const force = { form: 'axles' as const, frontM2: 0.3, frontSdM2: 0.02, rearM2: 0.5, rearSdM2: 0.02, dragM2: 0.7, dragSdM2: 0.02 }
  const notch = (id: string, more: object = {}) => ({
    id,
    name: id,
    angleRad: null,
    force,
    countsAsNothing: false,
    proof: 'guess',
    how: null,
    box,
    stallChance: null,
    isEstimate: false,
    ...more,
  })
  const device = (kind: string, name: string, notches: object[]) => ({
    id: name,
    version: 1,
    kind,
    name,
    changeId: null,
    notches,
    picked: (notches[0] as { id: string }).id,
    wing: null,
    splitter: null,
  })
  const OUTLINE = { frontOverhangM: 0.9, rearOverhangM: 1, bodyWidthM: 1.74, roofHeightM: 1.43 }
  const stage = (devices: object[], more: object = {}) =>
    ({
      devices,
      wheelbaseM: 2.65,
      frontShare: { value: 0.61, sd: 0.01, proof: 'measured' },
      limits: [{ id: 'l', metric: 'reachSide', sense: 'atMost', value: 0.02 }],
      taped: {},
      mounts: [],
      panels: [],
      outline: OUTLINE,
      ...more,
    }) as unknown as AeroRoomStage
  const room = { basis: USUAL_AERO_BASIS } as unknown as AeroRoom
  const text = (_: string, value: number) => `${(1000 * value).toFixed(0)} mm`
  const say = (made: AeroRoomStage, picks = {}) =>
    aeroNews(made, aeroTotals(made.devices, picks, totalsBasis(made, room)), boxVerdicts(made, made.outline, picks), text as never)
  it('the worst limit, then where downforce acts against the weight', () => {
    const made = stage([
      device('body', 'body', [notch('b', { box: null })]),
      device('canards', 'canards', [notch('wide'), notch('narrow', { box: { ...box, yOuterM: 0.88 } })]),
    ])
    expect(say(made)).toMatch(/^Canards 35 mm too wide|^Canards 15 mm too wide; downforce acts 24 points behind the weight$/)
    expect(say(made, { canards: 'narrow' })).toMatch(/^Downforce acts \d+ points behind the weight$/)
    const [verdict] = boxVerdicts(made, made.outline, {})
    expect(verdict).toMatchObject({ margin: -0.015, name: 'canards', others: [{ device: 'canards', notch: 'narrow', breaks: false }] })
  })
  it('a tape stands before the boxes, as long as the notches are those of the car', () => {
    const made = stage([device('body', 'body', [notch('b')]), device('canards', 'canards', [notch('wide'), notch('narrow')])], {
      taped: { reachSide: { value: 0.018, sd: 0.002, proof: 'measured' } },
    })
    expect(boxVerdicts(made, made.outline, {})[0]).toMatchObject({ value: 0.018, isTaped: true, margin: 0.002 })
    expect(boxVerdicts(made, made.outline, { canards: 'narrow' })[0]?.isTaped).toBe(false)
  })
  it('says what is not known: a device, the bare body, an outline', () => {
    expect(say(stage([device('body', 'body', [notch('b')]), device('floor', 'floor', [notch('f', { force: null, proof: null })])]))).toMatch(
      /nobody knows what floor does/i,
    )
    expect(say(stage([device('splitter', 'lip', [notch('l')])], { limits: [] }))).toMatch(/bare body is not known/)
    expect(say(stage([]))).toBe('No device is in the car at this stage')
  })
  it('where no limit is broken, what of the mounts can hurt somebody, the worst first', () => {
    const held = (name: string, more: object) => ({ name, use: null, lacksMount: false, lacksSecond: false, mount: { carriedBy: 'lid' }, ...more })
    const made = (...mounts: object[]) => stage([device('body', 'body', [notch('b')])], { limits: [], mounts })
    expect(say(made(held('wing', { lacksSecond: true })))).toMatch(/^Wing stands on a lid and has no tether; downforce acts/)
    expect(say(made(held('wing', { lacksSecond: true }), held('lip', { use: 1.2 })))).toMatch(/^The mount of lip carries more than it is rated for/)
    expect(say(made(held('lip', { lacksMount: true, mount: null })))).toMatch(/^Nobody said how lip is held/)
    expect(say(made(held('wing', {})))).toMatch(/^Downforce acts/)
  })
  it('after the mounts, a chosen panel that does not hold; a kerb alone is no news', () => {
    const kept = (faults: string[], isChosen = true) => ({ panel: { isChosen }, deviceName: 'splitter', faults })
    const made = (...panels: object[]) => stage([device('body', 'body', [notch('b')])], { limits: [], panels })
    expect(say(made(kept(['standing', 'kerb'])))).toMatch(/^The panel of splitter holds nobody on its edge; downforce acts/)
    expect(say(made(kept(['rods'])))).toMatch(/^The panel of splitter asks more of its rods/)
    expect(say(made(kept(['kerb']), kept(['air'], false)))).toMatch(/^Downforce acts/)
  })
})
