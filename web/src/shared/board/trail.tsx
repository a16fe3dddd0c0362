import type { StoredRecords } from '@bold-ballast/contract'
import type { Board } from '@bold-ballast/core'
import { useQuantities } from '../../ui/quantity.ts'

const BOX = { left: 62, top: 14, width: 400, height: 190 }

/** Stages as a path on power (up) against mass (lighter to the right), with power-to-weight lines, the goal and doubt. */
export function Trail({ board, records, position }: { board: Board; records: StoredRecords; position: number }) {
  const { text } = useQuantities()
  const points = board.trail
  const goal = (metric: string) => records.targets.find((target) => target.metric === metric)?.value
  const [goalKg, goalW] = [goal('massReady'), goal('wheelPower')]
  if (points.length === 0) {
    return (
      <section>
        <h2 className="mb-1">Trail</h2>
        <p className="text-quiet">The path of the build is drawn once a stage has a mass and a power.</p>
      </section>
    )
  }
  const masses = [...points.flatMap((p) => [p.massKg - 2 * p.massSdKg, p.massKg + 2 * p.massSdKg]), ...(goalKg ? [goalKg] : [])]
  const powers = [...points.flatMap((p) => [p.powerW - 2 * p.powerSdW, p.powerW + 2 * p.powerSdW]), ...(goalW ? [goalW] : [])]
  const pad = (low: number, high: number): [number, number] => [low - 0.12 * (high - low) - 0.002 * high, high + 0.12 * (high - low) + 0.002 * high]
  const [m0, m1] = pad(Math.min(...masses), Math.max(...masses))
  const [p0, p1] = pad(Math.min(...powers), Math.max(...powers))
  const x = (kg: number) => BOX.left + ((m1 - kg) / (m1 - m0)) * BOX.width
  const y = (watt: number) => BOX.top + ((p1 - watt) / (p1 - p0)) * BOX.height
  const ratios = ratioLines(p0 / m1, p1 / m0)
  const named = new Set([0, position, points.findLastIndex((p) => p.isProven), points.length - 1])
  const labels = placeLabels(
    points.filter((p) => named.has(p.position)).map((p) => ({ x: x(p.massKg), y: y(p.powerW), text: `${p.position} ${board.stages[p.position]?.name ?? ''}` })),
  )
  return (
    <section>
      <h2 className="mb-1">Trail</h2>
      <svg
        viewBox="0 0 540 240"
        className="w-full max-w-[600px]"
        role="img"
        aria-label={`Power against mass by stage: ${points.map((p) => `stage ${p.position} ${text('mass', p.massKg)} and ${text('power', p.powerW)}`).join('; ')}`}
      >
        <clipPath id="trail-box">
          <rect x={BOX.left} y={BOX.top} width={BOX.width} height={BOX.height} />
        </clipPath>
        <rect x={BOX.left} y={BOX.top} width={BOX.width} height={BOX.height} fill="none" stroke="var(--line)" />
        <g clipPath="url(#trail-box)">
          {ratios.map((ratio) => (
            <line key={ratio} x1={x(m1)} y1={y(ratio * m1)} x2={x(m0)} y2={y(ratio * m0)} stroke="var(--edge)" strokeDasharray="3 3" strokeWidth="0.8" />
          ))}
          {goalKg && goalW && (
            <rect
              x={x(goalKg)}
              y={BOX.top}
              width={BOX.left + BOX.width - x(goalKg)}
              height={Math.max(0, y(goalW) - BOX.top)}
              fill="var(--picked)"
              stroke="var(--ink)"
              strokeDasharray="2 2"
            />
          )}
          {points.map((p) => (
            <ellipse
              key={p.position}
              cx={x(p.massKg)}
              cy={y(p.powerW)}
              rx={Math.abs(x(p.massKg - 2 * p.massSdKg) - x(p.massKg))}
              ry={Math.abs(y(p.powerW + 2 * p.powerSdW) - y(p.powerW))}
              fill="var(--planned)"
              opacity="0.22"
            />
          ))}
          {points.slice(1).map((p, i) => {
            const before = points[i] as (typeof points)[number]
            return (
              <line
                key={p.position}
                x1={x(before.massKg)}
                y1={y(before.powerW)}
                x2={x(p.massKg)}
                y2={y(p.powerW)}
                stroke={p.isProven ? 'var(--pine)' : 'var(--planned)'}
                strokeWidth={p.isProven ? 3 : 2}
                strokeDasharray={p.isProven ? undefined : '5 4'}
              />
            )
          })}
        </g>
        {points.map((p) => (
          <rect
            key={p.position}
            x={x(p.massKg) - 5}
            y={y(p.powerW) - 5}
            width="10"
            height="10"
            fill={p.position === position ? '#f5c518' : p.isProven ? 'var(--pine)' : 'var(--sheet)'}
            stroke="var(--ink)"
          />
        ))}
        {labels.map((label) => (
          <g key={label.text}>
            <line x1={label.x} y1={label.y} x2={label.textX} y2={label.textY - 4} stroke="var(--edge)" strokeWidth="0.8" />
            <text
              x={label.textX}
              y={label.textY}
              textAnchor={label.anchor}
              fontSize="11.5"
              fontWeight="700"
              fill="var(--ink)"
              stroke="var(--sheet)"
              strokeWidth="3"
              paintOrder="stroke"
            >
              {label.text}
            </text>
          </g>
        ))}
        {ratios.map((ratio) => {
          const at = y(ratio * m0)
          return at > BOX.top + 6 && at < BOX.top + BOX.height - 4 ? (
            <text key={ratio} x={BOX.left + BOX.width + 5} y={at + 4} fontSize="11" fill="var(--quiet)">
              {text('powerToMass', ratio)}
            </text>
          ) : null
        })}
        <g fontSize="11" fill="var(--quiet)">
          <text x={BOX.left - 6} y={BOX.top + 10} textAnchor="end">
            {text('power', p1)}
          </text>
          <text x={BOX.left - 6} y={BOX.top + BOX.height} textAnchor="end">
            {text('power', p0)}
          </text>
          <text x={BOX.left} y={BOX.top + BOX.height + 18}>
            {text('mass', m1, { decimals: 0 })}
          </text>
          <text x={BOX.left + BOX.width} y={BOX.top + BOX.height + 18} textAnchor="end">
            {text('mass', m0, { decimals: 0 })}, lighter to the right
          </text>
        </g>
      </svg>
    </section>
  )
}

/** Up to four even power-to-weight lines across the box, W/kg. */
function ratioLines(low: number, high: number): number[] {
  const step = [5, 10, 20, 25, 50, 100, 200].find((size) => (high - low) / size <= 4.5) ?? 500
  const first = Math.ceil(low / step) * step
  return Array.from({ length: Math.max(0, Math.floor((high - first) / step) + 1) }, (_, i) => first + i * step)
}

interface Label {
  x: number
  y: number
  text: string
}

/** Puts at most four names where they do not overlap each other, pushing each down until it is free. */
function placeLabels(wanted: readonly Label[]) {
  const placed: { x: number; y: number; textX: number; textY: number; anchor: 'start' | 'end'; text: string }[] = []
  for (const label of wanted.slice(0, 4)) {
    const toLeft = label.x > BOX.left + BOX.width * 0.55
    const width = label.text.length * 6.4
    const textX = label.x + (toLeft ? -12 : 12)
    const span = toLeft ? [textX - width, textX] : [textX, textX + width]
    let textY = label.y > BOX.top + BOX.height - 40 ? label.y - 10 : label.y + 18
    const overlaps = () =>
      placed.some(
        (other) =>
          Math.abs(other.textY - textY) < 15 &&
          !(
            (span[1] as number) < (other.anchor === 'end' ? other.textX - other.text.length * 6.4 : other.textX) ||
            (span[0] as number) > (other.anchor === 'end' ? other.textX : other.textX + other.text.length * 6.4)
          ),
      )
    const direction = label.y > BOX.top + BOX.height / 2 ? -16 : 16
    for (let tries = 0; overlaps() && tries < 8; tries++) textY += direction
    placed.push({ ...label, textX, textY, anchor: toLeft ? 'end' : 'start' })
  }
  return placed
}
