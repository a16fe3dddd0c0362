import { type Change, EXPECTED, EXPECTED_METRICS, type ExpectedMetric, type Part, type Stage } from '@bold-ballast/core'
import { stageOptions } from '../../../shared/fields/stage-options.ts'
import type { FormReader } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { usualText } from '../../../ui/quantity.ts'

/** How an expectation is said, as its list and its form have it. */
export const MODE_WORDS = { to: 'to reach', by: 'to change by', times: 'to be multiplied by' } as const

/** Lines that are not done: what one of them gives counts where it stands. */
export const openLines = (changes: readonly Change[]): readonly Change[] => changes.filter(({ state, kind }) => state === 'planned' && kind !== 'transfer')

/** Parts that are thought about: what each gives is its worth, at no stage yet. */
export const wishedParts = (parts: readonly Part[]): readonly Part[] => parts.filter(({ status, stageId }) => status === 'wanted' && stageId === null)

type Line = Pick<Change, 'id' | 'name'>

export const expectationFieldSpecs = (stages: readonly Stage[], parts: readonly Part[] = [], lines: readonly Line[] = []): FieldSpec[] => [
  { name: 'stage', label: 'Stage', type: 'select', options: stageOptions(stages), isWide: true },
  {
    name: 'metric',
    label: 'What is expected',
    type: 'select',
    options: EXPECTED_METRICS.map((metric) => ({ value: metric, label: EXPECTED[metric].word })),
    isWide: true,
  },
  {
    name: 'mode',
    label: 'It is expected',
    type: 'select',
    options: (['to', 'by', 'times'] as const).map((mode) => ({ value: mode, label: MODE_WORDS[mode] })),
  },
  {
    name: 'value',
    label: 'Value',
    hint: (units) =>
      `With ± if you can: ${usualText(units, 'power', 165_000)} ± ${usualText(units, 'power', 8000)}; grip as a factor, 1.03; areas by ${usualText(units, 'area', 0.1)}; a shift in seconds.`,
  },
  {
    name: 'proof',
    label: 'How known',
    type: 'select',
    options: [
      { value: 'guess', label: 'guess' },
      { value: 'catalogue', label: 'catalogue' },
      { value: 'calculated', label: 'calculated' },
    ],
  },
  ...(lines.length > 0
    ? [
        {
          name: 'line',
          label: 'Given by one line',
          hint: 'It goes wherever the line goes; the stage above is then the line’s.',
          type: 'select' as const,
          options: [{ value: '', label: 'no, by the stage' }, ...lines.map(({ id, name }) => ({ value: id, label: name }))],
          isWide: true,
        },
      ]
    : []),
  ...(parts.length > 0
    ? [
        {
          name: 'part',
          label: 'Given by a wished part',
          type: 'select' as const,
          options: [{ value: '', label: 'no, by the stage' }, ...parts.map(({ id, name }) => ({ value: id, label: name }))],
          isWide: true,
        },
      ]
    : []),
]

/** How each is said, for a mode that it is not said in. */
function refuseMode(read: FormReader, metric: ExpectedMetric): void {
  const { word, modes } = EXPECTED[metric]
  read.refuse('mode', `Of the ${word} it is said ${modes.map((mode) => MODE_WORDS[mode]).join(' or ')}. Pick that.`)
}

export function expectationBody(read: FormReader): Record<string, unknown> {
  const mode = read.raw('mode') as keyof typeof MODE_WORDS
  const metric = read.raw('metric') as ExpectedMetric
  const { word, kind, modes } = EXPECTED[metric]
  if (!(modes as readonly string[]).includes(mode)) refuseMode(read, metric)
  const value = read.quantity('value', 'Value', mode === 'times' ? 'ratio' : kind)
  if (mode !== 'by' && value.value <= 0) read.refuse('value', `The expected ${word} or factor must be more than zero.`)
  const [partId, changeId] = [read.raw('part') || null, read.raw('line') || null]
  if (partId && changeId) read.refuse('line', 'A line or a wished part gives it, not both. Pick one of them.')
  return {
    stageId: read.text('stage', 'Stage'),
    partId,
    changeId,
    metric,
    mode,
    value: value.value,
    sd: value.sd ?? null,
    proof: read.raw('proof'),
    typed: value.typed,
  }
}
