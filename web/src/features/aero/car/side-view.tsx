import { type AeroRoomStage, type AeroTotals, type AxleAreas, type DeviceBox, type Picks, pickedNotch } from '@bold-ballast/core'
import { useId } from 'react'
import { Words } from '../../../ui/drawing/car-figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import type { BoxVerdict } from '../verdicts.ts'
import { GROUND, HEIGHT, type Outline, type Scale } from './scale.ts'
import { Plan, Planes, Ruler } from './side-planes.tsx'

/** The car from its left, as it was traced; else by its tapes: nose, windscreen, roof and tail as straight lines between what was taped. */
function Body({ outline, wheelbaseM, scale }: { outline: Outline; wheelbaseM: number; scale: Scale }) {
  const { frontOverhangM, rearOverhangM, undersideM, noseHeightM, scuttleXM, scuttleHeightM, roofFrontXM, roofRearXM, roofHeightM, tailHeightM, wheelRadiusM } =
    outline
  const rear = wheelbaseM + rearOverhangM
  const taped: readonly (readonly [number, number])[] = [
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
  const points = outline.sidePoints?.map(({ xM, zM }) => [xM, zM] as const) ?? taped
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
