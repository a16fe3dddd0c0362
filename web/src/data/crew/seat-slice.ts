import type { Role } from '@bold-ballast/contract'
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import { SEAT } from '../stored.ts'

interface SeatState {
  readonly isClosed: boolean
  readonly isSignedOut: boolean
  /** What whoever sits here is over each build that he asked about. */
  readonly roles: Readonly<Record<string, Role>>
}

const initialState: SeatState = { isClosed: SEAT !== null, isSignedOut: false, roles: {} }

/** Whether people sign in here, and whether somebody has; it is heard from the answers themselves, so that nothing is asked for it. */
const slice = createSlice({
  name: 'seat',
  initialState,
  reducers: {
    closedSeen: (state) => (state.isClosed ? state : { ...state, isClosed: true }),
    signedOutSeen: (state) => (state.isSignedOut ? state : { ...state, isClosed: true, isSignedOut: true }),
    roleSeen: (state, { payload: { buildId, role } }: PayloadAction<{ buildId: string; role: Role }>) =>
      state.roles[buildId] === role ? state : { ...state, roles: { ...state.roles, [buildId]: role } },
  },
})

export const { closedSeen, signedOutSeen, roleSeen } = slice.actions
export const seatReducer = slice.reducer
