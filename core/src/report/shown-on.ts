import { METRIC_INFO } from '../board/metrics.ts'
import type { Metric } from '../records/metric-keys.ts'
import type { BuildRecords } from '../records/records.ts'

interface Taken {
  readonly stageId: string
  readonly at: string
}

/** The measurements of each base, by the key of the measurement; what was set aside does not count. */
const TAKEN: Readonly<Record<string, (records: BuildRecords, metric: Metric) => readonly Taken[]>> = {
  mass: ({ weighings }) => weighings,
  power: ({ sessions }) => sessions,
  timed: readingsOf,
  tape: readingsOf,
  coastDown: ({ aeroTests }) => aeroTests.filter(({ kind, setAside }) => kind === 'coastDown' && setAside === null),
  load: ({ aeroTests }) => aeroTests.filter(({ kind, setAside }) => kind === 'steady' && setAside === null),
  laps: ({ trackSessions }) => trackSessions.filter(({ kind }) => kind === 'laps'),
  grip: ({ trackSessions }) => trackSessions.filter(({ kind }) => kind === 'laps'),
  drift: ({ trackSessions }) => trackSessions.filter(({ kind }) => kind === 'runs'),
}

function readingsOf({ readings }: BuildRecords, metric: Metric): readonly Taken[] {
  return readings.filter((reading) => reading.metric === metric && reading.setAside === null)
}

/**
 * The days on which a metric of a stage was read last, one for each base that proves it, the earliest first: at that stage, else at the latest stage
 * before it that was measured. Empty where nothing was.
 * @example shownOn(EXAMPLE, 'lapTime', 0) // []
 */
export function shownOn(records: BuildRecords, metric: Metric, position: number): string[] {
  const place = new Map(records.stages.map((stage) => [stage.id, stage.position]))
  const days = METRIC_INFO[metric].provedBy.flatMap((base) => {
    const all = (TAKEN[base]?.(records, metric) ?? []).flatMap(({ stageId, at }) => {
      const stage = place.get(stageId)
      return stage === undefined || stage > position ? [] : [{ stage, day: at.slice(0, 10) }]
    })
    const stage = Math.max(-1, ...all.map((entry) => entry.stage))
    return all
      .filter((entry) => entry.stage === stage)
      .map(({ day }) => day)
      .sort()
      .slice(-1)
  })
  return [...new Set(days)].sort()
}
