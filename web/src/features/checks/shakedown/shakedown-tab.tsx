import { attempt, CalculationError, type Gate, gateBehind, type HourLaid, layHour, sessionsByStep } from '@bold-ballast/core'
import { useMemo, useRef, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { TrackPlanPanel } from '../../../shared/track-plan/plan-panel.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useTabKeys } from '../../../ui/hooks/use-tab-keys.ts'
import { Alert, Caution, Empty } from '../../../ui/states.tsx'
import type { ChecksTabProps } from '../tab-props.ts'
import { GatePanel } from './gate-panel.tsx'
import { HourFigure } from './hour-figure.tsx'
import { Readings } from './readings.tsx'
import { StopLine } from './stop-line.tsx'

/** What the hour comes to, in words. */
function hourWords(laid: HourLaid): string {
  const { hour, bookedS, lapFrom, people, fitsWithOneMore, fuelL } = laid
  if (!hour) return ''
  const short = Math.ceil((hour.wholeS - bookedS) / 60)
  const all = hour.lapsLeftOut === 0 && hour.laps.length === laid.steps.length
  return [
    all
      ? `All of it fits, ${Math.floor(hour.spareS / 60)} min to spare.`
      : `Steps keep their order and their checks; laps give way. All of it wants ${Math.ceil(hour.wholeS / 60)} min: book ${short} min more${fitsWithOneMore ? `, or bring a ${people === 1 ? 'second' : 'further'} pair of hands` : ''}.`,
    laid.roundChecks > 0
      ? `${laid.roundChecks} checks between, ${Number((laid.roundS / 60).toFixed(1))} min for ${people}.`
      : 'No check stands in the round between runs.',
    lapFrom === 'usual' ? 'A lap of 1:30 is assumed: nobody drove one here yet.' : '',
    fuelL === null ? '' : `${fuelL.toFixed(0)} L of fuel, 3 of them that never come out.`,
  ]
    .filter((words) => words !== '')
    .join(' ')
}

/** The first drive: the hour, its stops and their gates, readings against limits, what it made. */
export function ShakedownTab({ records, today, event, position, stageId }: ChecksTabProps) {
  const { get, set } = useAddress()
  const [isPlanning, setIsPlanning] = useAsked('plan')
  const [failure, setFailure] = useState<string | null>(null)
  const line = useRef<HTMLInputElement | null>(null)
  const [patch, { isLoading: isPatching }] = api.usePatchRecordMutation()
  const [create, { isLoading: isCreating }] = api.useCreateRecordMutation()
  const buildId = records.build.id
  const plan = records.trackPlans.find((each) => each.stageId === stageId) ?? null
  const laid = useMemo(() => (plan ? layHour(records as never, plan, position) : null), [records, plan, position])
  const sessions = useMemo(() => (plan ? sessionsByStep(records as never, plan, null) : new Map<number, never>()), [records, plan])
  const gates = useMemo(() => {
    const found = new Map<number, Gate>()
    let refused: string | null = null
    for (const step of plan ? sessions.keys() : []) {
      const gate = plan ? attempt(() => gateBehind(records as never, plan, position, step, today)) : undefined
      if (gate instanceof CalculationError) refused = gate.message
      else if (gate) found.set(step, gate)
    }
    return { found, refused }
  }, [records, plan, position, sessions, today])
  const steps = [...gates.found.keys()]
  const asked = Number(get('step') || Number.NaN)
  const at = steps.includes(asked) ? asked : steps.length > 0 ? Math.max(...steps) : null
  const gate = at === null ? null : (gates.found.get(at) ?? null)
  const begin = async (step: number) => {
    if (!plan) return
    const body = { id: crypto.randomUUID(), stageId, trackId: plan.trackId, at: new Date().toISOString(), kind: 'shakedown', step }
    const answer = await create({ buildId, resource: 'track-sessions', body })
    setFailure(answer.error ? readFailure(answer.error).message : null)
    if (!answer.error) set({ step: '' })
  }
  const overrule = async (reason: string) => {
    if (!plan || at === null) return
    const all = plan.steps.map((step, i) => (i === at ? { ...step, overruled: reason } : step))
    const answer = await patch({ buildId, resource: 'track-plans', id: plan.id, body: { version: plan.version, steps: all } })
    setFailure(answer.error ? readFailure(answer.error).message : null)
  }
  useTabKeys((key) => {
    if (key !== 'n') return false
    line.current?.focus()
    return true
  })
  const first = plan?.steps.findIndex(({ wantLaps }) => (wantLaps ?? 0) > 0) ?? -1
  const jobs = records.tasks.filter(({ checkId, state }) => checkId !== null && (state === 'planned' || state === 'underway'))
  const said = plan ? [...sessions].flatMap(([step, session]) => (session.words ? [{ step, words: session.words, driver: session.driver }] : [])) : []
  if (!plan || !laid)
    return (
      <>
        {records.tracks.length === 0 ? (
          <Empty title="No track is drawn yet" why="A first drive is planned on a track: draw it under Track, or copy a shared one." />
        ) : (
          <Empty
            title="No first drive is planned at this stage"
            why="Bed the brakes, let them cool, look; a middling pace, look; faster, look; full. An hour goes by faster than planned."
          >
            <button type="button" className="button button-strong" onClick={() => setIsPlanning(true)}>
              Plan the hour
            </button>
          </Empty>
        )}
        {isPlanning && (
          <TrackPlanPanel
            records={records}
            plan={null}
            stageId={stageId}
            trackId={event?.trackId ?? null}
            eventId={event?.id ?? null}
            onClose={() => setIsPlanning(false)}
          />
        )}
      </>
    )
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-5 min-[1100px]:grid-cols-[minmax(0,1fr)_290px]">
      <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-3">
        {failure && <Alert>{failure}</Alert>}
        {laid.refused ? <Alert>{laid.refused}</Alert> : <HourFigure laid={laid} driven={new Set(sessions.keys())} gates={gates.found} />}
        <p className="text-quiet">
          {hourWords(laid)}{' '}
          <button type="button" className="word-link" onClick={() => setIsPlanning(true)}>
            Alter the plan
          </button>
        </p>
        {gate && <StopLine records={records} stageId={stageId} sessionId={gate.session.id} input={line} />}
        {gates.refused && <Alert>{gates.refused}</Alert>}
        {gate && <Readings plan={plan} gate={gate} />}
        {gate && (
          <p className="text-[13px] text-quiet">
            Expected: straight on from the last two paces, both with the gauge’s doubt. Nobody goes faster on a reading that is missing. n: the line.
          </p>
        )}
        <div className="grid gap-5 min-[700px]:grid-cols-2">
          {jobs.length > 0 && (
            <section>
              <h2 className="mb-1">Jobs that checks made</h2>
              <ul>
                {jobs.map(({ id, name, guessH }) => (
                  <li key={id} className="flex justify-between gap-3 border-t border-line py-1">
                    <span>{name}</span>
                    <span className="text-quiet">{guessH} h guessed</span>
                  </li>
                ))}
              </ul>
            </section>
          )}
          {said.length > 0 && (
            <section>
              <h2 className="mb-1">Words, and what waits</h2>
              <ul>
                {said.map(({ step, words, driver }) => (
                  <li key={step} className="flex justify-between gap-3 border-t border-line py-1">
                    <span>
                      {plan.steps[step]?.kind === 'bed' ? 'Bed' : `${Math.round(100 * (plan.steps[step]?.share ?? 1))} %`}: “{words}”
                    </span>
                    <span className="text-quiet">{driver}</span>
                  </li>
                ))}
              </ul>
              {laid.hour && laid.hour.lapsLeftOut > 0 && <p className="border-t border-line py-1">{laid.hour.lapsLeftOut} laps wait for another day.</p>}
            </section>
          )}
        </div>
      </div>
      <aside className="grid content-start gap-4 min-[1100px]:border-l min-[1100px]:border-line min-[1100px]:pl-4">
        {gate ? (
          <>
            {steps.length > 1 && (
              <label className="flex items-center gap-2">
                Behind
                <select value={at ?? ''} onChange={(change) => set({ step: change.target.value })}>
                  {steps.map((step) => (
                    <option key={step} value={step}>
                      {plan.steps[step]?.kind === 'bed' ? 'bedding' : `${Math.round(100 * (plan.steps[step]?.share ?? 1))} %`}
                    </option>
                  ))}
                </select>
              </label>
            )}
            <GatePanel
              key={`${gate.session.id}`}
              plan={plan}
              gate={gate}
              overrule={(reason) => void overrule(reason)}
              begin={(step) => void begin(step)}
              isBusy={isPatching || isCreating}
            />
            <p>
              <button
                type="button"
                className="button"
                onClick={() => set({ tab: 'round', round: 'between', session: gate.session.id, people: String(plan.people) })}
              >
                Round between, {gate.open} open
              </button>
            </p>
          </>
        ) : (
          first >= 0 && (
            <p>
              <button type="button" className="button button-strong" disabled={isCreating} onClick={() => void begin(first)}>
                Begin the first step
              </button>
            </p>
          )
        )}
        <Caution>
          A first drive: helmet, belts, extinguisher, somebody who watches, and the event’s own rules. A gate that opens is no proof that the car is safe.
        </Caution>
      </aside>
      {isPlanning && <TrackPlanPanel records={records} plan={plan} stageId={stageId} trackId={plan.trackId} onClose={() => setIsPlanning(false)} />}
    </div>
  )
}
