import { attempt, CalculationError, daysFrom, layRoad, lengthsAt, readyRoad } from '@bold-ballast/core'
import { useMemo, useRef, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { KindPanel } from '../../../shared/kind-panel.tsx'
import { Panel } from '../../../ui/dialog.tsx'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { FileField } from '../../../ui/files/file-field.tsx'
import { saveFile } from '../../../ui/files/save-file.ts'
import { RecordForm } from '../../../ui/forms/record-form.tsx'
import { useAddress } from '../../../ui/hooks/use-address.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert, Empty } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'
import { shortDay } from '../road-words.ts'
import type { JobsTabProps } from '../tab-props.ts'
import { eventsTable, handsTable } from '../tables.ts'
import { clockText, EVENT_WORDS, eventForm, handForm, startsForm, WEEKDAY_WORDS } from './date-forms.ts'

type StoredHand = JobsTabProps['records']['hands'][number]

/** A week as seven small bars, each as high as its hours. */
function WeekMark({ hours }: { hours: readonly number[] }) {
  const most = Math.max(6, ...hours)
  return (
    <svg width="154" height="40" role="img" aria-label={hours.map((h, day) => `${WEEKDAY_WORDS[day]} ${h} h`).join(', ')}>
      {hours.map((h, day) => (
        <g key={WEEKDAY_WORDS[day]}>
          <rect
            x={day * 22 + 2}
            y={26 - (h / most) * 24}
            width="15"
            height={(h / most) * 24}
            fill="var(--wash)"
            stroke="var(--edge)"
            strokeWidth={h > 0 ? 0.75 : 0}
          />
          {h > 0 && (
            <text x={day * 22 + 9.5} y={24} textAnchor="middle" fontSize="10" fontWeight="700" fill="var(--ink)">
              {Number(h.toFixed(1))}
            </text>
          )}
          <text x={day * 22 + 9.5} y="38" textAnchor="middle" fontSize="10" fill="var(--quiet)">
            {WEEKDAY_WORDS[day]?.slice(0, 2)}
          </text>
        </g>
      ))}
    </svg>
  )
}

/** Takes the days out of a calendar file into a hand's days away; the answer says how many there were. */
function useAwayImport(records: JobsTabProps['records'], room: JobsTabProps['room']) {
  const [patch] = api.usePatchRecordMutation()
  const [said, setSaid] = useState<string | null>(null)
  const take = async (hand: StoredHand, file: File) => {
    if (file.size > 5_000_000) return setSaid(`${file.name} is larger than 5 MB. Save a calendar of fewer years.`)
    try {
      const { awayFrom } = await import('./calendar.ts')
      const found = awayFrom(await file.text(), hand, room)
      const known = new Set(hand.away.map(({ from, to }) => `${from} ${to}`))
      const fresh = found.filter(({ from, to }) => !known.has(`${from} ${to}`)).slice(0, 400 - hand.away.length)
      if (fresh.length === 0) return setSaid(`${file.name} names no day away of ${hand.name} from today on that is not there.`)
      const body = { version: hand.version, away: [...hand.away, ...fresh].sort((a, b) => (a.from < b.from ? -1 : 1)) }
      const answer = await patch({ buildId: records.build.id, resource: 'hands', id: hand.id, body: body as never })
      setSaid(
        answer.error ? readFailure(answer.error).message : `${fresh.length} ${fresh.length === 1 ? 'time' : 'times'} away of ${hand.name} out of ${file.name}.`,
      )
    } catch {
      setSaid(`${file.name} is no calendar that can be read. Export it as iCalendar (.ics).`)
    }
  }
  return { take, said }
}

function Hands({ records, room, alter }: { records: JobsTabProps['records']; room: JobsTabProps['room']; alter: (id: string) => void }) {
  const { take, said } = useAwayImport(records, room)
  const file = useRef<HTMLInputElement>(null)
  const [forHand, setForHand] = useState<StoredHand | null>(null)
  return (
    <>
      {said && (
        <p role="status" className="my-2">
          {said}
        </p>
      )}
      <FileField
        field={file}
        accept=".ics,text/calendar"
        label="A calendar of days away"
        take={(picked) => {
          if (forHand) void take(forHand, picked)
        }}
      />
      <ul>
        {records.hands.map((hand) => {
          const away = hand.away.filter(({ to }) => to >= room.today)
          return (
            <li key={hand.id} className="flex flex-wrap items-center gap-x-5 gap-y-1 border-b border-line py-2">
              <button type="button" className="word-link w-24 text-left font-bold" onClick={() => alter(hand.id)}>
                {hand.name}
              </button>
              <WeekMark hours={hand.hoursByWeekday} />
              <span className="w-24 text-right tabular-nums">{hand.hoursByWeekday.reduce((sum, h) => sum + h, 0)} h a week</span>
              <span className="min-w-40 flex-1 text-quiet">
                {away.length === 0
                  ? 'nowhere away'
                  : `away ${away
                      .slice(0, 4)
                      .map(({ from, to }) => (from === to ? shortDay(from) : `${shortDay(from)} to ${shortDay(to)}`))
                      .join(', ')}${away.length > 4 ? ` and ${away.length - 4} more` : ''}`}
              </span>
              <button
                type="button"
                className="word-link no-print"
                onClick={() => {
                  setForHand(hand)
                  file.current?.click()
                }}
              >
                Days away from a calendar
              </button>
            </li>
          )
        })}
      </ul>
    </>
  )
}

function Events({ records, room, alter }: { records: JobsTabProps['records']; room: JobsTabProps['room']; alter: (id: string) => void }) {
  const { text } = useQuantities()
  const all = [...records.events].sort((a, b) => (a.startsOn < b.startsOn ? -1 : 1))
  const stage = new Map(room.stages.map(({ id, position, name }) => [id, `${position} ${name}`]))
  const track = new Map(records.tracks.map(({ id, name }) => [id, name]))
  return (
    <ScrollBox label="Events">
      <table className="w-full border-collapse tabular-nums">
        <thead>
          <tr className="border-b border-line text-left text-[13px]">
            <th className="p-1">Event</th>
            <th className="p-1">Day</th>
            <th className="p-1 text-right">In days</th>
            <th className="p-1">Is a</th>
            <th className="p-1">Car of stage</th>
            <th className="p-1">Where</th>
            <th className="p-1 text-right">Booked</th>
          </tr>
        </thead>
        <tbody>
          {all.map(({ id, name, startsOn, days, leavesOn, kind, stageId, trackId, bookedS }) => {
            const away = daysFrom(room.today, startsOn)
            return (
              <tr key={id} className={`border-b border-line ${away + days <= 0 ? 'text-quiet' : ''}`}>
                <td className="p-1">
                  <button type="button" className="word-link text-left font-semibold" onClick={() => alter(id)}>
                    {name}
                  </button>
                </td>
                <td className="p-1 whitespace-nowrap">
                  {dayText(startsOn)}
                  {days > 1 && `, ${days} days`}
                  {leavesOn && <span className="text-quiet">, leaves {shortDay(leavesOn)}</span>}
                </td>
                <td className="p-1 text-right">{away >= 0 ? away : 'over'}</td>
                <td className="p-1">{EVENT_WORDS[kind]}</td>
                <td className="p-1">{stageId ? stage.get(stageId) : 'as it is'}</td>
                <td className="p-1">{trackId ? track.get(trackId) : ''}</td>
                <td className="p-1 text-right">{bookedS === null ? '' : text('duration', bookedS)}</td>
              </tr>
            )
          })}
        </tbody>
      </table>
    </ScrollBox>
  )
}

/** Who works when, and the days the car is wanted; calendars in and out. */
export function DatesTab({ records, room }: JobsTabProps) {
  const { get, set } = useAddress()
  const asked = get('do')
  const hand = records.hands.find(({ id }) => id === get('hand')) ?? null
  const event = records.events.find(({ id }) => id === get('event')) ?? null
  const forEvents = useMemo(() => eventForm(records), [records])
  const [failure, setFailure] = useState<string | null>(null)
  const [patch] = api.usePatchBuildMutation()
  const { units } = useQuantities()
  // What was asked for in the address stands open as a panel; closing it clears both.
  const close = () => set({ do: '', hand: '', event: '' })
  const save = async () => {
    setFailure(null)
    const road = attempt(() => {
      const laid = layRoad(readyRoad(room.road), lengthsAt(room.road))
      return { jobs: laid.map((each) => ({ laid: each, halfDay: 0, eightDay: 0 })), ready: null }
    })
    if (road instanceof CalculationError) return setFailure(road.message)
    const { calendarOf } = await import('./calendar.ts')
    saveFile(`${records.build.name} jobs`, 'ics', 'text/calendar;charset=utf-8', calendarOf(room, road, records.build.name, new Date()))
  }
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-6">
      {failure && <Alert>{failure}</Alert>}
      <section>
        <div className="flex flex-wrap items-baseline gap-x-4">
          <h2>Hands</h2>
          <button type="button" className="word-link no-print" onClick={() => set({ do: 'hand' })}>
            A new hand
          </button>
          {records.hands.length > 0 && <CsvButton name={`${records.build.name} hands`} table={() => handsTable(records)} />}
        </div>
        {records.hands.length === 0 ? (
          <p className="mt-1 text-quiet">Nobody yet: one person with Tuesday and Thursday evenings of 3 h and 6 h on Saturday is assumed.</p>
        ) : (
          <Hands records={records} room={room} alter={(id) => set({ hand: id })} />
        )}
        <p className="mt-1 text-[13px] text-quiet">
          Evenings begin at {clockText(room.road.starts.weekdayH)}, days at the weekend at {clockText(room.road.starts.weekendH)}.{' '}
          <button type="button" className="word-link no-print" onClick={() => set({ do: 'starts' })}>
            Alter
          </button>
        </p>
      </section>
      <section>
        <div className="flex flex-wrap items-baseline gap-x-4">
          <h2>Events</h2>
          <button type="button" className="word-link no-print" onClick={() => set({ do: 'event' })}>
            A new event
          </button>
          <button type="button" className="word-link no-print" onClick={() => void save()}>
            All of it as a calendar
          </button>
          {records.events.length > 0 && <CsvButton name={`${records.build.name} events`} table={() => eventsTable(records)} />}
        </div>
        {records.events.length === 0 ? (
          <Empty title="No event is entered" why="The first one of a stage is its deadline: the chance to be ready counts up to it.">
            <button type="button" className="button" onClick={() => set({ do: 'event' })}>
              Enter an event
            </button>
          </Empty>
        ) : (
          <Events records={records} room={room} alter={(id) => set({ event: id })} />
        )}
      </section>
      {asked === 'starts' && (
        <Panel title="When work begins" onClose={close}>
          <RecordForm
            key={records.build.version}
            draftKey={`${records.build.id}.starts`}
            fields={startsForm.specs()}
            defaults={startsForm.defaults(records.build, units)}
            submitLabel="Save"
            toBody={(read) => ({ ...startsForm.body(read), version: records.build.version })}
            send={(body) => patch({ buildId: records.build.id, body: body as never }).unwrap()}
            onDone={close}
          />
        </Panel>
      )}
      {(hand || asked === 'hand') && <KindPanel buildId={records.build.id} resource="hands" word="hand" form={handForm} record={hand} onClose={close} />}
      {(event || asked === 'event') && (
        <KindPanel buildId={records.build.id} resource="events" word="event" form={forEvents} begins={{ kind: 'trackDay' }} record={event} onClose={close} />
      )}
    </div>
  )
}
