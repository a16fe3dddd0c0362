import { configureStore } from '@reduxjs/toolkit'
import { useDispatch, useSelector } from 'react-redux'
import { api } from '../api/api.ts'
import { writeStored } from '../ui/stored.ts'
import { PREFERENCES_KEY, preferencesReducer } from './preferences.ts'

export const store = configureStore({
  reducer: { preferences: preferencesReducer, [api.reducerPath]: api.reducer },
  middleware: (withDefaults) => withDefaults({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
})

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
export const useAppDispatch = useDispatch.withTypes<typeof store.dispatch>()
export const useAppSelector = useSelector.withTypes<RootState>()
export const usePreferences = () => useAppSelector((state) => state.preferences)
