import type { RecordsAnswer } from '@bold-ballast/contract'
import { planTimeS, type TrackRoom } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { TrackPlanPanel } from '../../../shared/track-plan/plan-panel.tsx'
import { STEP_WORDS, stepText } from '../../../shared/track-plan/plan-text.ts'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { Alert } from '../../../ui/states.tsx'

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
  const [patch] = api.usePatchRecordMutation()
  const plan = room.plans.find((each) => each.stageId === stageId) ?? null
  const stored = records.trackPlans.find(({ id }) => id === plan?.id) ?? null
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
        <TrackPlanPanel records={records} plan={stored} stageId={stageId} trackId={room.controlTrackId ?? null} onClose={() => setIsPlanning(false)} />
      )}
    </section>
  )
}
