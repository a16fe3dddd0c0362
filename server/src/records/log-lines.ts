import { KINDS, type LiveLists, type MovedLine, putBack } from '@bold-ballast/core'
import type { Knex } from 'knex'
import { AppError } from '../http/problem.ts'
import { claimedNames } from './claimed-names.ts'
import { type HistoryRow, pairsOf } from './log-pairs.ts'

/** As far as a build is looked back over; further back is a look at the log itself. */
const MOST_LINES = 5000

/** What a build was called that was made, or came out of a file. */
const madeName = (after: unknown): string => {
  const { name, report } = (after ?? {}) as { name?: string; report?: { name?: string } }
  return name ?? report?.name ?? ''
}

/** A line with every record it changed; of a build that came whole out of a file, that it was not there before. */
function movedLine(row: HistoryRow, nameOf: (by: string) => string): MovedLine {
  const isBuildMade = row.resource === 'builds' && row.before === null
  const pairs = isBuildMade ? [{ resource: 'builds', before: null, after: { id: row.recordId, name: madeName(row.after) } }] : pairsOf(row)
  return { id: row.id, at: new Date(row.at).toISOString(), by: nameOf(row.by), undoes: row.undoes, pairs }
}

/** Lines of a build's log behind one of them, oldest first, up to and with another. Refuses more of them than are looked back over. */
export async function linesBehind(db: Knex, buildId: string, from: number, upTo: number): Promise<MovedLine[]> {
  const rows = (await db('history')
    .where({ buildId })
    .where('id', '>', from)
    .where('id', '<=', upTo)
    .orderBy('id')
    .limit(MOST_LINES + 1)) as HistoryRow[]
  if (rows.length > MOST_LINES) throw new AppError('bad-input', `More than ${MOST_LINES} lines were written since. Pick a later start.`)
  const nameOf = await claimedNames(db, buildId)
  return rows.map((row) => movedLine(row, nameOf))
}

/** The live records of a build as they stood behind a line of its log, out of what stands now. */
export async function listsAt(db: Knex, buildId: string, now: { readonly revision: number; readonly stored: unknown }, entryId: number): Promise<LiveLists> {
  const isThere = await db('history').where({ buildId, id: entryId }).first('id')
  if (!isThere) throw new AppError('not-found', 'The log of this build has no such entry.')
  const lines = await linesBehind(db, buildId, entryId, now.revision)
  const lists = lines.reduceRight<LiveLists | null>((at, line) => at && putBack(at, line), now.stored as LiveLists)
  if (lists === null || !KINDS.every(({ list }) => Array.isArray(lists[list]))) throw new AppError('not-found', 'The build was not there yet.')
  return lists
}
