import type { RecordsAnswer } from '@bold-ballast/contract'
import type { ReactNode } from 'react'
import { useBuild } from '../data/use-build.ts'
import { LoadError, Loading } from '../ui/states.tsx'

/** What the page of a room is handed at the picked stage. */
export interface RoomProps<Room, Made> {
  readonly records: RecordsAnswer
  readonly room: Room
  readonly made: Made
  readonly position: number
  readonly stageId: string
}

/** A room at the picked stage once its answer is there; until then, or where it cannot be, what stands in its place. */
export function useRoomOpening<Made, Room extends { readonly stages: readonly (Made | null)[] }>(
  { data: room, error, refetch }: { readonly data?: Room | undefined; readonly error?: unknown; readonly refetch: () => unknown },
  what: string,
): { readonly props: RoomProps<Room, Made> } | { readonly instead: ReactNode } {
  const { records, board, position, stage } = useBuild()
  if (error && !room) return { instead: <LoadError error={error} retry={refetch} /> }
  if (!records || !board || !stage) return { instead: null }
  if (!room) return { instead: <Loading what={what} /> }
  const made = room.stages[position]
  if (!made) return { instead: <p className="p-6">This stage cannot be worked out of what is stored. Check its numbers.</p> }
  return { props: { records, room, made, position, stageId: stage.id } }
}
