import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  type BuildRecords,
  LOSS_SCHOOL_WORDS,
  lossOf,
  measuredEngine,
  measuredPowerW,
  type PlanStep,
  type PlanStepKey,
  type PowerRoom,
  partsAtStage,
  planAtStage,
  planWithParts,
  workEnginePlan,
} from '@bold-ballast/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { api } from '../../../data/api.ts'
import { Panel } from '../../../ui/dialog.tsx'
import { fieldName } from '../../../ui/forms/form-fields.ts'
import type { FormValues } from '../../../ui/forms/form-reader.ts'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Empty } from '../../../ui/states.tsx'
import { firstPlan, planForm } from './plan-form.ts'
import { PlanOffers } from './plan-offers.tsx'

const STEP_WORDS: Record<PlanStepKey, string> = {
  power: 'power',
  fuel: 'fuel',
  air: 'air',
  pressure: 'pressure',
  compressor: 'compressor',
  cooler: 'cooler',
  injectors: 'injectors',
  pumps: 'fuel pumps',
  bmep: 'torque',
  piston: 'piston',
  heat: 'heat',
}

/** The field of the form that a step is changed by first. */
const STEP_FIELDS: Record<PlanStepKey, string> = {
  power: 'target.powerW',
  fuel: 'burn.bsfcKgPerJ',
  air: 'burn.lambda',
  pressure: 'air.afterLossPa',
  compressor: 'air.compressorEfficiency',
  cooler: 'air.coolerEffectiveness',
  injectors: 'injectors.count',
  pumps: 'pump.count',
  bmep: 'burn.torqueRise',
  piston: 'engine.strokeM',
  heat: 'burn.coolantShare',
}

/** From the power that is asked to what the engine and each of its parts must do, step by step. */
export function PlanTab({ records, room, position, stageId }: { records: RecordsAnswer; room: PowerRoom; position: number; stageId: string }) {
  /** The field that the form opens at; null: it is closed. */
  const [editing, setEditing] = useState<string | null>(null)
  const { text, units } = useQuantities()
  const [create] = api.useCreateRecordMutation()
  const [patch] = api.usePatchRecordMutation()
  const { build } = records
  const found = planAtStage(records, position)
  const own = found?.position === position ? found.plan : undefined
  const loss = lossOf(build)
  const stage = room.stages[position]
  const plan = found && planWithParts(found.plan, partsAtStage(records as unknown as BuildRecords, position))
  const worked = plan && workEnginePlan(plan, loss, measuredPowerW(stage, plan, build))
  const begun = planForm.defaults(found?.plan ?? firstPlan(records, position, measuredEngine(stage)), units)
  const [values, setValues] = useState<FormValues | null>(null)
  const close = () => {
    setEditing(null)
    setValues(null)
  }
  const asked = found && `${text('power', found.plan.target.powerW, { isGoal: true })} at the ${found.plan.target.place === 'wheel' ? 'wheels' : 'crank'}`
  const warned = worked?.steps.filter(({ warnings }) => warnings.length > 0).length ?? 0
  return (
    <>
      {!found || !worked ? (
        <Empty
          title="The engine is not planned yet"
          why="From the power you want it works out air, fuel, pressure, temperatures, injectors, pumps, mean pressure, piston speed and heat, and says which step refuses."
        >
          <button type="button" className="button" onClick={() => setEditing(STEP_FIELDS.power)}>
            Plan the engine
          </button>
        </Empty>
      ) : (
        <>
          <div className="mb-2 flex flex-wrap items-baseline gap-x-4 gap-y-2">
            <h2 className="text-[20px]">
              {asked}:{' '}
              {worked.refusedBy
                ? `refused at ${STEP_WORDS[worked.refusedBy]}`
                : worked.contradictedBy
                  ? `measured, so the plan is wrong at ${STEP_WORDS[worked.contradictedBy]}`
                  : warned > 0
                    ? `possible, ${warned} ${warned === 1 ? 'step' : 'steps'} to look at`
                    : 'every step is within what is usual'}
            </h2>
            <button type="button" className="button ml-auto" onClick={() => setEditing(STEP_FIELDS.power)}>
              {own ? 'Change the numbers' : `Plan stage ${position} anew`}
            </button>
          </div>
          {!own && (
            <p className="mb-2 text-quiet">
              This is the plan of stage {found.position}; stage {position} has none of its own.
            </p>
          )}
          <Steps steps={worked.steps} change={(key) => setEditing(STEP_FIELDS[key])} />
          <p className="mt-3 text-xs text-quiet">
            Wheel to crank by {LOSS_SCHOOL_WORDS[loss.school]}
            {loss.isUsual ? ', usual numbers (common practice, no source)' : ', the build’s own numbers'}; no crank figure is surer than 5 %.{' '}
            <Link to={`/builds/${build.id}/plan?tab=car`} className="word-link">
              Change the school
            </Link>
            . Building and mapping an engine to its limits can break it and hurt people: have fuel lines, pressures and the map checked by qualified people.
          </p>
        </>
      )}
      {editing !== null && (
        <Panel title={`Engine plan, stage ${position}`} onClose={close} focusOn={fieldName(editing)}>
          <RecordForm
            draftKey={`${build.id}.plan.${stageId}.${own?.version ?? 0}`}
            fields={planForm.specs()}
            defaults={begun}
            submitLabel="Store the plan"
            toBody={(read, id) => (own ? { version: own.version, ...planForm.body(read) } : { id, stageId, ...planForm.body(read) })}
            send={(body) =>
              own
                ? patch({ buildId: build.id, resource: 'engine-plans', id: own.id, body }).unwrap()
                : create({ buildId: build.id, resource: 'engine-plans', body }).unwrap()
            }
            onValues={setValues}
            onDone={close}
          >
            {(set) => <PlanOffers begun={begun} values={values ?? begun} set={set} />}
          </RecordForm>
        </Panel>
      )}
    </>
  )
}

/** What is usual of a step, in the picked units, and where that comes from. */
function Usual({ step }: { step: PlanStep }) {
  const { text, format } = useQuantities()
  if (step.usual.length === 0) return <span />
  const shown = (kind: PlanStep['usual'][number]['kind'], value: number) =>
    text(kind, value, kind === 'ratio' ? { decimals: value > 20 ? 0 : 2 } : { decimals: 0 })
  return (
    <p className="text-xs text-quiet">
      usual{' '}
      {step.usual.map(({ word, kind, low, high }, i) => (
        <span key={word}>
          {i > 0 && '; '}
          {word}{' '}
          {low === null
            ? `up to ${shown(kind, high ?? 0)}`
            : high === null
              ? `from ${shown(kind, low)}`
              : `${format(kind, low, kind === 'ratio' ? { decimals: low > 20 ? 0 : 2 } : { decimals: 0 }).number} to ${shown(kind, high)}`}
        </span>
      ))}{' '}
      ({step.usualFrom})
    </p>
  )
}

function Steps({ steps, change }: { steps: readonly PlanStep[]; change: (key: PlanStepKey) => void }) {
  const { text } = useQuantities()
  return (
    <ol className="max-w-[980px]">
      {steps.map((step) => (
        <li key={step.key} data-step={step.key} className="grid gap-x-5 gap-y-1 border-t border-line py-2 min-[760px]:grid-cols-[150px_1fr_300px]">
          <span>
            <strong className="block">{step.word}</strong>
            <span className="flex items-baseline gap-3 text-xs">
              <button type="button" className="word-link" onClick={() => change(step.key)} aria-label={`Change ${step.word}`}>
                change
              </button>
              <Link to={`/formulas/${step.calculation}`} className="word-link inline-block" aria-label={`Formula of ${step.word}`}>
                formula
              </Link>
            </span>
          </span>
          <div>
            {step.notGiven && <p className="text-quiet">{step.notGiven}</p>}
            {step.refusal && <p className="border-l-4 border-danger pl-3">{step.refusal}</p>}
            {step.waitsFor && <p className="text-quiet">waits for {STEP_WORDS[step.waitsFor]}</p>}
            {step.figures.length > 0 && (
              <dl className="flex flex-wrap gap-x-6 gap-y-1">
                {step.figures.map(({ word, kind, value }) => (
                  <div key={word}>
                    <dt className="text-xs text-quiet">{word}</dt>
                    <dd className="text-[18px] leading-6 font-semibold">
                      {text(kind, value, kind === 'ratio' ? { decimals: value > 20 ? 0 : 2 } : kind === 'share' ? { decimals: 0 } : {})}
                    </dd>
                  </div>
                ))}
              </dl>
            )}
            {step.warnings.map((warning) => (
              <p key={warning} className="text-wait">
                {warning}
              </p>
            ))}
          </div>
          <Usual step={step} />
        </li>
      ))}
    </ol>
  )
}
