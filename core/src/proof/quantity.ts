export type Proof = 'guess' | 'catalogue' | 'calculated' | 'measured' | 'confirmed'

const RANK: Record<Proof, number> = { guess: 1, catalogue: 2, calculated: 2, measured: 3, confirmed: 4 }

/**
 * How many proof plates are filled: 1 guess, 2 catalogue or calculated, 3 measured, 4 confirmed.
 * @example proofRank('measured') // 3
 */
export const proofRank = (proof: Proof): 1 | 2 | 3 | 4 => RANK[proof] as 1 | 2 | 3 | 4

/**
 * Whether a proof is at least a measurement: a target can be met by it.
 * @example isMeasured('calculated') // false
 */
export const isMeasured = (proof: Proof): boolean => RANK[proof] >= 3

/**
 * The least of several proofs; of catalogue and calculated, which rank alike, calculated.
 * @example leastProof('measured', 'guess') // 'guess'
 */
export function leastProof(...proofs: readonly Proof[]): Proof {
  let least: Proof = 'confirmed'
  for (const proof of proofs) {
    if (RANK[proof] < RANK[least] || (RANK[proof] === RANK[least] && proof === 'calculated')) least = proof
  }
  return least
}

/** A number with how sure it is: one standard deviation in the same unit, and how it is known. */
export interface Quantity {
  readonly value: number
  readonly sd: number
  readonly proof: Proof
}
