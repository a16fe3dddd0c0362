import type { FindInRoom } from '../../shared/define-room.ts'
import { stageAddress, stageNames } from '../../shared/find-stages.ts'
import { dayText } from '../../ui/words.ts'

export const findIn: FindInRoom = (base, records) => {
  const places = stageNames(records)
  const at = stageAddress(base)
  const sessions = new Map(records.sessions.map((session) => [session.id, session]))
  return [
    { key: 'do session', group: 'Do', label: 'Enter a dyno session', hint: 'pulls', to: `${base}/power?do=session` },
    { key: 'do plan', group: 'Do', label: 'Plan the engine', hint: 'power, air, fuel', to: `${base}/power?tab=plan` },
    { key: 'go links', group: 'Go to', label: 'Weak links', hint: 'power, ratings', to: `${base}/power?tab=links` },
    { key: 'do hours', group: 'Do', label: 'Plan the hours at the dyno', hint: 'pulls', to: `${base}/power?tab=hours` },
    { key: 'do live', group: 'Do', label: 'Read a dyno live', hint: 'pull', to: `${base}/power?tab=live` },
    { key: 'do compare', group: 'Do', label: 'Compare two sets of pulls', hint: 'gain, power', to: `${base}/power?tab=compare` },
    ...records.sessions.map((session) => ({
      key: session.id,
      group: 'Dyno sessions',
      label: `${session.dynoName}, ${dayText(session.at)}`,
      hint: `session, ${places.get(session.stageId) ?? ''}`,
      to: at('power', session.stageId, `&working=session:${session.id}`),
    })),
    ...records.pulls.map((pull) => {
      const session = sessions.get(pull.sessionId)
      return {
        key: pull.id,
        group: 'Pulls',
        label: `Pull ${pull.label}`,
        hint: session ? `${session.dynoName}, ${dayText(session.at)}` : '',
        to: at('power', session?.stageId ?? '', `&working=pull:${pull.id}`),
      }
    }),
  ]
}
