import { DRIVE_USE_WORDS, gearWord, type PathHeadroom, RATING_SUBJECTS, SHOCK_SCHOOL_WORDS } from '@bold-ballast/core'
import { Link } from 'react-router'
import { lifeText } from '../../../shared/part-words.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Caution } from '../../../ui/states.tsx'
import type { DriveTabProps } from '../tab-props.ts'

/** A rating as a bar: what it meets in its worst gear against what it carries; past the mark it is over. */
function Bar({ demandNm, limitNm, isGuess }: { demandNm: number; limitNm: number; isGuess: boolean }) {
  const share = demandNm / limitNm
  const full = 1.6
  return (
    <svg width="220" height="18" role="img" aria-label={`${Math.round(100 * share)} % of what it carries`}>
      <rect
        x="0"
        y="5"
        width={(220 * Math.min(share, full)) / full}
        height="8"
        fill={share > 1 ? 'var(--danger)' : 'var(--pine)'}
        fillOpacity={isGuess ? 0.55 : 1}
      />
      <line x1={220 / full} x2={220 / full} y1="0" y2="18" stroke="var(--ink)" strokeWidth="2" />
    </svg>
  )
}

/** Torque from the crank to the tyres: what limits in each gear, and how much of every rating is left. */
export function PathTab({ records, made, stageId }: DriveTabProps) {
  const { text, format } = useQuantities()
  const { path } = made
  if (!path) return <p className="border-l-4 border-wait pl-3">The path cannot be worked out: check the driveline loss and the gearbox’s efficiency.</p>
  const nm = (value: number) => format('torque', value, { decimals: 0 }).number
  const hasFront = path.gears.some(({ frontAxleNm }) => frontAxleNm > 0)
  const hasRear = path.gears.some(({ rearAxleNm }) => rearAxleNm > 0)
  const row = (each: PathHeadroom) => (
    <tr key={`${each.partId} ${each.subject}`} className="border-t border-line">
      <th scope="row" className="py-1.5 text-left font-normal">
        <Link className="word-link" to={`/builds/${records.build.id}/parts?stage=${stageId}&part=${each.partId}`}>
          {each.name}
        </Link>
        <span className="block text-xs text-quiet">
          {each.kind}: {RATING_SUBJECTS[each.subject].word}, worst in {gearWord(each.gear)}
        </span>
      </th>
      <td>
        <Bar demandNm={each.demandNm} limitNm={each.limitNm} isGuess={each.known === 'guess'} />
      </td>
      <td className="text-right tabular-nums">
        {nm(each.demandNm)} of {nm(each.limitNm)}
      </td>
      <td className={`text-right font-semibold tabular-nums ${each.headroom < 0 ? 'text-danger' : ''}`}>
        {text('share', each.headroom, { decimals: 0, sign: true })}
      </td>
      <td className="text-right text-xs text-quiet">
        {each.known}
        {each.life && <span className="block">{lifeText(records.parts.find(({ id }) => id === each.partId) as never, each.life)}</span>}
      </td>
    </tr>
  )
  return (
    <div className="max-w-5xl">
      <p className="mb-3">
        Crank {text('torque', path.crankTorqueNm, { decimals: 0 })} at its greatest, of which {text('share', path.efficiency, { decimals: 0 })} reaches the
        wheels; used for {DRIVE_USE_WORDS[path.use]}: shock × {path.shockFactor} (common practice, no source), on {SHOCK_SCHOOL_WORDS[path.shockSchool]}.{' '}
        {path.isClutchTheFuse && path.clutch
          ? `The clutch slips at ${text('torque', path.engineSideNm, { decimals: 0 })} and is the fuse.`
          : path.clutch
            ? 'The clutch holds more than that.'
            : 'No clutch with a rating is in the register, so nothing slips before the parts meet it all.'}
      </p>
      <ScrollBox label="Torque in each gear">
        <table className="w-full max-w-3xl">
          <caption className="mb-1 text-left font-semibold">From the crank to the tyre, {format('torque', 1).unit}</caption>
          <thead>
            <tr>
              <th className="text-left">Gear</th>
              <th className="text-right">into the gearbox</th>
              <th className="text-right">prop shaft</th>
              {hasFront && <th className="text-right">one front shaft</th>}
              {hasRear && <th className="text-right">one rear shaft</th>}
              <th className="text-right">limit</th>
            </tr>
          </thead>
          <tbody>
            {path.gears.map(({ gear, gearboxNm, propNm, frontShaftNm, rearShaftNm, limitedBy }) => (
              <tr key={gear} className="border-t border-line">
                <th scope="row" className="py-1 text-left font-normal">
                  {gearWord(gear)}
                </th>
                <td className="text-right tabular-nums">{nm(gearboxNm)}</td>
                <td className="text-right tabular-nums">{nm(propNm)}</td>
                {hasFront && <td className="text-right tabular-nums">{nm(frontShaftNm)}</td>}
                {hasRear && <td className="text-right tabular-nums">{nm(rearShaftNm)}</td>}
                <td className="text-right">{limitedBy === 'tyres' ? 'the tyres give up first' : path.isClutchTheFuse ? 'the clutch' : 'the engine'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </ScrollBox>
      {path.headrooms.length === 0 ? (
        <p className="mt-4 text-quiet">No part of this stage has a torque rating. Give one in Parts, such as gearbox torque 480 N·m.</p>
      ) : (
        <ScrollBox label="What is left of every rating" className="mt-5">
          <table className="w-full max-w-4xl">
            <caption className="mb-1 text-left font-semibold">What is left of every rating, the least first</caption>
            <tbody>{path.headrooms.map(row)}</tbody>
          </table>
        </ScrollBox>
      )}
      <Caution className="mt-4">
        Prop shaft loops and clutch shields by the event’s rules. Broken shafts hurt people: have the driveline looked at by somebody qualified.
      </Caution>
    </div>
  )
}
