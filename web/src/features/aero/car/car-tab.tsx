import { balanceSteps, fromSi, wantedChances } from '@bold-ballast/core'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { Figure } from '../../../ui/figure.tsx'
import { SvgButton } from '../../../ui/files/svg-button.tsx'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { mountWords } from '../news.ts'
import { type AeroTabProps, totalsBasis } from '../tab-props.ts'
import { boxVerdicts } from '../verdicts.ts'
import { DeviceTable } from './device-table.tsx'
import { RuleTable } from './rule-table.tsx'
import { SideView } from './side-view.tsx'
import { TapedLine } from './taped-line.tsx'

/** What a sum is without. */
function without({ lacksBody, unknown }: AeroTabProps['totals']['loads']): string {
  const names = [...(lacksBody ? ['the body'] : []), ...unknown]
  return names.length > 0 ? `, without ${names.join(', ')}` : ''
}

/** Which sums start from a test of the whole car: then devices below do not add up to them. */
function testWords({ drag, loads }: AeroTabProps['totals'], { tests }: AeroTabProps['room']): string[] {
  return [
    { word: 'Drag', side: drag },
    { word: 'Downforce', side: loads },
  ].flatMap(({ word, side: { test } }) => {
    const found = test && tests.find(({ id }) => id === test.anchor.testId)
    if (!test || !found) return []
    const since = test.since.length === 0 ? 'nothing differs since' : `with ${test.since.join(', ')} since`
    return [`${word} by the test of ${dayText(found.at)} at stage ${found.position}, ${since}`]
  })
}

/** Whether a target is met, in words of how likely it is. */
function Wanted({ made, totals, q }: Pick<AeroTabProps, 'made' | 'totals' | 'q'>) {
  const { text } = useQuantities()
  const word = (chance: number) => (chance >= 0.8 ? 'on course' : chance >= 0.2 ? 'doubtful' : 'unlikely')
  const tenths = (chance: number) => `${Math.round(10 * chance)} in 10`
  const { wantedDownforceN, wantedBalance } = made
  const { downforce: force, balance: share } = wantedChances(totals, { downforceN: wantedDownforceN, balance: wantedBalance, airPressurePa: q })
  return (
    <ul className="mt-2">
      {force !== null && wantedDownforceN !== null && (
        <li>
          <strong>{text('force', wantedDownforceN, { decimals: 0 })} or more</strong>{' '}
          <span className={force >= 0.8 ? '' : 'text-wait'}>
            {word(force)}, {tenths(force)}
          </span>
        </li>
      )}
      {share !== null && wantedBalance && (
        <li>
          <strong>
            {text('share', wantedBalance.from, { decimals: 0 })} to {text('share', wantedBalance.to, { decimals: 0 })} front
          </strong>{' '}
          <span className={share >= 0.8 ? '' : 'text-wait'}>
            {word(share)}, {tenths(share)}
          </span>
        </li>
      )}
    </ul>
  )
}

/** Every notch and size that would bring the balance to what is wanted, nearest first. */
function Steps({
  made,
  picks,
  pick,
  totals,
  room,
  q,
  verdicts,
}: Pick<AeroTabProps, 'made' | 'picks' | 'pick' | 'totals' | 'room' | 'q'> & { verdicts: ReturnType<typeof boxVerdicts> }) {
  const { text, format } = useQuantities()
  const wanted = made.wantedBalance?.from ?? made.frontShare?.value ?? null
  const basis = useMemo(() => totalsBasis(made, room), [made, room])
  const steps = useMemo(() => (wanted === null ? [] : balanceSteps(made.devices, picks, basis, wanted)), [made.devices, picks, basis, wanted])
  if (wanted === null || steps.length === 0 || !totals.balance) return null
  const limitOf = (metric: string) => verdicts.find(({ limit }) => limit.metric === metric)?.limit.value
  const most = { lip: limitOf('reachFront'), chord: limitOf('wingChord') }
  return (
    <>
      <h3 className="mt-4 mb-1 font-semibold">To stand at {text('share', wanted, { decimals: 0 })}</h3>
      <table className="w-full">
        <tbody>
          {steps.slice(0, 5).map((step) => {
            const { size } = step
            const limit = size ? most[size.of] : undefined
            const over = size && limit !== undefined ? size.valueM - limit : null
            return (
              <tr key={`${step.deviceId} ${step.notch?.id ?? size?.of}`} className="border-t border-line align-top">
                <th scope="row" className="py-1 pr-2 text-left font-normal">
                  {step.name}: <strong>{step.notch ? step.notch.name : `${size?.of} ${text('length', size?.valueM ?? 0)}`}</strong>
                </th>
                <td className="py-1 text-right font-semibold tabular-nums">
                  {step.frontShare === null ? '' : text('share', step.frontShare, { decimals: 0 })}
                </td>
                <td className="py-1 pl-3 text-xs">
                  {format('force', q * step.downforceM2, { sign: true, decimals: 0 }).number} down,{' '}
                  {text('force', q * step.dragM2, { sign: true, decimals: 0 })} drag
                  {over !== null && over > 0 && <span className="block text-danger">{text('length', over)} over the box</span>}
                  {(step.stallChance ?? 0) > 0.25 && <span className="block text-wait">may have let go</span>}
                  {step.notch && (
                    <button type="button" className="word-link block" onClick={() => pick(step.deviceId, step.notch?.id ?? '')}>
                      look at it
                    </button>
                  )}
                </td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </>
  )
}

/** The car to scale with the planes of the rules, the force of each device, and where downforce acts against the weight. */
export function CarTab(props: AeroTabProps) {
  const { records, made, room, picks, pick, keep, totals, q, stageId, position, openDevice, openOutline, openOutlineAnew } = props
  const [holder, width] = useWidth<HTMLDivElement>(720)
  const verdicts = useMemo(() => boxVerdicts(made, made.outline, picks), [made, made.outline, picks])
  const overs = useMemo(() => new Set(verdicts.filter(({ margin }) => margin < 0).map(({ name }) => name)), [verdicts])
  const isLooked = made.devices.some(({ id, picked }) => picks[id] !== undefined && picks[id] !== picked)
  const { units } = useQuantities()
  const drag = Math.sqrt(totals.areas.dragVariance)
  const unsafe = mountWords(made)
  const tested = testWords(totals, room)
  return (
    <>
      <div className="grid gap-x-6 gap-y-4 lg:grid-cols-[minmax(0,1fr)_330px]">
        <div ref={holder} className="min-w-0">
          {made.outline ? (
            <ScrollBox label="The car to scale">
              <SideView made={made} outline={made.outline} picks={picks} totals={totals} verdicts={verdicts} q={q} width={Math.max(560, width)} />
              <p className="flex flex-wrap justify-between gap-x-4">
                <span className="text-xs text-quiet">
                  {made.outlineStage === null ? 'Taped as bought.' : `Taped at stage ${made.outlineStage}.`}{' '}
                  <button type="button" className="word-link no-print" onClick={openOutlineAnew}>
                    {made.outlineStage === position ? 'Change the tapes of this stage' : 'Tape it anew from this stage on'}
                  </button>
                </span>
                <SvgButton name={`${records.build.name} aero stage ${position}`} holder={holder} what="the car to scale" />
              </p>
            </ScrollBox>
          ) : (
            <Empty
              title="Tape eleven dimensions; then the car stands here to scale"
              why="Overhangs, width, roof and a few more: a minute with a tape, and every limit of the class is drawn beside it."
            >
              <button type="button" className="button button-strong" onClick={openOutline}>
                Tape the outline
              </button>
            </Empty>
          )}
        </div>
        <div>
          {made.devices.length === 0 ? (
            <Empty
              title="No device yet"
              why="Begin with the bare body: its drag, and whether it lifts. Then splitter, floor and wing, each with its line in the ledger."
            >
              <button type="button" className="button button-strong" onClick={() => openDevice('')}>
                New device
              </button>
            </Empty>
          ) : (
            <>
              <dl className="flex flex-wrap gap-x-8 gap-y-2">
                <div>
                  <dt className="text-xs text-quiet">Downforce{without(totals.loads)}</dt>
                  <dd className="text-[22px] font-bold">
                    <Figure
                      kind="force"
                      value={q * totals.downforceM2}
                      sd={q * totals.downforceSdM2}
                      showSpread
                      proof={totals.loads.proof}
                      {...(isLooked || !totals.loads.isWhole ? {} : { working: { of: 'downforce' as const, id: stageId } })}
                    />
                  </dd>
                </div>
                <div>
                  <dt className="text-xs text-quiet">Drag{without(totals.drag)}</dt>
                  <dd className="text-[22px] font-bold">
                    <Figure kind="force" value={q * totals.areas.dragM2} sd={q * drag} showSpread proof={totals.drag.proof} />
                  </dd>
                </div>
              </dl>
              <p className="text-xs text-quiet">
                Areas: {fromSi('area', totals.downforceM2, units.area).toFixed(3)} down, {fromSi('area', totals.areas.dragM2, units.area).toFixed(3)} drag,{' '}
                {units.area}
              </p>
              {tested.map((words) => (
                <p key={words} className="text-xs text-quiet">
                  {words}
                </p>
              ))}
              <Wanted made={made} totals={totals} q={q} />
              {totals.noBalance && <p className="mt-1 border-l-4 border-wait pl-3">{totals.noBalance}</p>}
              {isLooked && (
                <p className="mt-2 border-l-4 border-wait pl-3">
                  Looked at, not stored.{' '}
                  <button type="button" className="word-link" onClick={keep}>
                    Keep these notches
                  </button>
                </p>
              )}
              <div className="mt-3">
                <DeviceTable totals={totals} q={q} pick={pick} keep={keep} picks={picks} openDevice={openDevice} overs={overs} />
              </div>
              <Steps made={made} picks={picks} pick={pick} totals={totals} room={room} q={q} verdicts={verdicts} />
            </>
          )}
        </div>
      </div>
      {unsafe && (
        <p className="mt-4 border-l-4 border-danger pl-3">
          {unsafe.charAt(0).toUpperCase() + unsafe.slice(1)}.{' '}
          <Link className="word-link" to={`/builds/${records.build.id}/aero?tab=mounts&stage=${stageId}`}>
            Look at its mount
          </Link>
        </p>
      )}
      {verdicts.length > 0 ? (
        <div className="mt-4">
          <RuleTable verdicts={verdicts} />
        </div>
      ) : (
        <p className="mt-4 text-quiet">
          No limit of a class holds at this stage.{' '}
          <Link className="word-link" to={`/builds/${records.build.id}/plan?tab=goals`}>
            Set what the rule book allows
          </Link>
        </p>
      )}
      <TapedLine records={records} stageId={stageId} />
    </>
  )
}
