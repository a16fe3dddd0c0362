import type { Channel } from '@bold-ballast/core'
import type { Knex } from 'knex'

const sampleRows = (buildId: string, pullId: string, channels: readonly Channel[]) =>
  channels.map(({ role, name, unit, values }, position) => ({
    buildId,
    pullId,
    position,
    role,
    name,
    unit,
    samples: Buffer.from(values.buffer, values.byteOffset, values.byteLength),
  }))

/** So many bytes of samples go into one statement at most. */
const MOST_BYTES = 4_000_000

/** Stores the channels of pulls as typed arrays, in their order; some pulls a statement. */
export async function insertSamples(
  trx: Knex,
  buildId: string,
  pulls: readonly { readonly pullId: string; readonly channels: readonly Channel[] }[],
): Promise<void> {
  let rows: ReturnType<typeof sampleRows> = []
  let bytes = 0
  const flush = async () => {
    if (rows.length > 0) await trx('pull_channels').insert(rows)
    rows = []
    bytes = 0
  }
  for (const { pullId, channels } of pulls) {
    for (const row of sampleRows(buildId, pullId, channels)) {
      if (bytes > 0 && bytes + row.samples.length > MOST_BYTES) await flush()
      rows.push(row)
      bytes += row.samples.length
    }
  }
  await flush()
}

/** The channels of a pull as they were imported; none where its curve was typed. */
export async function storedChannels(knex: Knex, buildId: string, pullId: string): Promise<Channel[]> {
  const rows = (await knex('pull_channels').where({ buildId, pullId }).orderBy('position')) as (Omit<Channel, 'values'> & { samples: Buffer })[]
  // Copied, because a driver's buffer need not start on a number's boundary.
  return rows.map(({ role, name, unit, samples }) => ({ role, name, unit, values: new Float64Array(new Uint8Array(samples).buffer) }))
}
