import { type Board, formatChance, METRIC_INFO, type NextAction } from '@bold-ballast/core'
import { Link } from 'react-router'
import { useQuantities } from '../../ui/quantity.ts'

interface Advice {
  readonly head: string
  readonly text: string
  readonly to: string
  readonly isDanger?: boolean
}

/** What to do next, most pressing first. */
export function WhatNext({ board, buildId }: { board: Board; buildId: string }) {
  const { text } = useQuantities()
  const stage = (position: number) => `stage ${position} ${board.stages[position]?.name ?? ''}`
  const link = (room: string, position: number, more = '') => `/builds/${buildId}/${room}?stage=${board.stages[position]?.id ?? ''}${more}`
  const kindOf = (metric: keyof typeof METRIC_INFO) => METRIC_INFO[metric].kind
  const word = (metric: keyof typeof METRIC_INFO) => METRIC_INFO[metric].word

  const advise = (action: NextAction): Advice => {
    switch (action.code) {
      case 'limit-broken':
      case 'limit-would-break': {
        const kind = kindOf(action.metric)
        return {
          head: `${word(action.metric)} ${action.code === 'limit-broken' ? 'breaks' : 'would break'} its limit at ${stage(action.position)}`,
          text: `${text(kind, action.value)} against ${text(kind, action.limit)}${action.sense === 'atMost' ? ' at most' : ' at least'}.`,
          to: link(kind === 'power' ? 'power' : 'weight', action.position),
          isDanger: true,
        }
      }
      case 'no-mass':
        return {
          head: 'Put the car on the scales',
          text: 'There is no mass yet: type four pads, or what it weighs, and everything else can be worked out.',
          to: link('weight', 0, '&tab=scales'),
        }
      case 'target-late':
        return {
          head: `${word(action.metric)} is late`,
          text: `Its due date, ${stage(action.position)}, has passed and nothing measured says yes or no.`,
          to: link('plan', action.position, '&tab=goals'),
        }
      case 'scales-and-ledger-disagree':
        return {
          head: `${text('mass', action.massKg, { sd: action.sdKg, sign: true })} unexplained`,
          text: `Scales and ledger disagree by more than twice their spread of ${text('mass', action.sdKg, { sd: action.sdKg })}. Something was forgotten, or a line is wrong.`,
          to: `/builds/${buildId}/weight?tab=scales&working=unexplained:${action.weighingId}`,
        }
      case 'weighings-disagree':
        return {
          head: 'Two weighings disagree',
          text: `${text('mass', action.massKg)} and ${text('mass', action.otherKg)} of the same car at ${stage(action.position)}. Weigh a third time, or set one aside.`,
          to: link('weight', action.position, '&tab=scales'),
        }
      case 'part-weighings-disagree':
        return {
          head: `Weigh ${action.name} again`,
          text: `Two weighings say ${text('mass', action.massKg)} and ${text('mass', action.otherKg)}.`,
          to: link('weight', action.position),
        }
      case 'sessions-disagree':
        return {
          head: 'Two dyno sessions disagree',
          text: `${text('power', action.powerW)} and ${text('power', action.otherW)} at ${stage(action.position)}. A third visit decides; until then the spread is wide.`,
          to: link('power', action.position),
        }
      case 'power-without-expectation':
        return {
          head: `Say what ${stage(action.position)} should give`,
          text: `${action.changeName} touches power and nothing says by how much, so power is carried as a guess.`,
          to: link('plan', action.position, '&tab=expectations'),
        }
      case 'measure-target':
        return action.base === 'mass'
          ? {
              head: 'Put the car on the scales',
              text: action.isBuilt
                ? `${stage(action.position)} is built and not weighed; no target on ${word(action.metric).toLowerCase()} can be met before.`
                : 'Nothing has been weighed as a whole car yet.',
              to: link('weight', action.position, '&tab=scales'),
            }
          : {
              head: 'Book the dyno',
              text: action.isBuilt ? `${stage(action.position)} is built and its power is not measured.` : 'Power was never measured on the build’s basis.',
              to: link('power', action.position),
            }
      case 'weigh-part':
        return {
          head: `Weigh ${action.name}`,
          text: `${text('mass', action.massKg)} is not weighed and carries ${formatChance(action.varianceShare).replace(' in ', ' parts in ')} of the finished car’s doubt.`,
          to: link('weight', action.position),
        }
      case 'unknown-lines':
        return {
          head: action.count === 1 ? `Nobody knows what ${action.name} weighs` : `${action.count} lines have no mass`,
          text: `${action.count === 1 ? 'It counts' : 'They count'} for nothing until somebody weighs or guesses ${action.count === 1 ? 'it' : 'them'}.`,
          to: link('weight', action.position, '&tab=score'),
        }
      case 'confirm-target':
        return {
          head: `Measure ${word(action.metric).toLowerCase()} once more`,
          text: `The verdict is ${formatChance(action.chance)} sure; a second visit that agrees settles it.`,
          to: link(METRIC_INFO[action.metric].provedBy.includes('power') ? 'power' : 'weight', action.position),
        }
    }
  }
  return (
    <section aria-labelledby="what-next">
      <h2 id="what-next" className="mb-1">
        What next
      </h2>
      {board.next.length === 0 ? (
        <p className="text-quiet">Nothing presses: limits hold, targets are measured, scales and ledger agree.</p>
      ) : (
        <ol>
          {board.next.slice(0, 8).map((action, i) => {
            const advice = advise(action)
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: the rank is the identity here
              <li key={i} className="border-b border-line py-2 last:border-0">
                <Link to={advice.to} className={`text-[15px] font-bold underline decoration-line underline-offset-4 ${advice.isDanger ? 'text-danger' : ''}`}>
                  {advice.head}
                </Link>{' '}
                <span className="text-quiet">{advice.text}</span>
              </li>
            )
          })}
        </ol>
      )}
    </section>
  )
}
