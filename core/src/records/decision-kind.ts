import { z } from '../zod.ts'
import { day, id, name, note } from './common-fields.ts'
import { defineRecord, type RecordOfKind, RecordRefusal, type RecordRule } from './define-record.ts'

/** Where a number of an option comes from: its parts, lines and jobs, or whoever typed it. */
export const CRITERION_SOURCES = ['cost', 'mass', 'hours', 'arrival', 'frontShare', 'height', 'typed'] as const
export type CriterionSource = (typeof CRITERION_SOURCES)[number]

const key = z.string().trim().min(1).max(60)

const namesStand: RecordRule = (next) => {
  const [criteria, options] = [next.criteria, next.options] as unknown as [
    readonly { name: string }[],
    readonly { name: string; values: readonly { of: string }[] }[],
  ]
  const once = (list: readonly { name: string }[], field: string) => {
    const seen = new Set<string>()
    for (const [i, { name: word }] of list.entries()) {
      if (seen.has(word.toLowerCase())) throw new RecordRefusal(`${field}.${i}.name`, `Two are called ${word}. Give one another name.`)
      seen.add(word.toLowerCase())
    }
  }
  once(criteria, 'criteria')
  once(options, 'options')
  if (next.chosen && !options.some(({ name: word }) => word === next.chosen))
    throw new RecordRefusal('chosen', 'What was chosen is none of the options. Pick one of them, or none yet.')
  return next
}

/** A question that is weighed, with what was chosen and why. */
export const decisionKind = defineRecord({
  list: 'decisions',
  word: 'a decision',
  isBatchable: true,
  nameFrom: ['question'],
  refs: { stageId: { to: 'stages', whenGone: { keepsIt: 'This stage has decisions. Move or delete them first.' } } },
  rules: [namesStand],
  mostInFile: 500,
  fields: {
    id,
    question: z.string().trim().min(1).max(200),
    stageId: id,
    dueOn: day.nullable().default(null),
    criteria: z
      .array(
        z.strictObject({
          name: key,
          from: z.enum(CRITERION_SOURCES).default('typed'),
          better: z.enum(['less', 'more']).default('less'),
          /** What one unit of it is worth, in the build's money; null: it is shown and not priced. */
          price: z.number().nonnegative().max(1e8).nullable().default(null),
          /** The most it may be, or the least where more is better; null: none. */
          must: z.number().min(-1e9).max(1e9).nullable().default(null),
        }),
      )
      .max(20)
      .default([]),
    options: z
      .array(
        z.strictObject({
          name,
          partIds: z.array(id).max(50).default([]),
          changeIds: z.array(id).max(100).default([]),
          /** Typed numbers, by the name of the criterion; they stand before those of parts and lines. */
          values: z
            .array(z.strictObject({ of: key, value: z.number().min(-1e9).max(1e9), sd: z.number().nonnegative().max(1e9).nullable().default(null) }))
            .max(20)
            .default([]),
          pros: note,
          cons: note,
        }),
      )
      .max(20)
      .default([]),
    /** The name of the option. */
    chosen: name.nullable().default(null),
    reason: z.string().trim().max(2000).nullable().default(null),
    decidedOn: day.nullable().default(null),
    /** What would open it again, or when. */
    revisit: z.string().trim().max(300).nullable().default(null),
  },
})
export type Decision = RecordOfKind<typeof decisionKind>
