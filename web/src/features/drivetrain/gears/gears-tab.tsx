import { attempt, CalculationError, driveCourse, driveMotion, leaveSpeeds, runnableCourse, usedBand } from '@bold-ballast/core'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { DriveLine } from '../drive-line.tsx'
import type { DriveTabProps } from '../tab-props.ts'
import { FinalHandle } from './final-handle.tsx'
import { Forces } from './forces.tsx'
import { Ladder, type LadderMark } from './ladder.tsx'

/** What a course makes of the gears: its corners on the ladder, and the engine speeds it uses. */
function useCourse(car: DriveTabProps['car'], course: DriveTabProps['course']) {
  return useMemo(() => {
    if (!car) return null
    const motion = driveMotion(car)
    const leaveRpm = leaveSpeeds(motion)
    const driven = course ? attempt(() => driveCourse({ motion, leaveRpm, ...runnableCourse(course, car) })) : null
    return { motion, leaveRpm, driven }
  }, [car, course])
}

/** The ladder, force in each gear and what holds the car; the final drive is a handle. */
export function GearsTab({ records, made, position, stageId, car, finalRatio, setFinal, course, room }: DriveTabProps) {
  const { text } = useQuantities()
  const [holder, width] = useWidth<HTMLDivElement>(760)
  const found = useCourse(car, course)
  if (!found || !car || finalRatio === null || !made.car) return null
  const { motion, leaveRpm, driven } = found
  const run = driven && !(driven instanceof CalculationError) ? driven : null
  const before = position > 0 ? room.stages[position - 1]?.car : null
  const other = before && before.finalRatio !== car.finalRatio ? driveMotion(before) : undefined
  const topMps = 1.04 * Math.max(...motion.gears.map((gear) => gear.topMps))
  const marks = (run?.straights ?? []).map(({ corner, gear, speedRpm }): LadderMark => {
    const facts = motion.gears[gear - 1]
    const mps = facts ? motion.speedMps(facts, speedRpm) : 0
    return { name: corner, carMps: mps, wheelMps: mps, dots: [{ gear, rpm: speedRpm, state: 'holds' }], isPicked: false }
  })
  const band = run ? usedBand(motion, run) : null
  return (
    <>
      <DriveLine records={records} made={made} position={position} stageId={stageId} />
      <div className="grid gap-x-6 gap-y-4 lg:grid-cols-[minmax(0,1fr)_330px]">
        <div ref={holder} className="min-w-0">
          <div className="mb-1 flex flex-wrap items-center justify-between gap-2">
            <h2>Engine speed over road speed</h2>
            <FinalHandle records={records} finalRatio={finalRatio} own={made.car.finalRatio} setFinal={setFinal} />
          </div>
          <Ladder
            motion={motion}
            other={other}
            marks={marks}
            width={width}
            height={210 + 17 * marks.length}
            topMps={topMps}
            label="Engine speed over road speed in each gear, with corners of the course"
          />
          <h2 className="mt-2">Force in each gear</h2>
          <Forces motion={motion} leaveRpm={leaveRpm} width={width} height={250} topMps={topMps} />
          {driven instanceof CalculationError && <p className="mt-2 border-l-4 border-wait pl-3">{driven.message}</p>}
        </div>
        <div>
          <table className="w-full">
            <caption className="sr-only">The driveline, part by part</caption>
            <tbody>
              {made.rows.map(({ slot, partId, role, words, position: at }) => (
                <tr key={partId} className="border-t border-line">
                  <th scope="row" className="py-1 pr-2 text-left align-top font-normal text-quiet">
                    {role}
                    {slot.endsWith(' front') ? ', front' : slot.endsWith(' rear') ? ', rear' : ''}
                  </th>
                  <td className="py-1">
                    <Link className="word-link" to={`/builds/${records.build.id}/parts?stage=${stageId}&part=${partId}`}>
                      {records.parts.find(({ id }) => id === partId)?.name}
                    </Link>
                    {words && <span className="block text-xs text-quiet">{words}</span>}
                  </td>
                  <td className="py-1 text-right align-top text-xs text-quiet">{at === position ? 'this stage' : `stage ${at}`}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {made.tracks.map(({ axle, typedM, typedAt, byWheelsM }) => (
            <p key={axle} className="mt-2 border-l-4 border-wait pl-3">
              By its wheels the {axle} track is {text('length', byWheelsM)}; {text('length', typedM)} is typed
              {typedAt === 0 ? '' : ` at stage ${typedAt}`}.{' '}
              <Link className="word-link no-print" to={`/builds/${records.build.id}/plan?tab=stages&stage=${stageId}`}>
                Type it in the stage
              </Link>
            </p>
          ))}
          <h3 className="mt-4 font-semibold">Leave each gear at</h3>
          <p>{leaveRpm.map((rpm, i) => `${i + 1} → ${i + 2}: ${text('engineSpeed', rpm, { decimals: 0 })}`).join(' · ')}</p>
          {run && band && (
            <>
              <h3 className="mt-4 font-semibold">On {course?.name}</h3>
              <p>
                {text('lapTime', run.timeS)} between corners, {run.upshiftsInto.reduce((sum, count) => sum + count, 0)} upshifts,{' '}
                {text('share', run.bandShare, { decimals: 0 })} of full throttle in the band. Used: {text('engineSpeed', band.fromRpm, { decimals: 0 })} to{' '}
                {text('engineSpeed', band.toRpm, { decimals: 0 })}.
              </p>
              {run.cornersOutsideBand.length > 0 && <p className="mt-1 text-quiet">Outside the band: {run.cornersOutsideBand.join(', ')}.</p>}
            </>
          )}
        </div>
      </div>
    </>
  )
}
