import type { Beam as BeamShares } from '@bold-ballast/core'
import { useId } from 'react'

const GOAL_AT = 0.8
const WIDTH = 172
/** Where a share of the way lies on the beam; nothing is drawn before its start or past its end. */
const at = (share: number) => Math.max(0, Math.min(1, share * GOAL_AT)) * WIDTH

/** From the first value to the goal: solid is proven, hatched is planned, short of the mark is not there yet. */
export function Beam({ beam, isDanger }: { beam: BeamShares; isDanger: boolean }) {
  const hatch = useId()
  const proven = beam.provenShare === null ? 0 : at(beam.provenShare)
  const planned = beam.plannedShare === null ? 0 : at(beam.plannedShare)
  const percent = (share: number | null) => (share === null ? 'nothing' : `${Math.round(share * 100)} % of the way`)
  return (
    <svg
      width={WIDTH}
      height="18"
      viewBox={`0 0 ${WIDTH} 18`}
      role="img"
      aria-label={`proven ${percent(beam.provenShare)}, planned ${percent(beam.plannedShare)}`}
      className="max-w-full"
    >
      <defs>
        <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="2.4" height="5" fill="var(--planned)" />
        </pattern>
      </defs>
      <rect x="0" y="1" width={WIDTH} height="9" fill="var(--sheet)" />
      {planned > proven && <rect x={proven} y="1" width={planned - proven} height="9" fill={`url(#${hatch})`} />}
      {planned < proven && <rect x={planned} y="10.5" width={proven - planned} height="3" fill="var(--planned)" />}
      <rect x="0" y="1" width={proven} height="9" fill={isDanger ? 'var(--danger)' : 'var(--pine)'} />
      <rect x="0" y="10" width={WIDTH} height="1.6" fill="var(--ink)" />
      <rect x={GOAL_AT * WIDTH - 1} y="0" width="2" height="11" fill="var(--ink)" />
      <path d={`M${GOAL_AT * WIDTH - 5} 18 h10 l-5 -6 z`} fill="var(--ink)" />
    </svg>
  )
}
