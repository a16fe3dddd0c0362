import type { PanelState } from '@bold-ballast/core'
import type { CsvTable } from '../../../ui/files/csv-button.tsx'
import { PANEL_SUPPORT_WORDS } from './panel-form.ts'

/** The kept panels with what each holds; a sheet that cannot be worked out says why. */
export const panelsTable = (panels: readonly PanelState[], verdictOf: (state: PanelState) => { readonly word: string }): CsvTable => ({
  head: ['Device', 'Built', 'Sheet', 'Layers', 'Thickness (m)', 'Held', 'Edge, air (m)', 'Edge, person (m)', 'Edge, kerb (m)', 'Rods used', 'Mass (kg)', 'So'],
  rows: panels.map((state) => {
    const { panel, deviceName, sheetName, answer } = state
    return [
      deviceName,
      panel.isChosen ? 'yes' : 'no',
      sheetName,
      panel.layers,
      panel.thicknessM,
      PANEL_SUPPORT_WORDS[panel.support],
      answer?.air.tipM ?? null,
      answer?.standing.tipM ?? null,
      answer?.kerb.tipM ?? null,
      answer?.rodUse?.use ?? null,
      answer?.massKg ?? null,
      verdictOf(state).word,
    ]
  }),
})
