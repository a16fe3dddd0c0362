import { fromSi, type Ladder, type Rung } from '@bold-ballast/core'
import { useQuantities } from '../../../ui/quantity.ts'
import { changeWords, settingWords } from '../setting-words.ts'

const ROW_PX = 68
const GAP_PX = 100
const RAILS = { left: 62, right: 168 } as const
const WIDTH = 226
const LETTERS = 'abcdefghij'

/** Where each rung's row stands, the last run on top; rows and the gains between them take turns. */
const rowTop = (index: number, count: number) => (count - 1 - index) * (ROW_PX + GAP_PX)

/** A ladder to scale: each setting a rung at the height of its power, with what was changed as the bars between, and its row beside it. */
export function LadderFigure({ ladder: { rungs } }: { ladder: Ladder }) {
  const { format, text, units } = useQuantities()
  const height = rungs.length * ROW_PX + (rungs.length - 1) * GAP_PX
  const values = rungs.flatMap(({ peakW, onBefore }) => [peakW, ...(onBefore ? [peakW + (onBefore.peak.highW - onBefore.peak.differenceW)] : [])])
  const [low, high] = [Math.min(...values), Math.max(...values)]
  const span = high - low || 1
  const y = (watts: number) => ROW_PX / 2 + ((high - watts) / span) * (height - ROW_PX)
  const number = (watts: number) => format('power', watts, { decimals: 0 }).number
  return (
    <section className="mt-5 flex max-[639px]:block" aria-label="Ladder of settings">
      <svg viewBox={`0 0 ${WIDTH} ${height}`} width={WIDTH} height={height} className="shrink-0 max-[639px]:hidden" aria-hidden="true">
        <text x="0" y="12" fontSize="11.5" fill="var(--quiet)">
          {units.power}, peak
        </text>
        <defs>
          <pattern id="rung-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="6" height="6" fill="var(--sheet)" />
            <rect width="3" height="6" fill="var(--wait)" />
          </pattern>
        </defs>
        {[RAILS.left, RAILS.right].map((x) => (
          <line key={x} x1={x} x2={x} y1="16" y2={height} stroke="var(--ink)" strokeWidth="3" />
        ))}
        {rungs.map((rung, i) => {
          const before = rungs[i - 1]
          return before ? <Changes key={rung.setting.id} rung={rung} from={y(before.peakW)} to={y(rung.peakW)} /> : null
        })}
        {rungs.map((rung, i) => {
          const at = y(rung.peakW)
          const row = rowTop(i, rungs.length) + ROW_PX / 2
          const half = rung.onBefore ? Math.abs(y(rung.onBefore.peak.highW) - y(rung.onBefore.peak.differenceW)) : 0
          const isLast = i === rungs.length - 1
          return (
            <g key={rung.setting.id}>
              <rect
                x={RAILS.left - 5}
                y={at - 5}
                width={RAILS.right - RAILS.left + 10}
                height="10"
                fill={isLast ? '#f5c518' : 'var(--pine)'}
                stroke="var(--ink)"
              />
              <text x={RAILS.left - 12} y={at + 4} fontSize="12" textAnchor="end" fill="var(--quiet)">
                {number(rung.peakW)}
              </text>
              {half > 0 && <path d={`M186 ${at - half} v${2 * half} M181 ${at - half} h10 M181 ${at + half} h10`} stroke="var(--ink)" fill="none" />}
              <path d={`M${RAILS.right + 6} ${at} H196 L210 ${row} H224`} stroke="var(--edge)" strokeDasharray="2 3" fill="none" />
            </g>
          )
        })}
      </svg>
      <ol className="min-w-0 flex-1" style={{ minHeight: height }}>
        <li aria-hidden="true" className="-mt-5 grid h-5 grid-cols-[minmax(0,1fr)_84px_84px_120px] gap-x-3 px-2 text-right text-xs text-quiet max-[639px]:mt-0">
          <span className="text-left">Setting, the last run on top</span>
          <span>Peak, {units.power}</span>
          <span>Mean, {units.power}</span>
          <span>On the first</span>
        </li>
        {[...rungs].reverse().map((rung, i) => {
          const isLast = i === 0
          return (
            <li key={rung.setting.id}>
              <div
                style={{ minHeight: ROW_PX }}
                className={`grid grid-cols-[minmax(0,1fr)_84px_84px_120px] items-center gap-x-3 px-2 ${isLast ? 'bg-picked' : ''}`}
              >
                <span className="min-w-0">
                  <strong className="block text-[16px]">{rung.setting.name}</strong>
                  <span className="block text-xs text-quiet">
                    {[settingWords({ ...rung.setting, wasSet: null }, text), `${rung.pullIds.length} ${rung.pullIds.length === 1 ? 'pull' : 'pulls'}`]
                      .filter(Boolean)
                      .join(', ')}
                  </span>
                </span>
                <Cell
                  head="peak"
                  value={format('power', rung.peakW, { decimals: 1 }).number}
                  sub={rung.peakSpeedRpm === null ? '' : `${format('engineSpeed', rung.peakSpeedRpm).number} rpm`}
                  isStrong
                />
                <Cell head="mean" value={rung.meanW === null ? '–' : format('power', rung.meanW, { decimals: 1 }).number} sub="in the band" />
                {rung.onFirst ? (
                  <Cell
                    head="on the first"
                    value={text('power', rung.onFirst.peak.differenceW, { sign: true, decimals: 1 })}
                    sub={`${fromTo(rung.onFirst.peak, units.power)}${rung.onFirst.changeCount > 1 ? `, ${rung.onFirst.changeCount} changes` : ''}`}
                  />
                ) : (
                  <span className="text-right text-quiet">the first</span>
                )}
              </div>
              {rung.onBefore && <GainBlock rung={rung} />}
            </li>
          )
        })}
      </ol>
    </section>
  )
}

const fromTo = ({ lowW, highW }: { readonly lowW: number; readonly highW: number }, unit: string) =>
  `${fromSi('power', lowW, unit).toFixed(1).replace('-', '\u2212')} to ${fromSi('power', highW, unit).toFixed(1).replace('-', '\u2212')}`

function Cell({ head, value, sub, isStrong = false }: { head: string; value: string; sub: string; isStrong?: boolean }) {
  return (
    <span className="text-right">
      <span className="sr-only">{head} </span>
      <span className={`block font-bold ${isStrong ? 'text-[20px]' : ''}`}>{value}</span>
      <span className="block text-xs text-quiet">{sub}</span>
    </span>
  )
}

/** What one setting gained on the one before, and what was changed for it. */
function GainBlock({ rung }: { rung: Rung }) {
  const { text, units } = useQuantities()
  const { onBefore, changes, smallestRealW } = rung
  if (!onBefore) return null
  const { peak, mean } = onBefore
  // Where they judge otherwise the mean leads, for it is what the gears use.
  const doDiffer = mean !== null && mean.isReal !== peak.isReal
  const lead = doDiffer ? mean : peak
  const words = changes.length === 0 ? 'nothing named was changed' : changes.length === 1 ? `one change: ${changes.map(changeWords).join()}` : ''
  return (
    <div style={{ minHeight: GAP_PX }} className="border-l-2 border-line py-1.5 pl-4">
      <p>
        <strong className="text-[18px]">{text('power', lead.differenceW, { sign: true, decimals: 1 })}</strong>
        {doDiffer ? ' in the mean' : ''}, 19 in 20 within {fromTo(lead, units.power)}{' '}
        <strong className={lead.isReal ? 'text-pine' : 'text-wait'}>{lead.isReal ? 'real' : 'within noise'}</strong>
      </p>
      <p className="text-quiet">
        {[
          words,
          doDiffer
            ? `the peak says otherwise: ${text('power', peak.differenceW, { sign: true, decimals: 1 })} (${fromTo(peak, units.power)}), ${peak.isReal ? 'real' : 'within noise'}`
            : mean
              ? `in the mean ${text('power', mean.differenceW, { sign: true, decimals: 1 })} (${fromTo(mean, units.power)})`
              : null,
          smallestRealW === null ? null : `under ${text('power', smallestRealW, { decimals: 1 })} not to be told apart`,
        ]
          .filter(Boolean)
          .join('; ')}
      </p>
      {changes.length > 1 && (
        <p className="text-wait">
          <strong>{changes.length} changes at once: the gain belongs to none of them alone.</strong>{' '}
          {changes.map((change, i) => `${LETTERS[i] ?? ''} ${changeWords(change)}`).join(', ')}. One more pull with a single change would part them.
        </p>
      )}
    </div>
  )
}

/** What leads from one rung to the next: a plain bar for one change, a hatched one for each of several. */
function Changes({ rung, from, to }: { rung: Rung; from: number; to: number }) {
  const count = Math.max(1, rung.changes.length)
  const [top, bottom] = [Math.min(from, to) + 6, Math.max(from, to) - 6]
  if (bottom <= top) return null
  const step = (RAILS.right - RAILS.left) / (count + 1)
  return (
    <>
      {Array.from({ length: Math.min(count, LETTERS.length) }, (_, i) => {
        const x = RAILS.left + step * (i + 1)
        const middle = (top + bottom) / 2
        return (
          <g key={LETTERS[i]}>
            <rect x={x - 4} y={top} width="8" height={bottom - top} fill={count > 1 ? 'url(#rung-hatch)' : 'var(--pine)'} />
            {count > 1 && bottom - top > 22 && (
              <>
                <rect x={x - 9} y={middle - 9} width="18" height="18" fill="var(--sheet)" stroke="var(--wait)" />
                <text x={x} y={middle + 4} fontSize="12" fontWeight="700" textAnchor="middle" fill="var(--wait)">
                  {LETTERS[i]}
                </text>
              </>
            )}
          </g>
        )
      })}
    </>
  )
}
