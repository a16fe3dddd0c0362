/** As much of a rule as tells two books apart. */
export interface ComparedRule {
  readonly key: string
  readonly sense: 'atMost' | 'atLeast' | 'between' | 'must' | 'mustNot'
  readonly value: number | null
  readonly highValue: number | null
  readonly blocks: readonly string[]
}

export type RuleChange = 'freed' | 'gone' | 'new' | 'tighter' | 'looser' | 'same' | 'other'

export interface BookChange {
  readonly rules: readonly { readonly key: string; readonly change: RuleChange }[]
  /** What the first book forbids and the next does not, and the other way about. */
  readonly freed: readonly string[]
  readonly lost: readonly string[]
}

/** How much a rule leaves, where both are of one sense: more is looser. */
function leaves({ sense, value, highValue }: ComparedRule): number | null {
  if (value === null) return null
  if (sense === 'atMost') return value
  if (sense === 'atLeast') return -value
  return sense === 'between' && highValue !== null ? highValue - value : null
}

function changeOf(before: ComparedRule | undefined, after: ComparedRule | undefined): RuleChange {
  if (!after) return before?.sense === 'mustNot' ? 'freed' : 'gone'
  if (!before) return 'new'
  if (before.sense !== after.sense) return 'other'
  const [was, is] = [leaves(before), leaves(after)]
  if (was === null || is === null)
    return before.blocks.length === after.blocks.length && before.blocks.every((id) => after.blocks.includes(id)) ? 'same' : 'other'
  if (before.sense === 'between' && was === is && before.value !== after.value) return 'other'
  return is > was ? 'looser' : is < was ? 'tighter' : 'same'
}

/**
 * Two rule books beside each other, rule by rule by their keys: what is freed (a ban that goes), gone, new, tighter, looser, the same, or put in other words;
 * and which lines and parts become free or are lost. Swapped, freed and lost change places.
 * @example compareBooks([], [{ key: 'mass', sense: 'atLeast', value: 600, highValue: null, blocks: [] }]).rules[0].change // 'new'
 */
export function compareBooks(from: readonly ComparedRule[], to: readonly ComparedRule[]): BookChange {
  const find = (rules: readonly ComparedRule[], key: string) => rules.find((rule) => rule.key.toLowerCase() === key.toLowerCase())
  const keys = [...from.map(({ key }) => key), ...to.filter(({ key }) => !find(from, key)).map(({ key }) => key)]
  const blocked = (rules: readonly ComparedRule[]) => new Set(rules.flatMap(({ blocks }) => blocks))
  const [before, after] = [blocked(from), blocked(to)]
  return {
    rules: keys.map((key) => ({ key, change: changeOf(find(from, key), find(to, key)) })),
    freed: [...before].filter((id) => !after.has(id)),
    lost: [...after].filter((id) => !before.has(id)),
  }
}
