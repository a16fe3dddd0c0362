import { useState } from 'react'
import { crewApi } from '../../../data/crew/crew-api.ts'
import { useAppSelector } from '../../../data/store.ts'
import { Loading } from '../../../ui/states.tsx'
import type { CrewTabProps } from '../crew-tab.ts'
import { readSeen, type Seen, writeSeen } from '../seen.ts'
import { SincePage } from './since-page.tsx'

/** What changed since one looked: where one left it is kept with the person, or in this browser as long as nobody signs in. */
export function SinceTab(props: CrewTabProps) {
  const isClosed = useAppSelector((state) => state.seat.isClosed)
  return isClosed ? <OfPerson {...props} /> : <OfBrowser {...props} />
}

function OfBrowser(props: CrewTabProps) {
  const { buildId } = props
  const [seen, setSeen] = useState(() => readSeen(buildId))
  const mark = (next: Seen) => {
    writeSeen(buildId, next)
    setSeen(next)
  }
  return <SincePage {...props} seen={seen} mark={mark} keptWhere="in this browser" />
}

function OfPerson(props: CrewTabProps) {
  const { buildId } = props
  const { data } = crewApi.useSeenQuery(buildId)
  const [markSeen] = crewApi.useMarkSeenMutation()
  if (!data) return <Loading what="where you left it" />
  return <SincePage {...props} seen={data.seen} mark={({ entryId }) => void markSeen({ buildId, entryId })} keptWhere="with your name, on every browser" />
}
