import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  attempt,
  buildAtStage,
  CalculationError,
  cornerBalance,
  PAD_NAMES,
  PAD_WORDS,
  type PerCorner,
  type PerchPlan,
  parseQuantity,
  perchesOf,
  placesOf,
  ratesOf,
  sharesOf,
  type WeightRoom,
} from '@bold-ballast/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { api } from '../../../data/api.ts'
import { CarFigure, Corners, Words } from '../../../ui/drawing/car-figure.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert, Caution, Empty } from '../../../ui/states.tsx'
import { dayText, timeText } from '../../../ui/words.ts'
import { BalanceStepRow } from './balance-step.tsx'
import { PerchTable } from './perch-table.tsx'
import { TurnMark } from './turn-mark.tsx'
import { turnWords } from './turn-words.ts'

type School = 'heightKept' | 'equalTurns'

/** Perch turns to a wanted cross share, by both schools, with a log of what was turned and what it read then. */
export function BalanceTab({ records, room, stageId }: { records: RecordsAnswer; room: WeightRoom; stageId: string }) {
  const { build } = records
  const address = useAddress()
  const { units, decimalMark, text, format } = useQuantities()
  const [create, creating] = api.useCreateRecordMutation()
  // As it is sprung at the stage: a set-up may have changed the springs since the car was first described.
  const sprung = buildAtStage(records, stageId)
  const [rates, perches] = [ratesOf(sprung), perchesOf(sprung)]
  const steps = records.balanceSteps.filter((step) => step.stageId === stageId)
  const lastStep = steps.at(-1)
  const weighing = [...records.weighings]
    .filter((entry) => entry.setAside === null && !entry.secondPlacement && PAD_NAMES.every((pad) => entry.pads[pad] !== null))
    .sort((a, b) => Date.parse(b.at) - Date.parse(a.at))[0]
  const [typed, setTyped] = useState(address.get('cross') || '50 %')
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
  const geometry = placesOf(buildAtStage(records, weighing.stageId))
  const plan = attempt(() => {
    const said = parseQuantity(typed, 'share', { defaultUnit: '%', decimalMark, field: 'The wanted cross' }).value
    const wantedCrossRfLr = asSaid(said)
    return { wantedCrossRfLr, ...cornerBalance({ corners, ...geometry, ...rates, ...perches, wantedCrossRfLr }) }
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
      <Caution>
        Disconnect the anti-roll bars before reading and before turning, and connect them again without preload: they resist warp, so what is set with them on
        changes when they are touched. Roll and bounce the car after each round.
      </Caution>
      <div className="flex flex-wrap items-end gap-x-6 gap-y-3">
        <label>
          <span className="mb-1 block font-semibold">Wanted {convention === 'rfLr' ? 'cross, RF + LR' : 'cross, LF + RR'}</span>
          <input
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value)
              address.type({ cross: event.target.value })
            }}
            inputMode="decimal"
            className="w-[110px]"
          />
        </label>
        <p className="text-quiet">From {isAfterWeighing ? `the last round, ${timeText(lastStep.at)}` : `the weighing of ${dayText(weighing.at)}`}.</p>
      </div>
      {plan instanceof CalculationError ? (
        <Alert>{plan.message}</Alert>
      ) : (
        <>
          <p>
            Now <strong>{percent(asSaid(plan.before.crossShareRfLr))}</strong>, which is {percent(1 - asSaid(plan.before.crossShareRfLr))} by the other diagonal
            and a wedge of <strong>{text('mass', sharesOf(corners).wedgeKg, { sign: true, decimals: 1 })}</strong> (left rear less right rear). Front{' '}
            {percent(plan.before.frontShare)} and left {percent(plan.before.leftShare)} cannot be changed by perches.
          </p>
          <CarFigure
            geometry={geometry}
            label={`Turns at the perches, ride heights kept: ${PAD_NAMES.map((pad) => `${PAD_WORDS[pad]} ${turnWords(plan.heightKept.turns[pad])}`).join(', ')}`}
            plan={(scale) => (
              <>
                <Corners
                  scale={scale}
                  geometry={geometry}
                  of={(pad) => ({ head: format('mass', corners[pad], { decimals: 1 }).number, under: PAD_WORDS[pad] })}
                />
                {PAD_NAMES.map((pad) => (
                  <TurnMark key={pad} scale={scale} geometry={geometry} pad={pad} turns={plan.heightKept.turns[pad]} />
                ))}
                <Words
                  x={scale.x(geometry.wheelbaseM / 2)}
                  y={scale.y(0) - 6}
                  text={`cross ${percent(asSaid(plan.before.crossShareRfLr))}, then ${percent(asSaid(plan.heightKept.crossShareRfLr))}`}
                  weight={700}
                />
              </>
            )}
          />
          <div className="grid gap-8 min-[900px]:grid-cols-2">
            {(['heightKept', 'equalTurns'] as const).map((school) => (
              <PerchTable
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
              <BalanceStepRow key={step.id} records={records} step={step} number={i + 1} asSaid={(read) => percent(asSaid(sharesOf(read).crossShareRfLr))} />
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
