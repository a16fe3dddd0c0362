import { type BoardRow, METRIC_INFO } from '@bold-ballast/core'

/** What a row is of, with the track of a lap: "Lap, Skarvholm". */
export function rowWord({ metric, place }: Pick<BoardRow, 'metric' | 'place'>): string {
  const { word } = METRIC_INFO[metric]
  return place === null ? word : `${word}, ${place}`
}
