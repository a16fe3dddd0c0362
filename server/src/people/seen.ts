import type { SeenAnswer } from '@bold-ballast/contract'
import type { Knex } from 'knex'

/** Where a person left a build; null: he never said that he had seen it. */
export async function seenOf(knex: Knex, buildId: string, personId: string): Promise<SeenAnswer> {
  const found = (await knex('seen').where({ buildId, personId }).first('entryId', 'at')) as { entryId: number; at: string } | undefined
  return { seen: found ?? null }
}

export async function markSeen(knex: Knex, buildId: string, personId: string, entryId: number): Promise<SeenAnswer> {
  await knex('seen').insert({ buildId, personId, entryId }).onConflict(['build_id', 'person_id']).merge({ entryId, at: knex.fn.now() })
  return seenOf(knex, buildId, personId)
}
