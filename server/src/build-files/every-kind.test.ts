import { randomUUID } from 'node:crypto'
import { BUILD_FILE_NAME } from '@bold-ballast/contract'
import { KINDS, kindOf, type RecordList } from '@bold-ballast/core'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import yauzl from 'yauzl'
import { anyBuildFile } from '../../test/random-records.ts'
import { startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
beforeAll(async () => {
  server = await startTestServer()
})
afterAll(() => server.stop())

type Row = Record<string, unknown> & { id: string }
type Lists = Record<RecordList, Row[]>

/** Only what a person entered, with nothing for what was left out. */
const entered = (lists: Lists) =>
  Object.fromEntries(
    KINDS.map(({ list }) => {
      const fields = Object.keys(kindOf(list).fields)
      const rows = lists[list].map((row) => Object.fromEntries(fields.map((field) => [field, row[field] ?? null])))
      return [list, rows.sort((a, b) => (String(a.id) < String(b.id) ? -1 : 1))]
    }),
  )

const readAll = async (stream: AsyncIterable<unknown>) => {
  const chunks: Buffer[] = []
  for await (const chunk of stream) chunks.push(chunk as Buffer)
  return Buffer.concat(chunks).toString('utf8')
}

async function exportedFile(buildId: string): Promise<Lists> {
  const bytes = await server.callForBytes('GET', `/api/builds/${buildId}/file`)
  return new Promise((resolve, reject) =>
    yauzl.fromBuffer(bytes, { lazyEntries: true }, (failed, zip) => {
      if (failed) return reject(failed)
      zip.on('entry', (entry: yauzl.Entry) => {
        if (entry.fileName !== BUILD_FILE_NAME) return zip.readEntry()
        zip.openReadStream(entry, (error, stream) => {
          if (error) return reject(error)
          readAll(stream).then((text) => resolve(JSON.parse(text)), reject)
        })
      })
      zip.readEntry()
    }),
  )
}

/** Whatever was accepted, every room of the build opens, and so does the Garage. */
async function opensEverywhere(buildId: string): Promise<void> {
  for (const room of ['board', 'weight', 'power', 'records', 'log']) {
    const answer = await server.call('GET', `/api/builds/${buildId}/${room}`)
    expect(answer.status, `${room}: ${answer.text.slice(0, 300)}`).toBe(200)
    expect(answer.text, room).not.toMatch(/:(NaN|Infinity)/)
  }
  const garage = await server.call('GET', '/api/builds')
  expect(garage.status, garage.text.slice(0, 300)).toBe(200)
}

describe('a build with records of every kind', () => {
  it('comes through the database, a file and new ids with every field of every list', { timeout: 300_000 }, async () => {
    const met = new Set<string>()
    await fc.assert(
      fc.asyncProperty(anyBuildFile(), async (file) => {
        for (const { list } of KINDS) if (file[list].length > 0) met.add(list)
        const send = (body: object, as: string) => server.call('POST', `/api/build-files?mode=import&as=${as}&importId=${randomUUID()}`, body)
        const first = await send(file, 'new')
        expect(first.status, first.text).toBe(201)
        const records = await server.call('GET', `/api/builds/${file.build.id}/records`)
        expect(records.body.broken).toEqual([])
        const before = entered(file as unknown as Lists)
        expect(entered(records.body)).toEqual(before)
        const out = await exportedFile(file.build.id)
        expect(entered(out)).toEqual(before)
        const copy = await send(out, 'new')
        expect(copy.body, copy.text).toMatchObject({ getsNewIds: true })
        const copied = await server.call('GET', `/api/builds/${copy.body.buildId}/records`)
        expect(copied.body.broken).toEqual([])
        for (const { list } of KINDS) expect(copied.body[list].length, list).toBe(file[list].length)
        await opensEverywhere(file.build.id)
        const same = await server.call('POST', `/api/build-files?mode=preview&as=update&importId=${randomUUID()}`, out)
        expect(same.body.changes, same.text).toEqual([])
      }),
      { numRuns: 20, endOnFailure: true },
    )
    expect([...met].sort()).toEqual(
      KINDS.map(({ list }) => list as string)
        .filter((list) => list !== 'photos')
        .sort(),
    )
  })
})
