import type { Due, MarkResult, Round } from '@bold-ballast/core'
import { dayText } from '../../ui/words.ts'

export const ROUND_WORDS: Readonly<Record<Round, string>> = {
  firstStart: 'First start',
  beforeRun: 'Before a run',
  between: 'Between runs',
  afterRun: 'After a run',
  event: 'Before the event',
  scrutineering: 'Scrutineering',
  dyno: 'At the dyno',
}

export const RESULT_WORDS: Readonly<Record<MarkResult, string>> = { ok: 'in order', bad: 'bad', fixed: 'put right', skipped: 'skipped', damage: 'broken' }

export const KIND_WORDS = { bolt: 'bolts', level: 'level', look: 'look', gear: 'gear', take: 'take along', reading: 'reading', gap: 'gap' } as const

const countWords = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`

/** Why a check is due, in words. */
export function reasonWords({ check, reason, last, touchedOn }: Due, today: string): string {
  switch (reason) {
    case 'bad':
      return last?.note ? `bad: ${last.note}` : 'bad'
    case 'never':
      return 'never looked at'
    case 'touched':
      return `worked on since, ${touchedOn ? dayText(touchedOn) : ''}`
    case 'interval':
      return check.every ? `every ${countWords(check.every.amount, check.every.unit.replace(/s$/, ''), check.every.unit)}` : 'its time is up'
    case 'expires': {
      const on = check.gear?.expiresOn ?? ''
      return on < today ? `ran out on ${dayText(on)}` : `runs out on ${dayText(on)}`
    }
    case 'asked':
      return 'asked in this round'
  }
}

/** "3 things stop it". */
export const stopsWords = (count: number): string => (count === 0 ? 'Nothing stops it' : `${countWords(count, 'thing stops', 'things stop')} it`)

/** What a check is about, behind its name: bolts with their torque, gear with its day. */
export function aboutWords({ name, bolt, gear, level, take, tool }: Pick<Due['check'], 'name' | 'bolt' | 'gear' | 'level' | 'take' | 'tool'>): string {
  const torque = bolt?.torqueNm == null ? '' : `, ${bolt.torqueNm} N·m${bolt.from ? `, ${bolt.from}` : ', a guess: no page named'}`
  const words = [
    bolt ? `${bolt.count === 1 ? 'one bolt' : `${bolt.count} bolts`}${torque}` : '',
    level && !name.toLowerCase().includes(level.fluid.toLowerCase()) ? level.fluid : '',
    gear?.expiresOn ? `to ${dayText(gear.expiresOn)}` : '',
    take && take.count > 1 ? `${take.count} of them` : '',
    tool ? `with ${tool}` : '',
  ]
  return words.filter((word) => word !== '').join(', ')
}
