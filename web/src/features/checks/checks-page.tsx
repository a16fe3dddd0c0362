import type { RecordsAnswer } from '@bold-ballast/contract'
import { comingEvents, dueAt, formatChance, type Gate, gateBehind, livesAhead, orElse, takeAlong, type WorkshopEvent } from '@bold-ballast/core'
import { differenceInCalendarDays, parseISO } from 'date-fns'
import { useMemo } from 'react'
import { localDay } from '../../data/local-day.ts'
import { useBuild } from '../../data/use-build.ts'
import { useAddress } from '../../ui/hooks/use-address.ts'
import { LoadError, Loading } from '../../ui/states.tsx'
import { OpenTab, Tabs, useTab } from '../../ui/tabs.tsx'
import { stopsWords } from './check-words.ts'
import { lastGate } from './shakedown/last-gate.ts'
import type { ChecksTabProps } from './tab-props.ts'
import { TABS } from './tabs.ts'
import { useWithMarks } from './use-marks.ts'

/** May this car go out, and what stops it. */
export function ChecksPage() {
  const { records, stage, position, error, retry } = useBuild()
  if (error && !records) return <LoadError error={error} retry={retry} />
  if (!records || !stage) return <Loading what="the checks" />
  return <Room stored={records} position={position} stageId={stage.id} />
}

/** The event that is looked at: as the address says, else the next of this stage's car, else the next of all. */
function pickedEvent({ events }: RecordsAnswer, asked: string, stageId: string, today: string): WorkshopEvent | null {
  if (asked === 'none') return null
  const ahead = comingEvents(events, today)
  return events.find(({ id }) => id === asked) ?? ahead.find((event) => event.stageId === stageId) ?? ahead[0] ?? null
}

const GATE_NEWS: Readonly<Record<Gate['word'], string>> = { go: 'go on', watch: 'go on, and watch', again: 'again at this pace', no: 'no' }

/** The news of the hour in one line. */
function hourNews(records: RecordsAnswer, props: Pick<ChecksTabProps, 'position' | 'stageId' | 'today'>): string | null {
  const plan = records.trackPlans.find(({ stageId }) => stageId === props.stageId)
  const at = plan && lastGate(records, plan)
  if (!plan || at === null || at === undefined) return null
  const gate = orElse(
    () => gateBehind(records as never, plan, props.position, at, props.today),
    () => undefined,
  )
  const share = plan.steps[at]?.share
  return gate ? `After ${share == null ? 'the first step' : `${Math.round(100 * share)} percent`}: ${GATE_NEWS[gate.word]}` : null
}

/** What ends first. */
function lifeNews(records: RecordsAnswer, today: string): string | null {
  const [life] = livesAhead(records as never, today).filter(({ mayEnd }) => mayEnd !== null)
  const chance = life?.events.find(({ event }) => event.id === life.mayEnd?.id)?.chance
  return life?.mayEnd && chance !== undefined ? `${life.part.name}: ${formatChance(chance)} to last ${life.mayEnd.name}` : null
}

type Props = Pick<ChecksTabProps, 'event' | 'position' | 'stageId' | 'today'>

function takeNews(records: RecordsAnswer, props: Props): string | null {
  const { items } = takeAlong(records as never, { ...props, round: null })
  const open = items.filter(({ isPacked }) => !isPacked).length
  return items.length === 0 ? null : open === 0 ? 'All of it is packed' : `${open} to pack${props.event ? ` for ${props.event.name}` : ''}`
}

/** What a tab says of its own; else how ready the car is. */
const OWN_NEWS: Readonly<Record<string, (records: RecordsAnswer, props: Props) => string | null>> = {
  shakedown: hourNews,
  due: (records, { today }) => lifeNews(records, today),
  take: takeNews,
}

function newsOf(records: RecordsAnswer, props: Props, tab: string): string {
  if (records.checks.length === 0) return 'May it go out? Say what is to be looked at.'
  const own = OWN_NEWS[tab]?.(records, props)
  if (own) return own
  const { event, position, today } = props
  const stops = dueAt(records as never, { event, position, today, round: null }).filter((due) => due.stops).length
  if (!event) return `${stopsWords(stops)} today`
  const days = differenceInCalendarDays(parseISO(event.startsOn), parseISO(today))
  return `${stopsWords(stops)} before ${event.name}, ${days <= 0 ? 'which is on' : days === 1 ? 'tomorrow' : `${days} days`}`
}

function Room({ stored, position, stageId }: { stored: RecordsAnswer; position: number; stageId: string }) {
  const records = useWithMarks(stored)
  const [tab, open] = useTab(TABS)
  const asked = useAddress().get('event')
  const today = localDay()
  const event = useMemo(() => pickedEvent(records, asked, stageId, today), [records, asked, stageId, today])
  const news = useMemo(() => newsOf(records, { event, position, stageId, today }, tab.path), [records, event, position, stageId, today, tab.path])
  return (
    <>
      <title>{`${records.build.name}: Checks · Bold Ballast`}</title>
      <h1 className="mb-3">{news}</h1>
      <Tabs tabs={TABS} tab={tab} open={open} />
      <OpenTab tab={tab} props={{ records, today, event, position, stageId }} />
    </>
  )
}
