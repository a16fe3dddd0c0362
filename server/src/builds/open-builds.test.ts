import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { changeBody, makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'
import { RecordService } from '../records/service.ts'
import { OpenBuilds } from './open-builds.ts'

let server: TestServer
let open: OpenBuilds
beforeAll(async () => {
  server = await startTestServer()
  open = new OpenBuilds(server.knex, new RecordService(server.knex))
})
afterAll(() => server.stop())

describe('answers about a build', () => {
  it('are worked out once for each line of its log', async () => {
    const { buildId, path, stageOne } = await makeBuild(server)
    let count = 0
    const ask = () => open.answer(buildId, 'count', () => ({ count: ++count }))
    expect([await ask(), await ask()]).toEqual(['{"count":1}', '{"count":1}'])
    await server.call('POST', `${path}/changes`, changeBody(stageOne))
    expect(await ask()).toBe('{"count":2}')
  })
  it('are not kept while a part of them is being worked out', async () => {
    const { buildId } = await makeBuild(server)
    const found: (true | undefined)[] = [true, true, undefined]
    const ask = () =>
      open.answer(buildId, 'late', () => {
        const isWaiting = found.shift()
        return { left: found.length, isWaiting }
      })
    expect([await ask(), await ask(), await ask(), await ask()]).toEqual([
      '{"left":2,"isWaiting":true}',
      '{"left":1,"isWaiting":true}',
      '{"left":0}',
      '{"left":0}',
    ])
  })
  it('rest on one car, opened once', async () => {
    const { buildId } = await makeBuild(server)
    const [first, second] = [(await open.get(buildId)).car(), (await open.get(buildId)).car()]
    expect(second).toBe(first)
  })
})
