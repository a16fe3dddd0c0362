import type { RecordsAnswer } from '@bold-ballast/contract'
import { attempt, CalculationError, compareSessions, fromSi, LOSS_SCHOOL_WORDS, parseQuantity, type SessionComparison, wheelToCrank } from '@bold-ballast/core'
import type { Data } from 'plotly.js'
import { useMemo } from 'react'
import { Link, useSearchParams } from 'react-router'
import { Chart } from '../../ui/chart.tsx'
import { CsvButton } from '../../ui/csv-button.tsx'
import { Figure } from '../../ui/figure.tsx'
import { useQuantities } from '../../ui/quantity.ts'
import { Empty } from '../../ui/states.tsx'
import { dayText } from '../../ui/words.ts'

const VERDICT_WORDS = { real: 'The difference is real', 'within noise': 'Within noise', 'too few pulls': 'Too few pulls to tell' } as const

/** Two sessions against each other on the build's basis: is it real, how much, where in the range, and what was changed in between. */
export function CompareTab({ records }: { records: RecordsAnswer }) {
  const [search, setSearch] = useSearchParams()
  const { decimalMark, units, text, format } = useQuantities()
  const sessions = [...records.sessions].sort((a, b) => Date.parse(a.at) - Date.parse(b.at))
  const first = search.get('first') ?? sessions.at(-2)?.id ?? ''
  const second = search.get('second') ?? sessions.at(-1)?.id ?? ''
  const typedBand = search.get('band') ?? ''
  const set = (name: string, value: string) => {
    const next = new URLSearchParams(search)
    if (value === '') next.delete(name)
    else next.set(name, value)
    setSearch(next, { replace: true })
  }
  const found = useMemo(
    () =>
      attempt(() => {
        const ends = typedBand.split(/\s*(?:to|-|–)\s*/).filter((part) => part !== '')
        const read = (part: string | undefined) => parseQuantity(part ?? '', 'engineSpeed', { defaultUnit: 'rpm', decimalMark, field: 'The band' }).value
        const band = ends.length === 0 ? undefined : { fromRpm: read(ends[0]), toRpm: read(ends[1]) }
        return compareSessions(records, first, second, band)
      }),
    [records, first, second, typedBand, decimalMark],
  )
  if (sessions.length < 2)
    return <Empty title="There is nothing to compare yet" why="Two dyno sessions with pulls, on one kind of dyno: then it says whether a gain is real." />
  const nameOf = (id: string) => {
    const session = sessions.find((entry) => entry.id === id)
    return session ? `${session.dynoName}, ${dayText(session.at)}` : ''
  }
  const picker = (name: 'first' | 'second', label: string, value: string) => (
    <label>
      <span className="mb-1 block font-semibold">{label}</span>
      <select value={value} onChange={(event) => set(name, event.target.value)} className="min-w-[230px]">
        {sessions.map((session) => (
          <option key={session.id} value={session.id}>
            {nameOf(session.id)}
          </option>
        ))}
      </select>
    </label>
  )
  return (
    <div className="grid grid-cols-1 gap-6">
      <div className="flex flex-wrap items-end gap-x-5 gap-y-3">
        {picker('first', 'From', first)}
        {picker('second', 'To', second)}
        <label>
          <span className="mb-1 block font-semibold">Band the gears use</span>
          <input value={typedBand} onChange={(event) => set('band', event.target.value)} placeholder="4500 to 7000" className="w-[150px]" />
        </label>
      </div>
      {found instanceof CalculationError ? (
        <p role="alert" className="border-l-4 border-danger py-1 pl-3">
          {found.message}
        </p>
      ) : (
        <>
          <section>
            <h2 className="text-[20px]">
              {VERDICT_WORDS[found.power.verdict]}
              {found.power.verdict !== 'too few pulls' && `: ${text('power', found.power.difference, { sign: true, decimals: 1 })}`}
            </h2>
            <p className="mt-1">
              Mean power from {format('engineSpeed', found.band.fromRpm).number} to {format('engineSpeed', found.band.toRpm).number} rpm
              {found.power.low !== null && found.power.high !== null && (
                <>
                  , 19 times in 20 between {text('power', found.power.low, { sign: true, decimals: 1 })} and{' '}
                  {text('power', found.power.high, { sign: true, decimals: 1 })}. Under{' '}
                  <strong>{text('power', found.power.smallestReal ?? 0, { decimals: 1 })}</strong> these pulls could not show a difference
                </>
              )}
              .
            </p>
            <p className="mt-1 text-quiet">
              {found.changesBetween.length === 0
                ? 'No change that touches power lies between the two.'
                : `Changed in between: ${found.changesBetween.map(({ name }) => name).join(', ')}.`}
            </p>
            {found.warnings.map((warning) => (
              <p key={warning} className="mt-1 text-wait">
                {warning}
              </p>
            ))}
          </section>
          <Sides found={found} nameOf={nameOf} />
          <section>
            <div className="mb-1 flex items-baseline gap-4">
              <h2>Gain by speed, {units.power}</h2>
              <CsvButton
                name={`${records.build.name}-gain`}
                table={() => ({
                  head: ['Engine speed (rpm)', `Gain (${units.power})`, `Low (${units.power})`, `High (${units.power})`],
                  rows: found.gainBySpeed.map(({ speedRpm, gainW, lowW, highW }) => [
                    speedRpm,
                    ...[gainW, lowW, highW].map((watts) => (watts === null ? null : fromSi('power', watts, units.power))),
                  ]),
                })}
              />
            </div>
            <GainChart found={found} powerUnit={units.power} />
          </section>
          <Crank wheelPowerW={Math.max(...found.second.meanCurve.powerW)} />
        </>
      )}
      <p className="text-xs text-quiet">
        Both sessions are on the build’s basis; a session that cannot be restated to it is refused with the reason. Formulas:{' '}
        <Link to="/formulas/dyno.compare" className="word-link">
          dyno.compare
        </Link>
        ,{' '}
        <Link to="/formulas/dyno.band-mean" className="word-link">
          dyno.band-mean
        </Link>
      </p>
    </div>
  )
}

function Sides({ found, nameOf }: { found: SessionComparison; nameOf: (id: string) => string }) {
  const { text, format } = useQuantities()
  const rpm = (value: number) => format('engineSpeed', value).number
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a scroller that the keyboard can reach
    <section className="relative overflow-x-auto" aria-label="Both sessions" tabIndex={0}>
      <table className="w-full max-w-[860px] border-collapse whitespace-nowrap">
        <thead>
          <tr className="border-b border-line">
            <th className="p-1.5">Session</th>
            <th className="p-1.5 text-right">Pulls</th>
            <th className="p-1.5 text-right">Mean of the band</th>
            <th className="p-1.5 text-right">Peak</th>
            <th className="p-1.5 text-right">Over 90 % of it</th>
            <th className="p-1.5 text-right">Least torque over most</th>
            <th className="p-1.5 text-right">Drift a pull</th>
          </tr>
        </thead>
        <tbody>
          {[found.first, found.second].map((side, i) => (
            <tr key={`${side.sessionId} ${i === 0 ? 'from' : 'to'}`} className="border-b border-line align-baseline">
              <td className="p-1.5">{nameOf(side.sessionId)}</td>
              <td className="p-1.5 text-right">{side.bandMeansW.length}</td>
              <td className="p-1.5 text-right text-[16px] font-bold">
                <Figure kind="power" value={side.bandMeansW.reduce((sum, watts) => sum + watts, 0) / side.bandMeansW.length} decimals={1} />
              </td>
              <td className="p-1.5 text-right">{text('power', side.band90.peak, { decimals: 1 })}</td>
              <td className="p-1.5 text-right">
                {rpm(side.band90.fromRpm)} to {rpm(side.band90.toRpm)}
                {side.band90.isOpen && <span className="block text-xs text-quiet">an end of the data</span>}
              </td>
              <td className="p-1.5 text-right">{text('share', side.torqueFlatness, { decimals: 0 })}</td>
              <td className="p-1.5 text-right">
                {side.drift ? (
                  <span className={side.drift.isDrifting ? 'font-semibold text-wait' : 'text-quiet'}>
                    {text('power', side.drift.slopePerPull, { sign: true, decimals: 2 })}
                    {side.drift.isDrifting ? '' : ', none'}
                  </span>
                ) : (
                  <span className="text-quiet">needs 4 pulls</span>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}

function GainChart({ found, powerUnit }: { found: SessionComparison; powerUnit: string }) {
  const { data, layout } = useMemo(() => {
    const dark = document.documentElement.dataset.theme === 'dark'
    const pine = dark ? '#5fb8ad' : '#21605a'
    const shown = (watts: number | null) => (watts === null ? null : fromSi('power', watts, powerUnit))
    const x = found.gainBySpeed.map(({ speedRpm }) => speedRpm)
    const edge = { x, type: 'scatter' as const, mode: 'lines' as const, line: { width: 0, color: pine }, hoverinfo: 'skip' as const }
    const traces: Data[] = [
      { ...edge, y: found.gainBySpeed.map(({ lowW }) => shown(lowW)) },
      { ...edge, y: found.gainBySpeed.map(({ highW }) => shown(highW)), fill: 'tonexty', fillcolor: dark ? 'rgba(95,184,173,0.22)' : 'rgba(33,96,90,0.16)' },
      {
        x,
        y: found.gainBySpeed.map(({ gainW }) => shown(gainW)),
        type: 'scatter',
        mode: 'lines',
        line: { color: pine, width: 2.4 },
        hovertemplate: `%{y:+.1f} ${powerUnit} at %{x:.0f} rpm<extra></extra>`,
      },
    ]
    return {
      data: traces,
      layout: {
        margin: { t: 8, r: 16, b: 40, l: 56 },
        xaxis: { title: { text: 'engine speed, rpm' }, tickformat: ',.0f' },
        yaxis: { title: { text: `gain, ${powerUnit}` }, zeroline: true },
      },
    }
  }, [found, powerUnit])
  return <Chart data={data} layout={layout} label="Gain by engine speed with its interval" className="h-[300px] w-full" />
}

/** Usual numbers of each school (common practice, no source), to show how far apart the schools are. */
const USUAL = { lossShare: 0.14, fixedLossW: 10_000, proportionalShare: 0.05 }

/** What the schools would call the crank power, side by side: none of them is surer than 5 %. */
function Crank({ wheelPowerW }: { wheelPowerW: number }) {
  const { text } = useQuantities()
  const { crankPowerW, sdW, others } = wheelToCrank({ wheelPowerW, school: 'fixedAndProportional', ...USUAL })
  return (
    <section>
      <h2 className="mb-1">At the crank, by school</h2>
      <p>
        {LOSS_SCHOOL_WORDS.fixedAndProportional}: <strong>{text('power', crankPowerW, { sd: sdW })}</strong> ± {text('power', sdW, { sd: sdW })}
        {others.map(({ school, crankPowerW: power }) => (
          <span key={school}>
            ; {LOSS_SCHOOL_WORDS[school]}: <strong>{text('power', power, { sd: sdW })}</strong>
          </span>
        ))}
        .
      </p>
      <p className="text-quiet">
        With usual losses (14 %; or 10 kW and 5 %; common practice, no source): wheel power is what was measured, crank power is a reckoning. Your own numbers:{' '}
        <Link to="/formulas/dyno.wheel-to-crank" className="word-link">
          dyno.wheel-to-crank
        </Link>
      </p>
    </section>
  )
}
