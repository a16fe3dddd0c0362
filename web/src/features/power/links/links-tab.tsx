import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  attempt,
  CalculationError,
  fromSi,
  LOSS_SCHOOL_WORDS,
  lifeOf,
  lossOf,
  type PowerRoom,
  RATING_SUBJECTS,
  weakLinksAtStage,
  wornParts,
} from '@bold-ballast/core'
import { useMemo } from 'react'
import { Link } from 'react-router'
import { lifeText, moneyText } from '../../../shared/part-words.ts'
import { CsvButton } from '../../../ui/files/csv-button.tsx'
import { Plates } from '../../../ui/plates.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert, Caution, Empty } from '../../../ui/states.tsx'
import { LinksChart } from './links-chart.tsx'

/** Every part of the car against what the engine asks as power rises: which gives up first, and what the next step would cost and weigh. */
export function LinksTab({ records, room, position }: { records: RecordsAnswer; room: PowerRoom; position: number }) {
  const { text, units, format } = useQuantities()
  const today = room.stages[position]?.value
  const swept = useMemo(() => attempt(() => weakLinksAtStage(records, position, today)), [records, position, today])
  const base = `/builds/${records.build.id}`
  const loss = lossOf(records.build)
  if (!swept)
    return (
      <Empty
        title="There is no engine plan yet"
        why="The plan says what each part is asked; the ratings in Parts say what it can take. With both, the weakest is named."
      >
        <Link to={`${base}/power?tab=plan`} className="button">
          Plan the engine
        </Link>
      </Empty>
    )
  if (swept instanceof CalculationError) return <Alert>{swept.message}</Alert>
  const { plan } = swept
  if (swept.links.length === 0)
    return (
      <Empty
        title="No part of this stage has a rating that the plan speaks to"
        why="Give parts what they can take, such as “gearbox torque 480 N·m”, and say that they are fitted or at which stage."
      >
        <Link to={`${base}/parts`} className="button">
          To the parts
        </Link>
      </Empty>
    )
  const partOf = (id: string) => records.parts.find((part) => part.id === id)
  const first = swept.links.find(({ limitPowerW }) => limitPowerW !== null)
  const worn = wornParts(records)
  const isOver = (link: (typeof swept.links)[number]) => link.limitPowerW === swept.powersW[0]
  const atStart = swept.startsToday ? 'already' : `at ${text('power', swept.powersW[0] as number)} or before`
  const place = plan.target.place === 'wheel' ? 'at the wheels' : 'at the crank'
  const holds = first === undefined || (first.limitPowerW as number) >= plan.target.powerW
  return (
    <>
      <h2 className="mb-1 text-[20px]">
        {first === undefined
          ? `Nothing gives up below ${text('power', 2 * plan.target.powerW)} ${place}`
          : isOver(first)
            ? `${partOf(first.partId)?.name} is over its limit ${atStart}`
            : `${partOf(first.partId)?.name} gives up first, at ${text('power', first.limitPowerW as number)} ${place}${holds ? '' : `: ${text('power', plan.target.powerW - (first.limitPowerW as number))} short of the target`}`}
      </h2>
      <p className="mb-2 text-quiet">
        Headroom of each rating from {text('power', swept.powersW[0] as number)} to twice the target. At 0 % it is at its limit; the numbers are those of the
        rows below, dotted lines are guessed ratings{worn.length > 0 ? ', an hourglass is what is left of a life that is nearly used up' : ''}. Wheel to crank
        by {LOSS_SCHOOL_WORDS[loss.school]}
        {loss.isUsual ? ', usual numbers' : ''}.
      </p>
      <LinksChart records={records} swept={swept} targetW={plan.target.powerW} todayW={swept.startsToday ? (today ?? null) : null} powerUnit={units.power} />
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: a scroller that the keyboard can reach */}
      <section className="relative mt-3 overflow-x-auto" aria-label="Parts in order of failure" tabIndex={0}>
        <table className="w-full border-collapse min-[640px]:whitespace-nowrap max-[639px]:block">
          <thead className="max-[639px]:sr-only">
            <tr className="border-b border-line">
              <th className="p-1.5">Order</th>
              <th className="p-1.5">Part</th>
              <th className="p-1.5">Rated for</th>
              <th className="p-1.5 text-right">Limit</th>
              <th className="p-1.5 text-right">Asked at the target</th>
              <th className="p-1.5 text-right">Headroom there</th>
              <th className="p-1.5 text-right">Gives up at, {units.power}</th>
              <th className="p-1.5">Next step</th>
            </tr>
          </thead>
          <tbody className="max-[639px]:block">
            {swept.links.map((link, i) => {
              const part = partOf(link.partId)
              const { word, kind } = RATING_SUBJECTS[link.subject]
              const life = part && lifeOf(part, records.partUses)
              const next = link.next && partOf(link.next.partId)
              return (
                <tr key={`${link.partId} ${link.ratingIndex}`} className="border-b border-line align-baseline max-[639px]:block max-[639px]:py-2">
                  <td data-label="Order" className="list-cell">
                    {link.limitPowerW === null ? '' : i + 1}
                  </td>
                  <td data-label="Part" className="list-cell">
                    <Link to={`${base}/parts?part=${link.partId}`} className="word-link font-semibold">
                      {part?.name}
                    </Link>
                    {life && (
                      <span className={`block text-xs ${worn.some((entry) => entry.part.id === part.id) ? 'text-wait' : 'text-quiet'}`}>
                        {lifeText(part, life)}
                      </span>
                    )}
                  </td>
                  <td data-label="Rated for" className="list-cell">
                    {word} <Plates proof={part?.ratings[link.ratingIndex]?.known ?? 'guess'} />
                  </td>
                  <td data-label="Limit" className="list-cell text-right">
                    {text(kind, link.limit)}
                  </td>
                  <td data-label="Asked at the target" className="list-cell text-right">
                    {text(kind, link.demand)}
                  </td>
                  <td data-label="Headroom there" className={`list-cell text-right font-semibold ${link.headroom < 0 ? 'text-danger' : ''}`}>
                    {text('share', link.headroom, { decimals: 0 })}
                    {link.headroom < 0 && <span className="block text-xs font-normal">over its limit</span>}
                  </td>
                  <td data-label="Gives up at" className="list-cell text-right text-[16px] font-bold">
                    {link.limitPowerW === null ? (
                      <span className="text-sm font-normal text-quiet">not in the sweep</span>
                    ) : isOver(link) ? (
                      <span className="text-danger">{swept.startsToday ? 'now' : `under ${format('power', link.limitPowerW).number}`}</span>
                    ) : (
                      format('power', link.limitPowerW).number
                    )}
                  </td>
                  <td data-label="Next step" className="list-cell">
                    {next && link.next ? (
                      <>
                        {next.name}
                        <span className="block text-xs text-quiet">
                          {[
                            link.next.cost === null ? 'cost not said' : `costs ${moneyText(link.next.cost)}`,
                            link.next.massDifferenceKg === null ? null : text('mass', link.next.massDifferenceKg, { sign: true, decimals: 1 }),
                            link.next.limitPowerW === null ? 'holds the whole sweep' : `holds to ${text('power', link.next.limitPowerW)}`,
                          ]
                            .filter(Boolean)
                            .join(', ')}
                        </span>
                      </>
                    ) : link.limitPowerW === null ? (
                      ''
                    ) : (
                      <span className="text-quiet">none of its kind in the register</span>
                    )}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </section>
      <div className="mt-2">
        <CsvButton
          name={`${records.build.name}-weak-links`}
          table={() => ({
            head: [
              `Power ${place} (${units.power})`,
              ...swept.links.map((link) => `${partOf(link.partId)?.name}, ${RATING_SUBJECTS[link.subject].word}: headroom (share)`),
            ],
            rows: swept.powersW.map((powerW, i) => [fromSi('power', powerW, units.power), ...swept.links.map((link) => link.headrooms[i] ?? null)]),
          })}
        />
      </div>
      {swept.refusedFrom && (
        <Caution className="mt-2">
          From {text('power', swept.refusedFrom.powerW)} on the plan itself has no answer: {swept.refusedFrom.message}
        </Caution>
      )}
      {swept.leftOut.length > 0 && (
        <section className="mt-3">
          <h3 className="font-semibold">Left out</h3>
          <ul>
            {swept.leftOut.map((entry) => (
              <li key={`${entry.partId} ${entry.subject}`}>
                {partOf(entry.partId)?.name}, {RATING_SUBJECTS[entry.subject].word}: {entry.reason}.
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  )
}
