import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

/** A line of a build's log that this browser wrote and can take back. */
export interface OwnEntry {
  readonly buildId: string
  readonly entryId: number
  readonly words: string
}

export interface Notice {
  readonly id: number
  readonly words: string
  /** What its button takes back. */
  readonly entry: OwnEntry | null
  /** Whether that puts back what was taken back. */
  readonly isRedo: boolean
}

const MOST_KEPT = 50
const initialState = { own: [] as OwnEntry[], undone: [] as OwnEntry[], notice: null as Notice | null }
type State = typeof initialState

const say = (state: State, words: string, entry: OwnEntry | null, isRedo = false): Notice => ({ id: (state.notice?.id ?? 0) + 1, words, entry, isRedo })
const without = (list: readonly OwnEntry[], entryId: number) => list.filter((entry) => entry.entryId !== entryId)

/** What this browser wrote, last last, what it took back, and the notice that is shown about it. */
const slice = createSlice({
  name: 'undo',
  initialState,
  reducers: {
    wrote: (state, { payload }: PayloadAction<OwnEntry>) => ({
      own: [...state.own, payload].slice(-MOST_KEPT),
      undone: [],
      notice: say(state, payload.words, payload),
    }),
    /** `by` is the entry that took it back: taking that back in turn puts it back. */
    tookBack: (state, { payload }: PayloadAction<{ entryId: number; by: OwnEntry }>) => ({
      own: without(state.own, payload.entryId),
      undone: [...state.undone, payload.by].slice(-MOST_KEPT),
      notice: say(state, payload.by.words, payload.by, true),
    }),
    putBack: (state, { payload }: PayloadAction<{ entryId: number; by: OwnEntry }>) => ({
      own: [...state.own, payload.by].slice(-MOST_KEPT),
      undone: without(state.undone, payload.entryId),
      notice: say(state, payload.by.words, payload.by),
    }),
    stayed: (state, { payload }: PayloadAction<{ entryId: number; words: string }>) => ({
      own: without(state.own, payload.entryId),
      undone: without(state.undone, payload.entryId),
      notice: say(state, payload.words, null),
    }),
  },
})

export const { wrote, tookBack, putBack, stayed } = slice.actions
export const undoReducer = slice.reducer
