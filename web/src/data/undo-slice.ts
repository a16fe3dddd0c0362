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
  readonly entry: OwnEntry | null
}

const MOST_KEPT = 50
const initialState = { own: [] as OwnEntry[], notice: null as Notice | null }

/** What this browser wrote, last last, and the notice that is shown about it. */
const slice = createSlice({
  name: 'undo',
  initialState,
  reducers: {
    wrote: (state, { payload }: PayloadAction<OwnEntry>) => ({
      own: [...state.own, payload].slice(-MOST_KEPT),
      notice: { id: (state.notice?.id ?? 0) + 1, words: payload.words, entry: payload },
    }),
    tookBack: (state, { payload }: PayloadAction<{ entryId: number; words: string }>) => ({
      own: state.own.filter((entry) => entry.entryId !== payload.entryId),
      notice: { id: (state.notice?.id ?? 0) + 1, words: payload.words, entry: null },
    }),
  },
})

export const { wrote, tookBack } = slice.actions
export const undoReducer = slice.reducer
