import type { RoomTrackSession } from '@bold-ballast/core'

// A session of two laps for tests; invented numbers.
/** Its record. */
export const RECORD = {
  id: 's1',
  version: 3,
  stageId: 'now',
  trackId: 'field',
  at: '2026-10-10T09:40:00.000Z',
  kind: 'laps',
  driver: 'Wen',
  ambient: { pressurePa: 100_800, pressureKind: 'station', temperatureK: 284.15, relativeHumidity: 0.68 },
  trackK: 287.15,
  surface: 'dry',
  windMps: null,
  fuelStartL: 28,
  fuelEndL: 16,
  frontTyresPartId: null,
  rearTyresPartId: null,
  rearPairsUsed: null,
  turned: [{ what: 'rear bar', from: 'soft', to: 'middle' }],
  aim: 'a day',
  words: 'calm',
  ease: 4,
  corners: null,
  treadBy: 'probe',
  logger: 'recorded',
  timing: 'beacon',
  setAside: null,
} as unknown as RoomTrackSession['record']
/** A lap by its place and time. */
export const lap = (position: number, lapS: number, kind = 'clean') =>
  ({
    id: `l${position}`,
    version: 1,
    position,
    lapS,
    correctedS: lapS,
    sectorS: [],
    kind,
    isClean: kind === 'clean',
    setAside: null,
  }) as unknown as RoomTrackSession['laps'][number]
/** The session with some of it otherwise. */
export const session = (record: Partial<RoomTrackSession['record']> = {}, more: Partial<RoomTrackSession> = {}): RoomTrackSession => ({
  record: { ...RECORD, ...record },
  position: 2,
  trackName: 'Field',
  between: { sameDay: 0.0015, otherDay: 0.005, isOwn: { sameDay: false, otherDay: false } },
  laps: [lap(0, 84.9), lap(1, 85.2)],
  runs: [],
  logs: [],
  windows: [],
  value: null,
  whyNot: null,
  ...more,
})
