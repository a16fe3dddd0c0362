import { describe, expect, it } from 'vitest'
import { EXAMPLE_AIRFIELD } from '../calculations/examples/example-lap.ts'
import { EXAMPLE_RECORDS } from '../calculations/examples/example-records.ts'
import { buildRecordsSchema } from '../records/records.ts'
import { openCar } from '../stages/car.ts'
import { WAITING } from '../stages/stage-value.ts'
import { makeBoard } from './board.ts'
import { StageValues } from './stage-values.ts'
import { targetVerdict } from './verdict.ts'
import { makeWorking } from './working.ts'

const segments = EXAMPLE_AIRFIELD.segments.map(({ lengthM, curvaturePerM }) => ({ lengthM, curvaturePerM }))
const track = (id: string, name: string) => ({ id, name, segments })
const session = (id: string, trackId: string) => ({ id, stageId: 'bought', trackId, at: '2026-01-10T10:00:00Z', timing: 'beacon' })
const laps = (trackSessionId: string, times: readonly number[]) =>
  times.map((lapS, position) => ({ id: `${trackSessionId} ${position}`, trackSessionId, position, lapS }))
const target = (id: string, trackId: string | null, value: number) => ({
  id,
  metric: 'lapTime',
  sense: 'atMost',
  value,
  dueStageId: 'bought',
  trackId,
  typed: null,
})

/** Field is driven more often and so is the control track; the quarry is lapped too. */
const CAR = openCar(
  buildRecordsSchema.parse({
    ...EXAMPLE_RECORDS,
    tracks: [track('field', 'Field'), track('quarry', 'Quarry')],
    trackSessions: [session('a', 'field'), session('b', 'field'), session('c', 'quarry')],
    laps: [...laps('a', [96.2, 95.9, 96.4]), ...laps('b', [96.1, 96.0, 96.3]), ...laps('c', [71.4, 71.2, 71.6])],
    targets: [target('t1', 'field', 96.5), target('t2', 'quarry', 71), target('t3', null, 90)],
    limits: [],
  }),
  // Nothing of a later stage.
  { later: () => undefined },
)

describe('goals of laps', () => {
  const values = new StageValues(CAR)
  it('are held against the laps of their own track, and of the control track where they name none', () => {
    const words = values.targets.map((goal) => targetVerdict(values, goal, '2026-02-01')?.word)
    expect(words).toEqual(['met', 'missed', 'missed'])
    expect(values.value({ metric: 'lapTime', trackId: 'quarry' }, 0)?.value).toBeCloseTo(71.4, 1)
    expect(values.value('lapTime', 0)?.value).toBe(values.value({ metric: 'lapTime', trackId: 'field' }, 0)?.value)
  })
  it('have rows of their own on the Board, named by their track', () => {
    const rows = makeBoard(CAR, '2026-02-01').rows.filter(({ metric }) => metric === 'lapTime')
    expect(rows.map(({ place }) => place)).toEqual(['Field', 'Quarry', 'Field'])
    expect(rows.map(({ cells }) => cells[0]).map((cell) => (cell && cell !== WAITING ? Math.round(cell.value) : null))).toEqual([96, 71, 96])
    expect(makeWorking(CAR, 'target', 't2', '2026-02-01').title).toBe('Verdict on lap at Quarry: missed')
  })
  it('are asked for later by their track', () => {
    const asked: string[] = []
    const car = openCar(CAR.records, {
      later: (metric) => {
        asked.push(metric)
        return WAITING
      },
    })
    expect(new StageValues(car).isWaiting({ metric: 'lapTime', trackId: 'quarry' }, 1, 1)).toBe(true)
    expect(asked).toEqual(['lapTime quarry'])
  })
})
