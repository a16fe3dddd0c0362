import type { RecordsAnswer } from '@bold-ballast/contract'
import { planTimeS, TRACK_STEP_KINDS, type TrackPlan, type TrackRoom, type TrackStepKind } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import type { FormReader } from '../../../ui/forms/form-reader.ts'
import { type FieldSpec, RecordForm } from '../../../ui/forms/record-form.tsx'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { numberText } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'

const STEP_WORDS: Readonly<Record<TrackStepKind, string>> = {
  bed: 'bed the brakes',
  level: 'drive',
  change: 'change',
  back: 'back to how it was',
  check: 'look over the car',
}
type Step = TrackPlan['steps'][number]

const stepText = ({ kind, words, share, wantLaps, coolS }: Step): string =>
  [
    kind,
    share === null ? '' : `${Math.round(100 * share)} %`,
    wantLaps === null ? '' : `${wantLaps} laps`,
    coolS > 0 ? `cool ${Math.round(coolS / 60)} min` : '',
    words ?? '',
  ]
    .filter((part) => part !== '')
    .join('; ')

/** A step out of its line: "level; 65 %; 4 laps; cool 5 min; new rear pads". */
export function readStep(line: string): Step | string {
  const cells = line.split(/\s*;\s*/).filter((cell) => cell !== '')
  const kind = TRACK_STEP_KINDS.find((each) => each === cells[0]?.toLowerCase())
  if (!kind) return `“${line}” begins with none of ${TRACK_STEP_KINDS.join(', ')}. Such as: level; 65 %; 4 laps; cool 5 min.`
  const step = { kind, words: null as string | null, share: null as number | null, wantLaps: null as number | null, leastLaps: null, coolS: 0, isDone: false }
  for (const cell of cells.slice(1)) {
    const [share, laps, cool] = [/^(\d+)\s*%$/.exec(cell), /^(\d+)\s*laps?$/i.exec(cell), /^cool\s*(\d+)\s*min$/i.exec(cell)]
    if (share) step.share = Math.min(1, Math.max(0.1, Number(share[1]) / 100))
    else if (laps) step.wantLaps = Number(laps[1])
    else if (cool) step.coolS = 60 * Number(cool[1])
    else step.words = step.words === null ? cell : `${step.words}; ${cell}`
  }
  return step
}

const FIELDS = (room: TrackRoom): FieldSpec[] => [
  { name: 'track', label: 'Track', type: 'select', options: room.tracks.map(({ id, name }) => ({ value: id, label: name })) },
  { name: 'booked', label: 'Booked, minutes' },
  {
    name: 'steps',
    label: 'Steps, a line each',
    type: 'textarea',
    isWide: true,
    hint: 'bed, level, change, back or check; then % of full pace, laps, minutes to cool, words. Such as: level; 65 %; 4 laps; cool 5 min.',
  },
]

/** Steps that a first drive usually takes (common practice, no source): bed, let it cool, look, a middling pace, look, faster. */
const USUAL =
  'check; logger on, a minute recorded and read back\nbed; 50 %; 3 laps; cool 10 min\nlevel; 65 %; 4 laps; cool 5 min\ncheck; leaks, marks on bolts, pads, pressures\nlevel; 80 %; 4 laps; cool 5 min\nlevel; 100 %; 5 laps'

function body(read: FormReader): Record<string, unknown> {
  const steps = read.lines('steps').flatMap((line): Step[] => {
    const found = readStep(line)
    if (typeof found !== 'string') return [found]
    read.refuse('steps', found)
    return []
  })
  const minutes = read.number('booked', 'What is booked')
  if (!(minutes >= 1 && minutes <= 3000)) read.refuse('booked', 'A spell of 1 to 3000 minutes.')
  return { trackId: read.text('track', 'The track'), bookedS: 60 * minutes, steps }
}

/** What a booked hour at this stage is for, step by step; done ones are ticked off. */
export function TrackPlanView({
  records,
  room,
  stageId,
  position,
  lapS,
}: {
  records: RecordsAnswer
  room: TrackRoom
  stageId: string
  position: number
  /** Of the stage at full pace; null while nobody knows it. */
  lapS: number | null
}) {
  const [isPlanning, setIsPlanning] = useAsked('plan')
  const [failure, setFailure] = useState<string | null>(null)
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const plan = room.plans.find((each) => each.stageId === stageId) ?? null
  const buildId = records.build.id
  const resource = 'track-plans' as const
  const tick = async (index: number) => {
    if (!plan) return
    const steps = plan.steps.map((step, i) => (i === index ? { ...step, isDone: !step.isDone } : step))
    const answer = await patch({ buildId, resource, id: plan.id, body: { version: plan.version, steps } })
    setFailure(answer.error ? readFailure(answer.error).message : null)
  }
  const takesS = plan ? planTimeS(plan.steps, lapS) : 0
  return (
    <section aria-label="Plan of a booked spell" className="mt-5">
      <h3 className="mb-1 flex flex-wrap items-baseline gap-x-3 font-semibold">
        Booked at stage {position}
        <button type="button" className="word-link text-sm font-normal" onClick={() => setIsPlanning(true)}>
          {plan ? 'Edit' : 'Plan it'}
        </button>
      </h3>
      {failure && <Alert>{failure}</Alert>}
      {plan ? (
        <>
          <p className={takesS > plan.bookedS ? 'text-wait' : 'text-quiet'}>
            {Math.round(plan.bookedS / 60)} minutes; the steps take about {Math.round(takesS / 60)}
            {takesS > plan.bookedS ? ': the hour is over first. Take steps out, or book more.' : '.'}
          </p>
          <ol className="mt-1">
            {plan.steps.map((step, i) => (
              <li
                key={`${stepText(step)} ${plan.steps.slice(0, i).filter((other) => stepText(other) === stepText(step)).length}`}
                className="border-t border-line py-1"
              >
                <label className="flex items-baseline gap-2">
                  <input type="checkbox" checked={step.isDone} onChange={() => void tick(i)} />
                  <span className={step.isDone ? 'text-quiet line-through' : ''}>
                    <strong className="font-semibold">{STEP_WORDS[step.kind]}</strong>
                    {step.share === null ? '' : ` at ${Math.round(100 * step.share)} %`}
                    {step.wantLaps === null ? '' : `, ${step.wantLaps} laps`}
                    {step.coolS > 0 ? `, then ${Math.round(step.coolS / 60)} min to cool` : ''}
                    {step.words ? <span className="block text-xs text-quiet">{step.words}</span> : ''}
                  </span>
                </label>
              </li>
            ))}
          </ol>
        </>
      ) : (
        <p className="text-quiet">Nothing is planned for this stage. An hour gives three or four short spells.</p>
      )}
      {isPlanning && (
        <Panel title="What the booked time is for" onClose={() => setIsPlanning(false)}>
          <RecordForm
            key={plan?.version ?? 0}
            draftKey={`${buildId}.trackPlan.${stageId}`}
            fields={FIELDS(room)}
            defaults={{
              track: plan?.trackId ?? room.controlTrackId ?? '',
              booked: plan ? numberText(plan.bookedS / 60) : '60',
              steps: plan ? plan.steps.map(stepText).join('\n') : USUAL,
            }}
            submitLabel="Save the plan"
            toBody={(read, id) => ({ ...body(read), ...(plan ? { version: plan.version } : { id, stageId }) })}
            send={(sent) =>
              plan ? patch({ buildId, resource, id: plan.id, body: sent as never }).unwrap() : create({ buildId, resource, body: sent }).unwrap()
            }
            onDone={() => setIsPlanning(false)}
          />
        </Panel>
      )}
    </section>
  )
}
