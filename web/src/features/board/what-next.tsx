import { type Board, type OwnerAction, sayNext, sayOwnerAction } from '@bold-ballast/core'
import { Link } from 'react-router'
import { useAdviceWords } from '../../shared/advice-words.ts'

const MOST_SHOWN = 8

interface Props {
  readonly board: Board
  readonly buildId: string
  /** What an owner looks after beside the build; it comes last. */
  readonly ownerActions?: readonly OwnerAction[]
}

/** What to do next, most pressing first; each rule of the core says its own lines. */
export function WhatNext({ board, buildId, ownerActions = [] }: Props) {
  const words = useAdviceWords(buildId, board.stages)
  const said = [...board.next.slice(0, MOST_SHOWN).map((action) => sayNext(action, words)), ...ownerActions.map((action) => sayOwnerAction(action, words))]
  return (
    <section aria-labelledby="what-next">
      <h2 id="what-next" className="mb-1">
        What next
      </h2>
      {said.length === 0 ? (
        <p className="text-quiet">Nothing presses: limits hold, targets are measured, scales and ledger agree.</p>
      ) : (
        <ol>
          {said.map(({ to, isDanger, head, text }, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: the rank is the identity here
            <li key={i} className="border-b border-line py-2 last:border-0">
              <Link to={to} className={`text-[15px] font-bold underline decoration-line underline-offset-4 ${isDanger ? 'text-danger' : ''}`}>
                {head}
              </Link>{' '}
              <span className="text-quiet">{text}</span>
            </li>
          ))}
        </ol>
      )}
    </section>
  )
}
