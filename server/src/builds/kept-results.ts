import { createHash, randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { deserialize, serialize } from 'node:v8'
import type { Knex } from 'knex'
import { workerFile } from '../workers/pool.ts'

/** How many results of one name a build keeps; the latest stay. */
const MOST_OF_A_NAME = 20

/** Which sums a result comes from: those of the built worker, or of this run where the source itself runs and may change. */
function programOf(): string {
  const { filename, isSource } = workerFile()
  return isSource ? randomUUID() : createHash('sha256').update(readFileSync(filename)).digest('base64')
}

/** What took long to work out, in a table: another server and the next start find it. Losing it costs time alone. */
export class KeptResults {
  private readonly knex: Knex
  private readonly program: string

  /** @param program names the sums: what others worked out is not taken for theirs */
  constructor(knex: Knex, program = programOf()) {
    this.knex = knex
    this.program = program
  }

  /** The name of a result in the table: the sums and all that goes into them. */
  hashOf(input: unknown): Buffer {
    return createHash('sha256').update(this.program).update(JSON.stringify(input)).digest()
  }

  /** The kept result, or the one that is worked out now and kept from then on. Rejects with what working it out rejects with. */
  async of<Result>(place: { readonly buildId: string; readonly name: string; readonly hash: Buffer }, work: () => Promise<Result>): Promise<Result> {
    const found = await this.find<Result>(place)
    if (found) return found.result
    const result = await work()
    await this.keep(place, result)
    return result
  }

  /** None where the database is away or what stands there cannot be read: it is worked out then. */
  private async find<Result>(place: { readonly buildId: string; readonly name: string; readonly hash: Buffer }): Promise<{ result: Result } | undefined> {
    try {
      const row = (await this.knex('keptResults').where(place).first('result')) as { result: Buffer } | undefined
      return row && { result: deserialize(row.result) as Result }
    } catch {
      return undefined
    }
  }

  private async keep(place: { readonly buildId: string; readonly name: string; readonly hash: Buffer }, result: unknown): Promise<void> {
    const { buildId, name } = place
    try {
      await this.knex('keptResults')
        .insert({ ...place, result: serialize(result) })
        .onConflict(['build_id', 'name', 'hash'])
        .merge()
      const newest = this.knex('keptResults').where({ buildId, name }).orderBy('keptAt', 'desc').limit(MOST_OF_A_NAME).select('hash')
      await this.knex('keptResults').where({ buildId, name }).whereNotIn('hash', newest).delete()
    } catch {
      // The result stands all the same; it is worked out again by whoever asks next.
    }
  }
}
