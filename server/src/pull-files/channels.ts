import { open } from 'node:fs/promises'
import type { Channel } from '@bold-ballast/core'
import type { Knex } from 'knex'

/** A channel to be stored; its bytes are asked for when its turn comes. */
export interface ChannelBytes {
  readonly role: string
  readonly name: string
  readonly unit: string
  readonly byteLength: number
  readonly bytes: () => Buffer | Promise<Buffer>
}

/** Channels in memory, as bytes. */
export const bytesOf = (channels: readonly Channel[]): ChannelBytes[] =>
  channels.map(({ role, name, unit, values }) => ({
    role,
    name,
    unit,
    byteLength: values.byteLength,
    bytes: () => Buffer.from(values.buffer, values.byteOffset, values.byteLength),
  }))

/** Samples that lie in a file, read piece by piece. */
export async function spooledBytes(path: string): Promise<{ read: (offset: number, length: number) => Promise<Buffer>; close: () => Promise<void> }> {
  const file = await open(path, 'r')
  return {
    read: async (offset, length) => {
      const buffer = Buffer.alloc(length)
      await file.read(buffer, 0, length, offset)
      return buffer
    },
    close: () => file.close(),
  }
}

/** So many bytes of samples go into one statement at most. */
const MOST_BYTES = 4_000_000

/** Stores the channels of pulls as typed arrays, in their order; some pulls a statement. */
export async function insertSamples(
  trx: Knex,
  buildId: string,
  pulls: readonly { readonly pullId: string; readonly channels: readonly ChannelBytes[] }[],
): Promise<void> {
  let rows: object[] = []
  let waiting = 0
  const flush = async () => {
    if (rows.length > 0) await trx('pull_channels').insert(rows)
    rows = []
    waiting = 0
  }
  for (const { pullId, channels } of pulls) {
    for (const [position, { role, name, unit, byteLength, bytes }] of channels.entries()) {
      if (waiting > 0 && waiting + byteLength > MOST_BYTES) await flush()
      rows.push({ buildId, pullId, position, role, name, unit, samples: await bytes() })
      waiting += byteLength
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
