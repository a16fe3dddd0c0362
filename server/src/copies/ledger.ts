import type pg from 'pg'

interface Noted {
  readonly id: string
  readonly folder: string
  readonly bytes: number
  readonly entryId: number
  readonly takenAt: Date
  /** What was wrong with it; null: it was checked and is whole. */
  readonly problem: string | null
}

/** Whether the database knows of copies: that of an older program does not. */
async function isKept(client: pg.ClientBase): Promise<boolean> {
  const { rows } = await client.query(`SELECT to_regclass('public.copies') IS NOT NULL AS there`)
  return (rows[0] as { there: boolean }).there
}

export async function noteCopy(client: pg.ClientBase, { id, takenAt, folder, bytes, entryId, problem }: Noted): Promise<void> {
  if (!(await isKept(client))) return
  await client.query(
    'INSERT INTO copies (id, taken_at, path, bytes, entry_id, checked_at, problem) VALUES ($1, $2, $3, $4, $5, CASE WHEN $6::text IS NULL THEN now() END, $6)',
    [id, takenAt, folder, bytes, entryId, problem],
  )
}

/** Notes what a second look at a copy found. */
export async function noteCheck(client: pg.ClientBase, folder: string, problem: string | null): Promise<void> {
  await client.query('UPDATE copies SET checked_at = CASE WHEN $2::text IS NULL THEN now() ELSE checked_at END, problem = $2 WHERE path = $1', [
    folder,
    problem,
  ])
}

/** Notes that copies were let go. */
export async function noteGone(client: pg.ClientBase, folders: readonly string[]): Promise<void> {
  await client.query('UPDATE copies SET removed_at = now() WHERE path = ANY($1) AND removed_at IS NULL', [folders])
}

/** How large the last whole copy was; 0 where there is none. */
export async function lastBytesOf(client: pg.ClientBase): Promise<number> {
  if (!(await isKept(client))) return 0
  const { rows } = await client.query('SELECT bytes::text FROM copies WHERE problem IS NULL ORDER BY taken_at DESC LIMIT 1')
  return Number((rows[0] as { bytes: string } | undefined)?.bytes ?? 0)
}
