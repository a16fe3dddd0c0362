import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, headroomStopAtStage, type PlannedStep, planPulls } from '@bold-ballast/core'
import { useMemo, useState } from 'react'
import { Link } from 'react-router'
import { api } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert, Caution, Empty } from '../../../ui/states.tsx'
import { clock, FIRST_HOURS, hoursForm } from './hours-form.ts'

function stepWords(step: PlannedStep): string {
  switch (step.kind) {
    case 'setUp':
      return 'Strap down, probes, fan and extraction on, a stop signal agreed'
    case 'firstPulls':
      return 'First pulls at the lowest boost, short ones, reading the plugs and the log after each'
    case 'base':
      return 'Baseline: nothing changed, each pull alike'
    case 'change':
      return `Change one thing: ${step.name}`
    case 'changePulls':
      return `Pulls with ${step.name}`
    case 'return':
      return 'Back to the baseline: does it still read the same?'
  }
}

/** An order of pulls for the hours that are booked at the picked stage. */
export function HoursTab({ records, position, stageId }: { records: RecordsAnswer; position: number; stageId: string }) {
  const [isEditing, setIsEditing] = useState(false)
  const { text, units } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const plan = records.pullPlans.find((entry) => entry.stageId === stageId)
  const found = plan && attempt(() => planPulls(plan))
  const { build } = records
  const stops = plan
    ? [
        plan.stops.lambdaOver === null ? null : `lambda over ${plan.stops.lambdaOver}`,
        plan.stops.intakeOverK === null ? null : `intake over ${text('temperature', plan.stops.intakeOverK, { decimals: 0 })}`,
        plan.stops.coolantOverK === null ? null : `coolant over ${text('temperature', plan.stops.coolantOverK, { decimals: 0 })}`,
        plan.stops.fuelPressureUnderPa === null ? null : `fuel pressure under ${text('pressure', plan.stops.fuelPressureUnderPa, { decimals: 0 })}`,
        plan.stops.knock === null ? null : `knock: ${plan.stops.knock}`,
      ].filter((entry) => entry !== null)
    : []
  return (
    <>
      {!plan || !found ? (
        <Empty
          title="No hours at the dyno are planned for this stage"
          why="Say how long is booked and what you want to try: it puts set-up, first pulls, baseline, one change at a time and the return to the baseline in order, and says what does not fit."
        >
          <button type="button" className="button" onClick={() => setIsEditing(true)}>
            Plan the hours
          </button>
        </Empty>
      ) : (
        <>
          <div className="mb-2 flex flex-wrap items-baseline gap-x-4">
            <h2 className="text-[20px]">
              {found instanceof CalculationError
                ? 'The hours do not hold the baseline'
                : `${found.pulls} pulls in ${clock(plan.bookedS)} hours${found.leftOut.length > 0 ? `, ${found.leftOut.length} ${found.leftOut.length === 1 ? 'change does' : 'changes do'} not fit` : ''}`}
            </h2>
            <button type="button" className="button no-print ml-auto" onClick={() => setIsEditing(true)}>
              Change the plan
            </button>
          </div>
          {found instanceof CalculationError ? (
            <Alert>{found.message}</Alert>
          ) : (
            <div className="grid gap-8 min-[1180px]:grid-cols-[1fr_360px]">
              <table className="w-full max-w-[760px] border-collapse self-start">
                <thead>
                  <tr className="border-b border-line">
                    <th className="p-1.5 text-right">From</th>
                    <th className="p-1.5 text-right">To</th>
                    <th className="p-1.5">What</th>
                    <th className="p-1.5 text-right">Pulls</th>
                  </tr>
                </thead>
                <tbody>
                  {found.steps.map((step) => (
                    <tr key={`${step.kind} ${step.fromS}`} className="border-b border-line align-baseline">
                      <td className="p-1.5 text-right">{clock(step.fromS)}</td>
                      <td className="p-1.5 text-right">{clock(step.toS)}</td>
                      <td className="p-1.5">{stepWords(step)}</td>
                      <td className="p-1.5 text-right font-semibold">{step.pulls || ''}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
              <aside className="grid content-start gap-4 min-[1180px]:border-l min-[1180px]:border-line min-[1180px]:pl-5">
                <section>
                  <h3 className="font-semibold">Break a pull off at</h3>
                  {stops.length === 0 ? (
                    <p className="text-wait">No limit is set. Set them before the first pull.</p>
                  ) : (
                    stops.map((stop) => <p key={stop}>{stop}</p>)
                  )}
                  {plan.stops.headroomUnder !== null && <HeadroomLine records={records} position={position} share={plan.stops.headroomUnder} />}
                </section>
                <section>
                  <h3 className="font-semibold">What it can show</h3>
                  <p>
                    {found.smallestGainW === null
                      ? 'With the pull to pull spread and two pulls a set or more it says which gain these pulls would find.'
                      : `A gain of ${text('power', found.smallestGainW, { decimals: 1 })} would be found 8 times in 10; a smaller one may hide in the noise.`}
                  </p>
                  <p>{found.spareS > 0 ? `${clock(found.spareS)} hours are left over.` : 'Nothing is left over.'}</p>
                </section>
                {found.leftOut.length > 0 && (
                  <section>
                    <h3 className="font-semibold text-wait">Does not fit, for another day</h3>
                    {found.leftOut.map((name) => (
                      <p key={name}>{name}</p>
                    ))}
                  </section>
                )}
                <Caution>
                  Nobody beside or behind the wheels, straps and tyres looked at before each set, fire extinguisher at hand, ears and eyes covered, exhaust gas
                  led out. First pulls low and short. Follow the operator’s rules; have fuel and brakes checked by qualified people.
                </Caution>
                <div>
                  <CsvButton
                    name={`${build.name}-hours-stage-${position}`}
                    table={() => ({
                      head: ['From (h:min)', 'To (h:min)', 'What', 'Pulls'],
                      rows: found.steps.map((step) => [clock(step.fromS), clock(step.toS), stepWords(step), step.pulls]),
                    })}
                  />
                </div>
              </aside>
            </div>
          )}
        </>
      )}
      {isEditing && (
        <Panel title={`Hours at the dyno, stage ${position}`} onClose={() => setIsEditing(false)}>
          <RecordForm
            draftKey={`${build.id}.hours.${stageId}.${plan?.version ?? 0}`}
            fields={hoursForm.specs()}
            defaults={hoursForm.defaults(plan ?? FIRST_HOURS, units)}
            submitLabel="Store the plan"
            toBody={(read, id) => (plan ? { version: plan.version, ...hoursForm.body(read) } : { id, stageId, ...hoursForm.body(read) })}
            send={(body) =>
              plan
                ? patch({ buildId: build.id, resource: 'pull-plans', id: plan.id, body }).unwrap()
                : create({ buildId: build.id, resource: 'pull-plans', body }).unwrap()
            }
            onDone={() => setIsEditing(false)}
          />
        </Panel>
      )}
    </>
  )
}

/** The power above which the weakest part keeps less than was asked, and which part that is. */
function HeadroomLine({ records, position, share }: { records: RecordsAnswer; position: number; share: number }) {
  const { text } = useQuantities()
  const stop = useMemo(() => attempt(() => headroomStopAtStage(records, position, share)), [records, position, share])
  const left = `${text('share', share, { decimals: 0 })} left`
  const links = (
    <Link to={`/builds/${records.build.id}/power?tab=links`} className="word-link">
      weak links
    </Link>
  )
  if (stop instanceof CalculationError)
    return (
      <p>
        raise nothing with under {left} of the weakest part ({links}): {stop.message}
      </p>
    )
  if (!stop)
    return (
      <p>
        raise nothing with under {left} of the weakest part: none of the rated ones gets there ({links})
      </p>
    )
  return (
    <p>
      power over {text('power', stop.powerW)}: from there {records.parts.find(({ id }) => id === stop.partId)?.name} has under {left} ({links})
    </p>
  )
}
