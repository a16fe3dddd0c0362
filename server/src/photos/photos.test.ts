import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { changeBody, makeBuild, startTestServer, type TestServer } from '../../test/test-server.ts'

let server: TestServer
let path = ''
let lineId = ''
beforeAll(async () => {
  server = await startTestServer()
  const build = await makeBuild(server)
  path = build.path
  lineId = (await server.call('POST', `${path}/changes`, changeBody(build.stageOne))).body.id
})
afterAll(() => server.stop())

const PNG = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64')
const send = (bytes: Buffer, { id = randomUUID() as string, recordId = lineId, name = 'display.png', type = 'image/png' } = {}) =>
  server.call('POST', `${path}/photo-files?id=${id}&recordId=${recordId}&name=${encodeURIComponent(name)}`, bytes, { 'content-type': type })

describe('a picture', () => {
  it('is stored once, listed without its bytes, given back as it came, and deleted with a way back', async () => {
    const id = randomUUID()
    const [first, again] = [await send(PNG, { id }), await send(PNG, { id })]
    expect([first.status, again.status]).toEqual([201, 200])
    const { photos } = (await server.call('GET', `${path}/records`)).body
    expect(photos).toMatchObject([{ id, recordId: lineId, name: 'display.png', mediaType: 'image/png', byteCount: PNG.length }])
    expect(await server.callForBytes('GET', `${path}/photos/${id}/bytes`)).toEqual(PNG)
    const gone = await server.call('DELETE', `${path}/photos/${id}`, { version: 1 })
    expect(gone.body.deletedAt).not.toBeNull()
    expect((await server.call('GET', `${path}/photos/${id}/bytes`)).status).toBe(404)
    await server.call('POST', `${path}/photos/${id}/restore`, { version: 2 })
    expect((await server.call('GET', `${path}/photos/${id}/bytes`)).status).toBe(200)
  })

  it('goes out with the build and comes in again', async () => {
    await send(PNG, { name: 'second.png' })
    const file = await server.callForBytes('GET', `${path}/file`)
    const made = await server.call('POST', `/api/build-files?mode=import&as=new&importId=${randomUUID()}`, file, { 'content-type': 'application/zip' })
    expect(made.status, made.text).toBe(201)
    const there = `/api/builds/${made.body.buildId}`
    const { photos } = (await server.call('GET', `${there}/records`)).body
    expect(photos.map(({ name }: { name: string }) => name)).toContain('second.png')
    expect(await server.callForBytes('GET', `${there}/photos/${photos.at(-1).id}/bytes`)).toEqual(PNG)
  })

  test.each([
    ['no picture', Buffer.from('plain words'), {}, 422, /no JPEG, PNG or WebP/],
    ['an empty file', Buffer.alloc(0), {}, 422, /empty/],
    ['one of nothing', PNG, { recordId: '0a3aee49-6666-4879-938d-000000000000' }, 422, /Pick one that is there/],
    ['a head alone', PNG.subarray(0, 33), {}, 422, /cut short/],
    ['a JPEG without its end', Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 16, 74, 70]), {}, 422, /cut short/],
    ['a WebP that is shorter than it says', Buffer.from('RIFF\x40\0\0\0WEBPVP8 ', 'latin1'), {}, 422, /cut short/],
    ['another type', PNG, { type: 'text/html' }, 403, /image/],
    ['one that is too large', Buffer.concat([PNG, Buffer.alloc(10.1 * 1024 * 1024)]), {}, 413, /large/],
  ])('refuses %s', async (_, bytes, more, status, sentence) => {
    const answer = await send(bytes, more)
    expect(answer.status).toBe(status)
    expect(answer.body.detail).toMatch(sentence)
  })

  it('is not made without its bytes', async () => {
    const body = { id: randomUUID(), recordId: lineId, name: 'x', mediaType: 'image/png', byteCount: 5 }
    expect(await server.call('POST', `${path}/photos`, body)).toMatchObject({ status: 422, body: { detail: expect.stringMatching(/with its bytes/) } })
  })
})
