import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, parseTrackText, trackText, USUAL_CUT_OFF_M } from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../../ui/forms/form-reader.ts'
import type { FieldSpec } from '../../../ui/forms/record-form.tsx'
import { numberText } from '../../../ui/quantity.ts'
import type { ReadTrace } from './read-trace.ts'

type Track = RecordsAnswer['tracks'][number]

const MARK_WORDS = { corner: 'corner', sector: 'sector', speed: 'speed', zone: 'zone', line: 'line' } as const

export const trackFieldSpecs = (isTraced: boolean): FieldSpec[] => [
  { name: 'name', label: 'Name of the track' },
  {
    name: 'isClosed',
    label: 'Its end is its begin',
    type: 'select',
    options: [
      { value: 'true', label: 'yes, a circuit' },
      { value: 'false', label: 'no: a hill, a sprint' },
    ],
  },
  ...(isTraced
    ? []
    : [
        {
          name: 'drawn',
          label: 'Pieces, a line each, in metres and degrees',
          type: 'textarea' as const,
          isWide: true,
          hint: 'A straight is its length: 221.7. A corner: left 75 26 (radius, degrees); behind it spiral 12, grade -3, camber 2, grip 0.9.',
        },
      ]),
  {
    name: 'marks',
    label: 'Marks, a line each: kind; name; metres from the line',
    type: 'textarea',
    isWide: true,
    hint: 'corner; Hairpin; 620 or sector; Sector 1; 900 or zone; Apron; 1100; 1500. Corners without a mark are numbered.',
  },
  { name: 'isShared', label: 'Other builds of this garage may take a copy', type: 'checkbox' },
]

export function trackDefaults(track: Track | null): FormValues {
  if (!track) return { isClosed: 'true', isShared: 'true', cutOff: numberText(USUAL_CUT_OFF_M) }
  return {
    name: track.name,
    isClosed: String(track.isClosed),
    isShared: String(track.isShared),
    drawn: trackText(track.segments) ?? '',
    marks: track.marks.map(({ kind, name, atM, toM }) => [kind, name, numberText(atM), ...(toM === null ? [] : [numberText(toM)])].join('; ')).join('\n'),
  }
}

function readMarks(read: FormReader): Track['marks'] {
  return read.lines('marks').flatMap((line): Track['marks'] => {
    const [kind = '', name = '', at = '', to] = line.split(/\s*;\s*/)
    const known = Object.keys(MARK_WORDS).find((each) => each === kind.toLowerCase()) as keyof typeof MARK_WORDS | undefined
    const [atM, toM] = [Number(at), to === undefined ? null : Number(to)]
    if (!known || name === '' || at === '' || Number.isNaN(atM) || Number.isNaN(toM ?? 0)) {
      read.refuse('marks', `“${line}” is kind; name; metres, such as corner; Hairpin; 620. Kinds: ${Object.keys(MARK_WORDS).join(', ')}.`)
      return []
    }
    return [{ kind: known, name, atM, toM }]
  })
}

const FULL = { endCurvaturePerM: null, grade: 0, camberRad: 0, gripFactor: 1 }

/** What the form makes of a track: drawn in words, or out of a trace. */
export function trackBody(read: FormReader, { trace, isTraced }: { trace: ReadTrace | null; isTraced: boolean }): Record<string, unknown> {
  const common = { name: read.text('name', 'The name'), isClosed: read.flag('isClosed'), isShared: read.flag('isShared'), marks: readMarks(read) }
  if (trace)
    return {
      ...common,
      line: 'driven',
      segments: trace.track.segments.map((segment) => ({ ...FULL, ...segment })),
      origin: trace.origin,
      cutOffM: trace.track.cutOffM,
      bearingRad: trace.track.bearingRad,
    }
  if (isTraced) return common
  const found = attempt(() => parseTrackText(read.raw('drawn'), read.decimalMark))
  if (found instanceof CalculationError) {
    read.refuse('drawn', found.message)
    return common
  }
  return { ...common, segments: found }
}
