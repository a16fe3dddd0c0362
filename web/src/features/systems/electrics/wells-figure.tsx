import type { OutputView } from '@bold-ballast/core'
import { useWidth } from '../../../ui/hooks/use-width.ts'

/** An output as it is drawn: what is on it, how much it carries. */
export interface Well {
  readonly key: string
  readonly ratedA: number
  readonly tripA: number
  readonly circuits: readonly { readonly name: string; readonly currentA: number }[]
  readonly hasProblem: boolean
}

/** Outputs as they stand. */
export const wellsOf = (outputs: readonly OutputView[]): Well[] =>
  outputs.map(({ key, ratedA, tripA, circuits, problems, factor }) => ({
    key,
    ratedA,
    tripA,
    circuits,
    hasProblem: problems.length > 0 || (factor !== null && factor <= 1),
  }))

const HEIGHT = 210
const TOP = 14
const FLOOR = 168
const LEAST_WIDE = 46

const LETTER = 6.1

/** The name of a circuit in its well: along it, upright where it is too long for that, or none where it has no room. */
function WellName({ name, x, y, w, h }: { name: string; x: number; y: number; w: number; h: number }) {
  const style = { fontSize: 10.5, fontWeight: 600, fill: 'var(--sheet)' }
  const isAlong = name.length * LETTER <= w - 6
  const flat = (text: string) =>
    h > 13 ? (
      <text x={x + 4} y={y + h / 2 + 4} {...style}>
        {text}
      </text>
    ) : null
  if (isAlong) return flat(name)
  if (name.length * LETTER > h - 6) return flat(`${name.slice(0, Math.floor(w / LETTER) - 2)}…`)
  return (
    <text transform={`translate(${x + w / 2 + 4} ${y + h - 5}) rotate(-90)`} {...style}>
      {name}
    </text>
  )
}

/** Outputs as wells as tall as their rating, filled by what their circuits draw; the dashed line is what they carry for good, the mark beside it what they trip at. */
export function WellsFigure({ wells, loadShare }: { wells: readonly Well[]; loadShare: number }) {
  const [holder, width] = useWidth<HTMLDivElement>(760)
  const ordered = [...wells].sort((a, b) => b.ratedA - a.ratedA || a.key.localeCompare(b.key, undefined, { numeric: true }))
  const perRow = Math.max(1, Math.min(ordered.length, Math.floor(width / LEAST_WIDE)))
  const rows = Array.from({ length: Math.ceil(ordered.length / perRow) }, (_, row) => ordered.slice(row * perRow, (row + 1) * perRow))
  const most = Math.max(1, ...ordered.map(({ ratedA }) => ratedA))
  const each = width / perRow
  const tall = (amps: number) => ((FLOOR - TOP) * amps) / most
  return (
    <div
      ref={holder}
      className="w-full [contain:inline-size]"
      role="img"
      aria-label={ordered
        .map(({ key, ratedA, circuits }) => `${key}, ${ratedA} A: ${circuits.map(({ name, currentA }) => `${name} ${currentA} A`).join(', ') || 'free'}`)
        .join('; ')}
    >
      {rows.map((row) => (
        <svg key={row[0]?.key ?? ''} width={width} height={HEIGHT} aria-hidden="true" className="block">
          {row.map(({ key, ratedA, tripA, circuits, hasProblem }, i) => {
            const [x, w] = [i * each + 4, Math.min(84, each - 8)]
            let from = 0
            return (
              <g key={key}>
                <rect
                  x={x}
                  y={FLOOR - tall(ratedA)}
                  width={w}
                  height={tall(ratedA)}
                  fill="var(--page)"
                  stroke={hasProblem ? 'var(--danger)' : 'var(--edge)'}
                  strokeWidth={hasProblem ? 2.4 : 1.2}
                />
                {circuits.map(({ name, currentA }, at) => {
                  const y = FLOOR - tall(Math.min(ratedA, from + currentA))
                  const h = Math.max(2, tall(Math.min(ratedA, from + currentA)) - tall(Math.min(ratedA, from)))
                  from += currentA
                  return (
                    <g key={name}>
                      <rect x={x} y={y} width={w} height={h} fill={at % 2 === 0 ? 'var(--pine)' : 'var(--edge)'} stroke="var(--sheet)" strokeWidth="1" />
                      <WellName name={name} x={x} y={y} w={w} h={h} />
                    </g>
                  )
                })}
                <line x1={x} x2={x + w} y1={FLOOR - tall(loadShare * ratedA)} y2={FLOOR - tall(loadShare * ratedA)} stroke="var(--ink)" strokeDasharray="4 3" />
                {tripA !== ratedA && <path d={`M ${x + w + 1} ${FLOOR - tall(tripA)} l 5 -4 v 8 z`} fill="var(--wait)" />}
                <text x={x} y={FLOOR + 16} fontSize="12" fontWeight="700" fill="var(--ink)">
                  {key}
                </text>
                <text x={x} y={FLOOR + 30} fontSize="11" fill="var(--quiet)">
                  {from > 0 ? `${Number(from.toFixed(1))} of ${ratedA}` : `${ratedA} free`}
                </text>
              </g>
            )
          })}
        </svg>
      ))}
    </div>
  )
}
