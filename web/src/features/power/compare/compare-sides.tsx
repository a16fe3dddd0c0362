import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  attempt,
  boostForPowerPa,
  CalculationError,
  type ComparableSets,
  LOSS_SCHOOL_WORDS,
  lossOf,
  type SetComparison,
  toSi,
  wheelToCrank,
} from '@bold-ballast/core'
import { Link } from 'react-router'
import { Figure } from '../../../ui/figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'

/** Both sets row by row, as a tuner reads a sheet: what was made, how flat, how steady, and what ran beside it. */
export function Sides({ sets, found, names }: { sets: ComparableSets; found: SetComparison; names: readonly [string, string] }) {
  const { text, format } = useQuantities()
  const rpm = (value: number) => format('engineSpeed', value).number
  const sides = [
    { ...sets.first, ...found.first },
    { ...sets.second, ...found.second },
  ]
  type OneSide = (typeof sides)[number]
  const row = (label: string, of: (side: OneSide) => React.ReactNode) => (
    <tr className="border-b border-line align-baseline">
      <th scope="row" className="p-1.5">
        {label}
      </th>
      {sides.map((side, i) => (
        <td key={names[i]} className="p-1.5 text-right">
          {of(side)}
        </td>
      ))}
    </tr>
  )
  const beside = (label: string, of: (side: OneSide) => string | null) =>
    sides.some((side) => of(side) !== null) ? row(label, (side) => of(side) ?? <span className="text-quiet">not recorded</span>) : null
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scroller that the keyboard can reach
    <section className="relative overflow-x-auto" aria-label="Both sets" tabIndex={0}>
      <table className="w-full max-w-[760px] border-collapse">
        <thead>
          <tr className="border-b border-line">
            <th className="p-1.5">
              <span className="sr-only">Property</span>
            </th>
            {names.map((name, i) => (
              <th key={i === 0 ? 'from' : 'to'} className="p-1.5 text-right">
                {i === 0 ? 'From' : 'To'}
                <span className="block font-normal">{name}</span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {row('Mean of the band', ({ meanW }) => (
            <span className="text-[16px] font-bold">
              <Figure kind="power" value={meanW} decimals={1} />
            </span>
          ))}
          {row('Pulls', ({ bandMeansW }) => bandMeansW.length)}
          {row('Peak', ({ band90 }) => text('power', band90.peak, { decimals: 1 }))}
          {row('Over 90 % of it', ({ band90 }) => (
            <>
              {rpm(band90.fromRpm)} to {rpm(band90.toRpm)} rpm, {rpm(band90.widthRpm)} wide
              {band90.isOpen && <span className="block text-xs text-quiet">an end of the data</span>}
            </>
          ))}
          {row('Least torque over most', ({ torqueFlatness }) => text('share', torqueFlatness, { decimals: 0 }))}
          {row('Drift a pull', ({ drift }) =>
            drift ? (
              <span className={drift.isDrifting ? 'font-semibold text-wait' : 'text-quiet'}>
                {text('power', drift.slopePerPull, { sign: true, decimals: 2 })}
                {drift.isDrifting ? '' : ', none'}
              </span>
            ) : (
              <span className="text-quiet">needs 4 pulls</span>
            ),
          )}
          {beside('Intake air', ({ beside: { intakeK } }) => (intakeK === null ? null : text('temperature', intakeK, { decimals: 0 })))}
          {beside('Lambda', ({ beside: { lambda } }) => (lambda === null ? null : lambda.toFixed(3)))}
          {beside('Boost', ({ beside: { boostPa } }) => (boostPa === null ? null : text('pressure', boostPa, { decimals: 0 })))}
          {beside('Boost for each 100 of power', ({ beside: means }) => {
            const { unit } = format('power', 0)
            const boostPa = boostForPowerPa(means, toSi('power', 100, unit))
            return boostPa === null ? null : `${text('pressure', boostPa, { decimals: 1 })} for 100 ${unit}`
          })}
        </tbody>
      </table>
    </section>
  )
}

/** What the schools would call the crank power, side by side: none of them is surer than 5 %. */
export function Crank({ records, wheelPowerW }: { records: RecordsAnswer; wheelPowerW: number }) {
  const { text } = useQuantities()
  const loss = lossOf(records.build)
  if (records.build.powerBasis.place === 'engine') return null
  const found = attempt(() => wheelToCrank({ wheelPowerW, ...loss }))
  return (
    <section>
      <h2 className="mb-1">At the crank, by school</h2>
      {found instanceof CalculationError ? (
        <p role="alert">{found.message}</p>
      ) : (
        <p>
          {LOSS_SCHOOL_WORDS[loss.school]}: <strong>{text('power', found.crankPowerW, { sd: found.sdW })}</strong> ±{' '}
          {text('power', found.sdW, { sd: found.sdW })}
          {found.others.map(({ school, crankPowerW: power }) => (
            <span key={school}>
              ; {LOSS_SCHOOL_WORDS[school]}: <strong>{text('power', power, { sd: found.sdW })}</strong>
            </span>
          ))}
          .
        </p>
      )}
      <p className="text-quiet">
        {loss.isUsual ? 'With usual losses (10 kW and 5 %; or 14 %; common practice, no source)' : 'With the build’s own losses'}: wheel power is what was
        measured, crank power is a reckoning. A roller’s figure is never turned into a hub’s.{' '}
        <Link to={`/builds/${records.build.id}/plan?tab=car`} className="word-link">
          Pick the school
        </Link>
      </p>
    </section>
  )
}
