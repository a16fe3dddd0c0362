import type { StoredRecords } from '@bold-ballast/contract'
import type { GuessFigures } from '@bold-ballast/core'

const SIDE_WORDS = { off: 'what comes off', on: 'what goes on' } as const
const percent = (factor: number) => `${Math.abs((factor - 1) * 100).toFixed(1)} %`
const moved = (factor: number) => (Math.abs(factor - 1) < 0.0005 ? 'left as they are' : `${factor > 1 ? 'raised' : 'lowered'} by ${percent(factor)}`)

/** How guesses of each side are corrected: the one figure that every number with a guess in it uses. */
export function guessSentence(guesses: GuessFigures, fromGarage = false): string {
  const side = (name: keyof GuessFigures) => {
    const { factor, isDefault, pairCount, ownPairCount } = guesses[name]
    const own = fromGarage ? `, ${ownPairCount} of this build` : ''
    const how = isDefault ? `a stated default until 5 pairs of guess and weighing are there, now ${pairCount}` : `by ${pairCount} pairs${own}`
    return `${SIDE_WORDS[name]}: ${moved(factor)} (${how})`
  }
  return `Guesses of ${side('off')}; of ${side('on')}.`
}

const BACK = 'back:'

/** The part that carries doubt, by its line; what may come back of it is told as such. */
export function doubtName(records: Pick<StoredRecords, 'changes'>, id: string): string {
  const isBack = id.startsWith(BACK)
  const name = records.changes.find((change) => change.id === (isBack ? id.slice(BACK.length) : id))?.name ?? ''
  return isBack ? `what comes back of ${name}` : name
}
