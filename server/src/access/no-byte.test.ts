import { randomUUID } from 'node:crypto'
import type { BuildFile } from '@bold-ballast/contract'
import fc from 'fast-check'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { makeOwner, otherGarage, type Signed, type TestBrowser } from '../../test/people.ts'
import { anyBuildFile } from '../../test/random-records.ts'
import { buildBody, startTestServer, type TestServer } from '../../test/test-server.ts'
import { ROUTES } from './route-table.ts'

let server: TestServer
let owner: Signed & { garageId: string }
let stranger: TestBrowser
let ownBuild = ''
beforeAll(async () => {
  server = await startTestServer()
  owner = await makeOwner(server)
  stranger = (await otherGarage(server, 'Petra')).browser
  ownBuild = buildBody().id
  expect((await stranger.call('POST', '/api/builds', buildBody(ownBuild))).status).toBe(201)
})
afterAll(() => server.stop())

const UUID = /[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g
const READS = ROUTES.filter(({ method, path }) => method === 'GET' && path !== '/live' && !path.startsWith('/devices'))

/** Every address that reads, asked with ids of a build of another garage in all the ways they can stand in it. */
function addressesFor(file: BuildFile, ids: readonly string[]): string[] {
  const strange = ids[ids.length >> 1] as string
  return READS.flatMap(({ path }) => {
    const of = (buildId: string) => path.replace(':buildId', buildId).replace(':garageId', owner.garageId).replaceAll(/:\w+/g, strange)
    return path.includes(':buildId') ? [of(file.build.id), of(ownBuild)] : [of(ownBuild)]
  })
}

it('no answer to a stranger holds a byte of a build that he may not see, whatever stands in it and however he asks', async () => {
  await fc.assert(
    fc.asyncProperty(anyBuildFile(), async (drawn) => {
      const name = `hidden ${randomUUID()}`
      const file = { ...drawn, build: { ...drawn.build, name } }
      const made = await owner.browser.call('POST', `/api/build-files?mode=import&as=new&importId=${randomUUID()}`, file)
      expect(made.status, made.text).toBeLessThan(300)
      const ids = [...new Set(JSON.stringify(file).match(UUID))].filter((id) => id !== ownBuild)
      for (const address of addressesFor(file, ids)) {
        const answer = await stranger.call('GET', `/api${address}`)
        const told = [name, ...ids].filter((secret) => answer.text.includes(secret) && !address.includes(secret))
        expect(told, `${address} ${answer.status}`).toEqual([])
        if (address.includes(file.build.id)) expect(answer.status, address).toBe(404)
      }
    }),
    { numRuns: 8 },
  )
}, 120_000)
