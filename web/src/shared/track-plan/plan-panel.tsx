import type { RecordsAnswer } from '@bold-ballast/contract'
import { trackPlanKind } from '@bold-ballast/core'
import { useMemo } from 'react'
import { field, makeForm, type OwnKind } from '../../ui/forms/form-fields.ts'
import { choiceOrNone } from '../fields/own-fields.ts'
import { KindPanel } from '../kind-panel.tsx'
import { mergeSteps, type PlanStep, readStep, stepText, USUAL_STEPS } from './plan-text.ts'

export type StoredTrackPlan = RecordsAnswer['trackPlans'][number]

/** The steps, a line each; what was done and overruled of those that stay. */
const steps = (plan: StoredTrackPlan | null): OwnKind => ({
  type: 'textarea',
  read: (read, name) =>
    mergeSteps(
      read.lines(name).flatMap((line): PlanStep[] => {
        const found = readStep(line)
        if (typeof found !== 'string') return [found]
        read.refuse(name, found)
        return []
      }),
      plan?.steps ?? [],
    ),
  begin: (record) => ((record as StoredTrackPlan | null)?.steps ?? null)?.map(stepText).join('\n') ?? USUAL_STEPS,
})

const choices = (list: readonly { readonly id: string; readonly name: string }[]) => Object.fromEntries(list.map(({ id, name }) => [id, name]))

/** A plan of booked time as a form. */
export const trackPlanForm = ({ tracks, events, stages }: RecordsAnswer, plan: StoredTrackPlan | null) =>
  makeForm(trackPlanKind.fields, [
    field('trackId', 'choice', { label: 'Track', words: choices(tracks) }),
    field('stageId', 'choice', { label: 'Stage', words: choices(stages) }),
    field('eventId', choiceOrNone('eventId'), { label: 'Event', words: { '': 'none', ...choices(events) }, hint: 'Its booked time stands where it says one.' }),
    field('bookedS', 'duration', { label: 'Booked', unit: 'min', begin: 3600 }),
    field('setUpS', 'duration', { label: 'Set-up before the first lap', unit: 'min', begin: 480 }),
    field('lapS', 'lapTime', { label: 'A lap at full pace', hint: 'Empty: as the laps of this track or its forecast say.' }),
    field('people', 'count', { label: 'People who check between', begin: 2 }),
    field('fuelPerLapL', 'volume', { label: 'Fuel for a lap', hint: 'Empty: not reckoned.' }),
    field('steps', steps(plan), {
      label: 'Steps, a line each',
      isWide: true,
      hint: 'bed, level, change, back, check or other; then % of full pace, laps, least laps, x how much longer a lap takes, takes so many min, cool so many min, words. Such as: level; 65 %; 5 laps; least 3; cool 5 min.',
    }),
  ])

/** What a booked spell of track time is for, step by step, to be typed. */
export function TrackPlanPanel({
  records,
  plan,
  stageId,
  trackId,
  eventId = null,
  onClose,
}: {
  records: RecordsAnswer
  plan: StoredTrackPlan | null
  stageId: string
  /** What a new plan begins with. */
  trackId: string | null
  eventId?: string | null
  onClose: () => void
}) {
  const form = useMemo(() => trackPlanForm(records, plan), [records, plan])
  return (
    <KindPanel
      buildId={records.build.id}
      resource="track-plans"
      word="plan"
      form={form}
      record={plan}
      begins={{ trackId: trackId ?? records.tracks[0]?.id ?? '', stageId, eventId: eventId ?? '' }}
      onClose={onClose}
    />
  )
}
