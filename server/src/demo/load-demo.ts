import { createReadStream, readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import { createSchema, RESOURCE_FIELDS, type ResourceName } from '@bold-ballast/contract'
import { buildFields, type z } from '@bold-ballast/core'
import type { Knex } from 'knex'
import { BuildService } from '../builds/service.ts'
import { readPullFile } from '../pull-files/read-pull-file.ts'
import { pullFields } from '../pull-files/routes.ts'
import type { Actor } from '../records/history.ts'
import { RecordService } from '../records/service.ts'

type Row = Record<string, unknown> & { id: string }

interface DemoFile {
  readonly build: Row
  readonly stages: readonly Row[]
  readonly records: Partial<Record<ResourceName, readonly Row[]>>
  /** CSV files beside this one, by session. */
  readonly pullFiles: readonly { sessionId: string; importId: string; file: string; setAside?: Record<string, string> }[]
}

/** Loads every folder of the demo, the first time a database is used; a deleted demo does not come back. */
export async function loadDemoOnce(knex: Knex, demoRoot: string): Promise<void> {
  const seen = await knex('settings').where({ key: 'demo-loaded' }).first()
  if (seen) return
  for (const folder of readdirSync(demoRoot, { withFileTypes: true })) {
    if (folder.isDirectory()) await loadDemoBuild(knex, path.join(demoRoot, folder.name))
  }
  await knex('settings').insert({ key: 'demo-loaded', value: new Date().toISOString() })
}

const parse = (schema: z.ZodType, row: unknown) => schema.parse(row) as Row

async function loadDemoBuild(knex: Knex, folder: string): Promise<void> {
  const file = JSON.parse(readFileSync(path.join(folder, 'build.json'), 'utf8')) as DemoFile
  const records = new RecordService(knex)
  const builds = new BuildService(knex, records)
  const start = Date.now()
  let written = 0
  // One millisecond apart, so that records keep the order of the file.
  const actor: Actor = {
    person: 'demo',
    get now() {
      return new Date(start + written++).toISOString()
    },
  }
  const buildId = file.build.id
  await builds.create(actor, parse(createSchema(buildFields), file.build))
  const stageZero = (await records.list('stages', buildId))[0] as Row & { version: number }
  for (const { id, ...stage } of file.stages) {
    if (stage.position === 0) await records.update(actor, 'stages', buildId, stageZero.id, { ...stage, version: stageZero.version })
    else await records.create(actor, 'stages', buildId, parse(createSchema(RESOURCE_FIELDS.stages), { id, ...stage }))
  }
  const stageIds = new Map(file.stages.map((stage) => [stage.id, stage.position === 0 ? stageZero.id : stage.id]))
  const withStage = (row: Row) => ('stageId' in row ? { ...row, stageId: stageIds.get(row.stageId as string) } : row)
  for (const resource of Object.keys(RESOURCE_FIELDS) as ResourceName[]) {
    for (const row of file.records[resource] ?? []) {
      await records.create(actor, resource, buildId, parse(createSchema(RESOURCE_FIELDS[resource]), withStage(row)))
    }
  }
  for (const { sessionId, importId, file: name, setAside = {} } of file.pullFiles) {
    const { report } = await readPullFile(createReadStream(path.join(folder, name)), {})
    const pulls = report.pulls.map((pull) => ({ fields: { ...pullFields(pull, sessionId), setAside: setAside[pull.label] ?? null }, channels: pull.channels }))
    await records.importPulls(actor, buildId, sessionId, importId, pulls)
  }
}
