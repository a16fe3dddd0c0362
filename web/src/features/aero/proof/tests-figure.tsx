import { fromSi, type RoomTest, wholeDownforce } from '@bold-ballast/core'
import { axisStep } from '../../../ui/drawing/axis-step.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { dayText } from '../../../ui/words.ts'

const ROW = 46
const LABEL = 190
const VALUE = 132
const TOP = 8
const AXIS = 26

interface Lane {
  readonly test: RoomTest
  readonly value: number
  readonly sd: number
  readonly said: { readonly value: number; readonly sd: number } | null
  readonly dots: readonly { readonly value: number; readonly counts: boolean }[]
}

/** Tests of one kind that gave something, as areas, m². */
export function lanesOf(tests: readonly RoomTest[], kind: RoomTest['kind']): Lane[] {
  return tests.flatMap((test): Lane[] => {
    const said = test.told && { value: test.told.saidM2, sd: test.told.saidSdM2 }
    if (kind === 'coastDown' && test.drag)
      return [
        {
          test,
          value: test.drag.areaM2,
          sd: test.drag.sdM2,
          said,
          dots: test.pairs.map((pair) => ({ value: pair.dragAreaM2, counts: pair.setAside === null })),
        },
      ]
    if (kind === 'steady' && test.loads) {
      const { areaM2, sdM2 } = wholeDownforce(test.loads)
      return [{ test, value: areaM2, sd: sdM2, said, dots: [] }]
    }
    return []
  })
}

/** One lane a test: each pair a dot, the mean with one spread either way, and above it, hatched, what was said before. */
export function TestsFigure({
  lanes,
  picked,
  pick,
  width,
  word,
}: {
  lanes: readonly Lane[]
  picked: string
  pick: (id: string) => void
  width: number
  word: string
}) {
  const { text, units } = useQuantities()
  const values = lanes.flatMap(({ value, sd, said, dots }) => [
    value - 1.5 * sd,
    value + 1.5 * sd,
    ...dots.map((dot) => dot.value),
    ...(said ? [said.value - said.sd, said.value + said.sd] : []),
  ])
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const span = Math.max(high - low, 0.01)
  const x = (value: number) => LABEL + ((value - low) / span) * (width - LABEL - VALUE)
  const step = axisStep(fromSi('area', span, units.area))
  const shown = (value: number) => fromSi('area', value, units.area)
  const first = Math.ceil(shown(low) / step) * step
  const ticks = Array.from({ length: 8 }, (_, i) => first + i * step).filter((tick) => tick <= shown(high))
  const height = TOP + lanes.length * ROW + AXIS
  const perUnit = shown(1)
  return (
    <svg
      width={width}
      height={height}
      viewBox={`0 0 ${width} ${height}`}
      className="block text-[12px]"
      role="img"
      aria-label={`${word} by test, with what was said before`}
    >
      <defs>
        <pattern id="said-before" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" y1="0" x2="0" y2="6" stroke="var(--edge)" strokeWidth="2" />
        </pattern>
      </defs>
      {ticks.map((tick) => (
        <g key={tick}>
          <line x1={x(tick / perUnit)} x2={x(tick / perUnit)} y1={TOP} y2={height - AXIS} stroke="var(--line)" />
          <text x={x(tick / perUnit)} y={height - AXIS + 16} textAnchor="middle" fill="var(--quiet)" className="tabular-nums">
            {tick.toFixed(step < 0.01 ? 3 : step < 0.1 ? 2 : 1)}
          </text>
        </g>
      ))}
      <text x={width - VALUE + 12} y={height - AXIS + 16} fill="var(--quiet)">
        {word}, {units.area}
      </text>
      {lanes.map(({ test, value, sd, said, dots }, i) => {
        const y = TOP + i * ROW
        const isOff = test.setAside !== null || test.whyNot !== null
        return (
          // biome-ignore lint/a11y/noStaticElementInteractions: the same is picked by the select beside it.
          <g key={test.id} onClick={() => pick(test.id)} className="cursor-pointer" opacity={isOff ? 0.5 : 1}>
            <rect x={0} y={y + 1} width={width} height={ROW - 2} fill={test.id === picked ? 'var(--wash)' : 'transparent'} />
            <text x={8} y={y + 19} fill="var(--ink)" fontWeight={600}>
              {test.name.length > 24 ? `${test.name.slice(0, 23)}…` : test.name}
            </text>
            <text x={8} y={y + 35} fill="var(--quiet)">
              {dayText(test.at)}, stage {test.position}
            </text>
            {said && (
              <rect
                x={x(said.value - said.sd)}
                y={y + 8}
                width={Math.max(2, x(said.value + said.sd) - x(said.value - said.sd))}
                height={9}
                fill="url(#said-before)"
                stroke="var(--edge)"
              />
            )}
            <rect x={x(value - sd)} y={y + 23} width={Math.max(2, x(value + sd) - x(value - sd))} height={9} fill="var(--pine)" opacity={0.28} />
            <line x1={x(value)} x2={x(value)} y1={y + 20} y2={y + 35} stroke="var(--pine)" strokeWidth={2.5} />
            {dots.map((dot, n) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: pairs of one test may agree to the last digit.
              <circle key={n} cx={x(dot.value)} cy={y + 27.5} r={3.6} fill={dot.counts ? 'var(--ink)' : 'var(--sheet)'} stroke="var(--ink)" />
            ))}
            <text x={width - VALUE + 12} y={y + 31} fill="var(--ink)" fontWeight={700} className="tabular-nums">
              {text('area', value, { decimals: 3 }).replace(/\s\S+$/, '')}
              <tspan fill="var(--quiet)" fontWeight={400}>
                {' ± '}
                {shown(sd).toFixed(3)}
              </tspan>
            </text>
          </g>
        )
      })}
    </svg>
  )
}
