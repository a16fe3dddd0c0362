import { api, readFailure } from './api.ts'
import type { AppDispatch } from './store.ts'
import { store } from './store.ts'
import { putBack, stayed, tookBack } from './undo-slice.ts'

interface Entry {
  readonly buildId: string
  readonly entryId: number
}

/** Takes one entry of the log back and says so, or why it stays; `isRedo`: the entry itself had taken something back. */
export async function takeBack(dispatch: AppDispatch, { buildId, entryId }: Entry, isRedo = false): Promise<void> {
  try {
    const done = await dispatch(api.endpoints.undo.initiate({ buildId, entryId })).unwrap()
    const by = { buildId, entryId: done.entryId, words: `${isRedo ? 'Put back' : 'Taken back'}: ${done.name}.` }
    dispatch(isRedo ? putBack({ entryId, by }) : tookBack({ entryId, by }))
  } catch (error) {
    dispatch(stayed({ entryId, words: `It stays as it is. ${readFailure(error).message}` }))
  }
}

/** Takes back what this browser stored last. */
export async function takeBackLast(dispatch: AppDispatch): Promise<void> {
  const last = store.getState().undo.own.at(-1)
  if (last) await takeBack(dispatch, last)
}

/** Puts back what this browser took back last. */
export async function putBackLast(dispatch: AppDispatch): Promise<void> {
  const last = store.getState().undo.undone.at(-1)
  if (last) await takeBack(dispatch, last, true)
}
