import { readdir, rm } from 'node:fs/promises'
import path from 'node:path'
import { readByteRows } from './bytes.ts'
import { BYTES_FOLDER, ROWS } from './manifest.ts'
import { takenAtOf, wholeCopies } from './take.ts'

const DAY_MS = 86_400_000
/** Every copy is kept for so many days; of so many of the last weeks and months with a copy, the latest. */
const KEPT = { days: 7, weeks: 4, months: 12 }

const dayOf = (at: Date) => at.toISOString().slice(0, 10)
/** Monday of a week. */
const weekOf = (at: Date) => dayOf(new Date(at.getTime() - ((at.getUTCDay() + 6) % 7) * DAY_MS))
const monthOf = (at: Date) => at.toISOString().slice(0, 7)

/** The latest copy of each of the last periods that have one. */
function latestOf(names: readonly string[], periodOf: (at: Date) => string, count: number): string[] {
  const latest = new Map<string, string>()
  for (const name of names) latest.set(periodOf(takenAtOf(name)), name)
  return [...latest.keys()]
    .sort()
    .slice(-count)
    .map((period) => latest.get(period) as string)
}

/**
 * Which copies go: what is more than 7 days older than the newest, and the latest neither of one of 4 weeks nor of 12 months.
 * @param names as folders are named, in any order
 */
export function copiesToLetGo(names: readonly string[]): string[] {
  const sorted = [...names].sort()
  const newest = takenAtOf(sorted.at(-1) ?? '').getTime()
  const isYoung = (name: string) => newest - takenAtOf(name).getTime() <= KEPT.days * DAY_MS
  const kept = new Set([...latestOf(sorted, weekOf, KEPT.weeks), ...latestOf(sorted, monthOf, KEPT.months)])
  return sorted.filter((name) => !isYoung(name) && !kept.has(name))
}

/** Lets copies go that are kept no longer, and bytes that no copy needs; called once a new copy is whole. Answers the folders that went. */
export async function rotate(copiesDir: string): Promise<string[]> {
  const gone = copiesToLetGo(await wholeCopies(copiesDir)).map((name) => path.join(copiesDir, name))
  for (const folder of gone) await rm(folder, { recursive: true })
  const needed = new Set<string>()
  for (const name of await wholeCopies(copiesDir)) for await (const { sha256 } of readByteRows(path.join(copiesDir, name, ROWS))) needed.add(sha256)
  const bytes = path.join(copiesDir, BYTES_FOLDER)
  for (const name of await readdir(bytes)) if (!needed.has(name)) await rm(path.join(bytes, name))
  return gone
}
