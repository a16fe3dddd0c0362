import type { DrivenLap, LedgerLine, LedgerPart, StageLap, StageLedger, TrackRoom } from '@bold-ballast/core'
import { axisStep } from '../../../ui/drawing/axis-step.ts'
import { Plates } from '../../../ui/plates.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { dayText } from '../../../ui/words.ts'

type Text = ReturnType<typeof useQuantities>['text']

const join = (names: readonly string[]) => (names.length > 1 ? `${names.slice(0, -1).join(', ')} and ${names.at(-1)}` : (names[0] ?? ''))

/** What a line of the ledger is, in words. */
export function lineWords({ part, by }: Pick<LedgerLine, 'part' | 'by'>, aeroNames: readonly string[], text: Text): string {
  const words: Readonly<Record<LedgerPart, () => string>> = {
    mass: () => `${text('mass', Math.abs(by ?? 0))} ${(by ?? 0) > 0 ? 'heavier' : 'lighter'}`,
    power: () => `${text('power', Math.abs(by ?? 0), { decimals: 0 })} ${(by ?? 0) > 0 ? 'more' : 'less'}`,
    aero: () => (aeroNames.length > 0 ? `${join(aeroNames)}${aeroNames.length > 1 ? ', as a set' : ''}` : 'the air around it'),
    gears: () => 'gears, final or shifts',
    tyres: () => `tyres, ${text('share', Math.abs(by ?? 0), { decimals: 1 })} ${(by ?? 0) > 0 ? 'more' : 'less'} grip`,
    brakes: () => 'split of the brakes',
    places: () => 'where the weight and the wheels are',
  }
  return words[part]()
}

/** Less is no line, s: it goes with what the others do together. */
const LEAST_S = 0.005

interface Row {
  readonly key: string
  readonly stage: number
  readonly words: string
  readonly seconds: number | null
  readonly note: string | null
  readonly from: number
  readonly to: number
}

/** Lines of the stages between what was driven and what is planned, each from where the one before it ended. */
function rowsOf(driven: DrivenLap, ledger: readonly StageLedger[], room: TrackRoom, text: Text): Row[] {
  let at = driven.lapS
  return ledger.flatMap(({ position, lines, togetherS, totalS, isSet }): Row[] => {
    const names = room.stages[position]?.aeroNames ?? []
    if (isSet) {
      const row = {
        key: `${position} set`,
        stage: position,
        words: join(lines.map((line) => lineWords(line, names, text))),
        seconds: totalS,
        note: 'as a set: together they are more or less than each alone',
        from: at,
        to: at + totalS,
      }
      at += totalS
      return [row]
    }
    const rows = lines
      .filter(({ seconds }) => Math.abs(seconds) >= LEAST_S)
      .map((line): Row => {
        const from = at
        at += line.seconds
        return { key: `${position} ${line.part}`, stage: position, words: lineWords(line, names, text), seconds: line.seconds, note: null, from, to: at }
      })
    const from = at
    at += togetherS
    const together =
      Math.abs(togetherS) < 0.005
        ? []
        : [{ key: `${position} together`, stage: position, words: 'what they do together', seconds: togetherS, note: null, from, to: at }]
    return [...rows, ...together]
  })
}

/** Seconds from the lap that was driven to the plan and to what is wanted: each change where the one before it ended. */
export function LedgerFigure({
  driven,
  ledger,
  stage,
  position,
  wantedS,
  verdict,
  room,
  uncounted,
}: {
  driven: DrivenLap
  ledger: readonly StageLedger[]
  stage: StageLap
  position: number
  wantedS: number | null
  verdict: string | null
  room: TrackRoom
  uncounted: readonly string[]
}) {
  const { text, format } = useQuantities()
  const rows = rowsOf(driven, ledger, room, text)
  const values = [
    driven.lapS,
    stage.lapS + stage.sdS,
    stage.lapS - stage.sdS,
    ...rows.flatMap(({ from, to }) => [from, to]),
    ...(wantedS === null ? [] : [wantedS]),
  ]
  const [slow, fast] = [Math.max(...values) + 0.05, Math.min(...values) - 0.05]
  // Quicker is to the right: that is where one wants to get.
  const percent = (lapS: number) => (100 * (slow - lapS)) / (slow - fast)
  const step = axisStep(slow - fast, 5)
  const ticks = Array.from({ length: 7 }, (_, i) => Math.floor(slow / step) * step - i * step).filter((tick) => tick > fast)
  const decimals = step < 0.1 ? 2 : step < 1 ? 1 : 0
  const bar = (from: number, to: number, className: string, style: React.CSSProperties = {}) => (
    <span
      className={`absolute top-0 bottom-0 ${className}`}
      style={{ left: `${percent(Math.max(from, to))}%`, width: `max(3px, ${percent(Math.min(from, to)) - percent(Math.max(from, to))}%)`, ...style }}
    />
  )
  const grid = ticks.map((tick) => <span key={tick} className="absolute top-0 bottom-0 w-px bg-line" style={{ left: `${percent(tick)}%` }} />)
  const wantedMark = wantedS === null ? null : <span className="absolute -top-1 -bottom-1 w-[2px] bg-ink" style={{ left: `${percent(wantedS)}%` }} />
  const seconds = (value: number) => `${format('lapTime', value, { sign: true, decimals: 2 }).number}`
  const hatched = { backgroundImage: 'repeating-linear-gradient(135deg, var(--planned) 0 3px, transparent 3px 6px)' }
  return (
    <div>
      <div className="relative ml-6 mr-[104px] h-5 text-xs text-quiet" aria-hidden="true">
        {ticks.map((tick) => (
          <span key={tick} className="absolute -translate-x-1/2 tabular-nums" style={{ left: `${percent(tick)}%` }}>
            {format('lapTime', tick, { decimals }).number}
          </span>
        ))}
      </div>
      <ol>
        <LedgerRow
          stage={driven.position}
          words={`Driven ${dayText(driven.day)}, ${room.school === 'best' ? `best of ${driven.clean} clean` : `median of ${driven.clean}`}`}
          isStrong
          value={format('lapTime', driven.lapS, { decimals: 2 }).number}
          proof={driven.proof}
        >
          {grid}
          {wantedMark}
          {bar(slow, driven.lapS, 'bg-pine')}
        </LedgerRow>
        {rows.map((row) => (
          <LedgerRow
            key={row.key}
            stage={row.stage}
            words={row.words}
            note={row.note}
            value={row.seconds === null ? '?' : seconds(row.seconds)}
            isWorse={(row.seconds ?? 0) > 0.005}
          >
            {grid}
            {wantedMark}
            {bar(row.from, row.to, (row.seconds ?? 0) > 0 ? 'border-2 border-wait' : '', (row.seconds ?? 0) > 0 ? {} : hatched)}
          </LedgerRow>
        ))}
        {uncounted.map((words) => (
          <li key={words} className="flex gap-2 py-1 text-wait">
            <span className="w-4 shrink-0 text-right text-xs">{position}</span>
            <span className="flex-1">{words}</span>
            <strong>?</strong>
          </li>
        ))}
        <LedgerRow stage={position} words="Planned" isStrong value={format('lapTime', stage.lapS, { decimals: 2 }).number} proof={stage.proof}>
          {grid}
          {wantedMark}
          {bar(slow, stage.lapS, '', hatched)}
          <span
            className="absolute top-1/2 h-[2px] -translate-y-1/2 bg-ink"
            style={{ left: `${percent(stage.lapS + stage.sdS)}%`, width: `${percent(stage.lapS - stage.sdS) - percent(stage.lapS + stage.sdS)}%` }}
          />
        </LedgerRow>
        {wantedS !== null && (
          <LedgerRow stage={null} words="Wanted" note={verdict} isStrong value={format('lapTime', wantedS, { decimals: 2 }).number}>
            {grid}
            {wantedMark}
          </LedgerRow>
        )}
      </ol>
    </div>
  )
}

function LedgerRow({
  stage,
  words,
  note = null,
  value,
  proof,
  isStrong = false,
  isWorse = false,
  children,
}: {
  stage: number | null
  words: string
  note?: string | null
  value: string
  proof?: StageLap['proof']
  isStrong?: boolean
  isWorse?: boolean
  children: React.ReactNode
}) {
  return (
    <li className="pt-[2px] pb-[1px]">
      <div className="flex items-baseline gap-2">
        <span className="w-4 shrink-0 text-right text-xs text-quiet">{stage ?? ''}</span>
        <span className={`min-w-0 flex-1 ${isStrong ? 'font-semibold' : ''}`}>
          {words}
          {note && <span className="ml-2 text-xs text-wait">{note}</span>}
        </span>
        {proof && <Plates proof={proof} />}
        <strong className={`w-[74px] shrink-0 text-right tabular-nums ${isStrong ? 'text-[18px]' : ''} ${isWorse ? 'text-wait' : ''}`}>{value}</strong>
      </div>
      <div className="relative mt-[2px] mr-[104px] ml-6 h-[8px]" aria-hidden="true">
        {children}
      </div>
    </li>
  )
}
