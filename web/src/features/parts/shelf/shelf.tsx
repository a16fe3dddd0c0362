import type { RecordsAnswer } from '@bold-ballast/contract'
import { wholeCost } from '@bold-ballast/core'
import { useState } from 'react'
import { readFailure } from '../../../data/api.ts'
import { moneyText, ratingText } from '../../../shared/part-words.ts'
import { useShelf } from '../../../shared/use-shelf.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { Empty, LoadError, Loading } from '../../../ui/states.tsx'

/** What belongs to the one piece that the other build bought. */
const NOT_COPIED = { fittedOn: null, orderedOn: null, promisedOn: null, cameOn: null, paid: null, serial: null }

/** Parts that any build of the garage shares; taking one copies what is known of it into this build. */
export function Shelf({ records }: { records: RecordsAnswer }) {
  const buildId = records.build.id
  const { shelf, error, refetch, take: copy } = useShelf('parts', buildId)
  const { text } = useQuantities()
  const [said, setSaid] = useState<string | null>(null)
  if (error && !shelf) return <LoadError error={error} retry={refetch} />
  if (!shelf) return <Loading what="the shelf" />
  if (shelf.length === 0)
    return (
      <Empty
        title="The shelf is empty"
        why="Tick “on the shelf that every build sees” in a part: every build of the garage finds it here, with its ratings, mass and cost."
      />
    )
  const take = async (part: (typeof shelf)[number]['record']) => {
    const answer = await copy(part, { stageId: null, status: 'wanted', ...NOT_COPIED, takeOff: part.takeOff ? { ...part.takeOff, behindIds: [] } : null })
    setSaid(answer.error ? readFailure(answer.error).message : `${part.name} is in the register of this build as wanted.`)
  }
  return (
    <>
      <p role="status" className="min-h-6 text-quiet">
        {said}
      </p>
      <ul className="max-w-[860px]">
        {shelf.map(({ record: part, buildName }) => (
          <li key={part.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-line py-2">
            <span className="min-w-[220px] flex-1">
              <strong>{part.name}</strong>
              <span className="block text-xs text-quiet">
                {part.kind}, from {buildName}
              </span>
            </span>
            <span className="flex-1">
              {part.ratings.map((rating) => (
                <span key={`${rating.of} ${rating.limit}`} className="block">
                  {ratingText(part, rating, text)}
                </span>
              ))}
            </span>
            <span className="w-[70px] text-right">{moneyText(wholeCost(part))}</span>
            {part.buildId === buildId ? (
              <span className="w-[130px] text-quiet">of this build</span>
            ) : (
              <button type="button" className="button" onClick={() => void take(part)} aria-label={`Take ${part.name} into this build`}>
                Take into this build
              </button>
            )}
          </li>
        ))}
      </ul>
    </>
  )
}
