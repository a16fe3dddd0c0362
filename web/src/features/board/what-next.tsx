import { type Board, sayNext } from '@bold-ballast/core'
import { Link } from 'react-router'
import { useAdviceWords } from '../../shared/advice-words.ts'

const MOST_SHOWN = 8

/** What to do next, most pressing first; each rule of the core says its own lines. */
export function WhatNext({ board, buildId }: { board: Board; buildId: string }) {
  const words = useAdviceWords(buildId, board.stages)
  return (
    <section aria-labelledby="what-next">
      <h2 id="what-next" className="mb-1">
        What next
      </h2>
      {board.next.length === 0 ? (
        <p className="text-quiet">Nothing presses: limits hold, targets are measured, scales and ledger agree.</p>
      ) : (
        <ol>
          {board.next.slice(0, MOST_SHOWN).map((action, i) => {
            const said = sayNext(action, words)
            return (
              // biome-ignore lint/suspicious/noArrayIndexKey: the rank is the identity here
              <li key={i} className="border-b border-line py-2 last:border-0">
                <Link to={said.to} className={`text-[15px] font-bold underline decoration-line underline-offset-4 ${said.isDanger ? 'text-danger' : ''}`}>
                  {said.head}
                </Link>{' '}
                <span className="text-quiet">{said.text}</span>
              </li>
            )
          })}
        </ol>
      )}
    </section>
  )
}
