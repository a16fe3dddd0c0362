import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  CalculationError,
  cornerBalance,
  formatNumber,
  PAD_NAMES,
  PAD_WORDS,
  type PerCorner,
  type PerchPlan,
  parseQuantity,
  perchesOf,
  placesOf,
  ratesOf,
  type WeightRoom,
} from '@bold-ballast/core'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { api, readFailure } from '../../api/api.ts'
import { useQuantities } from '../../ui/quantity.ts'
import { useRemoval } from '../../ui/removal.tsx'
import { Empty } from '../../ui/states.tsx'
import { dayText, timeText } from '../../ui/words.ts'
import { CROSS_WORDS } from './cross.ts'

type School = 'heightKept' | 'equalTurns'
const SCHOOL_WORDS: Record<School, string> = { heightKept: 'ride heights stay', equalTurns: 'equal and opposite turns' }

/** Perch turns to a wanted cross share, by both schools, with a log of what was turned and what it read then. */
export function BalanceTab({ records, room, stageId }: { records: RecordsAnswer; room: WeightRoom; stageId: string }) {
  const { build } = records
  const [search, setSearch] = useSearchParams()
  const { units, decimalMark, text } = useQuantities()
  const [create, creating] = api.useCreateRecordMutation()
  const rates = ratesOf(build)
  const perches = perchesOf(build)
  const steps = records.balanceSteps.filter((step) => step.stageId === stageId)
  const lastStep = steps.at(-1)
  const weighing = [...records.weighings]
    .filter((entry) => entry.setAside === null && !entry.secondPlacement && PAD_NAMES.every((pad) => entry.pads[pad] !== null))
    .sort((a, b) => Date.parse(b.at) - Date.parse(a.at))[0]
  const typed = search.get('cross') ?? '50 %'
  const setTyped = (value: string) => {
    const next = new URLSearchParams(search)
    next.set('cross', value)
    setSearch(next, { replace: true })
  }
  if (!weighing)
    return <Empty title="The car has not been on four pads" why="Corner balance starts from four readings on one plane, with nothing changed since." />
  if (!rates || !perches)
    return (
      <Empty
        title="The springs are not known"
        why="Turns follow from the rate at the wheel, the motion ratio and the thread of the perch. Type them once for the car."
      >
        <Link to={`/builds/${build.id}/plan?tab=car`} className="button">
          Type the springs
        </Link>
      </Empty>
    )
  const isAfterWeighing = lastStep?.after && Date.parse(lastStep.at) > Date.parse(weighing.at)
  const corners = (isAfterWeighing ? lastStep.after : Object.fromEntries(PAD_NAMES.map((pad) => [pad, weighing.pads[pad]?.massKg ?? 0]))) as PerCorner<number>
  const convention = build.crossConvention === 'lfRr' ? 'lfRr' : 'rfLr'
  const asSaid = (rfLr: number) => (convention === 'rfLr' ? rfLr : 1 - rfLr)
  const plan = attempt(() => {
    const said = parseQuantity(typed, 'share', { defaultUnit: '%', decimalMark, field: 'The wanted cross' }).value
    const wantedCrossRfLr = asSaid(said)
    return { wantedCrossRfLr, ...cornerBalance({ corners, ...placesOf(build), ...rates, ...perches, wantedCrossRfLr }) }
  })
  const percent = (share: number, decimals = 2) => text('share', share, { decimals })
  const log = (school: School, done: PerchPlan, wantedCrossRfLr: number) =>
    void create({
      buildId: build.id,
      resource: 'balance-steps',
      body: {
        id: crypto.randomUUID(),
        stageId,
        at: new Date().toISOString(),
        school,
        wantedCrossRfLr,
        before: corners,
        turns: done.turns,
        after: null,
        note: null,
      },
    })
  return (
    <div className="grid gap-6">
      <p className="border-l-4 border-wait pl-3">
        Disconnect the anti-roll bars before reading and before turning, and connect them again without preload: they resist warp, so what is set with them on
        changes when they are touched. Roll and bounce the car after each round.
      </p>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <label>
          <span className="mb-1 block font-semibold">
            Wanted {CROSS_WORDS[convention].toLowerCase().replace('rf', 'RF').replace('lr', 'LR').replace('lf', 'LF').replace('rr', 'RR')}
          </span>
          <input value={typed} onChange={(event) => setTyped(event.target.value)} inputMode="decimal" className="w-[110px]" />
        </label>
        <p className="text-quiet">
          From {isAfterWeighing ? `the last round, ${timeText(lastStep.at)}` : `the weighing of ${dayText(weighing.at)}`}:{' '}
          {PAD_NAMES.map((pad) => `${pad} ${text('mass', corners[pad], { decimals: 1 })}`).join(', ')}.
        </p>
      </div>
      {plan instanceof CalculationError ? (
        <p role="alert" className="border-l-4 border-danger py-1 pl-3">
          {plan.message}
        </p>
      ) : (
        <>
          <p>
            Now <strong>{percent(asSaid(plan.before.crossShareRfLr))}</strong>, which is {percent(1 - asSaid(plan.before.crossShareRfLr))} by the other diagonal
            and a wedge of <strong>{text('mass', corners.LR - corners.RR, { sign: true, decimals: 1 })}</strong> (left rear less right rear). Front{' '}
            {percent(plan.before.frontShare)} and left {percent(plan.before.leftShare)} cannot be changed by perches.
          </p>
          <div className="grid gap-8 min-[900px]:grid-cols-2">
            {(['heightKept', 'equalTurns'] as const).map((school) => (
              <PlanTable
                key={school}
                title={school === 'heightKept' ? 'By rate and ratio: ride heights stay' : 'The other school: equal and opposite turns'}
                plan={plan[school]}
                reached={percent(asSaid(plan[school].crossShareRfLr))}
                exact={school === 'heightKept' ? plan.exactTurns : null}
                log={() => log(school, plan[school], plan.wantedCrossRfLr)}
                isBusy={creating.isLoading}
                unit={units.mass}
              />
            ))}
          </div>
        </>
      )}
      {steps.length > 0 && (
        <section>
          <h2 className="mb-1">Rounds at the scales</h2>
          <ol>
            {steps.map((step, i) => (
              <StepRow
                key={step.id}
                records={records}
                step={step}
                number={i + 1}
                asSaid={(corners4) => percent(asSaid((corners4.RF + corners4.LR) / PAD_NAMES.reduce((sum, pad) => sum + corners4[pad], 0)))}
              />
            ))}
          </ol>
        </section>
      )}
      <p className="text-xs text-quiet">
        {room.weighings.length > 0 && 'Turns are whole quarters, and what they give was worked out again after rounding. '}
        Formula and sources:{' '}
        <Link to="/formulas/mass.corner-balance" className="word-link">
          mass.corner-balance
        </Link>
      </p>
    </div>
  )
}

function attempt<Result>(work: () => Result): Result | CalculationError {
  try {
    return work()
  } catch (error) {
    if (error instanceof CalculationError) return error
    throw error
  }
}

/** "1¾ turns up": quarters as a person counts them. */
export function turnWords(turns: number): string {
  if (turns === 0) return 'leave it'
  const size = Math.abs(turns)
  const whole = Math.floor(size)
  const quarter = ['', '¼', '½', '¾'][Math.round((size - whole) * 4) % 4]
  return `${whole > 0 || !quarter ? whole : ''}${quarter} ${size > 1 ? 'turns' : 'turn'} ${turns > 0 ? 'up' : 'down'}`
}

function PlanTable({
  title,
  plan,
  reached,
  exact,
  log,
  isBusy,
  unit,
}: {
  title: string
  plan: PerchPlan
  reached: string
  exact: PerCorner<number> | null
  log: () => void
  isBusy: boolean
  unit: string
}) {
  const { text, format } = useQuantities()
  return (
    <section>
      <h2 className="mb-1">{title}</h2>
      <table className="w-full border-collapse">
        <thead>
          <tr className="border-b border-line">
            <th className="p-1.5">Perch</th>
            <th className="p-1.5">Turn</th>
            <th className="p-1.5 text-right">Then, {unit}</th>
            <th className="p-1.5 text-right">Body rises</th>
          </tr>
        </thead>
        <tbody>
          {PAD_NAMES.map((pad) => (
            <tr key={pad} className="border-b border-line">
              <td className="p-1.5">{PAD_WORDS[pad]}</td>
              <td className="p-1.5 text-[16px] font-bold">
                {turnWords(plan.turns[pad])}
                {exact && <span className="block text-xs font-normal text-quiet">exactly {formatNumber(exact[pad], 2)}</span>}
              </td>
              <td className="p-1.5 text-right">{format('mass', plan.cornersKg[pad], { decimals: 1 }).number}</td>
              <td className="p-1.5 text-right">{text('length', plan.riseM[pad], { sign: true, decimals: 2 })}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="my-2">
        Reaches <strong>{reached}</strong>.
      </p>
      <button type="button" className="button" onClick={log} disabled={isBusy}>
        Turned: log this round
      </button>
    </section>
  )
}

/** A round that was turned; the readings after it are typed in the same row. */
function StepRow({
  records,
  step,
  number,
  asSaid,
}: {
  records: RecordsAnswer
  step: RecordsAnswer['balanceSteps'][number]
  number: number
  asSaid: (corners: PerCorner<number>) => string
}) {
  const buildId = records.build.id
  const { units, decimalMark, text } = useQuantities()
  const [typed, setTyped] = useState<PerCorner<string>>({ LF: '', RF: '', LR: '', RR: '' })
  const [refusal, setRefusal] = useState('')
  const [patch] = api.usePatchRecordMutation()
  const removal = useRemoval(buildId, 'balance-steps')
  const save = async () => {
    const read = attempt(() =>
      Object.fromEntries(
        PAD_NAMES.map((pad) => [pad, parseQuantity(typed[pad], 'mass', { defaultUnit: units.mass, decimalMark, field: PAD_WORDS[pad] }).value]),
      ),
    )
    if (read instanceof CalculationError) return setRefusal(read.message)
    const answer = await patch({ buildId, resource: 'balance-steps', id: step.id, body: { version: step.version, after: read } })
    setRefusal(answer.error ? readFailure(answer.error).message : '')
  }
  return (
    <li className="border-b border-line py-2">
      <p>
        <strong>
          {number}. {timeText(step.at)}
        </strong>
        , {step.school === 'byHand' ? 'by hand' : SCHOOL_WORDS[step.school]}: {PAD_NAMES.map((pad) => `${pad} ${turnWords(step.turns[pad])}`).join(', ')}.{' '}
        <button type="button" className="word-link" onClick={() => void removal.take(step)} aria-label={`Delete round ${number}`}>
          delete
        </button>
      </p>
      <p className="text-quiet">
        Before {asSaid(step.before)}
        {step.after && (
          <>
            , after <strong className="text-ink">{asSaid(step.after)}</strong>:{' '}
            {PAD_NAMES.map((pad) => `${pad} ${text('mass', step.after?.[pad] ?? 0, { decimals: 1 })}`).join(', ')}
          </>
        )}
      </p>
      {!step.after && (
        <form
          className="no-print mt-1 flex flex-wrap items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            void save()
          }}
        >
          {PAD_NAMES.map((pad) => (
            <label key={pad} className="text-xs text-quiet">
              {PAD_WORDS[pad]} now
              <input
                value={typed[pad]}
                onChange={(event) => setTyped({ ...typed, [pad]: event.target.value })}
                inputMode="decimal"
                autoComplete="off"
                className="block w-[96px] text-[14px]"
              />
            </label>
          ))}
          <button type="submit" className="button">
            Store what it reads
          </button>
          {refusal && (
            <span role="alert" className="text-danger">
              {refusal}
            </span>
          )}
        </form>
      )}
      {removal.notice}
    </li>
  )
}
