import { CalculationError } from '../errors.ts'

/** A part as far as having it off goes. */
export interface TakeOffPart {
  readonly id: string
  readonly name: string
  readonly takeOff?:
    | {
        /** Off and on again; null: nobody said. */
        readonly minutes: number | null
        readonly people: number
        readonly behindIds: readonly string[]
        readonly tools: string | null
        readonly fixings: string | null
      }
    | null
    | undefined
}

export interface TakeOffPlan {
  /** What comes off, the first first and the part itself last; it goes on again the other way round. */
  readonly steps: readonly TakeOffPart[]
  /** Off and on again, of all whose time somebody said. */
  readonly minutes: number
  /** The most hands that one of them takes. */
  readonly people: number
  /** Names of those of which nobody said how long they take: the time is at least that. */
  readonly unknown: readonly string[]
  readonly tools: readonly string[]
  /** What is used up and has to be there. */
  readonly fixings: readonly string[]
}

/** Texts as they were typed, split at commas, each once whatever its case. */
function textsOf(texts: readonly (string | null | undefined)[]): string[] {
  const all = new Map<string, string>()
  for (const text of texts.flatMap((each) => each?.split(/\s*[,;]\s*/) ?? [])) if (text !== '') all.set(text.toLowerCase(), all.get(text.toLowerCase()) ?? text)
  return [...all.values()]
}

/**
 * What has to come off before a part, in an order that works, and what all of it takes. A part that stands behind two is taken once; one that is not there any more is
 * done without. Rejects parts that stand behind each other, by names, and a part that is not in the list.
 * @example takeOffPlan([{ id: 'w', name: 'wing', takeOff: { minutes: 8, people: 2, behindIds: [], tools: null, fixings: null } }], 'w').minutes // 8
 */
export function takeOffPlan(parts: readonly TakeOffPart[], partId: string): TakeOffPlan {
  const byId = new Map(parts.map((part) => [part.id, part]))
  const wanted = byId.get(partId)
  if (!wanted) throw new CalculationError('unknown', 'partId', 'This part is not in the build. Pick one of its parts.')
  const steps: TakeOffPart[] = []
  const way: TakeOffPart[] = []
  const take = (part: TakeOffPart): void => {
    if (steps.includes(part)) return
    if (way.includes(part)) throw ringOf(way.slice(way.indexOf(part)))
    way.push(part)
    for (const id of part.takeOff?.behindIds ?? []) {
      const before = byId.get(id)
      if (before) take(before)
    }
    way.pop()
    steps.push(part)
  }
  take(wanted)
  const minutesOf = ({ takeOff }: TakeOffPart) => takeOff?.minutes ?? null
  return {
    steps,
    minutes: steps.reduce((sum, step) => sum + (minutesOf(step) ?? 0), 0),
    people: Math.max(1, ...steps.map(({ takeOff }) => takeOff?.people ?? 1)),
    unknown: steps.filter((step) => minutesOf(step) === null).map(({ name }) => name),
    tools: textsOf(steps.map(({ takeOff }) => takeOff?.tools)),
    fixings: textsOf(steps.map(({ takeOff }) => takeOff?.fixings)),
  }
}

function ringOf(ring: readonly TakeOffPart[]): CalculationError {
  const names = ring.map(({ name }) => name)
  const words = names.length === 1 ? `${names[0]} stands behind itself` : `${names.slice(0, -1).join(', ')} and ${names.at(-1)} stand behind each other`
  return new CalculationError('inconsistent', 'behindIds', `${words}. Take one out.`)
}
