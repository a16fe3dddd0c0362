import type { z } from '../zod.ts'

/** A record of any kind, where its fields are looked at by name. */
export type Row = Readonly<Record<string, unknown>>
type Fields = Readonly<Record<string, z.ZodType>>

/**
 * What becomes of a record when the one it names is deleted: it is deleted too and comes back with it; it stays, is shown as broken and counts nowhere;
 * the deletion is refused with this sentence; or the field becomes null.
 */
export type WhenGone = 'goesWith' | 'broken' | 'forgets' | { readonly keepsIt: string }

/** A field that names another record of the same build. */
export interface Reference {
  /** The list of the record it names, or the lists among which it is. */
  readonly to: string | readonly string[]
  readonly whenGone: WhenGone
  /** What a person is told who names none of them; a usual sentence where it is left out. */
  readonly sentence?: string
}

/** What rules are handed: the live records of the one build, the record as it was, and the time of the write. */
export interface RuleContext {
  readonly live: (list: string, where: Row) => Promise<readonly Row[]>
  readonly now: string
}

/** A rule that looks at more than one field: answers the record, completed where something follows from the rest, or refuses it. */
export type RecordRule = (next: Row, context: RuleContext & { readonly before: Row | undefined }) => Row | Promise<Row>

/** A record that a rule forbids, with the field and a sentence that says the cure. */
export class RecordRefusal extends Error {
  readonly field: string
  constructor(field: string, message: string) {
    super(message)
    this.field = field
  }
}

/** Why a record cannot be deleted now; null where it can. */
export type NeverGoes = (record: Row, context: RuleContext) => string | null | Promise<string | null>

interface Definition<List extends string, F extends Fields, Batchable extends boolean> {
  /** Its list in a build's records; its address and its table follow. */
  readonly list: List
  /** One of them, with its article: "a ledger line". */
  readonly word: string
  /** One of them in short, as a reference to it is called; the word without its article where it is left out. */
  readonly noun?: string
  readonly fields: F
  readonly refs?: { readonly [Field in keyof F & string]?: Reference }
  /** At most one live record for each value of these fields; texts count as equal whatever their case. */
  readonly onePer?: readonly (keyof F & string)[]
  /** The field that names it; its id where there is none. */
  readonly nameFrom?: readonly (keyof F & string)[]
  /** Whether many may be written at once as one entry of the log. */
  readonly isBatchable?: Batchable
  readonly rules?: readonly RecordRule[]
  /** Why this record cannot be deleted; null where it can. */
  readonly neverGoes?: NeverGoes
  /** How many of them a build file holds at the most. */
  readonly mostInFile?: number
}

/** "balanceSteps" as "balance-steps" or "balance_steps". */
type Joined<Text extends string, By extends string> = Text extends `${infer Head}${infer Tail}`
  ? `${Head extends Lowercase<Head> ? Head : `${By}${Lowercase<Head>}`}${Joined<Tail, By>}`
  : Text

/**
 * The list whose records stand under an address: "balance-steps" is of "balanceSteps".
 * @example listOfAddress('balance-steps') // 'balanceSteps'
 */
export const listOfAddress = (address: string): string => address.replace(/-(.)/g, (_, letter: string) => letter.toUpperCase())

const joined = (text: string, by: string) => text.replace(/[A-Z]/g, (letter) => by + letter.toLowerCase())

export interface RecordKind<List extends string = string, F extends Fields = Fields, Batchable extends boolean = boolean> {
  readonly list: List
  readonly address: Joined<List, '-'>
  readonly table: Joined<List, '_'>
  readonly word: string
  readonly noun: string
  readonly fields: F
  readonly refs: readonly (Reference & { readonly field: string; readonly isOptional: boolean })[]
  readonly onePer: readonly string[]
  readonly nameFrom: readonly string[]
  readonly isBatchable: Batchable
  readonly rules: readonly RecordRule[]
  readonly neverGoes: NeverGoes
  readonly mostInFile: number
}

/**
 * Declares a kind of record of a build, once: schemas, address, table, types, references, the build file, batches, names and words follow from it.
 * It is listed in `kinds.ts`; beside it stand its migration and its screen.
 */
export function defineRecord<const List extends string, F extends Fields, const Batchable extends boolean = false>(
  definition: Definition<List, F, Batchable>,
): RecordKind<List, F, Batchable> {
  const { list, word, noun, fields, refs = {}, onePer = [], nameFrom = [], isBatchable, rules = [], neverGoes = () => null, mostInFile = 20_000 } = definition
  return {
    list,
    address: joined(list, '-') as Joined<List, '-'>,
    table: joined(list, '_') as Joined<List, '_'>,
    word,
    noun: noun ?? word.replace(/^(an?|the) /, ''),
    fields,
    refs: Object.entries<Reference | undefined>(refs).flatMap(([field, reference]) =>
      reference ? [{ ...reference, field, isOptional: fields[field]?.safeParse(null).success === true }] : [],
    ),
    onePer,
    nameFrom,
    isBatchable: (isBatchable ?? false) as Batchable,
    rules,
    neverGoes,
    mostInFile,
  }
}

/** A record of a kind, as calculations take it. */
export type RecordOfKind<Kind extends { readonly fields: Fields }> = z.output<z.ZodObject<Kind['fields']>>

/**
 * The lists among which a reference names its record.
 * @example listsOf({ to: 'stages', whenGone: 'broken' }) // ['stages']
 */
export const listsOf = ({ to }: Reference): readonly string[] => (typeof to === 'string' ? [to] : to)
