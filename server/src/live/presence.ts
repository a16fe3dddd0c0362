import type { HereEntry, hereSchema } from '@bold-ballast/contract'
import type { z } from '@bold-ballast/core'
import type { Knex } from 'knex'
import { tell } from '../access/notify.ts'

const GONE_S = 60

/** Says that a person looks at a room of a build, on one page of a browser. */
export async function beat(knex: Knex, buildId: string, personId: string, { page, room, recordId }: z.output<typeof hereSchema>): Promise<void> {
  const row = { buildId, page, personId, room, recordId: recordId ?? null }
  await knex('presence').insert(row).onConflict(['build_id', 'page']).merge({ personId, room, recordId: row.recordId, at: knex.fn.now() })
  await tell(knex, { b: buildId, here: true })
}

/** Who looks at a build: each once, where he was heard from last. */
export async function hereNow(knex: Knex, buildId: string): Promise<HereEntry[]> {
  const rows = (await knex('presence')
    .join('people', 'people.id', 'presence.personId')
    .where({ buildId })
    .whereRaw(`presence.at > now() - interval '${GONE_S} seconds'`)
    .orderBy('presence.at', 'desc')
    .select('personId', 'people.name', 'room', 'recordId')) as HereEntry[]
  return rows.filter(({ personId }, i) => rows.findIndex((other) => other.personId === personId) === i)
}

/** Takes away what nobody is at any more. */
export const forgetGone = (knex: Knex): Promise<number> => knex('presence').whereRaw(`at < now() - interval '${GONE_S} seconds'`).delete()
