import { createSlice, type PayloadAction } from '@reduxjs/toolkit'

export type OverlayName = 'find' | 'units' | 'name' | 'keys' | 'hands'

/** Which panel lies over the page; one at a time. */
const slice = createSlice({
  name: 'overlay',
  initialState: { name: null as OverlayName | null },
  reducers: {
    open: (_state, action: PayloadAction<OverlayName>) => ({ name: action.payload }),
    close: () => ({ name: null }),
  },
})

export const { open, close } = slice.actions
export const overlayReducer = slice.reducer
