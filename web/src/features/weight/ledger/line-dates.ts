/** Which date new lines get. */
export type LineDate =
  | { readonly kind: 'today' }
  | { readonly kind: 'beforeWeighing'; readonly weighingId: string }
  | { readonly kind: 'day'; readonly day: string }

export const TODAY: LineDate = { kind: 'today' }
const MINUTE_MS = 60_000

/** The time of a line that is typed at `now`; that of a weighing which is gone is now. */
export function lineInstant(date: LineDate, weighings: readonly { readonly id: string; readonly at: string }[], now: Date): string {
  if (date.kind === 'day') return new Date(`${date.day}T12:00:00`).toISOString()
  const weighing = date.kind === 'beforeWeighing' ? weighings.find(({ id }) => id === date.weighingId) : undefined
  return weighing ? new Date(Date.parse(weighing.at) - MINUTE_MS).toISOString() : now.toISOString()
}
