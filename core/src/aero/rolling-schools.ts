export const ROLLING_SCHOOLS = ['asRoadShows', 'growing'] as const
/** Rolling as the road shows it, the same at all speeds, or growing with speed by Crr (1 + v²/vc²). */
export type RollingSchool = (typeof ROLLING_SCHOOLS)[number]
export const ROLLING_SCHOOL_WORDS: Readonly<Record<RollingSchool, string>> = {
  asRoadShows: 'rolling the same at all speeds, as the road shows',
  growing: 'rolling grows with speed',
}
