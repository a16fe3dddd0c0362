import {
  attempt,
  CalculationError,
  type CornerSlide,
  DRIVE_INPUT_WORDS,
  formatChance,
  gearWord,
  type SlideSetup,
  slideLevers,
  slideLink,
  slidingShare,
} from '@bold-ballast/core'
import { useMemo } from 'react'
import { Figure } from '../../../ui/figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Caution } from '../../../ui/states.tsx'

interface Props {
  readonly setup: SlideSetup
  readonly picked: CornerSlide
  readonly slides: readonly CornerSlide[]
  readonly pick: (name: string) => void
  readonly step: (by: number) => void
}

/** The picked corner: what it takes, what each gear has, what would do it, and one gear for the whole run. */
export function SlideSide({ setup, picked, slides, pick, step }: Props) {
  const { text } = useQuantities()
  const { state, speedMps, corner, gears, best, sd, chance, name } = picked
  const levers = useMemo(() => attempt(() => slideLevers(setup.car, setup.train, corner, setup.reserve)), [setup, corner])
  const linked = useMemo(
    () =>
      slides.length > 1
        ? attempt(() =>
            slideLink(
              setup.car,
              setup.train,
              slides.map((each) => each.corner),
              0,
            ),
          )
        : null,
    [setup, slides],
  )
  const guess = setup.inputs.filter(({ key, isGuess }) => isGuess && (key === 'friction' || key === 'slideShare'))
  const wide = state.frontNeeds > setup.frontPeak
  const one =
    linked && !(linked instanceof CalculationError)
      ? linked.find(({ finals }) => finals.some(({ from, to }) => setup.train.finalRatio >= from && setup.train.finalRatio <= to))
      : undefined
  return (
    <div>
      <label className="flex items-center gap-2">
        <span className="sr-only">Corner</span>
        <select
          value={name}
          onChange={(event) => pick(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return
            event.preventDefault()
            step(event.key === 'ArrowDown' ? 1 : -1)
          }}
          className="font-semibold"
        >
          {slides.map((each) => (
            <option key={each.name} value={each.name}>
              {each.name}
            </option>
          ))}
        </select>
        <span className="text-quiet">
          {corner.cornerRadiusM === undefined ? '' : `${Number(corner.cornerRadiusM.toFixed(0))} m, `}
          {text('angle', corner.slideAngleRad, { decimals: 0 })}: {text('speed', speedMps, { decimals: 0 })}
        </span>
      </label>
      <p className="mt-2 text-[26px] leading-tight font-bold">
        <Figure kind="power" value={state.powerW} decimals={0} proof={guess.length > 0 ? 'guess' : 'calculated'} />
      </p>
      <p>
        needed at the wheels;{' '}
        {best
          ? `${gearWord(best.gear)} has ${text('share', best.inHand ?? 0, { decimals: 0, sign: true })} in hand ± ${text('share', sd, { decimals: 0 })}`
          : 'no gear has the engine on its curve'}
        .
      </p>
      <p className="mt-1">
        <b>
          {chance >= 0.8 ? 'holds' : chance >= 0.2 ? 'doubtful' : 'does not hold'}, {formatChance(chance)}
        </b>
        {guess.length > 0 && (
          <span className="text-quiet"> {guess.map(({ key }) => DRIVE_INPUT_WORDS[key].word).join(' and ')} are guesses and carry most of the doubt.</span>
        )}
      </p>
      <table className="mt-3 w-full">
        <thead>
          <tr>
            <th className="text-left">Gear</th>
            <th className="text-right">rpm</th>
            <th className="text-right">In hand</th>
          </tr>
        </thead>
        <tbody>
          {gears
            .filter(({ ends, inHand }) => ends === 'over' || (inHand ?? -1) > -0.6)
            .map(({ gear, speedRpm, inHand, ends }) => (
              <tr key={gear} className={`border-t border-line ${gear === best?.gear ? 'font-semibold' : ''}`}>
                <td>{gearWord(gear)}</td>
                <td className="text-right tabular-nums">{text('engineSpeed', speedRpm, { decimals: 0 }).replace(/\s*rpm/, '')}</td>
                <td className="text-right tabular-nums">
                  {inHand === null ? (ends === 'over' ? 'out of revs' : 'under its curve') : text('share', inHand, { decimals: 0, sign: true })}
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      <h3 className="mt-4 font-semibold">What would give {text('share', setup.reserve, { decimals: 0 })}, one at a time</h3>
      {levers instanceof CalculationError ? <p className="text-quiet">{levers.message}</p> : <Levers levers={levers} setup={setup} picked={picked} />}
      {linked && !(linked instanceof CalculationError) && (
        <p className="mt-3">
          <b>One gear for the whole run:</b>{' '}
          {one
            ? `${gearWord(one.gear)} holds every corner as it is.`
            : linked.some(({ finals }) => finals.length > 0)
              ? linked
                  .filter(({ finals }) => finals.length > 0)
                  .map(
                    ({ gear, finals }) =>
                      `${gearWord(gear)} with a final of ${finals.map(({ from, to }) => `${from.toFixed(2)} to ${to.toFixed(2)}`).join(' or ')}`,
                  )
                  .join('; ')
              : 'no gear holds them all with any final.'}
        </p>
      )}
      <p className={`mt-3 ${wide ? 'border-l-4 border-wait pl-3' : 'text-quiet'}`}>
        Front tyres need {state.frontNeeds.toFixed(2)} and have {setup.frontPeak.toFixed(2)}
        {wide ? ': the nose runs wide before this angle.' : '.'} Steering {text('angle', state.steeringRad, { decimals: 0 })}
        {setup.lockRad === null
          ? ' at the wheels; the lock is not known.'
          : ` of ${text('angle', setup.lockRad, { decimals: 0 })}${Math.abs(state.steeringRad) > setup.lockRad ? ': more than the lock.' : '.'}`}
      </p>
      <Caution className="mt-3">Slide on closed courses only; prop shaft loops and a shield over the clutch by the event’s rules.</Caution>
    </div>
  )
}

function Levers({ levers, setup, picked }: { levers: ReturnType<typeof slideLevers>; setup: SlideSetup; picked: CornerSlide }) {
  const { text } = useQuantities()
  const { powerFactor, finalRatio, bestFinal, slidingFriction, speedAtFrictionMps, massKg, slideAngleRad } = levers
  // Grip is told as the peak that tyres are known by; sliding leaves a share of it.
  const sliding = slidingShare(setup)
  const atRpm = picked.best?.speedRpm ?? setup.train.topRpm
  const rows: readonly [string, string, string][] = [
    [
      'Power',
      powerFactor === null ? 'out of reach' : powerFactor === 1 ? 'enough' : `× ${powerFactor.toFixed(2)}`,
      powerFactor === null || powerFactor === 1 ? '' : `at ${text('engineSpeed', atRpm, { decimals: 0 })}`,
    ],
    [
      'Final drive',
      finalRatio === null ? 'no ratio does it' : Math.abs(finalRatio - setup.train.finalRatio) < 0.002 ? 'as it is' : finalRatio.toFixed(2),
      finalRatio === null && bestFinal
        ? `best ${bestFinal.finalRatio.toFixed(2)}: ${text('share', bestFinal.inHand, { decimals: 0, sign: true })} in hand`
        : '',
    ],
    [
      'Rear tyres',
      slidingFriction === null ? 'out of reach' : `grip ${(slidingFriction / sliding).toFixed(2)}`,
      slidingFriction === null
        ? ''
        : `now ${(setup.car.slidingFriction / sliding).toFixed(2)}${speedAtFrictionMps === null ? '' : `; slides at ${text('speed', speedAtFrictionMps, { decimals: 0 })}`}`,
    ],
    [
      'Weight',
      massKg === null ? 'out of reach' : text('mass', massKg - setup.car.massKg, { decimals: 0, sign: true }),
      massKg === null ? '' : `to ${text('mass', massKg, { decimals: 0 })}`,
    ],
    [
      'Angle',
      slideAngleRad === null ? 'out of reach' : text('angle', slideAngleRad, { decimals: 1 }),
      `now ${text('angle', picked.corner.slideAngleRad, { decimals: 0 })}`,
    ],
  ]
  return (
    <table className="w-full">
      <caption className="sr-only">Levers, each alone</caption>
      <tbody>
        {rows.map(([lever, value, words]) => (
          <tr key={lever} className="border-t border-line">
            <th scope="row" className="py-0.5 pr-2 text-left font-normal whitespace-nowrap text-quiet">
              {lever}
            </th>
            <td className="py-0.5 font-semibold whitespace-nowrap tabular-nums">{value}</td>
            <td className="py-0.5 text-right text-xs text-quiet">{words}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
