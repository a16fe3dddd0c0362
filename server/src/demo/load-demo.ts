import { randomUUID } from 'node:crypto'
import { readdirSync } from 'node:fs'
import path from 'node:path'
import type { Knex } from 'knex'
import { BuildFileService } from '../build-files/service.ts'
import { folderSource } from '../build-files/source.ts'
import { OPEN_ACCESS } from '../http/access.ts'

export const isDemoLoaded = async (knex: Knex): Promise<boolean> => (await knex('settings').where({ key: 'demo-loaded' }).first('key')) !== undefined

/** Imports every folder of the demo as a build, the first time a database is used; a deleted demo does not come back. */
export async function loadDemoOnce(knex: Knex, demoRoot: string, start = Date.now()): Promise<void> {
  if (await isDemoLoaded(knex)) return
  const service = new BuildFileService(knex)
  const folders = readdirSync(demoRoot, { withFileTypes: true }).filter((entry) => entry.isDirectory())
  for (const [i, folder] of folders.entries()) {
    const actor = { person: 'demo', access: OPEN_ACCESS, now: new Date(start + i * 60_000).toISOString() }
    await service.take(actor, folderSource(path.join(demoRoot, folder.name)), { mode: 'import', as: 'new', importId: randomUUID(), missing: 'keep' })
  }
  await knex('settings').insert({ key: 'demo-loaded', value: new Date().toISOString() })
}
