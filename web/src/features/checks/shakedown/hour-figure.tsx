import type { Gate, HourLaid } from '@bold-ballast/core'
import { useWidth } from '../../../ui/hooks/use-width.ts'

const HEIGHT = 178
const FLOOR = 96
const EDGE = 8
const TALLEST = 66
const STOP_BELOW = 34

const minuteText = (seconds: number) => {
  const minutes = Math.round(seconds / 60)
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')}`
}

const GATE_MARK: Readonly<Record<Gate['word'], { readonly text: string; readonly fill: string; readonly ink: string }>> = {
  go: { text: 'go', fill: 'var(--pine)', ink: 'var(--sheet)' },
  watch: { text: 'go', fill: 'var(--pine)', ink: 'var(--sheet)' },
  again: { text: '?', fill: 'var(--picked)', ink: 'var(--ink)' },
  no: { text: 'no', fill: 'var(--danger)', ink: 'var(--sheet)' },
}

/** The booked time as it runs: set-up, laps standing on the line as tall as their pace, stops hanging under it, a gate behind each stop. */
export function HourFigure({ laid, driven, gates }: { laid: HourLaid; driven: ReadonlySet<number>; gates: ReadonlyMap<number, Gate> }) {
  const [holder, width] = useWidth<HTMLDivElement>(720)
  const { hour, bookedS, lapS } = laid
  if (!hour) return null
  const span = Math.max(bookedS, hour.wholeS)
  const x = (seconds: number) => EDGE + ((width - 2 * EDGE) * seconds) / span
  const setUpS =
    bookedS -
    hour.spareS -
    hour.stopsS.reduce((sum, stop) => sum + stop, 0) -
    laid.steps.reduce((sum, { factor }, i) => sum + (hour.laps[i] ?? 0) * factor * lapS, 0)
  let at = Math.max(0, setUpS)
  const blocks = laid.steps.flatMap(({ index, step, isLaps, factor }, i) => {
    const laps = hour.laps[i]
    if (laps === undefined) return []
    const from = at
    const to = from + laps * factor * lapS
    const stopS = hour.stopsS[i] ?? 0
    at = to + stopS
    const tall = isLaps ? TALLEST * (step.kind === 'bed' ? 0.36 : Math.max(0.3, step.share ?? 1)) : 18
    const name = isLaps ? (step.kind === 'bed' ? 'bed' : `${Math.round(100 * (step.share ?? 1))} %`) : (step.words ?? 'besides')
    return [{ index, from, to, stopS, laps, wanted: isLaps ? (step.wantLaps ?? laps) : 1, tall, name, isLaps }]
  })
  const said = blocks.map(({ name, laps, isLaps }) => (isLaps ? `${name}, ${laps} laps` : name)).join('; ')
  return (
    <div ref={holder} className="w-full [contain:inline-size]" role="img" aria-label={`The booked time: ${said}`}>
      <svg width={width} height={HEIGHT} aria-hidden="true" className="block">
        <defs>
          <pattern id="lap-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="6" stroke="var(--planned)" strokeWidth="2.4" />
          </pattern>
        </defs>
        <rect x={x(0)} y={FLOOR - 12} width={Math.max(0, x(setUpS) - x(0))} height={12} fill="var(--page)" stroke="var(--edge)" />
        {x(setUpS) - x(0) > 76 && (
          <text x={x(0) + 4} y={FLOOR - 17} fontSize="11.5" fill="var(--quiet)">
            set up, {minuteText(setUpS)}
          </text>
        )}
        {blocks.map(({ index, from, to, stopS, laps, wanted, tall, name, isLaps }) => {
          const isDriven = driven.has(index)
          const gate = gates.get(index)
          const each = (x(to) - x(from)) / Math.max(1, laps)
          return (
            <g key={index}>
              {Array.from({ length: laps }, (_, lap) => (
                <rect
                  // biome-ignore lint/suspicious/noArrayIndexKey: laps have no other name
                  key={lap}
                  x={x(from) + lap * each}
                  y={FLOOR - tall}
                  width={Math.max(1, each - 1.5)}
                  height={tall}
                  fill={isDriven ? 'var(--pine)' : 'url(#lap-hatch)'}
                  stroke={isDriven ? 'none' : 'var(--planned)'}
                />
              ))}
              <text
                {...(x(to) > width - 70 ? { x: width - 12, textAnchor: 'end' as const } : { x: (x(from) + x(to)) / 2, textAnchor: 'middle' as const })}
                y={FLOOR - tall - 6}
                fontSize="12.5"
                fontWeight="700"
                fill="var(--ink)"
              >
                {isLaps ? `${name}, ${laps < wanted ? `${laps} of ${wanted}` : laps} laps` : name}
              </text>
              {stopS > 0 && (
                <>
                  <rect
                    x={x(to)}
                    y={FLOOR + 4}
                    width={Math.max(1, x(to + stopS) - x(to))}
                    height={STOP_BELOW}
                    fill="var(--page)"
                    stroke="var(--edge)"
                    strokeDasharray={isDriven ? undefined : '3 3'}
                  />
                  <text x={(x(to) + x(to + stopS)) / 2} y={FLOOR + 4 + STOP_BELOW + 15} textAnchor="middle" fontSize="11.5" fill="var(--quiet)">
                    {minuteText(stopS)} to look
                  </text>
                </>
              )}
              {gate && (
                <g transform={`translate(${Math.min(width - 14, x(to + stopS))} ${FLOOR + 4 + STOP_BELOW / 2})`}>
                  <rect x="-11" y="-11" width="22" height="22" rx="11" fill={GATE_MARK[gate.word].fill} stroke="var(--ink)" />
                  <text y="4" textAnchor="middle" fontSize="11" fontWeight="800" fill={GATE_MARK[gate.word].ink}>
                    {GATE_MARK[gate.word].text}
                  </text>
                </g>
              )}
            </g>
          )
        })}
        <line x1={x(0)} x2={x(span)} y1={FLOOR} y2={FLOOR} stroke="var(--ink)" strokeWidth="1.6" />
        <line x1={x(bookedS)} x2={x(bookedS)} y1={10} y2={FLOOR + STOP_BELOW + 10} stroke="var(--ink)" strokeWidth="2.4" />
        <text x={Math.min(x(bookedS), width - 2)} y={HEIGHT - 8} textAnchor="end" fontSize="12" fontWeight="700" fill="var(--ink)">
          booked {minuteText(bookedS)}
        </text>
      </svg>
    </div>
  )
}
