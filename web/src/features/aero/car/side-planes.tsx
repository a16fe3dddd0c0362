import { type AeroRoomStage, type AeroTotals, type Picks, pickedNotch } from '@bold-ballast/core'
import { Words } from '../../../ui/drawing/car-figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import type { BoxVerdict } from '../verdicts.ts'
import { GROUND, type Outline, type Scale } from './scale.ts'

/** The planes of the rules: outside of them is hatched, with the room that is left or what is over. */
export function Planes({
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
export function Ruler({ made, totals, scale, y, hatch }: { made: AeroRoomStage; totals: AeroTotals; scale: Scale; y: number; hatch: string }) {
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
export function Plan({
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
