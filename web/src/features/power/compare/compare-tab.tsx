import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  attempt,
  BOOST_SCHOOL_WORDS,
  type BuildRecords,
  CalculationError,
  comparableSets,
  compareSets,
  fromSi,
  gearsBand,
  ladderVisits,
  openCar,
  parseQuantity,
  usualSessions,
  visitKey,
  weakestTorque,
} from '@bold-ballast/core'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert, Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import type { PowerTabProps } from '../tab-props.ts'
import { CompareChart } from './compare-chart.tsx'
import { Crank, Sides } from './compare-sides.tsx'
import { LadderView } from './ladder-view.tsx'

const VERDICT_WORDS = { real: 'The difference is real', 'within noise': 'Within noise', 'too few pulls': 'Too few pulls to tell' } as const
type Side = 'first' | 'second'

/** Which pulls of a session are taken, as the address holds them: their places in the session; nothing said: all that count. */
function pickedPulls(records: RecordsAnswer, sessionId: string, text: string): string[] | undefined {
  if (text === '') return undefined
  const places = text.split('.').map(Number)
  return records.pulls.filter((pull) => pull.sessionId === sessionId && places.includes(pull.position)).map(({ id }) => id)
}

/** Two sets of pulls against each other on the build's basis: is it real, how much, where in the range, and what was changed in between. */
function TwoSets({ records }: { records: RecordsAnswer }) {
  const address = useAddress()
  const { decimalMark, units, text, format } = useQuantities()
  const sessions = useMemo(() => [...records.sessions].sort((a, b) => Date.parse(a.at) - Date.parse(b.at)), [records.sessions])
  const usual = useMemo(() => usualSessions(records.sessions), [records.sessions])
  const first = address.get('first') || (usual?.first.id ?? '')
  const second = address.get('second') || (usual?.second.id ?? '')
  const [firstPulls, secondPulls] = [address.get('firstPulls'), address.get('secondPulls')]
  const typedBand = address.get('band')
  const sets = useMemo(() => {
    const side = (sessionId: string, pulls: string) => ({ sessionId, pullIds: pickedPulls(records, sessionId, pulls) })
    return attempt(() => comparableSets(records, side(first, firstPulls), side(second, secondPulls)))
  }, [records, first, second, firstPulls, secondPulls])
  const found = useMemo(
    () =>
      attempt(() => {
        if (sets instanceof CalculationError) throw sets
        const ends = typedBand.split(/\s*(?:to|-|–)\s*/).filter((part) => part !== '')
        const read = (part: string | undefined) => parseQuantity(part ?? '', 'engineSpeed', { defaultUnit: 'rpm', decimalMark, field: 'The band' }).value
        const band = ends.length === 0 ? undefined : { fromRpm: read(ends[0]), toRpm: read(ends[1]) }
        return compareSets(sets, band)
      }),
    [sets, typedBand, decimalMark],
  )
  const opened = useMemo(() => openCar(records as unknown as BuildRecords), [records])
  const weakest = useMemo(() => weakestTorque(opened) ?? null, [opened])
  const ofGears = useMemo(() => attempt(() => gearsBand(opened)), [opened])
  if (records.pulls.length < 2)
    return (
      <Empty
        title="There is nothing to compare yet"
        why="Two sets of pulls on one kind of dyno, of one session or of two: then it says whether a gain is real."
      />
    )
  const nameOf = (id: string) => {
    const session = sessions.find((entry) => entry.id === id)
    return session ? `${session.dynoName}, ${dayText(session.at)}` : ''
  }
  const setName = (side: Side, id: string) => {
    const picked = side === 'first' ? firstPulls : secondPulls
    return picked === '' && first !== second ? nameOf(id) : `${nameOf(id)}, pulls ${labelsOf(records, id, picked).join(', ')}`
  }
  const picker = (side: Side, label: string, sessionId: string, picked: string) => {
    const pulls = records.pulls.filter((pull) => pull.sessionId === sessionId)
    const taken = pickedPulls(records, sessionId, picked) ?? pulls.filter(({ setAside }) => setAside === null).map(({ id }) => id)
    return (
      <fieldset className="min-w-0">
        <legend className="mb-1 font-semibold">{label}</legend>
        <select
          aria-label={label}
          value={sessionId}
          onChange={(event) => address.set({ [side]: event.target.value, [`${side}Pulls`]: '' })}
          className="max-w-full min-w-[230px]"
        >
          {sessions.map((session) => (
            <option key={session.id} value={session.id}>
              {nameOf(session.id)}
            </option>
          ))}
        </select>
        <div className="mt-1 flex flex-wrap gap-x-3">
          {pulls.map((pull) => (
            <label key={pull.id} className="flex min-h-7 items-center gap-1.5">
              <input
                type="checkbox"
                checked={taken.includes(pull.id)}
                onChange={(event) => {
                  const next = pulls.filter(({ id }) => (id === pull.id ? event.target.checked : taken.includes(id)))
                  address.set({ [`${side}Pulls`]: next.map(({ position }) => position).join('.') || 'none' })
                }}
              />
              {pull.label}
            </label>
          ))}
        </div>
      </fieldset>
    )
  }
  return (
    <div className="grid grid-cols-1 gap-6">
      <div className="flex flex-wrap items-start gap-x-6 gap-y-3">
        {picker('first', 'From', first, firstPulls)}
        {picker('second', 'To', second, secondPulls)}
        <label>
          <span className="mb-1 block font-semibold">Band the gears use</span>
          <input value={typedBand} onChange={(event) => address.type({ band: event.target.value })} placeholder="4500 to 7000" className="w-[150px]" />
          {ofGears && !(ofGears instanceof CalculationError) && typedBand === '' && (
            <button type="button" className="word-link mt-1 block" onClick={() => address.set({ band: `${ofGears.fromRpm} to ${ofGears.toRpm}` })}>
              {ofGears.fromRpm} to {ofGears.toRpm}, from the gears{ofGears.place === null ? '' : ` at ${ofGears.place}`}
            </button>
          )}
        </label>
      </div>
      {sets instanceof CalculationError ? (
        <Alert>{sets.message}</Alert>
      ) : found instanceof CalculationError ? (
        <Alert>{found.message}</Alert>
      ) : (
        <>
          <section>
            <h2 className="text-[20px]">
              {sets.isSameDyno ? VERDICT_WORDS[found.power.verdict] : 'Two dynos, not compared in the trade'}
              {found.power.verdict !== 'too few pulls' && `: ${text('power', found.power.difference, { sign: true, decimals: 1 })}`}
            </h2>
            {!sets.isSameDyno && (
              <p className="mt-1 text-wait">What differs is the dynos and the car together. Same dyno, same day, same gear tell what the car gained.</p>
            )}
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
            {found.peak.verdict !== found.power.verdict && (
              <p className="mt-1">
                The peaks say otherwise: {text('power', found.peak.difference, { sign: true, decimals: 1 })}, {found.peak.verdict}. The mean in the band leads:
                it is what the gears use.
              </p>
            )}
            <p className="mt-1 text-quiet">
              {sets.isOneVisit
                ? `Both sets are of one visit, as printed: ${sets.first.setting.name} and ${sets.second.setting.name}.`
                : sets.changesBetween.length === 0
                  ? 'No change that touches power lies between the two.'
                  : `Changed in between: ${sets.changesBetween.map(({ name }) => name).join(', ')}.`}
              {sets.school && ` Power under boost is ${BOOST_SCHOOL_WORDS[sets.school]} on both sides.`}
            </p>
            {sets.warnings.map((warning) => (
              <p key={warning} className="mt-1 text-wait">
                {warning}
              </p>
            ))}
          </section>
          <div className="grid gap-8 min-[1180px]:grid-cols-[1fr_430px]">
            <section className="min-w-0">
              <div className="mb-1 flex items-baseline gap-4">
                <h2>Power over torque over gain, against engine speed</h2>
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
              <CompareChart sets={sets} found={found} buildId={records.build.id} weakest={weakest} />
            </section>
            <aside className="grid content-start gap-6 min-[1180px]:border-l min-[1180px]:border-line min-[1180px]:pl-5">
              <Sides sets={sets} found={found} names={[setName('first', first), setName('second', second)]} />
              <Crank records={records} wheelPowerW={Math.max(...sets.second.meanCurve.powerW)} />
            </aside>
          </div>
        </>
      )}
      <p className="text-xs text-quiet">
        Both sets are on the build’s basis; a session that cannot be restated to it is refused with the reason. Formulas:{' '}
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

function labelsOf(records: RecordsAnswer, sessionId: string, picked: string): string[] {
  const ids = pickedPulls(records, sessionId, picked)
  return records.pulls.filter((pull) => pull.sessionId === sessionId && (ids ? ids.includes(pull.id) : pull.setAside === null)).map(({ label }) => label)
}

/** Two sets of pulls against each other, or the settings of one visit as a ladder; a visit of several settings that came last is shown as one. */
export function CompareTab({ records, room, position }: PowerTabProps) {
  const address = useAddress()
  const visits = useMemo(() => ladderVisits(records as unknown as BuildRecords), [records])
  const latest = useMemo(() => [...records.sessions].sort((a, b) => Date.parse(b.at) - Date.parse(a.at))[0], [records.sessions])
  const isUsual = visits.length > 0 && latest !== undefined && visits[0]?.visit === visitKey(latest)
  const isLadder = visits.length > 0 && (address.get('as') || (isUsual ? 'ladder' : 'sets')) === 'ladder'
  return (
    <>
      {visits.length > 0 && (
        <fieldset aria-label="What is compared" className="no-print mb-4 flex w-fit border border-ink">
          {(
            [
              ['sets', 'Two sets', !isLadder],
              ['ladder', 'Ladder', isLadder],
            ] as const
          ).map(([key, word, isOn]) => (
            <button
              key={key}
              type="button"
              aria-pressed={isOn}
              className={`min-h-7 px-3 font-semibold ${isOn ? 'bg-ink text-sheet' : ''}`}
              onClick={() => address.set({ as: key })}
            >
              {word}
            </button>
          ))}
        </fieldset>
      )}
      {isLadder ? <LadderView records={records} room={room} position={position} visits={visits} /> : <TwoSets records={records} />}
    </>
  )
}
