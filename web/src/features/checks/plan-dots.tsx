import type { RecordsAnswer } from '@bold-ballast/contract'
import type { Check } from '@bold-ballast/core'
import { CarFigure } from '../../ui/drawing/car-figure.tsx'

export type DotState = 'open' | 'done' | 'bad' | 'now'

/** A check on the plan of the car. */
export interface Dot {
  readonly check: Check
  readonly number: number
  readonly state: DotState
}

const FILL: Readonly<Record<DotState, string>> = { open: 'var(--sheet)', done: 'var(--pine)', bad: 'var(--danger)', now: 'var(--picked)' }
const INK: Readonly<Record<DotState, string>> = { open: 'var(--ink)', done: 'var(--sheet)', bad: 'var(--sheet)', now: 'var(--ink)' }
const RADIUS = 9
const ROOM = 19

/** Places on the drawing, moved apart where they would cover each other. */
function apart(spots: readonly { readonly x: number; readonly y: number }[]): { x: number; y: number }[] {
  const placed: { x: number; y: number }[] = []
  for (const spot of spots) {
    const at = { ...spot }
    for (let tries = 0; tries < 12 && placed.some(({ x, y }) => Math.hypot(x - at.x, y - at.y) < ROOM); tries++) at.x += ROOM / 2
    placed.push(at)
  }
  return placed
}

/** Checks where they are on the car, by the numbers of the list beside it. */
export function PlanDots({ records, dots, pick }: { records: RecordsAnswer; dots: readonly Dot[]; pick: (id: string) => void }) {
  const zones = new Map(records.zones.map((zone) => [zone.name.toLowerCase(), zone.place]))
  const parts = new Map(records.parts.map((part) => [part.id, part.place]))
  const placed = dots.flatMap((dot) => {
    const place = dot.check.place ?? parts.get(dot.check.partId ?? '') ?? zones.get(dot.check.zone?.toLowerCase() ?? '')
    return place ? [{ ...dot, place }] : []
  })
  if (placed.length === 0) return null
  return (
    <CarFigure
      geometry={records.build}
      label={`The car from above: ${placed.map(({ number, check, state }) => `${number} ${check.name}, ${state}`).join('; ')}`}
      plan={(scale) => {
        const spots = apart(placed.map(({ place }) => ({ x: scale.x(place.xM), y: scale.y(place.yM) })))
        return (
          <g>
            {placed.map(({ check, number, state }, i) => {
              const { x, y } = spots[i] ?? { x: 0, y: 0 }
              return (
                // biome-ignore lint/a11y/noStaticElementInteractions: the list beside it is what keys work on
                <g key={check.id} className="cursor-pointer" onClick={() => pick(check.id)}>
                  <circle cx={x} cy={y} r={RADIUS} fill={FILL[state]} stroke="var(--ink)" strokeWidth={state === 'now' ? 2.4 : 1.2} />
                  <text x={x} y={y + 3.8} textAnchor="middle" fontSize="10.5" fontWeight="700" fill={INK[state]}>
                    {number}
                  </text>
                </g>
              )
            })}
          </g>
        )
      }}
    />
  )
}
