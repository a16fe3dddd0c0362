import { sparesNeeded } from '../../checks/spares.ts'
import type { Check, Mark } from '../../records/check-kinds.ts'
import type { BuildRecords } from '../../records/records.ts'
import { lastDayOf } from '../../stages/coming-events.ts'
import { isFound, marksByCheck } from './states.ts'

/** What broke of one check, how often, and what it took. */
export interface DamageSeen {
  readonly check: Check
  readonly count: number
  /** Over the events that were run; null: none was. */
  readonly perEvent: number | null
  /** Do for one event in nine of ten. */
  readonly spares: number
  readonly hours: number
  readonly cost: number
  readonly last: Mark
  /** It holds for now, and was not mended since. */
  readonly isMakeDo: boolean
}

const MOST_PER_EVENT = 500

/**
 * What broke, the oftenest first: how often an event, what mending took in all, and what still only makes do.
 * @example damageSeen(CHECKED, '2027-03-01') // []
 */
export function damageSeen({ checks, marks, events }: Pick<BuildRecords, 'checks' | 'marks' | 'events'>, today: string): DamageSeen[] {
  const ran = events.filter((event) => event.kind !== 'scrutineering' && lastDayOf(event) <= today).length
  const byCheck = marksByCheck(marks)
  const found = checks.flatMap((check): DamageSeen[] => {
    const own = byCheck.get(check.id) ?? []
    const broke = own.filter(({ result }) => result === 'damage')
    const [last] = broke
    if (!last) return []
    const perEvent = ran === 0 ? null : Math.min(MOST_PER_EVENT, broke.length / ran)
    const sum = (of: 'hours' | 'cost') => broke.reduce((total, { damage }) => total + (damage?.[of] ?? 0), 0)
    return [
      {
        check,
        count: broke.length,
        perEvent,
        spares: perEvent === null ? 0 : sparesNeeded({ perEvent }).spares,
        hours: sum('hours'),
        cost: sum('cost'),
        last,
        isMakeDo: !own.slice(0, own.indexOf(last) + 1).some(isFound),
      },
    ]
  })
  return found.sort((a, b) => b.count - a.count || (a.check.name < b.check.name ? -1 : 1))
}
