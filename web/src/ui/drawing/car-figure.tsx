import { type CornerPlaces, PAD_NAMES, type PadName } from '@bold-ballast/core'
import { useWidth } from '../hooks/use-width.ts'

/** What is drawn of a car that nobody gave an outline of: its overhangs and wheels (common practice, no source). */
const USUAL = {
  frontOverhangM: 0.86,
  rearOverhangM: 0.8,
  heightM: 1.36,
  wheelRadiusM: 0.315,
  wheelWidthM: 0.225,
  bodyBesideTrackM: 0.14,
  floorM: 0.16,
} as const
const EDGE = { left: 74, right: 74, top: 16, bottom: 22 }
const LEAST_WIDTH = 320
const MOST_WIDTH = 640

/** From places in a car, m, to places on a drawing of it, px: nose to the left, its left side below. */
export interface CarScale {
  readonly x: (xM: number) => number
  /** In plan: how far left of the middle. */
  readonly y: (yM: number) => number
  /** In the side view: how high over the ground. */
  readonly z: (zM: number) => number
  readonly px: (metres: number) => number
  readonly width: number
  readonly planHeight: number
  readonly sideHeight: number
}

function scaleOf({ wheelbaseM, trackFrontM, trackRearM }: CornerPlaces, wanted: number): CarScale {
  const width = Math.min(MOST_WIDTH, Math.max(LEAST_WIDTH, wanted))
  const lengthM = wheelbaseM + USUAL.frontOverhangM + USUAL.rearOverhangM
  const each = (width - EDGE.left - EDGE.right) / lengthM
  const halfM = Math.max(trackFrontM, trackRearM) / 2 + USUAL.bodyBesideTrackM
  return {
    x: (xM) => EDGE.left + (xM + USUAL.frontOverhangM) * each,
    y: (yM) => EDGE.top + (yM + halfM) * each,
    z: (zM) => EDGE.top + (USUAL.heightM - zM) * each,
    px: (metres) => metres * each,
    width,
    planHeight: 2 * halfM * each + EDGE.top + EDGE.bottom,
    sideHeight: USUAL.heightM * each + EDGE.top + EDGE.bottom,
  }
}

type Overlay = (scale: CarScale) => React.ReactNode

interface Props {
  readonly geometry: CornerPlaces
  /** What the drawing says, for those who cannot see it. */
  readonly label: string
  /** What stands on the car from above; left out: that view is not drawn. */
  readonly plan?: Overlay
  /** What stands on the car from the side. */
  readonly side?: Overlay
}

/** The car to scale by its wheelbase and tracks, from the side and from above; whatever a room puts on it stands at its place in metres. */
export function CarFigure({ geometry, label, plan, side }: Props) {
  const [holder, width] = useWidth<HTMLDivElement>(MOST_WIDTH)
  const scale = scaleOf(geometry, width)
  return (
    <div ref={holder} className="w-full max-w-[640px] [contain:inline-size]" role="img" aria-label={label}>
      {side && (
        <svg width={scale.width} height={scale.sideHeight} aria-hidden="true" className="block">
          <SideView geometry={geometry} scale={scale} />
          {side(scale)}
        </svg>
      )}
      {plan && (
        <svg width={scale.width} height={scale.planHeight} aria-hidden="true" className="block">
          <PlanView geometry={geometry} scale={scale} />
          {plan(scale)}
        </svg>
      )}
    </div>
  )
}

const points = (list: readonly (readonly [number, number])[]) => list.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ')

function PlanView({ geometry, scale }: { geometry: CornerPlaces; scale: CarScale }) {
  const { wheelbaseM, trackFrontM, trackRearM } = geometry
  const { x, y, px } = scale
  const half = Math.max(trackFrontM, trackRearM) / 2 + USUAL.bodyBesideTrackM
  const [nose, tail] = [-USUAL.frontOverhangM, wheelbaseM + USUAL.rearOverhangM]
  const outline = [
    [nose, 0.62],
    [nose + 0.14, 0.86],
    [nose + 0.5, 1],
    [tail - 0.3, 1],
    [tail - 0.08, 0.88],
    [tail, 0.7],
  ] as const
  const body = [
    ...outline.map(([xM, share]) => [x(xM), y(-share * half)] as const),
    ...outline.toReversed().map(([xM, share]) => [x(xM), y(share * half)] as const),
  ]
  const cabin = [
    [0.2 * wheelbaseM, 0.66],
    [0.44 * wheelbaseM, 0.56],
    [0.86 * wheelbaseM, 0.56],
    [1.08 * wheelbaseM, 0.68],
  ] as const
  const glass = [
    ...cabin.map(([xM, share]) => [x(xM), y(-share * half)] as const),
    ...cabin.toReversed().map(([xM, share]) => [x(xM), y(share * half)] as const),
  ]
  const wheel = (xM: number, yM: number) => (
    <rect
      key={`${xM} ${yM}`}
      x={x(xM - USUAL.wheelRadiusM)}
      y={y(yM - USUAL.wheelWidthM / 2)}
      width={px(2 * USUAL.wheelRadiusM)}
      height={px(USUAL.wheelWidthM)}
      fill="var(--sheet)"
      stroke="var(--ink)"
      strokeWidth="1.6"
    />
  )
  return (
    <g>
      <polygon points={points(body)} fill="var(--wash)" stroke="var(--edge)" strokeWidth="1.2" />
      <polygon points={points(glass)} fill="none" stroke="var(--edge)" strokeWidth="0.8" />
      <line x1={x(nose)} x2={x(tail)} y1={y(0)} y2={y(0)} stroke="var(--edge)" strokeDasharray="9 3 2 3" />
      {[-1, 1].flatMap((sign) => [wheel(0, (sign * trackFrontM) / 2), wheel(wheelbaseM, (sign * trackRearM) / 2)])}
    </g>
  )
}

function SideView({ geometry: { wheelbaseM }, scale }: { geometry: CornerPlaces; scale: CarScale }) {
  const { x, z, px } = scale
  const [nose, tail, top] = [-USUAL.frontOverhangM, wheelbaseM + USUAL.rearOverhangM, USUAL.heightM]
  const body = [
    [nose, USUAL.floorM + 0.06],
    [nose + 0.02, 0.5],
    [nose + 0.2, 0.66],
    [0.14 * wheelbaseM, 0.84],
    [0.42 * wheelbaseM, top - 0.02],
    [0.72 * wheelbaseM, top],
    [1.02 * wheelbaseM, top - 0.1],
    [tail - 0.06, 0.86],
    [tail, 0.5],
    [tail - 0.06, USUAL.floorM + 0.08],
    [tail - 0.3, USUAL.floorM],
    [nose + 0.3, USUAL.floorM],
  ] as const
  const glass = [
    [0.22 * wheelbaseM, 0.86],
    [0.45 * wheelbaseM, top - 0.08],
    [0.72 * wheelbaseM, top - 0.07],
    [0.98 * wheelbaseM, top - 0.16],
    [1.05 * wheelbaseM, 0.9],
  ] as const
  const at = (list: readonly (readonly [number, number])[]) => points(list.map(([xM, zM]) => [x(xM), z(zM)] as const))
  return (
    <g>
      <polygon points={at(body)} fill="var(--wash)" stroke="var(--edge)" strokeWidth="1.2" />
      <polygon points={at(glass)} fill="none" stroke="var(--edge)" strokeWidth="0.8" />
      {[0, wheelbaseM].map((xM) => (
        <g key={xM}>
          <circle cx={x(xM)} cy={z(USUAL.wheelRadiusM)} r={px(USUAL.wheelRadiusM)} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="2.4" />
          <circle cx={x(xM)} cy={z(USUAL.wheelRadiusM)} r="1.8" fill="var(--ink)" />
        </g>
      ))}
      <line x1={x(nose) - 30} x2={x(tail) + 30} y1={z(0)} y2={z(0)} stroke="var(--ink)" strokeWidth="1.6" />
    </g>
  )
}

/** A length between two places along the car, with its number in the gap. */
export function Span({ scale, fromM, toM, y, text }: { scale: CarScale; fromM: number; toM: number; y: number; text: string }) {
  const [a, b] = [scale.x(fromM), scale.x(toM)]
  return (
    <g stroke="var(--ink)" strokeWidth="1">
      <line x1={a} x2={b} y1={y} y2={y} />
      <line x1={a} x2={a} y1={y - 4} y2={y + 4} />
      <line x1={b} x2={b} y1={y - 4} y2={y + 4} />
      <Words x={(a + b) / 2} y={y + 4} text={text} weight={700} />
    </g>
  )
}

/** Type on a figure, cut out of what lies under it. */
export function Words({
  x,
  y,
  text,
  weight = 400,
  anchor = 'middle',
  size = 12,
  fill = 'var(--ink)',
}: {
  x: number
  y: number
  text: string
  weight?: number
  anchor?: 'start' | 'middle' | 'end'
  size?: number
  fill?: string
}) {
  return (
    <text x={x} y={y} textAnchor={anchor} fontSize={size} fontWeight={weight} fill={fill} stroke="var(--sheet)" strokeWidth="3.5" paintOrder="stroke">
      {text}
    </text>
  )
}

/** What stands at each corner of the car from above: a number and a line under it. */
export function Corners({
  scale,
  geometry,
  of,
}: {
  scale: CarScale
  geometry: CornerPlaces
  of: (pad: PadName) => { readonly head: string; readonly under: string; readonly isQuiet?: boolean }
}) {
  return (
    <g>
      {PAD_NAMES.map((pad) => {
        const isFront = pad === 'LF' || pad === 'RF'
        const trackM = isFront ? geometry.trackFrontM : geometry.trackRearM
        const y = scale.y(((pad === 'LF' || pad === 'LR' ? 1 : -1) * trackM) / 2)
        const { head, under, isQuiet } = of(pad)
        const [x, anchor] = isFront ? ([2, 'start'] as const) : ([scale.width - 2, 'end'] as const)
        return (
          <g key={pad}>
            <Words x={x} y={y + 2} text={head} anchor={anchor} weight={700} size={isQuiet ? 12 : 16} {...(isQuiet ? { fill: 'var(--quiet)' } : {})} />
            <Words x={x} y={y + 17} text={under} anchor={anchor} size={11.5} fill="var(--quiet)" />
          </g>
        )
      })}
    </g>
  )
}
