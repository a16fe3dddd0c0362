import { attempt, CalculationError, type Gate, gateBehind, type HourLaid, layHour, type ReadingAhead, sessionsByStep } from '@bold-ballast/core'
import { useMemo, useRef, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { TrackPlanPanel } from '../../../shared/track-plan/plan-panel.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useAsked } from '../../../ui/hooks/use-asked.ts'
import { useTabKeys } from '../../../ui/hooks/use-tab-keys.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert, Caution, Empty } from '../../../ui/states.tsx'
import type { ChecksTabProps } from '../tab-props.ts'
import { HourFigure } from './hour-figure.tsx'
import { StopLine } from './stop-line.tsx'

type Plan = ChecksTabProps['records']['trackPlans'][number]

const WORDS: Readonly<Record<Gate['word'], { readonly head: string; readonly tone: string }>> = {
  go: { head: 'Go', tone: 'text-pine' },
  watch: { head: 'Go, and watch', tone: 'text-pine' },
  again: { head: 'Again', tone: 'text-wait' },
  no: { head: 'No', tone: 'text-danger' },
}
const SO: Readonly<Record<ReadingAhead['word'], { readonly word: string; readonly tone: string }>> = {
  go: { word: 'goes', tone: 'text-pine' },
  watch: { word: 'watch', tone: 'text-wait' },
  again: { word: 'again', tone: 'text-wait' },
  no: { word: 'stop', tone: 'text-danger' },
  missing: { word: 'not read', tone: 'text-wait' },
}

/** What the hour comes to, in words. */
function hourWords(laid: HourLaid): string {
  const { hour, bookedS, lapFrom, people, fitsWithOneMore, fuelL } = laid
  if (!hour) return laid.refused ?? ''
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

/** Readings against their limits: each step, what comes next, and so. */
function Readings({ plan, gate }: { plan: Plan; gate: Gate }) {
  const { format, text } = useQuantities()
  const shown = plan.steps.flatMap((step, index) => (gate.readings.some(({ values }) => values[index] !== null) ? [{ step, index }] : []))
  return (
    <ScrollBox label="Readings against their limits">
      <table className="w-full border-collapse">
        <thead>
          <tr>
            <th className="text-left">Reading, highest of the step</th>
            <th className="pl-2 text-left" />
            {shown.map(({ step, index }) => (
              <th key={index} className="pl-3 text-right">
                {step.kind === 'bed' ? 'Bed' : `${Math.round(100 * (step.share ?? 1))} %`}
              </th>
            ))}
            {gate.nextPace !== null && <th className="pl-3 text-right">{gate.nextPace === 1 ? 'Full' : `${Math.round(100 * gate.nextPace)} %`}, expected</th>}
            <th className="pl-3 text-right">Warns</th>
            <th className="pl-3 text-right">Stops</th>
            <th className="pl-3 text-left">So</th>
          </tr>
        </thead>
        <tbody>
          {gate.readings.map(({ check, values, next, nextSd, word }) => {
            const { quantity, warnHigh, warnLow, stopHigh, stopLow } = check.reading
            const limit = (high: number | null, low: number | null) =>
              high !== null ? `over ${format(quantity, high).number}` : low !== null ? `under ${format(quantity, low).number}` : '–'
            const ahead = next === null ? null : format(quantity, next, { sd: nextSd ?? undefined })
            return (
              <tr key={check.id} className={`border-t border-line align-baseline ${word === 'again' || word === 'no' ? 'bg-picked' : ''}`}>
                <td className="py-1.5 font-semibold">{check.name}</td>
                <td className="py-1.5 pl-2 text-quiet">{text(quantity, 0).replace(/^[^\s\u00a0]*[\s\u00a0]?/, '')}</td>
                {shown.map(({ index }) => {
                  const value = values[index]
                  return (
                    <td key={index} className={`py-1.5 pl-3 text-right tabular-nums ${index === gate.step ? 'font-bold' : ''}`}>
                      {value === null || value === undefined ? '–' : format(quantity, value).number}
                    </td>
                  )
                })}
                {gate.nextPace !== null && (
                  <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums text-planned-text">{ahead ? `${ahead.number} ${ahead.spread}` : '–'}</td>
                )}
                <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums text-quiet">{limit(warnHigh, warnLow)}</td>
                <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums">{limit(stopHigh, stopLow).replace(/^(over|under) /, '')}</td>
                <td className={`py-1.5 pl-3 font-semibold ${SO[word].tone}`}>{SO[word].word}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </ScrollBox>
  )
}

/** The gate: what it says, why, and the ways on. Passing it all the same takes a reason, which is kept. */
function GatePanel({
  plan,
  gate,
  overrule,
  begin,
  isBusy,
}: {
  plan: Plan
  gate: Gate
  overrule: (reason: string) => void
  begin: (step: number) => void
  isBusy: boolean
}) {
  const [reason, setReason] = useState<string | null>(null)
  const { head, tone } = WORDS[gate.word]
  const isOpen = gate.word === 'go' || gate.word === 'watch' || gate.overruled !== null
  const next = plan.steps.findIndex(({ wantLaps, seconds }, i) => i > gate.step && ((wantLaps ?? 0) > 0 || seconds !== null))
  return (
    <section aria-label="The gate">
      <p className={`text-4xl leading-none font-black ${tone}`}>{head}</p>
      <ul className="mt-2">
        {gate.reasons.map((words) => (
          <li key={words}>{words}</li>
        ))}
        {gate.reasons.length === 0 && <li>Every reading is within its limits and goes on within them, every check is in order.</li>}
      </ul>
      {gate.overruled && <p className="mt-1 text-wait">Passed all the same: “{gate.overruled}”</p>}
      <p className="mt-3 flex flex-wrap gap-2">
        {gate.word !== 'no' && !isOpen && (
          <button type="button" className="button button-strong" disabled={isBusy} onClick={() => begin(gate.step)}>
            Again at this pace
          </button>
        )}
        {isOpen && next >= 0 && (
          <button type="button" className="button button-strong" disabled={isBusy} onClick={() => begin(next)}>
            Begin the next step
          </button>
        )}
        {!isOpen && reason === null && (
          <button type="button" className="button" onClick={() => setReason('')}>
            Go all the same
          </button>
        )}
      </p>
      {reason !== null && !isOpen && (
        <form
          className="mt-2"
          onSubmit={(event) => {
            event.preventDefault()
            if (reason.trim() !== '') overrule(reason.trim())
          }}
        >
          <label>
            Why, in a few words; it is kept
            <input value={reason} onChange={(event) => setReason(event.target.value)} maxLength={300} className="mt-1 w-full" autoComplete="off" />
          </label>
          <button type="submit" className="button mt-1" disabled={reason.trim() === '' || isBusy}>
            Pass the gate
          </button>
        </form>
      )}
    </section>
  )
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
