import type { Beam as BeamShares } from '@bold-ballast/core'
import { useId } from 'react'

const MARK_AT = 0.8
const WIDTH = 232
const HEIGHT = 15
/** Where a share of the way lies on the beam; nothing is drawn before its start or past its end. */
const at = (share: number) => Math.max(0, Math.min(1, share * MARK_AT)) * WIDTH

/** A limit on the beam: where it stands, and on which side of it values fail. */
export interface Wall {
  readonly share: number
  /** Whether what lies farther along the beam fails; else what lies before the wall does. */
  readonly failsBeyond: boolean
}

interface Props {
  readonly beam: BeamShares
  /** Whether the beam's own mark is a goal to reach; else only walls stand on it. */
  readonly hasGoal: boolean
  readonly walls: readonly Wall[]
}

/** What of a bar lies beyond a wall: from, to; nothing where the value keeps the limit. */
function beyond(share: number | null, { share: wall, failsBeyond }: Wall): readonly [number, number] | null {
  if (share === null) return null
  if (failsBeyond) return share > wall ? [at(wall), at(share)] : null
  return share < wall ? [0, at(share)] : null
}

/** From the first value on: solid is proven, hatched is planned. A goal is a mark to reach, a limit a thick wall; only what lies beyond a wall is red. */
export function Beam({ beam, hasGoal, walls }: Props) {
  const hatch = useId()
  const proven = beam.provenShare === null ? 0 : at(beam.provenShare)
  const planned = beam.plannedShare === null ? 0 : at(beam.plannedShare)
  const percent = (share: number | null) => (share === null ? 'nothing' : `${Math.round(share * 100)} % of the way`)
  const reds = walls.flatMap((wall) => beyond(beam.provenShare, wall) ?? [])
  const plannedReds = walls.flatMap((wall) => beyond(beam.plannedShare, wall) ?? [])
  return (
    <svg
      width={WIDTH}
      height={HEIGHT}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`proven ${percent(beam.provenShare)}, planned ${percent(beam.plannedShare)}${walls.length > 0 ? ', with a limit on it' : ''}`}
      className="block max-w-full"
    >
      <defs>
        {(['planned', 'danger'] as const).map((colour) => (
          <pattern key={colour} id={`${hatch}${colour}`} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="2.4" height="5" fill={`var(--${colour})`} />
          </pattern>
        ))}
      </defs>
      <rect x="0" y="1" width={WIDTH} height="8" fill="var(--sheet)" />
      {planned > proven && <rect x={proven} y="1" width={planned - proven} height="8" fill={`url(#${hatch}planned)`} />}
      {plannedReds.length === 2 && planned > proven && (
        <rect
          x={Math.max(proven, plannedReds[0] ?? 0)}
          y="1"
          width={Math.max(0, planned - Math.max(proven, plannedReds[0] ?? 0))}
          height="8"
          fill={`url(#${hatch}danger)`}
        />
      )}
      {planned < proven && beam.plannedShare !== null && <rect x={planned} y="9.6" width={proven - planned} height="2.4" fill="var(--planned)" />}
      <rect x="0" y="1" width={proven} height="8" fill="var(--pine)" />
      {reds.length === 2 && <rect x={reds[0]} y="1" width={(reds[1] ?? 0) - (reds[0] ?? 0)} height="8" fill="var(--danger)" />}
      <rect x="0" y="9" width={WIDTH} height="1.4" fill="var(--ink)" />
      {hasGoal && (
        <>
          <rect x={MARK_AT * WIDTH - 1} y="0" width="2" height="10" fill="var(--ink)" />
          <path d={`M${MARK_AT * WIDTH - 4.5} ${HEIGHT} h9 l-4.5 -5 z`} fill="var(--ink)" />
        </>
      )}
      {[...new Set(walls.map(({ share }) => share))].map((share) => (
        <WallMark key={share} share={share} />
      ))}
    </svg>
  )
}

/** A wall; one that stands off the beam is drawn at its end, behind a break. */
function WallMark({ share }: { share: number }) {
  const isOff = share * MARK_AT > 0.985 || share < 0
  const x = share < 0 ? 2 : isOff ? WIDTH - 3 : at(share)
  const gap = share < 0 ? x + 8 : x - 10
  return (
    <>
      {isOff && (
        <>
          <rect x={gap - 3} y="0" width="7" height="11" fill="var(--page)" />
          <path d={`M${gap - 3} 11 l3 -11 M${gap + 1} 11 l3 -11`} stroke="var(--ink)" strokeWidth="1.2" />
        </>
      )}
      <rect x={x - 2.5} y="0" width="5" height="11" fill="var(--ink)" />
    </>
  )
}
