import type { StoredRecords } from '@bold-ballast/contract'
import { METRIC_INFO, METRICS, type Metric, type Stage } from '@bold-ballast/core'
import { stageOptions } from '../../../shared/fields/stage-options.ts'
import type { FormReader } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { usualText } from '../../../ui/quantity.ts'

/** The last stage by its name, which moves along when another is added. */
function lastLabel(stages: readonly Stage[]): string {
  const last = stages.at(-1)
  return last ? `the last stage (now ${last.position} ${last.name})` : 'the last stage'
}

export const goalFieldSpecs = ({ stages, build: { drivers }, tracks }: Pick<StoredRecords, 'stages' | 'build' | 'tracks'>): FieldSpec[] => [
  {
    name: 'goal',
    label: 'Kind',
    type: 'select',
    options: [
      { value: 'target', label: 'a target' },
      { value: 'limit', label: 'a limit' },
    ],
  },
  { name: 'metric', label: 'Of', type: 'select', options: METRICS.map((metric) => ({ value: metric, label: METRIC_INFO[metric].word })) },
  {
    name: 'sense',
    label: 'Sense',
    type: 'select',
    options: [
      { value: 'atMost', label: 'at most' },
      { value: 'atLeast', label: 'at least' },
      { value: 'between', label: 'between (targets only)' },
    ],
  },
  { name: 'value', label: 'Value', hint: (units) => `Any unit may be typed: ${usualText(units, 'mass', 1200)}, ${usualText(units, 'power', 300_000)}, 52 %.` },
  { name: 'highValue', label: 'Upper value', hint: 'Only for “between”.' },
  { name: 'stage', label: 'Due by, or from', type: 'select', options: [{ value: '', label: lastLabel(stages) }, ...stageOptions(stages)] },
  ...(tracks.length > 0
    ? [
        {
          name: 'track',
          label: 'Track (goals of laps)',
          type: 'select' as const,
          options: tracks.map(({ id, name }) => ({ value: id, label: name })),
        },
      ]
    : []),
  ...(drivers.length > 0
    ? [
        {
          name: 'driver',
          label: 'Driver (goals on mass)',
          type: 'select' as const,
          options: [{ value: '', label: 'the reference driver' }, ...drivers.map(({ name }) => ({ value: name, label: name }))],
        },
      ]
    : []),
  {
    name: 'source',
    label: 'A limit is set by',
    type: 'select',
    options: [
      { value: 'classRule', label: 'the class rules' },
      { value: 'rating', label: 'a part’s rating' },
      { value: 'own', label: 'ourselves' },
    ],
  },
  { name: 'until', label: 'A limit ends after', type: 'select', options: [{ value: '', label: 'no stage: it stays' }, ...stageOptions(stages)] },
]

export function goalBody(read: FormReader): Record<string, unknown> {
  const metric = read.raw('metric') as Metric
  const { kind } = METRIC_INFO[metric]
  const value = read.quantity('value', 'Value', kind)
  const common = {
    metric,
    sense: read.raw('sense'),
    value: value.value,
    typed: value.typed,
    driverName: read.optional('driver'),
    trackId: metric === 'lapTime' ? read.optional('track') : null,
  }
  if (common.driverName && metric !== 'massReady') read.refuse('driver', 'Only a goal on mass can name its driver. Pick the reference driver.')
  const stage = read.optional('stage')
  if (read.raw('goal') === 'limit') {
    if (common.sense === 'between') read.refuse('sense', 'A limit is at most or at least. Set two limits for a range.')
    return { ...common, source: read.raw('source'), fromStageId: stage, untilStageId: read.optional('until') }
  }
  const high = common.sense === 'between' ? read.quantity('highValue', 'Upper value', kind).value : null
  if (high !== null && high <= common.value) read.refuse('highValue', 'The upper value must lie above the lower one.')
  return { ...common, highValue: high, dueStageId: stage }
}
