import { existsSync } from 'node:fs'
import { CURVE_VERSION } from '@bold-ballast/core'
import type { Knex } from 'knex'
import { requireSafeDatabase } from '../database/address.ts'
import { alone, bringUp } from '../database/migrate.ts'
import { openDatabase } from '../database/open.ts'
import { loadCrewOnce } from '../demo/load-crew.ts'
import { isDemoLoaded, loadDemoOnce } from '../demo/load-demo.ts'
import { rebuildOldCurves } from '../pull-files/rebuild-curves.ts'
import { forgetOldAudit } from '../sign-in/audit.ts'

export interface PrepareOptions {
  readonly databaseUrl: string
  /** Of the role that may change tables, where the serving one may not. */
  readonly databaseOwnerUrl?: string | undefined
  readonly demoRoot?: string | undefined
  /** Whether four people have worked on the demo for a week. */
  readonly withCrew?: boolean | undefined
  /** Done before tables that hold builds are changed. */
  readonly beforeMigration?: (() => Promise<void>) | undefined
}

const DAY_MS = 86_400_000

/** Migrates with the role that owns the tables; answers what was made. */
export async function migrateDatabase({ databaseUrl, databaseOwnerUrl, beforeMigration }: PrepareOptions, after?: (owner: Knex) => Promise<void>) {
  requireSafeDatabase(databaseUrl)
  const ownerUrl = databaseOwnerUrl === undefined ? databaseUrl : requireSafeDatabase(databaseOwnerUrl, 'DATABASE_OWNER_URL')
  const owner = openDatabase(ownerUrl)
  try {
    const made = await bringUp({ knex: owner, databaseUrl: ownerUrl, before: beforeMigration })
    await forgetOldAudit(owner)
    await after?.(owner)
    return made
  } finally {
    await owner.destroy()
  }
}

/** Loads what the first start loads; answers what the crew of the demo signs in with. Of several servers that start at once one does it. */
export async function loadOnce(knex: Knex, { databaseUrl, demoRoot, withCrew }: PrepareOptions): Promise<ReadonlyMap<string, string> | null> {
  const hasDemo = demoRoot !== undefined && existsSync(demoRoot)
  const wantsDemo = hasDemo && !(await isDemoLoaded(knex))
  const wantsCrew = withCrew === true && !(await knex('people').first('id'))
  const hasOldCurves = (await knex('pulls').where('curveVersion', '<', CURVE_VERSION).first('id')) !== undefined
  if (!wantsDemo && !wantsCrew && !hasOldCurves) return null
  return alone(databaseUrl, async () => {
    await rebuildOldCurves(knex)
    const weekAgo = Math.floor(Date.now() / DAY_MS - 7) * DAY_MS
    if (hasDemo) await loadDemoOnce(knex, demoRoot, withCrew ? weekAgo - DAY_MS : undefined)
    return withCrew ? loadCrewOnce(knex, weekAgo) : null
  })
}
