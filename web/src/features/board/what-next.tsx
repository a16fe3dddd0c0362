import { type Board, type OwnerAction, sayNext, sayOwnerAction } from '@bold-ballast/core'
import { useState } from 'react'
import { Link } from 'react-router'
import { useAdviceWords } from '../../shared/advice-words.ts'

const MOST_SHOWN = 8
/** What a long Board says above its table. */
const FIRST = 3

interface Props {
  readonly board: Board
  readonly buildId: string
  /** What an owner looks after beside the build; it comes last. */
  readonly ownerActions?: readonly OwnerAction[]
}

type Said = ReturnType<typeof sayNext>

function useWhatNext({ board, buildId, ownerActions = [] }: Props, most: number): Said[] {
  const words = useAdviceWords(buildId, board.stages)
  return [...board.next.slice(0, most).map((action) => sayNext(action, words)), ...ownerActions.map((action) => sayOwnerAction(action, words))]
}

function NextLine({ said: { to, isDanger, head, text } }: { said: Said }) {
  return (
    <>
      <Link to={to} className={`text-[15px] font-bold underline decoration-line underline-offset-4 ${isDanger ? 'text-danger' : ''}`}>
        {head}
      </Link>{' '}
      <span className="text-quiet">{text}</span>
    </>
  )
}

/** The three that press most, beside each other above a Board whose table fills the first screen. */
export function FirstOfNext(props: Props) {
  const said = useWhatNext(props, FIRST).slice(0, FIRST)
  if (said.length === 0) return null
  return (
    <section aria-labelledby="next-first" className="mb-2">
      <h2 id="next-first" className="sr-only">
        What next
      </h2>
      <ol className="grid gap-x-6 gap-y-2 text-[13px] leading-[18px] sm:grid-cols-3">
        {said.map((line, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the rank is the identity here
          <li key={i} className={`border-l-[5px] pl-2.5 ${line.isDanger ? 'border-danger' : 'border-wait'}`}>
            <NextLine said={line} />
          </li>
        ))}
      </ol>
    </section>
  )
}

/** What to do next, most pressing first; each rule of the core says its own lines. Those that stand above the table are not said again. */
export function WhatNext({ areFirstAbove = false, ...props }: Props & { readonly areFirstAbove?: boolean }) {
  const [showsAll, setShowsAll] = useState(false)
  const from = areFirstAbove ? FIRST : 0
  const most = showsAll ? props.board.next.length : MOST_SHOWN
  const all = useWhatNext(props, most)
  const said = all.slice(from)
  const hidden = props.board.next.length - most
  if (all.length > 0 && said.length === 0) return null
  return (
    <section aria-labelledby="what-next">
      <h2 id="what-next" className="mb-1">
        {areFirstAbove && all.length > 0 ? 'After that' : 'What next'}
      </h2>
      {said.length === 0 ? (
        <p className="text-quiet">Nothing presses: limits hold, targets are measured, scales and ledger agree.</p>
      ) : (
        <ol start={from + 1}>
          {said.map((line, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: the rank is the identity here
            <li key={i} className="border-b border-line py-2 last:border-0">
              <NextLine said={line} />
            </li>
          ))}
        </ol>
      )}
      {hidden > 0 && (
        <button type="button" className="word-link" onClick={() => setShowsAll(true)}>
          {hidden} more
        </button>
      )}
    </section>
  )
}
