import type { RecordsAnswer } from '@bold-ballast/contract'
import { formatNumber, LIFE_UNITS, type PART_STATUSES, type Part, type PartLife, RATING_SUBJECTS, ratedLimit } from '@bold-ballast/core'
import type { useQuantities } from '../ui/quantity.ts'

export type StoredPart = RecordsAnswer['parts'][number]

export const STATUS_WORDS: Record<(typeof PART_STATUSES)[number], string> = {
  wanted: 'wanted',
  ordered: 'ordered',
  here: 'here',
  fitted: 'fitted',
  wornOut: 'worn out',
}

export const KNOWN_WORDS = { guess: 'guess', catalogue: 'catalogue', measured: 'measured' } as const

/** What builds usually ask of parts; offered while a kind is typed. */
export const USUAL_KINDS = [
  'turbo',
  'injectors',
  'fuel pumps',
  'cooler',
  'coils',
  'clutch',
  'gearbox',
  'fifth gear',
  'final drive',
  'axles',
  'pistons',
  'rods',
  'head gasket',
  'valve springs',
  'radiator',
] as const

/** "480 N·m torque at the crank, on petrol": a rating with all its pieces. */
export function ratingText(part: Part, rating: Part['ratings'][number], text: ReturnType<typeof useQuantities>['text']): string {
  const { word, kind } = RATING_SUBJECTS[rating.of]
  const fuel =
    rating.ethanolShare === null ? '' : rating.ethanolShare === 0 ? ', on petrol' : `, on ${text('share', rating.ethanolShare, { decimals: 0 })} ethanol`
  const decimals = kind === 'massFlow' || kind === 'current' ? {} : { decimals: 0 }
  return `${text(kind, ratedLimit(part, rating), decimals)} ${word}${fuel}`
}

/** "3.5 of 4 days used". */
export const lifeText = ({ life }: Pick<Part, 'life'>, { used }: PartLife): string => `${Number(used.toFixed(1))} of ${life?.amount} ${life?.unit} used`

export const isLifeUnit = (word: string): word is (typeof LIFE_UNITS)[number] => (LIFE_UNITS as readonly string[]).includes(word)

/** Money in whole units of the build's own; nothing where nobody said. */
export const moneyText = (value: number | null): string => (value === null ? '' : formatNumber(value, 0))
