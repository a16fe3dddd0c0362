import { attempt, CalculationError, driveMotion, LEAVE_SCHOOL_WORDS, LEAVE_SCHOOLS, leaveSpeeds, type ShiftCost, shiftCosts } from '@bold-ballast/core'
import { useMemo } from 'react'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import type { DriveTabProps } from '../tab-props.ts'

const EARLY_RPM = 250
/** Lights come on so long before the speed at which a gear is left. */
const LIGHTS_RPM = [750, 500, 250] as const

/** Where to leave each gear by three schools, what early and late cost, and a table for shift lights that prints on A4. */
export function ShiftsTab({ car, records }: DriveTabProps) {
  const { text, format } = useQuantities()
  const found = useMemo(() => {
    if (!car) return null
    return attempt(() => {
      const motion = driveMotion(car)
      const schools = LEAVE_SCHOOLS.map((school) => leaveSpeeds(motion, school))
      return { motion, schools, costs: shiftCosts(motion, schools[0] ?? [], EARLY_RPM) }
    })
  }, [car])
  if (!found) return null
  if (found instanceof CalculationError) return <p className="border-l-4 border-wait pl-3">{found.message}</p>
  const { schools, costs } = found
  const rpm = (value: number) => format('engineSpeed', value, { decimals: 0 }).number
  const cost = (seconds: number | null) => (seconds === null ? 'the gear ends' : `${format('lapTime', seconds, { decimals: 3 }).number} s`)
  const row = ({ gear, landsRpm, earlyS, lateS }: ShiftCost, i: number) => (
    <tr key={gear} className="border-t border-line">
      <th scope="row" className="py-1.5 text-left">
        {gear} → {gear + 1}
      </th>
      {schools.map((each, school) => (
        <td key={LEAVE_SCHOOLS[school]} className={`text-right tabular-nums ${school === 0 ? 'font-semibold' : 'text-quiet'}`}>
          {rpm(each[i] ?? 0)}
        </td>
      ))}
      <td className="text-right tabular-nums">{rpm(landsRpm)}</td>
      <td className="text-right tabular-nums">{cost(earlyS)}</td>
      <td className="text-right tabular-nums">{cost(lateS)}</td>
    </tr>
  )
  return (
    <div className="max-w-4xl">
      <ScrollBox label="Where to leave each gear">
        <table className="w-full">
          <caption className="mb-1 text-left">
            <b>Leave each gear at, rpm.</b>{' '}
            <span className="text-quiet">Good people differ: {LEAVE_SCHOOLS.map((school) => LEAVE_SCHOOL_WORDS[school]).join('; ')}.</span>
          </caption>
          <thead>
            <tr>
              <th className="text-left">Shift</th>
              <th className="text-right">by acceleration</th>
              <th className="text-right">by power</th>
              <th className="text-right">by force</th>
              <th className="text-right">lands at</th>
              <th className="text-right">{EARLY_RPM} rpm early costs</th>
              <th className="text-right">late costs</th>
            </tr>
          </thead>
          <tbody>{costs.map(row)}</tbody>
        </table>
      </ScrollBox>
      <section className="mt-8">
        <h2>Shift lights</h2>
        <p className="mb-2 text-quiet">
          {records.build.name}: engine speeds at which lights come on in each gear, the last one where the gear is left.{' '}
          <button type="button" className="word-link no-print" onClick={() => window.print()}>
            Print it on A4
          </button>
        </p>
        <table className="w-full max-w-xl text-[15px]">
          <thead>
            <tr>
              <th className="text-left">Gear</th>
              {LIGHTS_RPM.map((before) => (
                <th key={before} className="text-right">
                  {before} before
                </th>
              ))}
              <th className="text-right">Leave</th>
            </tr>
          </thead>
          <tbody>
            {costs.map(({ gear, leaveRpm }) => (
              <tr key={gear} className="border-t border-line">
                <th scope="row" className="py-1.5 text-left">
                  {gear}
                </th>
                {LIGHTS_RPM.map((before) => (
                  <td key={before} className="text-right tabular-nums">
                    {rpm(leaveRpm - before)}
                  </td>
                ))}
                <td className="text-right font-bold tabular-nums">{rpm(leaveRpm)}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {car && (
          <p className="mt-3 text-xs text-quiet">
            Top of the engine {text('engineSpeed', car.topRpm, { decimals: 0 })}; a shift takes {car.shiftS.toFixed(2)} s.
          </p>
        )}
      </section>
    </div>
  )
}
