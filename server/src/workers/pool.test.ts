import { CALCULATIONS } from '@bold-ballast/core'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'
import { until } from '../../test/until.ts'
import { PersonTurns } from './person-turns.ts'
import { WorkPool } from './pool.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

const exampleOf = (name: string) => CALCULATIONS.find((entry) => entry.name === name)?.example as Record<string, unknown>
const calc = (name: string, more: object) => server.call('POST', `/api/calc/${name}`, { ...exampleOf(name), ...more })

describe('sums on threads of their own', () => {
  it.each([
    ['dyno.smooth', { speedRpm: [3000, 1e30], value: [1, 2] }],
    ['dyno.smooth', { stepRpm: 1e-30 }],
    ['engine.rating-chain', { targetPowerW: 1e30 }],
  ])('%s with %o is refused and the server goes on', async (name, more) => {
    const answer = await calc(name, more)
    expect(answer.status, answer.text).toBe(422)
    expect(answer.body.error).toMatchObject({ code: expect.any(String), field: expect.any(String), message: expect.stringMatching(/\.$/) })
    expect((await server.call('GET', '/api/health')).status).toBe(200)
  })

  it('keep no other answer waiting: health is told while a search runs', async () => {
    const sites = Array.from({ length: 12 }, (_, i) => ({
      id: `s${i}`,
      xM: -0.3 + 0.25 * i,
      yM: i % 2 ? 0.4 : -0.4,
      zM: 0.2 + 0.01 * i,
      limitKg: 25,
      plates: [{ massKg: 2.5, count: 10 }],
    }))
    const order: string[] = []
    const search = calc('mass.ballast', { sites, minimumKg: 1250 }).then((answer) => {
      order.push('search')
      return answer
    })
    await server.call('GET', '/api/health').then(() => order.push('health'))
    expect([200, 422]).toContain((await search).status)
    expect(order).toEqual(['health', 'search'])
  })

  it('are ended at their limit, and when nobody waits any more', async () => {
    const pool = new WorkPool()
    try {
      const input = { name: 'mass.ballast', body: exampleOf('mass.ballast') }
      await expect(pool.run('calculate', input, { limitMs: 1 })).rejects.toMatchObject({
        code: 'calculation-refused',
        message: expect.stringMatching(/took longer than/),
      })
      await expect(pool.run('calculate', input, { limitMs: 20_000, signal: AbortSignal.abort() })).rejects.toThrow()
      expect(await pool.run('calculate', { name: 'air.density', body: exampleOf('air.density') }, { limitMs: 20_000 })).toMatchObject({ ok: true })
    } finally {
      await pool.close()
    }
  })
})

describe('files of pulls that would eat the machine', () => {
  const post = async (text: string, mode = 'preview') => {
    const build = await makeBuild(server)
    const session = { id: crypto.randomUUID(), stageId: build.stageZero, at: '2026-03-01T10:00:00Z', dynoName: 'hall', place: 'hub', printedStandard: 'none' }
    const made = await server.call('POST', `${build.path}/sessions`, session)
    const importId = crypto.randomUUID()
    return server.call('POST', `${build.path}/sessions/${made.body.id}/pull-files?mode=${mode}&importId=${importId}`, text, { 'content-type': 'text/csv' })
  }

  it('with a pull column that changes on every row are refused by its name', async () => {
    const rows = Array.from({ length: 5000 }, (_, i) => `${i},${2000 + i},100,300`)
    const answer = await post(`run,Engine speed (rpm),Power (kW),Torque (N·m)\n${rows.join('\n')}`)
    expect(answer).toMatchObject({ status: 422, body: { detail: expect.stringMatching(/More than 200 pulls were found: "run" changes too often/) } })
  })

  it('of one endless line are refused', async () => {
    const answer = await post(`Engine speed (rpm),Power (kW)\n${'1,2,'.repeat(100_000)}`)
    expect(answer).toMatchObject({ status: 422, body: { detail: expect.stringMatching(/longer than 64 kB/) } })
  })

  it('are read to their end, so that what their columns are is answered for 7 MB too', async () => {
    const row = '3000;100;300\n'
    const answer = await post(`n;P;M\n${row.repeat(560_000)}`, 'columns')
    expect(answer.status, answer.text.slice(0, 200)).toBe(200)
    expect(answer.body.columns.map(({ heading }: { heading: string }) => heading)).toEqual(['n', 'P', 'M'])
  })
})

describe('places of stages', () => {
  it('close up when one is deleted, make room when it comes back, and the file of the build opens again', async () => {
    const build = await makeBuild(server)
    const positions = async () => {
      const stages = (await server.call('GET', `${build.path}/stages`)).body as { id: string; position: number; version: number }[]
      return stages.sort((a, b) => a.position - b.position)
    }
    for (const name of ['Engine', 'Body']) {
      const { length } = await positions()
      expect((await server.call('POST', `${build.path}/stages`, { id: crypto.randomUUID(), position: length, name })).status).toBe(201)
    }
    const before = await positions()
    const gone = before[1]
    if (!gone) throw new Error('a stage expected')
    const removed = await server.call('DELETE', `${build.path}/stages/${gone.id}`, { version: gone.version })
    expect(removed.status, removed.text).toBeLessThan(300)
    expect((await positions()).map(({ position }) => position)).toEqual(before.slice(1).map((_, i) => i))
    const log = (await server.call('GET', `${build.path}/log`)).body.entries
    expect((await server.call('POST', `${build.path}/log/${log[0].id}/undo`, {})).status).toBeLessThan(300)
    expect((await positions()).map(({ id }) => id)).toEqual(before.map(({ id }) => id))
  })
})

describe('one person’s turns', () => {
  const NEVER = 30_000
  it('are two at once and four that wait; others are not kept', async () => {
    const turns = new PersonTurns()
    let running = 0
    const ends: (() => void)[] = []
    const work = () =>
      new Promise<void>((done) => {
        running++
        ends.push(done)
      })
    const mine = Array.from({ length: 6 }, () => turns.run('a', work))
    await until(() => running === 2)
    await expect(turns.run('a', work)).rejects.toMatchObject({
      code: 'too-many',
      retryAfterS: 2,
      message: expect.stringMatching(/2 of your sums run and 4 wait/),
    })
    const theirs = turns.run('b', work)
    await until(() => running === 3)
    while (ends.length > 0) {
      ends.shift()?.()
      await new Promise((done) => setTimeout(done, 5))
    }
    await Promise.all([...mine, theirs])
    expect(running).toBe(7)
  })
  it('are sixty a minute, told with when there are more', async () => {
    const turns = new PersonTurns()
    for (let i = 0; i < 60; i++) await turns.run('a', async () => i)
    await expect(turns.run('a', async () => 0)).rejects.toThrow(/^That were 60 sums in a minute\. Again in \d+ s\.$/)
    expect(await turns.run('b', async () => 'ok')).toBe('ok')
  })
  it('of whoever left while he waited are not begun', async () => {
    const pool = new WorkPool()
    const left = new AbortController()
    left.abort()
    await expect(pool.run('nothing', null, { limitMs: NEVER, signal: left.signal, personId: 'a' })).rejects.toThrow()
    expect(await pool.run('nothing', null, { limitMs: NEVER, personId: 'a' })).toBeNull()
    await pool.close()
  })
})
