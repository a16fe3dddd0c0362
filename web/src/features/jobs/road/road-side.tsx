import { formatChance, type HandHours, type JobsRoom } from '@bold-ballast/core'
import { Plates } from '../../../ui/plates.tsx'
import { Alert } from '../../../ui/states.tsx'
import type { RoadAnswer } from '../jobs.worker.ts'
import { helpText, hoursText, namesOf, roadDay } from '../road-words.ts'
import type { HelpsState } from '../use-road.ts'

type Deadline = JobsRoom['deadlines'][number]

/** How many hours a hand's bar shows at the most, so that bars of all hands compare. */
function HourBars({ room, hours }: { room: JobsRoom; hours: readonly HandHours[] }) {
  const most = Math.max(1, ...hours.flatMap(({ meanH, sdH, thereH }) => [meanH + 1.2816 * sdH, thereH]))
  const { hand } = namesOf(room.road)
  return (
    <table className="w-full border-collapse tabular-nums">
      <tbody>
        {hours.map(({ handId, meanH, sdH, thereH, chance }) => {
          const share = (value: number) => `${(99 * Math.max(0, value)) / most}%`
          const eight = meanH + 1.2816 * sdH
          return (
            <tr key={handId}>
              <td className="w-16 truncate py-0.5 pr-1">{hand(handId)}</td>
              <td className="py-0.5" title={`${formatChance(chance)}, taken alone`}>
                <svg width="100%" height="12" aria-hidden="true" className="block">
                  <rect x="0" y="1" width={share(meanH)} height="10" fill={meanH > thereH ? 'var(--wait)' : 'var(--pine)'} />
                  <rect x={share(meanH)} y="1" width={share(eight - meanH)} height="10" fill="url(#doubt-hatch)" />
                  <rect x="0.5" y="1" width={share(thereH)} height="10" fill="none" stroke="var(--edge)" />
                </svg>
              </td>
              <td className="w-[92px] py-0.5 pl-2 text-right whitespace-nowrap">
                <b>{meanH.toFixed(0)}</b> of {thereH.toFixed(0)} h
              </td>
            </tr>
          )
        })}
      </tbody>
    </table>
  )
}

/** What the hours alone say, and what the road says against it. */
function hoursWords(room: JobsRoom, answer: RoadAnswer, chance: number | null): string {
  const least = Math.min(1, ...answer.hours.map((hand) => hand.chance))
  if (least < 0.5) {
    const short = answer.hours.filter((hand) => hand.chance < 0.5).map(({ handId }) => namesOf(room.road).hand(handId))
    return `${short.join(' and ')} ${short.length === 1 ? 'has' : 'have'} more work than hours, whatever the order.`
  }
  if (chance === null || chance > 0.8 || least < 0.8) return 'Each hand for itself: hatched is the doubt up to 8 in 10.'
  const jobs = room.road.jobs.filter((_, i) => answer.slack.jobs[i]?.room === 0)
  const joint = jobs.find(({ handIds }) => handIds.length > 1)
  const part = room.road.parts.find(({ id }) => jobs.some(({ partIds }) => partIds.includes(id)))
  const names = namesOf(room.road)
  const what = joint
    ? `the sessions that ${joint.handIds.map(names.hand).join(' and ')} share for ${joint.name.toLowerCase()}`
    : part
      ? `the day ${part.name} comes`
      : 'the order in which jobs wait for each other'
  return `Enough for each alone. What decides: ${what}.`
}

/** What a part or a job that is late does to the day, and to others. */
function Slipped({ room, answer, late, isOld }: { room: JobsRoom; answer: RoadAnswer; late: { readonly id: string; readonly days: number }; isOld: boolean }) {
  const { slipped, view, slack } = answer
  const names = namesOf(room.road)
  const isPart = room.road.parts.some(({ id }) => id === late.id)
  const name = isPart ? names.part(late.id) : names.job(late.id)
  const weeks = Math.abs(late.days) / 7
  const moved = slipped
    ? room.road.jobs.flatMap((job, i) => {
        const [before, after] = [view.jobs[i]?.laid.endH ?? 0, slipped.jobs[i]?.laid.endH ?? 0]
        return Math.abs(after - before) > 12 ? [`${job.name} ${after > before ? roadDay(room.today, Math.floor(after / 24)) : 'sooner'}`] : []
      })
    : []
  const spare = slack.parts.find(({ id }) => id === late.id)?.mayBeLateDays
  return (
    <div className="border-l-4 border-wait py-1 pl-3" role="status">
      <p className="font-bold">
        {name} {weeks === 1 ? 'a week' : `${weeks} weeks`} {late.days > 0 ? 'late' : 'sooner'}
        <kbd className="ml-2 font-mono text-xs text-quiet">, .</kbd>
      </p>
      {slipped?.ready && !isOld ? (
        <p>
          {slipped.ready.chance !== null && <b className="text-wait">{formatChance(slipped.ready.chance)}, </b>}
          ready about {roadDay(room.today, slipped.ready.halfDay)}.{moved.length > 0 ? ` ${moved.slice(0, 5).join(', ')}.` : ' No other job moves.'}
        </p>
      ) : (
        <p className="text-quiet">Being drawn …</p>
      )}
      {spare !== undefined && (
        <p className="text-[13px] text-quiet">
          {spare >= 60
            ? 'It may come two months late and cost nothing.'
            : spare > 0
              ? `It may come ${spare} ${spare === 1 ? 'day' : 'days'} late and cost nothing.`
              : 'Each day it is late moves the day.'}
        </p>
      )}
    </div>
  )
}

function Helps({ room, helps }: { room: JobsRoom; helps: HelpsState }) {
  if (!helps.best) return <p className="text-quiet">Trying what can be changed: {Math.round(100 * helps.share)} %</p>
  const now = helps.chance ?? 0
  if (helps.best.length === 0) return <p className="text-quiet">Nothing that can be tried.</p>
  return (
    <ul>
      {helps.best.map(({ move, chance }) => {
        const gain = chance - now
        return (
          <li key={JSON.stringify(move)} className="flex justify-between gap-3 border-b border-line py-1">
            <span>{helpText(room.road, move)}</span>
            <span className={`whitespace-nowrap tabular-nums ${gain >= 0.05 ? 'font-bold text-pine' : 'text-quiet'}`}>
              {Math.abs(gain) < 0.02 ? 'no change' : formatChance(chance)}
            </span>
          </li>
        )
      })}
    </ul>
  )
}

const KIND_WORDS = { work: 'hours', wait: 'waits', arrival: 'deliveries' } as const

/** Which kinds of guesses on this road nobody has learned of yet. */
function assumedText({ road, optimism }: JobsRoom): string {
  const isThere = { work: road.jobs.some(({ kind }) => kind === 'work'), wait: road.jobs.some(({ kind }) => kind === 'wait'), arrival: road.parts.length > 0 }
  const assumed = (['work', 'wait', 'arrival'] as const).filter((kind) => isThere[kind] && optimism[kind].isDefault)
  if (assumed.length === 0) return ''
  return `How guesses of ${assumed.map((kind) => `${KIND_WORDS[kind]} (${optimism[kind].pairCount} of 5 known)`).join(', ')} run is assumed.`
}

/** Chance, hours left, what is late, what helps. */
export function RoadSide({
  room,
  answer,
  isOld,
  deadline,
  late,
  helps,
}: {
  room: JobsRoom
  answer: RoadAnswer
  isOld: boolean
  deadline: Deadline | null
  late: { readonly id: string; readonly days: number } | null
  helps: HelpsState
}) {
  const chance = answer.view.ready?.chance ?? null
  return (
    <aside className="grid content-start gap-4 min-[1100px]:border-l min-[1100px]:border-line min-[1100px]:pl-4">
      <svg width="0" height="0" aria-hidden="true" className="absolute">
        <defs>
          <pattern id="doubt-hatch" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="4" stroke="var(--planned)" strokeWidth="2" />
          </pattern>
        </defs>
      </svg>
      {deadline && chance !== null ? (
        <div>
          <p className="text-3xl leading-none font-black">{formatChance(chance)}</p>
          <p className="mt-1 flex flex-wrap items-baseline gap-1.5">
            ready by {roadDay(room.today, deadline.day)} <Plates proof="guess" /> <span className="text-[13px] text-quiet">rests on guesses</span>
          </p>
          <p className="text-[13px] text-quiet">{assumedText(room)}</p>
        </div>
      ) : (
        <p className="text-quiet">No event and no date is set for this stage: enter one under Hands and dates, and the chance stands here.</p>
      )}
      {answer.unmet.map(({ jobId, handIds }) => {
        const { hand, job } = namesOf(room.road)
        return (
          <Alert key={jobId}>
            {handIds.map(hand).join(' and ')} share no hour{deadline ? ` before ${roadDay(room.today, deadline.day)}` : ' in two years'}: {job(jobId)}. Give it
            to one of them or change a week.
          </Alert>
        )
      })}
      {late && <Slipped room={room} answer={answer} late={late} isOld={isOld} />}
      {answer.hours.length > 0 && (
        <section>
          <h2 className="mb-1">Hours left, hours there are</h2>
          <HourBars room={room} hours={answer.hours} />
          <p className="mt-1 text-[13px] text-quiet">{hoursWords(room, answer, chance)}</p>
        </section>
      )}
      {deadline && (
        <section>
          <h2 className="mb-1">What helps</h2>
          <Helps room={room} helps={helps} />
        </section>
      )}
      {room.hoursOnLines.some((hours) => hours > 0) && (
        <p className="text-[13px] text-quiet">
          On open ledger lines that no job does stand {hoursText(room.hoursOnLines.reduce((sum, hours) => sum + hours, 0))}: told, and laid nowhere.
        </p>
      )}
    </aside>
  )
}
