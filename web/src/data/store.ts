import { configureStore } from '@reduxjs/toolkit'
import { setupListeners } from '@reduxjs/toolkit/query'
import { setAutoFreeze } from 'immer'
import { useDispatch, useSelector } from 'react-redux'
import { api } from './api.ts'
import { hereReducer } from './crew/here-slice.ts'
import { seatReducer } from './crew/seat-slice.ts'
import { noteWrites } from './note-writes.ts'
import { outboxReducer } from './outbox.ts'
import { overlayReducer } from './overlay-slice.ts'
import { PREFERENCES_KEY, preferencesReducer } from './preferences.ts'
import { staleLearners } from './stale-learners.ts'
import { writeStored } from './stored.ts'
import { undoReducer } from './undo-slice.ts'

// An answer holds thousands of records, all of them readonly by type: to freeze each would take longer than to draw them.
setAutoFreeze(false)

export const store = configureStore({
  reducer: {
    preferences: preferencesReducer,
    overlay: overlayReducer,
    undo: undoReducer,
    outbox: outboxReducer,
    seat: seatReducer,
    here: hereReducer,
    [api.reducerPath]: api.reducer,
  },
  middleware: (withDefaults) =>
    withDefaults({ serializableCheck: false, immutableCheck: false }).concat(api.middleware, noteWrites.middleware, staleLearners.middleware),
})

// A page that is looked at again asks at once.
setupListeners(store.dispatch)

const applyTheme = () => {
  document.documentElement.dataset.theme = store.getState().preferences.theme
}
applyTheme()
let last = store.getState().preferences
store.subscribe(() => {
  const now = store.getState().preferences
  if (now === last) return
  last = now
  writeStored(PREFERENCES_KEY, now)
  applyTheme()
})

export type RootState = ReturnType<typeof store.getState>
export type AppDispatch = typeof store.dispatch
export const useAppDispatch = useDispatch.withTypes<AppDispatch>()
export const useAppSelector = useSelector.withTypes<RootState>()
export const usePreferences = () => useAppSelector((state) => state.preferences)
