import { attempt, CalculationError, formatChance, knownLife, type LifeAhead, livesAhead, setsNeeded, type UseKind } from '@bold-ballast/core'
import { useId, useMemo, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert, Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import type { ChecksTabProps } from '../tab-props.ts'
import { livesTable } from '../tables.ts'
import { Broken } from './broken.tsx'

const number = (value: number) => String(Number(value.toFixed(2)))
const MOST_EVENTS = 3
const HAPPENED: readonly (readonly [UseKind, string])[] = [
  ['pulled', 'pulled'],
  ['refitted', 'refitted'],
  ['rebuilt', 'rebuilt'],
  ['wornOut', 'worn out'],
]

/** A part's life as a bar: what is used, and the rest. */
function LifeBar({ used, life }: { used: number; life: number }) {
  const share = Math.min(1, used / life)
  return (
    <svg width="100%" height="12" aria-hidden="true" className="block min-w-24">
      <rect x="0" y="1" width={`${100 * share}%`} height="10" fill={share > 0.75 ? 'var(--wait)' : 'var(--pine)'} />
      <rect x="0.5" y="1" width="99%" height="10" fill="none" stroke="var(--edge)" />
    </svg>
  )
}

function LifeRow({ life, events, act }: { life: LifeAhead; events: readonly { readonly id: string }[]; act: (kind: UseKind) => void }) {
  const { part, known, used, isPast, mayEnd, orderBy, pulls, hoursPerPull } = life
  return (
    <tr className="border-t border-line align-baseline">
      <td className="py-1.5">
        <span className="font-semibold">{part.name}</span> <span className="text-quiet">{part.kind}</span>
        {(known.from === 'wornOut' || pulls > 0) && (
          <span className="block text-[13px] text-quiet">
            {[
              known.from === 'wornOut' ? `life by ${known.wornOut} that wore out${known.wornOut < 4 ? ', spread assumed' : ', and their spread'}` : '',
              pulls > 0 ? `pulled ${pulls} ${pulls === 1 ? 'time' : 'times'}${hoursPerPull === null ? '' : `, ${number(hoursPerPull)} h each`}` : '',
            ]
              .filter((words) => words !== '')
              .join('; ')}
          </span>
        )}
      </td>
      <td className="w-40 py-1.5 pl-3">
        <LifeBar used={used} life={known.life} />
      </td>
      <td className="py-1.5 pl-3 text-right whitespace-nowrap tabular-nums">
        {number(used)} of {number(known.life)} {part.life?.unit}
      </td>
      {events.map(({ id }) => {
        const own = life.events.find(({ event }) => event.id === id)
        return (
          <td key={id} className={`py-1.5 pl-3 text-right whitespace-nowrap ${own && own.chance < 0.8 ? 'font-semibold text-wait' : ''}`}>
            {own ? formatChance(own.chance) : '–'}
          </td>
        )
      })}
      <td className="py-1.5 pl-3 whitespace-nowrap">
        {isPast ? <b className="text-danger">past its life</b> : mayEnd && orderBy ? `order by ${dayText(orderBy)}` : ''}
      </td>
      <td className="no-print py-1.5 pl-3 text-right whitespace-nowrap">
        {HAPPENED.map(([kind, word]) => (
          <button key={kind} type="button" className="word-link ml-2" onClick={() => act(kind)} aria-label={`${part.name} was ${word}`}>
            {word}
          </button>
        ))}
      </td>
    </tr>
  )
}

/** How many sets a season takes, nine seasons in ten. */
function Sets({ records }: Pick<ChecksTabProps, 'records'>) {
  const ids = [useId(), useId()] as const
  const { get, set } = useAddress()
  const lived = records.parts.filter(({ life, status }) => life && (status === 'fitted' || status === 'here'))
  const part = lived.find(({ id }) => id === get('sets')) ?? lived.find(({ life }) => life?.unit === 'runs' || life?.unit === 'laps') ?? lived[0]
  const wanted = get('wanted') || '180'
  if (!part?.life) return null
  const { unit } = part.life
  const known = knownLife(part as never, records.parts as never, records.partUses as never)
  const amount = known?.life ?? part.life.amount
  const found = attempt(() => setsNeeded({ life: amount, wanted: Number(wanted), ...(known ? { cv: known.cv } : {}) }))
  return (
    <section className="max-w-2xl">
      <h2 className="mb-1">Sets for a season</h2>
      <p className="flex flex-wrap items-center gap-2">
        <label htmlFor={ids[0]}>Of</label>
        <select id={ids[0]} value={part.id} onChange={(event) => set({ sets: event.target.value })}>
          {lived.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        <label htmlFor={ids[1]}>for</label>
        <input id={ids[1]} value={wanted} inputMode="decimal" onChange={(event) => set({ wanted: event.target.value })} className="w-20" />
        {unit}
      </p>
      <p className="mt-1" role="status">
        {found instanceof CalculationError ? (
          found.message
        ) : (
          <>
            <b className="text-2xl">{found.sets}</b> {found.sets === 1 ? 'does' : 'do'} in {formatChance(found.chance)}; one fewer in{' '}
            {formatChance(found.chanceOfOneFewer)}.{' '}
            <span className="text-quiet">
              Each lives {number(amount)} {unit}, ± {Math.round(100 * (known?.cv ?? 0))} %{' '}
              {known && known.wornOut >= 4 ? 'by those that wore out' : '(assumed, no source)'}.
            </span>
          </>
        )}
      </p>
    </section>
  )
}

/** Life, sets, gear with dates, pulls. */
export function DueTab({ records, today }: ChecksTabProps) {
  const lives = useMemo(() => livesAhead(records as never, today), [records, today])
  const events = [...new Map(lives.flatMap((life) => life.events.map(({ event }) => [event.id, event] as const))).values()].slice(0, MOST_EVENTS)
  const [write] = api.useBatchMutation()
  const [said, setSaid] = useState<string | null>(null)
  const gear = records.checks.filter(({ gear: own }) => own !== null).sort((a, b) => (a.gear?.expiresOn ?? '9').localeCompare(b.gear?.expiresOn ?? '9'))
  const act = async (life: LifeAhead, kind: UseKind) => {
    const part = records.parts.find(({ id }) => id === life.part.id)
    if (!part) return
    const use = { kind: 'create', resource: 'part-uses', body: { id: crypto.randomUUID(), partId: part.id, kind, amount: 0, at: new Date().toISOString() } }
    // One that is done with keeps its place in earlier stages.
    const ended = kind === 'wornOut' ? [{ kind: 'update', resource: 'parts', id: part.id, body: { version: part.version, status: 'wornOut' } }] : []
    const answer = await write({ buildId: records.build.id, batchId: crypto.randomUUID(), writes: [use, ...ended] as never })
    setSaid(
      answer.error
        ? readFailure(answer.error).message
        : `${part.name}: ${HAPPENED.find(([each]) => each === kind)?.[1]}. Its hours can be typed in its own list of uses.`,
    )
  }
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-6">
      {said && <Alert>{said}</Alert>}
      <section>
        <h2 className="mb-1">What wears out</h2>
        {lives.length === 0 ? (
          <Empty
            title="No life is known yet"
            why="Give parts their life in hours, days, events, laps or runs under Parts: the chance that each lasts the next events stands here."
          />
        ) : (
          <>
            <ScrollBox label="What wears out">
              <table className="w-full border-collapse">
                <thead>
                  <tr>
                    <th className="text-left">Part</th>
                    <th className="pl-3 text-left">Used up</th>
                    <th className="pl-3 text-right">Ran</th>
                    {events.map(({ id, name, startsOn }) => (
                      <th key={id} className="pl-3 text-right" title={dayText(startsOn)}>
                        Lasts {name}
                      </th>
                    ))}
                    <th className="pl-3 text-left">So</th>
                    <th className="no-print" />
                  </tr>
                </thead>
                <tbody>
                  {lives.map((life) => (
                    <LifeRow key={life.part.id} life={life} events={events} act={(kind) => void act(life, kind)} />
                  ))}
                </tbody>
              </table>
            </ScrollBox>
            <p className="mt-1 text-[13px] text-quiet">
              <CsvButton name={`${records.build.name} lives`} table={() => livesTable(lives)} /> To the end of each event, what ran so far counted; lives of a
              kind vary (gamma). Under 8 in 10 it is told.
            </p>
          </>
        )}
      </section>
      <Sets records={records} />
      <Broken records={records} today={today} />
      {gear.length > 0 && (
        <section className="max-w-2xl">
          <h2 className="mb-1">Gear with dates</h2>
          <ul>
            {gear.map(({ id, name, gear: own }) => (
              <li key={id} className="flex gap-3 border-t border-line py-1">
                <span className="flex-1">
                  {name}
                  {own?.standard ? <span className="text-quiet">, {own.standard}</span> : null}
                </span>
                <span className={own?.expiresOn && own.expiresOn < today ? 'font-semibold text-danger' : ''}>
                  {own?.expiresOn ? `${own.expiresOn < today ? 'ran out on' : 'to'} ${dayText(own.expiresOn)}` : 'no date'}
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  )
}
