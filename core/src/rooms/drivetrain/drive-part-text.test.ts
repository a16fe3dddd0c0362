import { readFileSync } from 'node:fs'
import { describe, expect, it, test } from 'vitest'
import { DRIVE_ROLES, type PartDrive, partDriveSchema } from '../../records/drive-schemas.ts'
import { drivePartText, parseDrivePart } from './drive-part-text.ts'

const WHOLE: readonly PartDrive[] = [
  { role: 'gearbox', ratios: [3.4, 2.08, 1.46], primaryRatio: 1.6, style: 'sequential', shiftS: 0.12, efficiency: 0.97, known: 'measured' },
  {
    role: 'finalDrive',
    ratio: 41 / 11,
    teeth: { driven: 41, driving: 11 },
    pairs: [
      { first: 19, second: 23 },
      { first: 23, second: 19 },
    ],
  },
  { role: 'differential', axle: 'centre', kind: 'plate', biasRatio: 2.2, rearTorqueShare: 0.6, preloadNm: 80, rampsRad: [Math.PI / 4, Math.PI / 3] },
  {
    role: 'tyre',
    axle: 'rear',
    code: '245/40R17',
    circumferenceM: 1.962,
    circumferenceSdM: 0.003,
    construction: 'bias',
    class: 'soft',
    slideShare: 0.8,
    wheelInertiaKgM2: 0.9,
    madeFor: 'wet',
    hotPa: { front: 198_000, rear: 186_000 },
    warmUpLaps: 4,
    windowK: { least: 343, most: 373 },
    friction: { school: 'loadSensitive', peak: 1.25, sd: 0.07, known: 'measured', sensitivity: 0.12, referenceLoadN: 3500 },
  },
  { role: 'clutch', behindPrimary: true },
  { role: 'propShaft' },
  { role: 'halfShaft', axle: 'front' },
  { role: 'gear', number: 5 },
  { role: 'steering', lockRad: (41 * Math.PI) / 180 },
  { role: 'wheel', axle: 'both', widthM: 0.229, offsetM: -0.012, spacerM: 0.005, boltCount: 5, boltCircleM: 0.1143 },
]

const close = (value: unknown) => JSON.parse(JSON.stringify(value, (_, each) => (typeof each === 'number' ? Number(each.toPrecision(8)) : each)))

describe('what a part does in the driveline, as one line', () => {
  it('knows every role', () => expect(WHOLE.map(({ role }) => role)).toEqual([...DRIVE_ROLES]))
  test.each(WHOLE.map((drive) => [drive.role, drive] as const))('%s comes back as it was', (_, drive) =>
    expect(close(parseDrivePart(drivePartText(drive), '.'))).toEqual(close(drive)),
  )
  test.each(['gannet', 'osprey', 'petrel'])('so does every part of %s', (name) => {
    const file = JSON.parse(readFileSync(new URL(`../../../../demo/${name}/build.json`, import.meta.url), 'utf8')) as { parts: { drive?: PartDrive | null }[] }
    for (const { drive } of file.parts)
      if (drive) expect(close(parseDrivePart(drivePartText(partDriveSchema.parse(drive)), '.'))).toEqual(close(partDriveSchema.parse(drive)))
  })
  test.each<[string, RegExp]>([
    ['wing', /is no role in the driveline\. Begin with one of: gearbox/],
    ['gearbox; colour red', /says nothing of a gearbox\. Use: gears/],
    ['gearbox', /gearbox: gears is missing/],
    ['gearbox; gears', /Nothing stands behind “gears”/],
    ['final drive; ratio 4; teeth 41-11', /is no pair of teeth/],
    ['differential; kind magic', /kind is none of open, plate, helical, welded/],
    ['gear; number 12', /number is too large/],
    ['tyre; code 245/40R17; grip 4', /grip is too large/],
  ])('%s is refused', (text, message) => expect(() => parseDrivePart(text, '.')).toThrow(message))
})
