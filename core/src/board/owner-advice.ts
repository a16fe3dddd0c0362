import { type AdviceWords, defineAdvice, type ItemOf, type Said, type Sayings } from '../stages/define-advice.ts'

/** What the owners of a garage look after beside its builds. */
export interface GarageState {
  readonly ownerCount: number
  /** Links that let somebody in, neither used nor withdrawn. */
  readonly openInvitations: readonly { readonly id: string; readonly madeOn: string }[]
  /** The day of the latest copy that was checked; null: there is none. Left out where others keep the copies. */
  readonly copyCheckedOn?: string | null
}

/** From when on an invitation is said to be forgotten, days. */
const FORGOTTEN_DAYS = 7
/** For how long the last checked copy is fresh, days. */
const FRESH_DAYS = 8
const DAY_MS = 86_400_000
const daysSince = (day: string, today: string) => Math.round((Date.parse(today) - Date.parse(day)) / DAY_MS)

const oneOwner = defineAdvice({
  rank: 80,
  find: ({ ownerCount }: GarageState) => (ownerCount === 1 ? [{ code: 'one-owner' } as const] : []),
})

const forgottenInvitations = defineAdvice({
  rank: 81,
  find: ({ openInvitations }: GarageState, today) => {
    const forgotten = openInvitations.filter(({ madeOn }) => daysSince(madeOn, today) >= FORGOTTEN_DAYS)
    const [oldest] = forgotten.map(({ madeOn }) => madeOn).sort()
    return oldest === undefined ? [] : [{ code: 'invitation-unused', count: forgotten.length, madeOn: oldest } as const]
  },
})

const noFreshCopy = defineAdvice({
  rank: 82,
  find: ({ copyCheckedOn }: GarageState, today) =>
    copyCheckedOn === undefined || (copyCheckedOn !== null && daysSince(copyCheckedOn, today) < FRESH_DAYS)
      ? []
      : [{ code: 'no-fresh-copy', copyCheckedOn } as const],
})

const OWNER_ADVICE = [oneOwner, forgottenInvitations, noFreshCopy] as const

/** One thing that an owner of the garage does next. */
export type OwnerAction = ItemOf<typeof OWNER_ADVICE>

/**
 * What the owners of a garage do next; it comes behind what presses on a build. `today` is an ISO date.
 * @example ownerAdvice({ ownerCount: 1, openInvitations: [] }, '2026-11-30').map(({ code }) => code) // ['one-owner']
 */
export const ownerAdvice = (garage: GarageState, today: string): OwnerAction[] => OWNER_ADVICE.flatMap(({ find }) => find(garage, today) as OwnerAction[])

const SAYINGS: Sayings<OwnerAction> = {
  'one-owner': (_item, { to }) => ({
    head: 'Make a second owner',
    text: 'One owner alone: a forgotten password or a lost laptop leaves nobody to let others in.',
    to: to('crew', 'tab=people'),
  }),
  'invitation-unused': ({ count, madeOn }, { to, day }) => ({
    head: count === 1 ? 'An invitation waits unused' : `${count} invitations wait unused`,
    text: `Made ${day(madeOn)}. Send it again, or withdraw it.`,
    to: to('crew', 'tab=people'),
  }),
  'no-fresh-copy': ({ copyCheckedOn }, { day }) => ({
    head: 'Take a copy of everything',
    text: copyCheckedOn === null ? 'No copy was taken and checked yet.' : `The last checked copy is of ${day(copyCheckedOn)}.`,
    to: '/copies',
  }),
}

/**
 * One thing that an owner does next, in the words of a page.
 * @example sayOwnerAction({ code: 'one-owner' }, { to: (room, query) => `/${room}?${query}` }).to // '/crew?tab=people'
 */
export const sayOwnerAction = (action: OwnerAction, words: AdviceWords): Said =>
  (SAYINGS[action.code] as (item: OwnerAction, words: AdviceWords) => Said)(action, words)
