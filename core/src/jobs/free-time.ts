/** Time runs in hours from 00:00 of today. */
export const DAY_H = 24

/** Free stretches of somebody or something, one behind the other: where each begins, and where it ends. */
export interface FreeTime {
  readonly from: number[]
  readonly to: number[]
}

/** A stretch of hours. */
export interface Piece {
  readonly fromH: number
  readonly toH: number
}

/** Somebody who works on the car. */
export interface RoadHand {
  readonly id: string
  readonly name: string
  /** Hours of each day, Monday first. */
  readonly hoursByWeekday: readonly number[]
  /** Days he is away, both counted in; days from today. */
  readonly away: readonly { readonly fromDay: number; readonly toDay: number }[]
}

/** When the evenings and the days at the weekend begin, in hours of the day. */
export interface SessionStarts {
  readonly weekdayH: number
  readonly weekendH: number
}

/** Nothing shorter than this is told from nothing, in hours: less than a tenth of a second. */
const SLIVER_H = 1e-5

/** Free for good, from today on. */
export const alwaysFree = (): FreeTime => ({ from: [0], to: [Number.POSITIVE_INFINITY] })

export const copyFree = ({ from, to }: FreeTime): FreeTime => ({ from: from.slice(), to: to.slice() })

/** What has no session that goes past midnight: one that would begins earlier. */
const startOf = (hours: number, day: number, { weekdayH, weekendH }: SessionStarts): number => Math.min(day >= 5 ? weekendH : weekdayH, DAY_H - hours)

/**
 * A hand's sessions from today on, over `days` days. `weekday` is today's, Monday 0.
 * @example sessionsOf({ hand: { id: 'i', name: 'Ilse', hoursByWeekday: [0, 3, 0, 0, 0, 0, 0], away: [] }, weekday: 0, starts: { weekdayH: 19, weekendH: 9 }, days: 7 }).from // [43]
 */
export function sessionsOf({ hand, weekday, starts, days }: { hand: RoadHand; weekday: number; starts: SessionStarts; days: number }): FreeTime {
  const free: FreeTime = { from: [], to: [] }
  for (let day = 0; day < days; day++) {
    const at = (weekday + day) % 7
    const hours = hand.hoursByWeekday[at] ?? 0
    if (!(hours > 0) || hand.away.some(({ fromDay, toDay }) => day >= fromDay && day <= toDay)) continue
    const from = day * DAY_H + startOf(hours, at, starts)
    free.from.push(from)
    free.to.push(from + hours)
  }
  return free
}

/** Hours that are free before a time. */
export function hoursBefore({ from, to }: FreeTime, untilH: number): number {
  let hours = 0
  for (let i = 0; i < from.length && (from[i] as number) < untilH; i++) hours += Math.min(to[i] as number, untilH) - (from[i] as number)
  return hours
}

/** The first stretch that ends after a time, by halving. */
function firstAfter({ to }: FreeTime, atH: number): number {
  let [low, high] = [0, to.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((to[middle] as number) > atH) high = middle
    else low = middle + 1
  }
  return low
}

/**
 * The first `hours` from `fromH` on that are free in all of the lists at once, as pieces; null where they never come together.
 * Source: walk over sorted stretches.
 */
export function firstHours(lists: readonly FreeTime[], fromH: number, hours: number): Piece[] | null {
  const at = lists.map((list) => firstAfter(list, fromH))
  const pieces: Piece[] = []
  let left = hours
  for (;;) {
    let from = fromH
    let to = Number.POSITIVE_INFINITY
    let soonest = 0
    for (let i = 0; i < lists.length; i++) {
      const list = lists[i] as FreeTime
      const k = at[i] as number
      if (k >= list.to.length) return null
      from = Math.max(from, list.from[k] as number)
      if ((list.to[k] as number) < to) {
        to = list.to[k] as number
        soonest = i
      }
    }
    if (to - from > SLIVER_H) {
      const taken = Math.min(left, to - from)
      pieces.push({ fromH: from, toH: from + taken })
      left -= taken
      if (left <= SLIVER_H) return pieces
    }
    at[soonest] = (at[soonest] as number) + 1
  }
}

/** The first stretch of so many hours on end, from `fromH` on, that is free in a list. */
export function firstStretch(list: FreeTime, fromH: number, hours: number): Piece | null {
  for (let k = firstAfter(list, fromH); k < list.to.length; k++) {
    const from = Math.max(fromH, list.from[k] as number)
    if ((list.to[k] as number) - from >= hours - SLIVER_H) return { fromH: from, toH: from + hours }
  }
  return null
}

/** Takes a stretch out of what is free, wherever it is. */
export function take(list: FreeTime, { fromH, toH }: Piece): void {
  let k = firstAfter(list, fromH)
  while (k < list.to.length && (list.from[k] as number) < toH) {
    const [from, to] = [list.from[k] as number, list.to[k] as number]
    const [before, after] = [fromH - from > SLIVER_H, to - toH > SLIVER_H]
    if (before && after) {
      list.to[k] = fromH
      list.from.splice(k + 1, 0, toH)
      list.to.splice(k + 1, 0, to)
      return
    }
    if (before) list.to[k++] = fromH
    else if (after) list.from[k++] = toH
    else {
      list.from.splice(k, 1)
      list.to.splice(k, 1)
    }
  }
}
