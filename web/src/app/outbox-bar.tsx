import { useState } from 'react'
import { mayNotWords } from '../data/crew/may-not-words.ts'
import { keptBoth, reread, takeOverOpenOutbox, type Waiting, waitingOfOthers } from '../data/outbox.ts'
import { discard, flush, sendAgain } from '../data/outbox-sender.ts'
import { useAppDispatch, useAppSelector } from '../data/store.ts'
import { namesHere, SEAT } from '../data/stored.ts'
import { StaleChoice } from '../ui/forms/stale-choice.tsx'
import { RecordWord } from '../ui/record-word.tsx'
import { Alert } from '../ui/states.tsx'

/** What waits in this browser and what was refused, in plain sight on every page until it is stored or given up. */
export function OutboxBar() {
  const { items, away, said } = useAppSelector((state) => state.outbox)
  const dispatch = useAppDispatch()
  const waiting = items.filter((item) => item.refusal === null)
  const refused = items.filter((item) => item.refusal !== null)
  const [others, setOthers] = useState(waitingOfOthers)
  const isWorthSaying = others.length > 0 || refused.length > 0 || (away !== null && waiting.length > 0) || said !== null
  if (!isWorthSaying) return null
  return (
    <section aria-label="Not stored yet" className="no-print border-b border-line bg-page px-5 py-2">
      {said !== null && (
        <p role="status">
          {said}{' '}
          <button type="button" className="word-link" onClick={() => dispatch(keptBoth(null))}>
            Good
          </button>
        </p>
      )}
      {others.map(({ personId, count }) => (
        <OfOther key={personId ?? 'open'} name={personId === null ? null : (namesHere()[personId] ?? 'somebody else')} count={count}>
          <button
            type="button"
            className="word-link"
            onClick={() => {
              takeOverOpenOutbox()
              setOthers(waitingOfOthers())
              dispatch(reread())
              void flush()
            }}
          >
            Send as mine
          </button>
        </OfOther>
      ))}
      {waiting.length > 0 && away !== null && (
        <details>
          <summary className="min-h-6 cursor-pointer text-wait">
            <span role="status">
              {waiting.length === 1 ? '1 entry waits' : `${waiting.length} entries wait`} for the server. {away} Kept in this browser, sent in order by itself;
              each is stored once.
            </span>
          </summary>
          <ol className="my-1 list-decimal pl-6">
            {waiting.map((item) => (
              <li key={item.id}>{item.words}</li>
            ))}
          </ol>
          <button type="button" className="word-link" onClick={() => void flush()}>
            Try now
          </button>
        </details>
      )}
      {refused.map((item) => (
        <Refused key={item.id} item={item} />
      ))}
    </section>
  )
}

/** What somebody who is not at this browser now has not sent; what nobody signed may be sent by whoever typed it. */
function OfOther({ name, count, children }: { name: string | null; count: number; children: React.ReactNode }) {
  const entries = count === 1 ? '1 entry' : `${count} entries`
  const waits = count === 1 ? 'waits' : 'wait'
  if (name !== null) return <p>{`${entries} of ${name}’s ${waits} until ${name} takes over.`}</p>
  return (
    <p>
      {`${entries} typed before anybody signed in ${waits}.`} {SEAT !== null && children}
    </p>
  )
}

function Refused({ item }: { item: Waiting }) {
  const problem = item.refusal?.problem
  const current = problem?.current as Record<string, unknown> | undefined
  return (
    <Alert className="my-1">
      <p>
        <strong>Not stored: {item.words}</strong> (<RecordWord of={item.resource} />
        ). {mayNotWords(problem) ?? item.refusal?.message}
      </p>
      {problem?.code === 'stale' && current ? (
        <StaleChoice
          mine={item.body}
          theirs={current}
          keepMine={() => sendAgain(item.id, { ...item.body, version: current.version })}
          takeTheirs={() => discard(item.id)}
        />
      ) : (
        <p className="flex gap-4">
          <button type="button" className="word-link" onClick={() => sendAgain(item.id, item.body)}>
            Send it again
          </button>
          <button type="button" className="word-link" onClick={() => void navigator.clipboard.writeText(item.typed ?? JSON.stringify(item.body))}>
            Copy it
          </button>
          <button type="button" className="word-link" onClick={() => discard(item.id)}>
            Give it up
          </button>
        </p>
      )}
    </Alert>
  )
}
