import type { Channel } from '@bold-ballast/core'
import type { Knex } from 'knex'

/** Stores the channels of a pull as typed arrays, in their order. */
export async function insertSamples(trx: Knex, pullId: string, channels: readonly Channel[]): Promise<void> {
  for (const [position, { role, name, unit, values }] of channels.entries()) {
    const samples = Buffer.from(values.buffer, values.byteOffset, values.byteLength)
    await trx('pull_channels').insert({ pullId, position, role, name, unit, samples })
  }
}

/** The channels of a pull as they were imported; none where its curve was typed. */
export async function storedChannels(knex: Knex, pullId: string): Promise<Channel[]> {
  const rows = (await knex('pull_channels').where({ pullId }).orderBy('position')) as (Omit<Channel, 'values'> & { samples: Buffer })[]
  // Copied, because a driver's buffer need not start on a number's boundary.
  return rows.map(({ role, name, unit, samples }) => ({ role, name, unit, values: new Float64Array(new Uint8Array(samples).buffer) }))
}
