import { useEffect } from 'react'
import { useMatch } from 'react-router'
import { crewApi } from '../../data/crew/crew-api.ts'
import { lookAt } from '../../data/crew/live.ts'
import { useAppSelector } from '../../data/store.ts'
import { SEAT, sitDown } from '../../data/stored.ts'

/** Holds what the browser remembers of who sits here against what the server says; and tells one who may only look that he does. */
export function SeatWatch() {
  const { data: me } = crewApi.useMeQuery()
  const match = useMatch('/builds/:buildId/*')
  const buildId = match?.params.buildId ?? ''
  const room = match?.params['*']?.split('/')[0] || 'board'
  const role = useAppSelector((state) => state.seat.roles[buildId])
  const isSignedOut = useAppSelector((state) => state.seat.isSignedOut)
  useEffect(() => {
    if (me?.mode !== 'closed' || !me.person || me.person.id === SEAT?.personId) return
    sitDown({ personId: me.person.id, name: me.person.name })
  }, [me])
  const isSeated = me?.person?.id !== undefined && me.person.id === SEAT?.personId
  useEffect(() => {
    if (isSeated) lookAt(buildId === '' || isSignedOut ? null : buildId, room)
  }, [isSeated, isSignedOut, buildId, room])
  if (role !== 'viewer' || isSignedOut) return null
  return (
    <p className="no-print border-b border-line bg-page px-5 py-1.5 text-quiet">
      You look at this build. What you type into it is not stored; an owner can make you one of its crew.
    </p>
  )
}
