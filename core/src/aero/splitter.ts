import { requirePositive, requireWithin } from '../errors.ts'

/** Mean pressure difference over a lip, as a share of ρv²/2, and its doubt: 0.30 to 1.00 even (common practice, no source). */
export const USUAL_PRESSURE = 0.65
export const USUAL_PRESSURE_SD = 0.35 / Math.sqrt(3)
/** Drag of a lip, m², and its doubt (common practice, no source). */
const LIP_DRAG_M2 = 0.006
const LIP_DRAG_SD_M2 = 0.006

export interface SplitterEstimate {
  readonly downforceM2: number
  readonly downforceSdM2: number
  readonly dragM2: number
  readonly dragSdM2: number
}

/**
 * A splitter as a pressure panel: F/q = ΔCp · width · lip, on the lip that stands ahead of the bumper with the gap to it closed. m, m².
 * Source: G.4. Lip up to 0.6 m, width up to 2.5 m, ΔCp 0.05 to 2.
 * @example splitterEstimate({ widthM: 1.6, lipM: 0.2, pressure: 0.65, pressureSd: 0.2 }).downforceM2 // 0.208
 */
export function splitterEstimate({
  widthM,
  lipM,
  pressure,
  pressureSd,
}: {
  readonly widthM: number
  readonly lipM: number
  readonly pressure: number
  readonly pressureSd: number
}): SplitterEstimate {
  requirePositive(widthM, 'widthM')
  requireWithin(widthM, 0, 2.5, 'widthM')
  requirePositive(lipM, 'lipM')
  requireWithin(lipM, 0, 0.6, 'lipM')
  requireWithin(pressure, 0.05, 2, 'pressure')
  requireWithin(pressureSd, 0, 1, 'pressureSd')
  const area = widthM * lipM
  return { downforceM2: pressure * area, downforceSdM2: pressureSd * area, dragM2: LIP_DRAG_M2, dragSdM2: LIP_DRAG_SD_M2 }
}
