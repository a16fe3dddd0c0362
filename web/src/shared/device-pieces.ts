import type { DeviceCommand } from '@bold-ballast/contract'

/** A line of the protocol is short: what is long goes in pieces of so many letters. */
const PIECE = 1800

/** What is sent to a simulated logger as the pieces of one JSON text, first to last. */
export function piecesOf(what: object): DeviceCommand[] {
  const whole = JSON.stringify(what)
  const count = Math.ceil(whole.length / PIECE)
  return Array.from({ length: count }, (_, index) => ({ type: 'piece', index, count, text: whole.slice(index * PIECE, (index + 1) * PIECE) }))
}
