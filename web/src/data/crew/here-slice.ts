import type { HereEntry } from '@bold-ballast/contract'
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import { SEAT } from '../stored.ts'

interface HereState {
  /** Who else looks at each build, as the stream told last. */
  readonly people: Readonly<Record<string, readonly HereEntry[]>>
  /** Whether a stream tells what others write, so that nobody need ask. */
  readonly isLive: boolean
  /** The record that is open in a form on this page. */
  readonly openRecord: string | null
}

const initialState: HereState = { people: {}, isLive: false, openRecord: null }

const slice = createSlice({
  name: 'here',
  initialState,
  reducers: {
    heardHere: (state, { payload: { buildId, people } }: PayloadAction<{ buildId: string; people: readonly HereEntry[] }>) => ({
      ...state,
      people: { ...state.people, [buildId]: people.filter(({ personId }) => personId !== SEAT?.personId) },
    }),
    liveSeen: (state, { payload }: PayloadAction<boolean>) => (state.isLive === payload ? state : { ...state, isLive: payload }),
    recordOpened: (state, { payload }: PayloadAction<string | null>) => ({ ...state, openRecord: payload }),
  },
})

export const { heardHere, liveSeen, recordOpened } = slice.actions
export const hereReducer = slice.reducer

const NOBODY: readonly HereEntry[] = []
/** Who else looks at a build. */
export const othersAt =
  (buildId: string) =>
  ({ here }: { readonly here: HereState }): readonly HereEntry[] =>
    here.people[buildId] ?? NOBODY
