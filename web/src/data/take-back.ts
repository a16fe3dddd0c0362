import { api, readFailure } from './api.ts'
import type { AppDispatch } from './store.ts'
import { store } from './store.ts'
import { tookBack } from './undo-slice.ts'

/** Takes one entry of the log back and says so, or why it stays. */
export async function takeBack(dispatch: AppDispatch, entry: { buildId: string; entryId: number }): Promise<void> {
  try {
    const done = await dispatch(api.endpoints.undo.initiate({ buildId: entry.buildId, entryId: entry.entryId })).unwrap()
    dispatch(tookBack({ entryId: entry.entryId, words: `Taken back: ${done.name}.` }))
  } catch (error) {
    dispatch(tookBack({ entryId: entry.entryId, words: `It stays as it is. ${readFailure(error).message}` }))
  }
}

/** Takes back what this browser stored last. */
export async function takeBackLast(dispatch: AppDispatch): Promise<void> {
  const last = store.getState().undo.own.at(-1)
  if (last) await takeBack(dispatch, last)
}
