import { type Proof, proofRank } from '@bold-ballast/core'

const RANKS = [1, 2, 3, 4] as const

/** Four small upright plates: how a number is known. */
export function Plates({ proof, withWord = false }: { proof: Proof; withWord?: boolean }) {
  const rank = proofRank(proof)
  return (
    <span className="inline-flex items-center gap-1.5 align-baseline" title={proof}>
      <svg width="22" height="12" viewBox="0 0 22 12" role="img" aria-label={`proof: ${proof}`} className="shrink-0">
        {RANKS.map((plate) => (
          <rect
            key={plate}
            x={(plate - 1) * 5.5 + 0.5}
            y="0.5"
            width="3.5"
            height="11"
            rx="0.5"
            stroke="var(--edge)"
            fill={plate <= rank ? 'var(--ink)' : 'none'}
          />
        ))}
      </svg>
      {withWord && <span className="text-xs text-quiet">{proof}</span>}
    </span>
  )
}
