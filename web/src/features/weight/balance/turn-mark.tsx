import type { CornerPlaces, PadName } from '@bold-ballast/core'
import { type CarScale, Words } from '../../../ui/drawing/car-figure.tsx'
import { turnWords } from './turn-words.ts'

/** A perch to be turned, at its wheel: an arrow up or down as long as the turns, with the turns in words. */
export function TurnMark({ scale, geometry, pad, turns }: { scale: CarScale; geometry: CornerPlaces; pad: PadName; turns: number }) {
  const isFront = pad === 'LF' || pad === 'RF'
  const inside = (isFront ? geometry.trackFrontM : geometry.trackRearM) / 2 - 0.3
  const [x, y] = [scale.x(isFront ? 0.16 : geometry.wheelbaseM - 0.16), scale.y((pad === 'LF' || pad === 'LR' ? 1 : -1) * inside)]
  const length = Math.min(26, 6 + 9 * Math.abs(turns))
  const tip = turns > 0 ? -1 : 1
  return (
    <g>
      {turns !== 0 && (
        <path
          d={`M${x} ${y - tip * (length / 2)} L${x} ${y + tip * (length / 2)} m-5 ${-tip * 7} l5 ${tip * 7} l5 ${-tip * 7}`}
          fill="none"
          stroke={turns > 0 ? 'var(--pine)' : 'var(--wait)'}
          strokeWidth="2.6"
        />
      )}
      <Words x={isFront ? x + 12 : x - 12} y={y + 4} text={turnWords(turns)} anchor={isFront ? 'start' : 'end'} weight={700} />
    </g>
  )
}
