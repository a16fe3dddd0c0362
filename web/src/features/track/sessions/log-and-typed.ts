/** What was typed and what was logged differ by more than a hand can, s (common practice, no source). */
const HAND_S = 0.3

/** Laps of a session that were typed, held against those of a log in their order: the first that a hand cannot have missed by. */
export function firstDisagreement(
  typed: readonly number[],
  logged: readonly number[],
): { readonly lap: number; readonly typedS: number; readonly loggedS: number } | null {
  const at = typed.findIndex((lapS, i) => logged[i] !== undefined && Math.abs(lapS - logged[i]) > HAND_S)
  return at < 0 ? null : { lap: at + 1, typedS: typed[at] as number, loggedS: logged[at] as number }
}
