import type { RecordsAnswer } from '@bold-ballast/contract'
import type { WeightRoom } from '@bold-ballast/core'
import { useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { Figure } from '../../../ui/figure.tsx'
import { useQuantities } from '../../../ui/quantity.ts'
import { Alert } from '../../../ui/states.tsx'
import { dayText } from '../../../ui/words.ts'

interface Props {
  readonly records: RecordsAnswer
  readonly room: WeightRoom
  readonly position: number
  readonly stageId: string
}

/** What the scales say of a stage that lists nothing, and the one line that would say it. */
export function UnlistedStrip({ records, room, position, stageId }: Props) {
  const { text } = useQuantities()
  const [create, { isLoading }] = api.useCreateRecordMutation()
  const [failure, setFailure] = useState<string | null>(null)
  const found = room.unlisted.find((entry) => entry.position === position)
  const weighing = records.weighings.find(({ id }) => id === found?.weighingId)
  if (!found || !weighing) return null
  const { massKg, sdKg, derivedFrom } = found
  const list = async () => {
    const value = { massKg: Math.abs(massKg), sdKg, proof: 'calculated', at: weighing.at, derivedFrom }
    const body = { id: crypto.randomUUID(), stageId, kind: massKg < 0 ? 'off' : 'on', name: 'Not listed', values: [value], state: 'done', doneAt: weighing.at }
    const answer = await create({ buildId: records.build.id, resource: 'changes', body })
    setFailure(answer.error ? readFailure(answer.error).message : null)
  }
  const from =
    derivedFrom[0] === records.build.id
      ? 'the papers'
      : `the weighing of ${dayText(records.weighings.find(({ id }) => id === derivedFrom[0])?.at ?? weighing.at)}`
  return (
    <section aria-label="What the scales say" className="no-print mb-4 flex flex-wrap items-center gap-x-4 gap-y-2 border-l-4 border-wait bg-page px-3 py-2">
      <p>
        Stage {position} lists nothing; the scales of {dayText(weighing.at)} say{' '}
        <strong>
          <Figure kind="mass" value={massKg} sd={sdKg} sign showSpread />
        </strong>{' '}
        since {from}.
      </p>
      <button type="button" className="button" disabled={isLoading} onClick={() => void list()}>
        List it as one line
      </button>
      <span className="text-quiet">
        Or type the parts that it was. One line of {text('mass', Math.abs(massKg))} is worked out, never weighed, and teaches nothing.
      </span>
      {failure && <Alert className="w-full">{failure} Nothing was stored.</Alert>}
    </section>
  )
}
