import { chooseUnits, type DecimalMark, type QuantityKind, type UnitSetName } from '@bold-ballast/core'
import { createSlice, type PayloadAction } from '@reduxjs/toolkit'
import { readStored } from './stored.ts'

export interface Preferences {
  readonly theme: 'light' | 'dark'
  readonly unitSet: UnitSetName
  /** Quantities shown in a unit of their own, whatever the set says. */
  readonly ownUnits: Partial<Record<QuantityKind, string>>
  readonly decimalMark: DecimalMark
  readonly person: string
  readonly singleKeys: boolean
  /** What sheets are laid out for. */
  readonly paper: 'a4' | 'letter'
}

export const PREFERENCES_KEY = 'bold-ballast.preferences'

const prefersDark = () => typeof matchMedia === 'function' && matchMedia('(prefers-color-scheme: dark)').matches
const initialState: Preferences = {
  theme: prefersDark() ? 'dark' : 'light',
  unitSet: 'metric',
  ownUnits: {},
  decimalMark: '.',
  person: '',
  singleKeys: true,
  paper: 'a4',
  ...readStored<Partial<Preferences>>(PREFERENCES_KEY, {}),
}

const slice = createSlice({
  name: 'preferences',
  initialState,
  reducers: { prefer: (state, action: PayloadAction<Partial<Preferences>>) => ({ ...state, ...action.payload }) },
})

export const { prefer } = slice.actions
export const preferencesReducer = slice.reducer
export const unitsOf = (preferences: Preferences) => chooseUnits(preferences.unitSet, preferences.ownUnits)
