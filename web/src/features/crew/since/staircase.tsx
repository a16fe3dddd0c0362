import { formatNumber, fromSi, isMeasured, type QuantityKind, type Standing } from '@bold-ballast/core'
import { useId } from 'react'
import { axisStep, ticksWithin } from '../../../ui/drawing/axis-step.ts'
import { useQuantities } from '../../../ui/quantity.ts'

export const ROW_PX = 64
export const HEAD_PX = 44
const BAR_PX = 9
const EDGE_PX = 24

/** A number row by row as a stair, with its doubt behind each tread and the line of the goal that it is held against, which jogs where the goal moved. */
export function Staircase({ rows, kind, width }: { rows: readonly Standing[]; kind: QuantityKind; width: number }) {
  const { format, units, decimalMark } = useQuantities()
  const hatch = useId()
  const shown = (value: number) => fromSi(kind, value, units[kind])
  const all = rows.flatMap(({ value, lowValue, highValue, goal }) =>
    [value, lowValue, highValue, goal?.value ?? null].flatMap((each) => (each === null ? [] : shown(each))),
  )
  if (all.length === 0) return null
  const [least, most] = [Math.min(...all), Math.max(...all)]
  const room = (most - least || Math.abs(most) * 0.01 || 1) * 0.08
  const [low, high] = [least - room, most + room]
  const at = (number: number) => EDGE_PX + ((width - 2 * EDGE_PX) * (number - low)) / (high - low)
  const x = (value: number) => at(shown(value))
  const y = (row: number) => HEAD_PX + ROW_PX * (row + 0.5)
  const height = HEAD_PX + ROW_PX * rows.length
  const step = axisStep(high - low, 3)
  const ticks = ticksWithin(low, high, step)
  const stair = rows.reduce<{ d: string; from: number | null }>(
    ({ d, from }, { value }, row) =>
      value === null ? { d, from: null } : { d: `${d} ${from === null ? `M${x(value)},${y(row)}` : `V${y(row)} H${x(value)}`}`, from: x(value) },
    { d: '', from: null },
  ).d
  const goals = rows.map(({ goal }) => goal?.value ?? null)
  const goalLine = goals.reduce<string>((d, goal, row) => {
    const before = goals[row - 1] ?? null
    if (goal === null) return d
    if (row === 0 || before === null) return `${d} M${x(goal)},${row === 0 ? HEAD_PX : y(row)} V${y(row)}`
    return `${d} V${y(row)} H${x(goal)}`
  }, '')
  const [firstGoal, lastGoal] = [goals[0] ?? null, goals.at(-1) ?? null]
  const goalWord = (value: number, words: string, top: number) => (
    <text x={x(value)} y={top} fontSize="11.5" fontWeight="700" textAnchor="middle" fill="var(--ink)">
      {words} {format(kind, value, { isGoal: true }).number}
    </text>
  )
  return (
    <svg width={width} height={height + 18} aria-hidden="true" className="block">
      <defs>
        <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="2" height="5" fill="var(--planned)" />
        </pattern>
      </defs>
      {ticks.map((tick, i) => (
        <g key={tick}>
          <line x1={at(tick)} x2={at(tick)} y1={HEAD_PX} y2={height} stroke="var(--line)" />
          <text x={at(tick)} y={HEAD_PX - 6} fontSize="11.5" textAnchor="middle" fill="var(--quiet)">
            {formatNumber(tick, step < 1 ? Math.min(3, Math.ceil(-Math.log10(step))) : 0, { mark: decimalMark })}
            {i === ticks.length - 1 ? ` ${units[kind]}` : ''}
          </text>
        </g>
      ))}
      {rows.map((_, row) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other name
        <line key={row} x1="0" x2={width} y1={HEAD_PX + ROW_PX * row + 0.5} y2={HEAD_PX + ROW_PX * row + 0.5} stroke="var(--line)" />
      ))}
      <line x1="0" x2={width} y1={height - 1} y2={height - 1} stroke="var(--ink)" strokeWidth="2" />
      {rows.map(({ lowValue, highValue, proof }, row) =>
        lowValue === null || highValue === null ? null : (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other name
            key={row}
            // Some units run the other way.
            x={Math.min(x(lowValue), x(highValue))}
            y={y(row) - BAR_PX / 2}
            width={Math.abs(x(highValue) - x(lowValue))}
            height={BAR_PX}
            fill={proof && isMeasured(proof) ? 'var(--wash)' : `url(#${hatch})`}
            stroke="var(--planned)"
          />
        ),
      )}
      {goalLine && <path d={`${goalLine} V${height}`} fill="none" stroke="var(--ink)" strokeWidth="2" />}
      {goals.map((goal, row) => {
        const before = goals[row - 1] ?? null
        if (goal === null || before === null || goal === before) return null
        const [tip, back] = [x(goal), goal > before ? -7 : 7]
        // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other name
        return <path key={row} d={`M${tip},${y(row)} l${back},-5 v10 z`} fill="var(--ink)" />
      })}
      {firstGoal !== null && goalWord(firstGoal, firstGoal === lastGoal ? 'goal' : 'goal then', 14)}
      {lastGoal !== null && lastGoal !== firstGoal && goalWord(lastGoal, 'goal now', height + 14)}
      <path d={stair} fill="none" stroke="var(--pine)" strokeWidth="2.5" />
      {rows.map(({ value }, row) =>
        value === null ? (
          // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other name
          <text key={row} x={width / 2} y={y(row) + 4} fontSize="12" textAnchor="middle" fill="var(--quiet)">
            not known then
          </text>
        ) : (
          <rect
            // biome-ignore lint/suspicious/noArrayIndexKey: rows have no other name
            key={row}
            x={x(value) - (row === rows.length - 1 ? 6 : 5)}
            y={y(row) - (row === rows.length - 1 ? 6 : 5)}
            width={row === rows.length - 1 ? 12 : 10}
            height={row === rows.length - 1 ? 12 : 10}
            fill={row === 0 ? 'var(--sheet)' : 'var(--pine)'}
            stroke="var(--pine)"
            strokeWidth="2"
          />
        ),
      )}
    </svg>
  )
}
