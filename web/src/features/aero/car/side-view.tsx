import { type AeroRoom, type AeroRoomStage, type AeroTotals, type AxleAreas, type DeviceBox, type Picks, pickedNotch } from '@bold-ballast/core'
import { useId } from 'react'
import { Words } from '../../../ui/car-figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import type { BoxVerdict } from '../verdicts.ts'

type Outline = NonNullable<AeroRoom['outline']>

interface Scale {
  readonly x: (metres: number) => number
  readonly z: (metres: number) => number
  readonly px: (metres: number) => number
}

const HEIGHT = 300
const GROUND = 262

/** The car from its left, by its tapes: nose, windscreen, roof and tail as straight lines between what was taped. */
function Body({ outline, wheelbaseM, scale }: { outline: Outline; wheelbaseM: number; scale: Scale }) {
  const { frontOverhangM, rearOverhangM, undersideM, noseHeightM, scuttleXM, scuttleHeightM, roofFrontXM, roofRearXM, roofHeightM, tailHeightM, wheelRadiusM } =
    outline
  const rear = wheelbaseM + rearOverhangM
  const points: readonly (readonly [number, number])[] = [
    [-frontOverhangM, undersideM + 0.05],
    [-frontOverhangM, noseHeightM * 0.75],
    [-frontOverhangM + 0.1, noseHeightM],
    [scuttleXM, scuttleHeightM],
    [roofFrontXM, roofHeightM - 0.02],
    [(roofFrontXM + roofRearXM) / 2, roofHeightM],
    [roofRearXM, roofHeightM - 0.02],
    [rear - 0.12, tailHeightM],
    [rear, tailHeightM - 0.1],
    [rear, undersideM + 0.1],
    [rear - 0.25, undersideM],
    [-frontOverhangM + 0.15, undersideM],
  ]
  return (
    <g>
      <polygon
        points={points.map(([x, z]) => `${scale.x(x)},${scale.z(z)}`).join(' ')}
        fill="var(--page)"
        stroke="var(--edge)"
        strokeWidth="1.2"
        strokeLinejoin="round"
      />
      {[0, wheelbaseM].map((x) => (
        <g key={x}>
          <circle cx={scale.x(x)} cy={scale.z(wheelRadiusM)} r={scale.px(wheelRadiusM)} fill="var(--sheet)" stroke="var(--ink)" strokeWidth="4" />
          <circle cx={scale.x(x)} cy={scale.z(wheelRadiusM)} r="2" fill="var(--ink)" />
        </g>
      ))}
    </g>
  )
}

/** A device as its box; a wing as its chord at its angle. */
function DeviceShape({ box, scale, isOver, isWing, angleRad }: { box: DeviceBox; scale: Scale; isOver: boolean; isWing: boolean; angleRad: number }) {
  const fill = isOver ? 'var(--danger)' : 'var(--planned)'
  if (isWing) {
    const [x1, x2] = [scale.x(box.xFrontM), scale.x(box.xRearM)]
    const middle = (box.zBottomM + box.zTopM) / 2
    const [z1, z2] = [
      scale.z(middle - Math.tan(angleRad) * ((box.xRearM - box.xFrontM) / 2)),
      scale.z(middle + Math.tan(angleRad) * ((box.xRearM - box.xFrontM) / 2)),
    ]
    return (
      <g>
        <rect x={x1} y={scale.z(box.zTopM)} width={x2 - x1} height={Math.max(2, scale.px(box.zTopM - box.zBottomM))} fill={fill} opacity="0.25" />
        <line x1={x1} x2={x2} y1={z1} y2={z2} stroke={isOver ? 'var(--danger)' : 'var(--ink)'} strokeWidth="3.5" strokeLinecap="round" />
      </g>
    )
  }
  return (
    <rect
      x={scale.x(box.xFrontM)}
      y={scale.z(box.zTopM)}
      width={Math.max(2, scale.px(box.xRearM - box.xFrontM))}
      height={Math.max(2.5, scale.px(box.zTopM - box.zBottomM))}
      fill={fill}
      opacity={isOver ? 0.9 : 0.6}
    />
  )
}

/** Force of a device: solid to its value less a spread, hatched up to its value and a spread. */
function Arrow({ x, y, newton, sd, perPx, hatch }: { x: number; y: number; newton: number; sd: number; perPx: number; hatch: string }) {
  const sign = newton >= 0 ? 1 : -1
  const [sure, most] = [Math.max(0, Math.abs(newton) - sd) / perPx, (Math.abs(newton) + sd) / perPx]
  const to = (length: number) => y + sign * length
  return (
    <g>
      <rect x={x - 4} y={Math.min(y, to(sure))} width="8" height={sure} fill="var(--ink)" />
      <rect x={x - 4} y={Math.min(to(sure), to(most))} width="8" height={most - sure} fill={`url(#${hatch})`} stroke="var(--edge)" strokeWidth="0.6" />
      <path d={`M ${x - 7} ${to(most)} h 14 l -7 ${sign * 8} z`} fill="var(--ink)" />
    </g>
  )
}

/** The planes of the rules: outside of them is hatched, with the room that is left or what is over. */
function Planes({
  verdicts,
  outline,
  wheelbaseM,
  scale,
  hatch,
}: {
  verdicts: readonly BoxVerdict[]
  outline: Outline
  wheelbaseM: number
  scale: Scale
  hatch: string
}) {
  const { format } = useQuantities()
  const left = ({ margin }: BoxVerdict) => `${format('length', Math.abs(margin)).number} ${margin < 0 ? 'over' : 'left'}`
  const fill = ({ margin }: BoxVerdict) => (margin < 0 ? 'var(--danger)' : 'var(--quiet)')
  return (
    <g>
      {verdicts.map((verdict) => {
        const { metric, value } = verdict.limit
        if (metric === 'reachFront' || metric === 'reachRear') {
          const isFront = metric === 'reachFront'
          const x = scale.x(isFront ? -outline.frontOverhangM - value : wheelbaseM + outline.rearOverhangM + value)
          return (
            <g key={verdict.limit.id}>
              <rect x={isFront ? x - 12 : x} y={40} width="12" height={GROUND - 40} fill={`url(#${hatch})`} />
              <line x1={x} x2={x} y1={40} y2={GROUND} stroke="var(--ink)" strokeWidth="1.4" />
              <Words
                x={isFront ? x - 10 : x + 12}
                y={32}
                text={`bumper, ${left(verdict)}`}
                anchor={isFront ? 'start' : 'end'}
                size={11.5}
                weight={700}
                fill={fill(verdict)}
              />
            </g>
          )
        }
        if (metric === 'wingOverRoof') {
          const z = scale.z(outline.roofHeightM + value)
          const [x1, x2] = [scale.x(outline.roofRearXM), scale.x(wheelbaseM + outline.rearOverhangM) + 4]
          return (
            <g key={verdict.limit.id}>
              <rect x={x1} y={z - 11} width={x2 - x1} height="11" fill={`url(#${hatch})`} />
              <line x1={x1} x2={x2} y1={z} y2={z} stroke="var(--ink)" strokeWidth="1.4" />
              <Words x={x1 - 4} y={z - 2} text={`roof, ${left(verdict)}`} anchor="end" size={11.5} weight={700} fill={fill(verdict)} />
            </g>
          )
        }
        if (metric === 'groundHeight') {
          const z = scale.z(value)
          return (
            <g key={verdict.limit.id}>
              <line
                x1={scale.x(-outline.frontOverhangM) - 14}
                x2={scale.x(wheelbaseM + outline.rearOverhangM)}
                y1={z}
                y2={z}
                stroke="var(--edge)"
                strokeDasharray="3 3"
              />
              <Words
                x={scale.x(-outline.frontOverhangM) - 14}
                y={GROUND + 14}
                text={`lowest, ${left(verdict)}`}
                anchor="start"
                size={11.5}
                weight={700}
                fill={fill(verdict)}
              />
            </g>
          )
        }
        return null
      })}
    </g>
  )
}

/** Shares of the wheelbase as a ruler: where the weight stands, where downforce acts, and what is wanted. */
function Ruler({ made, totals, scale, y, hatch }: { made: AeroRoomStage; totals: AeroTotals; scale: Scale; y: number; hatch: string }) {
  const { text } = useQuantities()
  const { wheelbaseM, frontShare, wantedBalance } = made
  const at = (share: number) => scale.x((1 - share) * wheelbaseM)
  const { balance } = totals
  return (
    <g>
      <line x1={at(1)} x2={at(0)} y1={y} y2={y} stroke="var(--ink)" strokeWidth="1.6" />
      {[0, 0.2, 0.4, 0.6, 0.8, 1].map((share) => (
        <g key={share}>
          <line x1={at(share)} x2={at(share)} y1={y - 4} y2={y + 4} stroke="var(--ink)" />
          <Words x={at(share)} y={y + 18} text={`${100 * share}${share === 0 || share === 1 ? ' %' : ''}`} size={11} fill="var(--quiet)" />
        </g>
      ))}
      {wantedBalance && (
        <g>
          <path d={`M ${at(wantedBalance.to)} ${y - 7} v -6 H ${at(wantedBalance.from)} v 6`} fill="none" stroke="var(--ink)" strokeWidth="1.4" />
          <Words x={(at(wantedBalance.from) + at(wantedBalance.to)) / 2} y={y - 18} text="wanted" size={11} />
        </g>
      )}
      {frontShare && (
        <g>
          <path d={`M ${at(frontShare.value)} ${y} l -6 -11 h 12 z`} fill="var(--pine)" />
          <Words x={at(frontShare.value) - 9} y={y - 5} text={`weight ${text('share', frontShare.value)}`} anchor="end" weight={700} fill="var(--pine)" />
        </g>
      )}
      {balance && (
        <g>
          <rect
            x={at(balance.frontShare + balance.sd)}
            y={y - 5}
            width={Math.max(1, at(balance.frontShare - balance.sd) - at(balance.frontShare + balance.sd))}
            height="10"
            fill={`url(#${hatch})`}
            opacity="0.8"
          />
          <path d={`M ${at(balance.frontShare)} ${y} l -6 -11 h 12 z`} fill="var(--ink)" />
          <Words
            x={at(balance.frontShare) + 9}
            y={y - 5}
            text={`downforce ${text('share', balance.frontShare, { decimals: 0 })} ± ${text('share', balance.sd, { decimals: 0 })}`}
            anchor="start"
            weight={700}
          />
        </g>
      )}
      <Words x={at(1) - 10} y={y + 4} text="on the front tyres" anchor="end" size={11} fill="var(--quiet)" />
    </g>
  )
}

/** Half of the car from above, its left side, with what reaches beyond the body. */
function Plan({
  outline,
  made,
  picks,
  scale,
  top,
  verdicts,
  hatch,
}: {
  outline: Outline
  made: AeroRoomStage
  picks: Picks
  scale: Scale
  top: number
  verdicts: readonly BoxVerdict[]
  hatch: string
}) {
  const { format } = useQuantities()
  const y = (metres: number) => top + scale.px(metres)
  const half = outline.bodyWidthM / 2
  const [x0, x1] = [scale.x(-outline.frontOverhangM), scale.x(made.wheelbaseM + outline.rearOverhangM)]
  const side = verdicts.find(({ limit }) => limit.metric === 'reachSide')
  const overs = new Set(verdicts.filter(({ margin, limit }) => margin < 0 && limit.metric === 'reachSide').map(({ name }) => name))
  return (
    <g>
      <line x1={x0 - 20} x2={x1 + 20} y1={top} y2={top} stroke="var(--edge)" strokeDasharray="10 3 2 3" />
      <path
        d={`M ${x0} ${top} V ${y(half * 0.75)} Q ${x0} ${y(half)} ${x0 + 30} ${y(half)} H ${x1 - 24} Q ${x1} ${y(half)} ${x1} ${y(half * 0.8)} V ${top}`}
        fill="var(--page)"
        stroke="var(--edge)"
        strokeWidth="1.2"
      />
      {[0, made.wheelbaseM].map((x) => (
        <rect
          key={x}
          x={scale.x(x - outline.wheelRadiusM)}
          y={y(half - 0.24)}
          width={scale.px(2 * outline.wheelRadiusM)}
          height={scale.px(0.22)}
          rx="4"
          fill="var(--sheet)"
          stroke="var(--ink)"
          strokeWidth="1.6"
        />
      ))}
      {made.devices.map((device) => {
        const { box } = pickedNotch(device, picks)
        if (!box || device.kind === 'body') return null
        const isOver = overs.has(device.name)
        return (
          <rect
            key={device.id}
            x={scale.x(box.xFrontM)}
            y={y(box.yInnerM)}
            width={Math.max(2, scale.px(box.xRearM - box.xFrontM))}
            height={Math.max(2, scale.px(box.yOuterM - box.yInnerM))}
            fill={isOver ? 'var(--danger)' : 'var(--planned)'}
            opacity={device.kind === 'floor' ? 0.18 : isOver ? 0.9 : 0.5}
          />
        )
      })}
      {side && (
        <g>
          <rect x={x0} y={y(half + side.limit.value)} width={x1 - x0} height="10" fill={`url(#${hatch})`} />
          <line x1={x0} x2={x1} y1={y(half + side.limit.value)} y2={y(half + side.limit.value)} stroke="var(--ink)" strokeWidth="1.4" />
          <Words
            x={x1}
            y={y(half + side.limit.value) + 24}
            text={`side, ${format('length', Math.abs(side.margin)).number} ${side.margin < 0 ? 'over' : 'left'}${side.margin < 0 && side.name ? `: ${side.name}` : ''}`}
            anchor="end"
            size={11.5}
            weight={700}
            fill={side.margin < 0 ? 'var(--danger)' : 'var(--quiet)'}
          />
        </g>
      )}
      <Words x={x0} y={y(half) + 26} text={`left half from above; ${format('length', 1).unit}`} anchor="start" size={11} fill="var(--quiet)" />
    </g>
  )
}

const LONGEST_PX = 62

/** Where a force acts that is only known at the tyres: between or just beyond them. */
function actsAtM({ frontM2, rearM2 }: AxleAreas, wheelbaseM: number): number {
  const sum = frontM2 + rearM2
  return Math.abs(sum) < 1e-9 ? wheelbaseM / 2 : wheelbaseM * Math.min(1.2, Math.max(-0.2, rearM2 / sum))
}

/** The arrow of each known device, the longest as long as there is room; a wing's hangs below it, that of others stands on them. Names keep clear of each other. */
function arrowsOf(totals: AeroTotals, { scale, wheelbaseM, roofHeightM, q }: { scale: Scale; wheelbaseM: number; roofHeightM: number; q: number }) {
  const known = totals.lines.flatMap(({ device, notch, areas }) => {
    if (!areas) return []
    const newton = q * (areas.frontM2 + areas.rearM2)
    const sd = q * Math.sqrt(Math.max(0, areas.frontVariance + areas.rearVariance + 2 * areas.covariance))
    return [{ device, newton, sd, box: notch.box, x: notch.force?.form === 'place' ? notch.force.xM : actsAtM(areas, wheelbaseM) }]
  })
  const perPx = Math.max(1, ...known.map(({ newton, sd }) => Math.abs(newton) + sd)) / LONGEST_PX
  const taken: { readonly x: number; readonly y: number }[] = []
  const forces = known.map(({ device, newton, sd, box, x }) => {
    const top = scale.z(box ? box.zTopM : roofHeightM * 0.62)
    const y = device.wing || newton < 0 || !box ? top : top - (newton + sd) / perPx - 8
    let labelY = y + (device.wing && newton >= 0 ? 12 : -6)
    while (taken.some((other) => Math.abs(other.x - scale.x(x)) < 130 && Math.abs(other.y - labelY) < 15)) labelY -= 15
    taken.push({ x: scale.x(x), y: labelY })
    return { device, newton, sd, x, y, labelY }
  })
  return { forces, perPx }
}

/** The car to scale: from its left with the planes of the rules, the force of each device, what stands on each axle, the ruler of shares; and its left half from above. */
export function SideView({
  made,
  outline,
  picks,
  totals,
  verdicts,
  q,
  width,
}: {
  made: AeroRoomStage
  outline: Outline
  picks: Picks
  totals: AeroTotals
  verdicts: readonly BoxVerdict[]
  q: number
  width: number
}) {
  const id = useId()
  const hatch = `${id}outside`
  const { text } = useQuantities()
  const [first, last] = [-outline.frontOverhangM - 0.42, made.wheelbaseM + outline.rearOverhangM + 0.35]
  const perM = width / (last - first)
  const scale: Scale = { x: (m) => (m - first) * perM, z: (m) => GROUND - m * perM, px: (m) => m * perM }
  const rise = Math.max(0, scale.px(outline.roofHeightM + 0.35) - (GROUND - 20))
  const halfTop = HEIGHT + 92
  const total = halfTop + scale.px(outline.bodyWidthM / 2 + 0.06) + 40 + rise
  const { forces, perPx } = arrowsOf(totals, { scale, wheelbaseM: made.wheelbaseM, roofHeightM: outline.roofHeightM, q })
  const overs = new Set(verdicts.filter(({ margin }) => margin < 0).map(({ name }) => name))
  const axle = (key: 'front' | 'rear') => {
    const variance = key === 'front' ? totals.areas.frontVariance : totals.areas.rearVariance
    return `${text('force', q * (key === 'front' ? totals.areas.frontM2 : totals.areas.rearM2), { sign: true, decimals: 0 })} ± ${text('force', q * Math.sqrt(variance), { decimals: 0 })}`
  }
  return (
    <svg
      width={width}
      height={total}
      viewBox={`0 0 ${width} ${total}`}
      role="img"
      aria-label={`The car to scale with ${made.devices.length} devices; on the front tyres ${axle('front')}, on the rear ${axle('rear')}`}
    >
      <defs>
        <pattern id={hatch} width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <line x1="0" x2="0" y1="0" y2="5" stroke="var(--edge)" strokeWidth="1.4" />
        </pattern>
      </defs>
      <g transform={`translate(0 ${rise})`}>
        <Body outline={outline} wheelbaseM={made.wheelbaseM} scale={scale} />
        <line x1="0" x2={width} y1={GROUND} y2={GROUND} stroke="var(--ink)" strokeWidth="1.6" />
        {made.devices.map((device) => {
          const { box, angleRad } = pickedNotch(device, picks)
          return box && device.kind !== 'body' ? (
            <DeviceShape key={device.id} box={box} scale={scale} isOver={overs.has(device.name)} isWing={device.wing !== null} angleRad={angleRad ?? 0} />
          ) : null
        })}
        <Planes verdicts={verdicts} outline={outline} wheelbaseM={made.wheelbaseM} scale={scale} hatch={hatch} />
        {forces.map(({ device, newton, sd, x, y, labelY }) => (
          <g key={device.id}>
            <Arrow x={scale.x(x)} y={y} newton={newton} sd={sd} perPx={perPx} hatch={hatch} />
            <Words
              x={scale.x(x) + (x > made.wheelbaseM ? -12 : 12)}
              y={labelY}
              text={device.name}
              anchor={x > made.wheelbaseM ? 'end' : 'start'}
              size={11.5}
              weight={700}
              fill={overs.has(device.name) ? 'var(--danger)' : 'var(--ink)'}
            />
          </g>
        ))}
        {(['front', 'rear'] as const).map((key) => {
          const x = scale.x(key === 'front' ? 0 : made.wheelbaseM)
          return (
            <g key={key}>
              <line x1={x} x2={x} y1={GROUND} y2={HEIGHT + 40} stroke="var(--edge)" strokeDasharray="2 3" />
              <Words
                x={key === 'front' ? x + 8 : x - 8}
                y={GROUND + 16}
                text={`${key} tyres`}
                anchor={key === 'front' ? 'start' : 'end'}
                size={11.5}
                fill="var(--quiet)"
              />
              <Words x={key === 'front' ? x + 8 : x - 8} y={GROUND + 32} text={axle(key)} anchor={key === 'front' ? 'start' : 'end'} weight={800} size={13} />
            </g>
          )
        })}
        <Ruler made={made} totals={totals} scale={scale} y={HEIGHT + 48} hatch={hatch} />
        <Plan outline={outline} made={made} picks={picks} scale={scale} top={halfTop} verdicts={verdicts} hatch={hatch} />
      </g>
    </svg>
  )
}
