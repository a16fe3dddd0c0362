import type { Proof, QuantityKind, WorkingSubject } from '@bold-ballast/core'
import { useSearchParams } from 'react-router'
import { Plates } from './plates.tsx'
import { useQuantities } from './quantity.ts'

export interface FigureProps {
  readonly kind: QuantityKind
  readonly value: number
  readonly sd?: number | undefined
  readonly proof?: Proof | undefined
  readonly sign?: boolean
  readonly decimals?: number
  readonly showUnit?: boolean
  readonly showSpread?: boolean
  /** Opens its working. */
  readonly working?: { of: WorkingSubject; id: string } | undefined
  readonly className?: string
  /** In a column: so many decimals find room, and the decimal marks stand below each other. */
  readonly align?: number
}

/** A number with its unit, spread and proof; a calculated one opens its working. */
export function Figure({ kind, value, sd, proof, sign, decimals, showUnit = true, showSpread = false, working, className = '', align }: FigureProps) {
  const { format } = useQuantities()
  const shown = format(kind, value, { sd, ...(sign ? { sign } : {}), ...(decimals === undefined ? {} : { decimals }) })
  const number = (
    <>
      <span className={className}>{align === undefined ? shown.number : <Aligned number={shown.number} decimals={align} />}</span>
      {showUnit && shown.unit && <span className="ml-1 text-[0.8em] font-normal">{shown.unit}</span>}
      {showSpread && shown.spread && <span className="ml-1 text-[0.85em] font-normal text-quiet">{shown.spread}</span>}
    </>
  )
  return (
    <span className="inline-flex items-baseline gap-1.5 whitespace-nowrap">
      {working ? (
        <WorkingLink of={working.of} id={working.id}>
          {number}
        </WorkingLink>
      ) : (
        <span>{number}</span>
      )}
      {proof && <Plates proof={proof} />}
    </span>
  )
}

/** The missing decimals are filled by an empty box, so that an underline ends where the number does. */
function Aligned({ number, decimals }: { number: string; decimals: number }) {
  const at = number.search(/[.,]/)
  const missing = at < 0 ? decimals + 0.4 : decimals - (number.length - at - 1)
  return (
    <>
      {number}
      {missing > 0 && <span className="inline-block" style={{ width: `${missing}ch` }} />}
    </>
  )
}

/** Opens a working; the address holds which one, so that Back closes it. */
export function WorkingLink({ of, id, children }: { of: WorkingSubject; id: string; children: React.ReactNode }) {
  const [search, setSearch] = useSearchParams()
  return (
    <button
      type="button"
      className="min-h-6 text-left underline decoration-edge decoration-dotted decoration-1 underline-offset-4"
      onClick={() => {
        const next = new URLSearchParams(search)
        next.set('working', `${of}:${id}`)
        setSearch(next)
      }}
    >
      {children}
      <span className="sr-only">, open the working</span>
    </button>
  )
}
