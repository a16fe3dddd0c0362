import type { BuildRecord, WeighingFigures } from '@bold-ballast/core'

type Convention = BuildRecord['crossConvention']
type Corners = NonNullable<WeighingFigures['corners']>

export const CROSS_WORDS: Record<Convention, string> = { rfLr: 'Cross, RF + LR', lfRr: 'Cross, LF + RR', wedge: 'Wedge, LR − RR' }

/** The diagonal as the build says it. */
export function crossFigure(convention: Convention | undefined, corners: Corners): { word: string; kind: 'share' | 'mass'; value: number; sd: number } {
  const said = convention ?? 'rfLr'
  const entry = said === 'rfLr' ? corners.crossShareRfLr : said === 'lfRr' ? corners.crossShareLfRr : corners.wedgeKg
  return { word: CROSS_WORDS[said], kind: said === 'wedge' ? 'mass' : 'share', ...entry }
}
