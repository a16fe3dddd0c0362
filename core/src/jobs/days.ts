const DAY_MS = 86_400_000

/**
 * Days from one day to another; fewer than none where it lies before.
 * @example daysFrom('2027-03-01', '2027-03-27') // 26
 */
export const daysFrom = (today: string, day: string): number => Math.round((Date.parse(day) - Date.parse(today)) / DAY_MS)

/**
 * The day so many days after another.
 * @example dayAfter('2027-02-27', 2) // '2027-03-01'
 */
export const dayAfter = (today: string, days: number): string => new Date(Date.parse(today) + days * DAY_MS).toISOString().slice(0, 10)

/**
 * The day of the week, Monday 0.
 * @example weekdayOf('2027-03-01') // 0
 */
export const weekdayOf = (day: string): number => (new Date(day).getUTCDay() + 6) % 7
