import { randomBytes, randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, it, test } from 'vitest'
import { grantTo } from '../server/src/database/grants.ts'
import { bringUp } from '../server/src/database/migrate.ts'
import { openDatabase } from '../server/src/database/open.ts'
import { joinAs, makeOwner, PASSWORD, type Signed } from '../server/test/people.ts'
import { buildBody, changeBody, startTestServer, type TestServer } from '../server/test/test-server.ts'
import { type Cluster, startCluster } from './cluster.ts'

const ROLE = 'serving-role'
let cluster: Cluster
let server: TestServer
let owner: Signed & { garageId: string }
beforeAll(async () => {
  cluster = await startCluster()
  const password = randomBytes(12).toString('hex')
  cluster.psql(`CREATE ROLE "${ROLE}" LOGIN PASSWORD '${password}'`)
  const tables = openDatabase(cluster.url)
  await bringUp({ knex: tables, databaseUrl: cluster.url })
  await grantTo(tables, ROLE)
  await tables.destroy()
  const url = new URL(cluster.url)
  url.username = ROLE
  url.password = password
  server = await startTestServer({ databaseUrl: url.href })
})
afterAll(async () => {
  await server?.stop()
  await cluster?.stop()
})

it('a role that may only serve passes every kind of write, undo, batch, file, sign-in, membership and claim', async () => {
  const { id, ...rest } = buildBody()
  expect((await server.call('POST', '/api/builds', { id, ...rest }, { 'x-person': 'Maro' })).status).toBe(201)
  owner = await makeOwner(server)
  const path = `/api/builds/${id}`
  const call = (method: string, address: string, body?: unknown) => owner.browser.call(method, address, body)
  const stageId = randomUUID()
  expect((await call('POST', `${path}/stages`, { id: stageId, position: 1, name: 'Strip' })).status).toBe(201)
  const change = await call('POST', `${path}/changes`, changeBody(stageId))
  expect(change.status, change.text).toBe(201)
  expect((await call('PATCH', `${path}/changes/${change.body.id}`, { version: 1, name: 'rear bench' })).status).toBe(200)
  expect((await call('DELETE', `${path}/changes/${change.body.id}`, { version: 2 })).status).toBe(200)
  const { entries } = (await call('GET', `${path}/log`)).body
  expect((await call('POST', `${path}/log/${entries[0].id}/undo`, {})).status).toBe(200)
  const writes = [{ kind: 'create', resource: 'zones', body: { id: randomUUID(), name: 'nose' } }]
  const batch = await call('POST', `${path}/batches`, { batchId: randomUUID(), writes })
  expect(batch.status, batch.text).toBeLessThan(300)
  const file = await call('GET', `${path}/file`)
  expect(file.status).toBe(200)
  const tomas = await joinAs(server, owner, 'Tomas', { role: 'crew' })
  const people = (await call('GET', `/api/garages/${owner.garageId}/people`)).body as { id: string; memberships: { membershipId: string }[] }[]
  const membershipId = people.find((person) => person.id === tomas.id)?.memberships[0]?.membershipId
  expect((await call('DELETE', `/api/garages/${owner.garageId}/memberships/${membershipId}`, {})).status).toBe(200)
  const claimed = await call('POST', `/api/garages/${owner.garageId}/claims`, { name: 'Maro', personId: tomas.id })
  expect(claimed.status, claimed.text).toBe(201)
  const { claim } = claimed.body.find(({ name }: { name: string }) => name === 'Maro')
  expect((await call('DELETE', `/api/garages/${owner.garageId}/claims/${claim.id}`, {})).status).toBe(200)
  expect((await call('POST', '/api/sign-in', { login: 'ilse', password: PASSWORD })).status).toBe(200)
  expect((await call('POST', '/api/sign-out', {})).status).toBe(200)
})

test.each([
  ['alters a line of the log', `UPDATE history SET "by" = 'somebody'`],
  ['removes a line of the log', 'DELETE FROM history'],
  ['alters a line of the audit', `UPDATE audit SET subject = 'nothing'`],
  ['removes a line of the audit', 'DELETE FROM audit'],
  ['empties the log', 'TRUNCATE history'],
  ['removes a record', 'DELETE FROM changes'],
  ['removes a person', 'DELETE FROM people'],
  ['changes a table', 'ALTER TABLE history ADD COLUMN x int'],
  ['drops a table', 'DROP TABLE audit'],
  ['marks a migration as made', `INSERT INTO migrations (name, batch) VALUES ('0099-x', 1)`],
])('it never %s', async (_, sql) => {
  await expect(server.knex.raw(sql)).rejects.toMatchObject({ code: '42501' })
})

it('it is told who upgrades, where an upgrade waits', async () => {
  cluster.psql('DELETE FROM migrations WHERE id = (SELECT max(id) FROM migrations)', cluster.database)
  await expect(bringUp({ knex: server.knex, databaseUrl: cluster.url })).rejects.toThrow(
    /waits for an upgrade, and this role may not change its tables\. Run npm run migrate/,
  )
})

it.each(['no"body', 'nobody_here'])('grants nothing to %s', async (name) => {
  await expect(grantTo(server.knex, name)).rejects.toThrow(/no name of a role|has no role named/)
})
