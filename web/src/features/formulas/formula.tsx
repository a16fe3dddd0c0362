import './formula.css'
import type { FormulaSymbol } from '@bold-ballast/core'
import { useEffect, useRef } from 'react'
import temml from 'temml'

/** TeX of our own as MathML. */
function Tex({ tex, isBlock = false }: { tex: string; isBlock?: boolean }) {
  const holder = useRef<HTMLSpanElement>(null)
  useEffect(() => {
    if (holder.current) temml.render(tex, holder.current, { displayMode: isBlock, throwOnError: false })
  }, [tex, isBlock])
  return <span ref={holder} className={isBlock ? 'block' : ''} />
}

/** A formula as it is set in print, a line each; the plain line below is what a screen without MathML shows and what is copied. */
export function Formula({ lines, plain }: { lines: readonly string[]; plain: string }) {
  return (
    <figure className="mb-3 overflow-x-auto border-l-4 border-line py-1 pl-4">
      <div className="formula grid justify-items-start gap-y-2.5 text-[19px]">
        {lines.map((line) => (
          <Tex key={line} tex={line} isBlock />
        ))}
      </div>
      <figcaption className="sr-only">{plain}</figcaption>
    </figure>
  )
}

/** What each symbol means, and its unit. */
export function SymbolTable({ symbols }: { symbols: readonly FormulaSymbol[] }) {
  return (
    <table className="mb-5 border-collapse">
      <caption className="sr-only">Symbols</caption>
      <tbody>
        {symbols.map(({ tex, meaning, unit }) => (
          <tr key={tex} className="align-baseline">
            <th scope="row" className="formula py-0.5 pr-4 text-[15px] font-normal text-ink">
              <Tex tex={tex} />
            </th>
            <td className="py-0.5 pr-6">{meaning}</td>
            <td className="py-0.5 text-quiet">{unit || 'a number'}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
