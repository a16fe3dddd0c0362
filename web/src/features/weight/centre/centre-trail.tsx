import type { WeighingCentre, WeighingFigures } from '@bold-ballast/core'
import { Words } from '../../../ui/drawing/car-figure.tsx'
import { useWidth } from '../../../ui/hooks/use-width.ts'
import { useQuantities } from '../../../ui/quantity.ts'

/** A centre that was weighed, with its spread and what the ledger had said. */
export interface TrailCentre {
  readonly id: string
  readonly words: string
  readonly isPicked: boolean
  readonly xM: number
  readonly yM: number
  readonly sdXM: number
  readonly sdYM: number
  readonly said: { readonly xM: number; readonly yM: number } | null
}

const HEIGHT = 236
const EDGE = { left: 8, right: 56, top: 22, bottom: 30 }
const GAP = 26
/** 19 in 20 of a spread lie within so many standard deviations. */
const NINETEEN_IN_TWENTY = 1.96
/** Two groups of centres stand in boxes of their own where the way between them is so many times what they cover. */
const FAR = 2

/** Centres in the order they were weighed, brought together from the figures of the room. */
export function trailCentres(
  centres: readonly WeighingCentre[],
  figures: readonly WeighingFigures[],
  pick: (weighingId: string) => { readonly words: string; readonly isPicked: boolean },
): TrailCentre[] {
  return centres.flatMap(({ weighingId, measured, predicted }): TrailCentre[] => {
    const spread = figures.find((entry) => entry.weighingId === weighingId)?.centre
    if (!measured || !spread) return []
    return [
      {
        id: weighingId,
        ...pick(weighingId),
        xM: measured.xM,
        yM: measured.yM,
        sdXM: spread.behindFrontAxleM.sd,
        sdYM: spread.leftOfMiddleM.sd,
        said: predicted && { xM: predicted.xM, yM: predicted.yM },
      },
    ]
  })
}

/** Where a row of numbers is cut so that two groups far apart can both be seen; undefined where they are near. */
function cutOf(values: readonly number[]): number | undefined {
  const sorted = [...values].sort((a, b) => a - b)
  let widest = { size: 0, at: 0 }
  for (let i = 1; i < sorted.length; i++) {
    const size = (sorted[i] as number) - (sorted[i - 1] as number)
    if (size > widest.size) widest = { size, at: ((sorted[i] as number) + (sorted[i - 1] as number)) / 2 }
  }
  const covered = (sorted.at(-1) ?? 0) - (sorted[0] ?? 0) - widest.size
  return widest.size > FAR * Math.max(covered, 1e-3) ? widest.at : undefined
}

/** All centres, enlarged: each with the ellipse it lies in 19 times in 20, the way from one to the next, and where the ledger had put it. */
export function CentreTrail({ centres }: { centres: readonly TrailCentre[] }) {
  const { text, units, format } = useQuantities()
  const [holder, width] = useWidth<HTMLDivElement>(420)
  const cut = cutOf(centres.map(({ xM }) => xM))
  const groups = cut === undefined ? [centres] : [centres.filter(({ xM }) => xM < cut), centres.filter(({ xM }) => xM >= cut)]
  const across = centres.flatMap(({ yM, sdYM, said }) => [yM - 2.4 * sdYM, yM + 2.4 * sdYM, ...(said ? [said.yM] : [])])
  const [y0, y1] = padded(Math.min(...across), Math.max(...across))
  const y = (yM: number) => EDGE.top + ((yM - y0) / (y1 - y0)) * (HEIGHT - EDGE.top - EDGE.bottom)
  const box = (width - EDGE.left - EDGE.right - GAP * (groups.length - 1)) / groups.length
  const boxes = groups.map((group, i) => {
    const along = group.flatMap(({ xM, sdXM, said }) => [
      xM - 2.4 * sdXM,
      xM + 2.4 * sdXM,
      ...(said && (cut === undefined || said.xM < cut === (i === 0)) ? [said.xM] : []),
    ])
    const [x0, x1] = padded(Math.min(...along), Math.max(...along))
    const left = EDGE.left + i * (box + GAP)
    return { left, x0, x1, holds: new Set(group.map(({ id }) => id)), x: (xM: number) => left + ((xM - x0) / (x1 - x0)) * box }
  })
  const boxOf = (xM: number) => (cut === undefined || xM < cut ? boxes[0] : boxes[1]) as (typeof boxes)[number]
  const at = (xM: number, yM: number) => ({ x: boxOf(xM).x(xM), y: y(yM) })
  return (
    <section ref={holder} className="[contain:inline-size]">
      <h2>The trail of the centre</h2>
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`Centres behind the front axle and left of the middle: ${centres.map((entry) => `${entry.words} ${text('length', entry.xM)}, ${text('length', entry.yM, { sign: true })}`).join('; ')}`}
      >
        {boxes.map(({ left, x0, x1 }) => (
          <g key={left}>
            <rect x={left} y={EDGE.top} width={box} height={HEIGHT - EDGE.top - EDGE.bottom} fill="var(--wash)" fillOpacity="0.5" stroke="var(--ink)" />
            <Words x={left + 2} y={HEIGHT - 12} text={format('length', x0).number} anchor="start" size={11} fill="var(--quiet)" />
            <Words x={left + box - 2} y={HEIGHT - 12} text={format('length', x1).number} anchor="end" size={11} fill="var(--quiet)" />
          </g>
        ))}
        <Words x={EDGE.left} y={14} text={`${units.length} behind the front axle, across`} anchor="start" size={11.5} fill="var(--quiet)" />
        <Words x={width - 4} y={14} text="left of the middle" anchor="end" size={11.5} fill="var(--quiet)" />
        {[y0, y1].map((value, i) => (
          <Words
            key={value}
            x={width - EDGE.right + 6}
            y={i === 0 ? EDGE.top + 10 : HEIGHT - EDGE.bottom}
            text={format('length', value).number}
            anchor="start"
            size={11}
            fill="var(--quiet)"
          />
        ))}
        {centres.slice(1).map((to, i) => {
          const [a, b] = [centres[i] as TrailCentre, to].map(({ xM, yM }) => at(xM, yM)) as [{ x: number; y: number }, { x: number; y: number }]
          return <line key={to.id} x1={a.x} y1={a.y} x2={b.x} y2={b.y} stroke="var(--pine)" strokeWidth="1.8" />
        })}
        {centres.map((centre) => {
          const { x } = boxOf(centre.xM)
          const [cx, cy] = [x(centre.xM), y(centre.yM)]
          const said = centre.said && at(centre.said.xM, centre.said.yM)
          return (
            <g key={centre.id}>
              {said && <line x1={said.x} y1={said.y} x2={cx} y2={cy} stroke="var(--wait)" strokeDasharray="3 3" />}
              <ellipse
                cx={cx}
                cy={cy}
                rx={Math.abs(x(centre.xM + NINETEEN_IN_TWENTY * centre.sdXM) - cx)}
                ry={Math.abs(y(centre.yM + NINETEEN_IN_TWENTY * centre.sdYM) - cy)}
                fill={centre.isPicked ? '#f5c518' : 'var(--pine)'}
                fillOpacity={centre.isPicked ? 0.75 : 0.22}
                stroke="var(--ink)"
                strokeWidth="0.9"
              />
              <circle cx={cx} cy={cy} r="2.8" fill="var(--ink)" />
              {said && (
                <rect
                  x={said.x - 3.5}
                  y={said.y - 3.5}
                  width="7"
                  height="7"
                  transform={`rotate(45 ${said.x} ${said.y})`}
                  fill="var(--sheet)"
                  stroke="var(--ink)"
                />
              )}
            </g>
          )
        })}
        {labelPlaces(centres.map(({ id, words, xM, yM }) => ({ id, words, ...at(xM, yM) }))).map(({ id, words, x, labelY, anchor }) => (
          <Words key={id} x={x} y={labelY} text={words} anchor={anchor} weight={700} size={11.5} />
        ))}
        {groups.length > 1 && <Words x={EDGE.left + box + GAP / 2} y={HEIGHT / 2} text="//" weight={700} size={15} />}
      </svg>
      <p className="text-xs text-quiet">● weighed, 19 in 20 inside; ◇ where the ledger had said. The way between two boxes is left out.</p>
    </section>
  )
}

const padded = (low: number, high: number): [number, number] => {
  const margin = Math.max(0.12 * (high - low), 1e-3)
  return [low - margin, high + margin]
}

/** Names beside their centres, each a line lower than one it would cover. */
function labelPlaces(wanted: readonly { readonly id: string; readonly words: string; readonly x: number; readonly y: number }[]) {
  const placed: { id: string; words: string; x: number; labelY: number; anchor: 'start' | 'middle' }[] = []
  for (const { id, words, x, y } of [...wanted].sort((a, b) => a.y - b.y)) {
    let labelY = y + 22
    while (placed.some((other) => Math.abs(other.labelY - labelY) < 13 && Math.abs(other.x - x) < 62)) labelY += 13
    if (labelY > HEIGHT - EDGE.bottom - 4) labelY = y - 14
    while (placed.some((other) => Math.abs(other.labelY - labelY) < 13 && Math.abs(other.x - x) < 62)) labelY -= 13
    placed.push({ id, words, x: Math.max(x, 40), labelY, anchor: 'middle' })
  }
  return placed
}
