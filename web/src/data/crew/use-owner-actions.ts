import type { OwnerAction } from '@bold-ballast/core'
import { localDay } from '../local-day.ts'
import { useAppSelector } from '../store.ts'
import { crewApi } from './crew-api.ts'

const NONE: readonly OwnerAction[] = []

/** What whoever sits here looks after as an owner of the garage; nothing, and nothing asked, for anybody else. */
export function useOwnerActions(buildId: string): readonly OwnerAction[] {
  const isOwner = useAppSelector((state) => state.seat.roles[buildId] === 'owner')
  const { data: me } = crewApi.useMeQuery(undefined, { skip: !isOwner })
  const garageId = me?.garages.find(({ role }) => role === 'owner')?.garageId
  const { data } = crewApi.useOwnerActionsQuery({ garageId: garageId ?? '', day: localDay() }, { skip: garageId === undefined })
  return isOwner ? (data ?? NONE) : NONE
}
