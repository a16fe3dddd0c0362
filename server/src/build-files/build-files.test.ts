import { randomUUID } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { type BuildFile, buildFileSchema } from '@bold-ballast/contract'
import { CURVE_VERSION, makeBoard, makePowerRoom, makeWeightRoom, openCar } from '@bold-ballast/core'
import fc from 'fast-check'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { archive } from '../../test/archive.ts'
import { randomBuildFile, smallBuildFile } from '../../test/random-build.ts'
import { startTestServer, type TestServer } from '../../test/test-server.ts'
import { parseBuildFile } from './parse.ts'
import { readSamples } from './samples.ts'
import { zipSource } from './source.ts'

let server: TestServer
let folder = ''
beforeAll(async () => {
  server = await startTestServer()
  folder = await mkdtemp(path.join(tmpdir(), 'build-files-'))
})
afterAll(async () => {
  await server.stop()
  await rm(folder, { recursive: true })
})

interface Wish {
  mode?: 'preview' | 'import'
  as?: 'new' | 'update'
  importId?: string
  missing?: 'keep' | 'delete'
}

const send = (body: Buffer | object, { mode = 'import', as = 'new', importId = randomUUID(), missing = 'keep' }: Wish = {}) =>
  server.call('POST', `/api/build-files?mode=${mode}&as=${as}&importId=${importId}&missing=${missing}`, body, {
    'content-type': body instanceof Buffer ? 'application/zip' : 'application/json',
  })

const get = async (route: string) => (await server.call('GET', route)).body
const countBuilds = async () => (await get('/api/builds')).length

/** What the calculations and a person see of a build, without ids. */
async function shown(buildId: string): Promise<unknown> {
  const records = await get(`/api/builds/${buildId}/records`)
  expect(records.broken).toEqual([])
  const lists = ({ stages, changes, weighings, sessions, pulls, zones, boxes, lifts, balanceSteps, sites, ballastAims }: Record<string, unknown>) => ({
    stages,
    changes,
    weighings,
    sessions,
    pulls,
    zones,
    boxes,
    lifts,
    balanceSteps,
    sites,
    ballastAims,
  })
  const numbers = (value: unknown): unknown =>
    JSON.parse(JSON.stringify(value, (key, item) => (/Ids?$|^id$|^version$|^derivedFrom$|^(created|updated)/.test(key) ? undefined : item)))
  return {
    records: numbers(lists(records)),
    board: numbers(makeBoard(openCar(records), '2026-11-01')),
    weight: numbers(makeWeightRoom(openCar(records))),
    power: numbers(makePowerRoom(openCar(records))),
  }
}

async function exported(buildId: string): Promise<{ zip: Buffer; file: BuildFile }> {
  const zip = await server.callForBytes('GET', `/api/builds/${buildId}/file`)
  const name = path.join(folder, `${randomUUID()}.zip`)
  await writeFile(name, zip)
  const source = await zipSource(name)
  try {
    return { zip, file: await parseBuildFile(source) }
  } finally {
    source.close()
  }
}

describe('export and import', () => {
  it('give equal values, verdicts and typed texts, under old ids and under new ones', async () => {
    await fc.assert(
      fc.asyncProperty(randomBuildFile(), async (made) => {
        const first = await send(made)
        expect(first.body, first.text).toMatchObject({ as: 'new', buildId: made.build.id, getsNewIds: false })
        const before = await shown(made.build.id)
        const { zip, file } = await exported(made.build.id)
        const copy = await send(zip)
        expect(copy.body).toMatchObject({ getsNewIds: true, isHere: true })
        expect(await shown(copy.body.buildId)).toEqual(before)
        const again = await exported(copy.body.buildId)
        for (const key of ['changes', 'weighings', 'targets', 'limits'] as const) expect(again.file[key].length).toBe(file[key].length)
        const same = await send(zip, { as: 'update', mode: 'preview' })
        expect(same.body.changes).toEqual([])
      }),
      { numRuns: 12 },
    )
  })

  it('keeps samples to the last bit, gaps too', async () => {
    const file = smallBuildFile()
    const csv = 'Motor speed [rpm],Power [kW],Lambda\r\n'
    const rows = Array.from({ length: 40 }, (_, i) => `${2000 + i * 100},${(60.1 + i / 3).toString()},${i === 3 ? '' : 0.1 + i / 7}`)
    const text = `${csv}${rows.join('\r\n')}\r\n`
    const heads = [
      { role: 'speed', name: 'Motor speed', unit: 'rpm' },
      { role: 'power', name: 'Power', unit: 'kW' },
      { role: 'other', name: 'Lambda', unit: '' },
    ]
    const pull = file.pulls[0]
    if (pull) Object.assign(pull, { samples: { file: 'pulls/a.csv', channels: heads }, curveVersion: 99 })
    const made = await send(await archive({ 'build.json': JSON.stringify(file), 'pulls/a.csv': text }))
    expect(made.body, made.text).toMatchObject({ sampleCount: 40 })
    const { zip, file: back } = await exported(file.build.id)
    const name = path.join(folder, 'samples.zip')
    await writeFile(name, zip)
    const source = await zipSource(name)
    const samples = back.pulls[0]?.samples
    const channels = await readSamples(await source.open(samples?.file ?? ''), 'a', samples?.channels ?? [])
    source.close()
    expect(channels.map((channel) => channel.values.length)).toEqual([40, 40, 40])
    expect(channels[1]?.values[1]).toBe(60.1 + 1 / 3)
    expect(channels[2]?.values[3]).toBeNaN()
    // The file's curve was made another way (99), so it was made anew from the samples: 60.1 kW at 2000 rpm.
    expect(back.pulls[0]).toMatchObject({ curveVersion: CURVE_VERSION, curve: { firstSpeedRpm: 2000 } })
    expect(back.pulls[0]?.curve?.powerW[0]).toBeCloseTo(60_100, 6)
  })

  it('makes an import once however often it is sent', async () => {
    const file = smallBuildFile()
    const importId = randomUUID()
    const [one, two] = [await send(file, { importId }), await send(file, { importId })]
    expect(two.body).toEqual(one.body)
    const copyId = randomUUID()
    const [three, four] = [await send(file, { importId: copyId }), await send(file, { importId: copyId })]
    expect(four.body.buildId).toBe(three.body.buildId)
  })

  it('previews without storing anything', async () => {
    const before = await countBuilds()
    expect((await send(smallBuildFile(), { mode: 'preview' })).body).toMatchObject({ as: 'new', isHere: false, counts: { changes: 3 } })
    expect(await countBuilds()).toBe(before)
  })

  it('publishes its schema', async () => {
    const { body } = await server.call('GET', '/api/build-files/schema')
    expect(body).toMatchObject({ type: 'object', properties: { format: { const: 'bold-ballast-build' }, changes: { type: 'array' } } })
    expect(buildFileSchema.safeParse(smallBuildFile()).success).toBe(true)
    const published = JSON.parse(await readFile(path.join(import.meta.dirname, '../../../docs/build-format.schema.json'), 'utf8'))
    expect(published, 'run npm run schema').toEqual(JSON.parse(JSON.stringify(body)))
  })
})

describe('import as an update', () => {
  it('shows what changes, then changes that and nothing else, as one entry that can be taken back', async () => {
    const file = smallBuildFile()
    await send(file)
    const route = `/api/builds/${file.build.id}`
    const added = { ...(file.changes[0] as BuildFile['changes'][number]), id: randomUUID(), name: 'new part' }
    const next: BuildFile = { ...file, changes: [{ ...(file.changes[0] as BuildFile['changes'][number]), zone: 'nose' }, ...file.changes.slice(1, 2), added] }
    const preview = await send(next, { as: 'update', mode: 'preview' })
    expect(preview.body.changes.map(({ kind, name }: { kind: string; name: string }) => [kind, name])).toEqual([
      ['changed', file.changes[0]?.name],
      ['added', 'new part'],
    ])
    expect(preview.body.changes[0].fields).toEqual([{ field: 'zone', before: null, after: 'nose' }])
    const done = await send(next, { as: 'update', missing: 'delete' })
    expect(done.body.changes.at(-1)).toMatchObject({ kind: 'deleted', name: file.changes[2]?.name })
    expect((await get(`${route}/changes`)).map((line: { name: string }) => line.name).sort()).toEqual(
      [file.changes[0]?.name, file.changes[1]?.name, 'new part'].sort(),
    )
    const { entries } = await get(`${route}/log`)
    expect(entries[0]).toMatchObject({ action: 'import', recordCount: 3, keptBecause: null })
    const undone = await server.call('POST', `${route}/log/${entries[0].id}/undo`, {})
    expect(undone.status, undone.text).toBe(200)
    expect((await get(`${route}/changes`)).map((line: { name: string }) => line.name).sort()).toEqual(file.changes.map((line) => line.name).sort())
  })

  it('says which records were changed here since the file was written', async () => {
    const file = smallBuildFile()
    await send(file)
    const { file: kept } = await exported(file.build.id)
    const [line] = kept.changes
    await server.call('PATCH', `/api/builds/${file.build.id}/changes/${line?.id}`, { version: 1, name: 'renamed here' })
    const { body } = await send(kept, { as: 'update', mode: 'preview' })
    expect(body.changes).toMatchObject([{ kind: 'changed', changedHere: true, fields: [{ field: 'name', before: 'renamed here', after: line?.name }] }])
  })

  it('needs the build to be here', async () => {
    expect(await send(smallBuildFile(), { as: 'update' })).toMatchObject({ status: 404, body: { detail: expect.stringMatching(/Import it as a new build/) } })
  })
})

describe('a bad build file is refused with a sentence, and nothing is stored', () => {
  const json = () => JSON.stringify(smallBuildFile())
  const edit = (work: (file: Record<string, never> & BuildFile) => void) => {
    const file = smallBuildFile()
    work(file as never)
    return file
  }
  const withSamples = () =>
    edit((file) => Object.assign(file.pulls[0] as object, { samples: { file: 'pulls/a.csv', channels: [{ role: 'speed', name: 'n', unit: 'rpm' }] } }))
  const bomb = () => Buffer.alloc(300 * 1024 * 1024)
  /** The same archive with one name replaced by another of equal length, as a hostile tool would. */
  const renamed = async (from: string, to: string) =>
    Buffer.from((await archive({ 'build.json': json(), [from]: 'x' })).toString('latin1').replaceAll(from, to), 'latin1')
  test.each([
    ['cut short', async () => Buffer.from(json().slice(0, 400)), 'application/json', /cut short/],
    ['no JSON', async () => Buffer.from('name;mass\n}'), 'application/json', /not JSON/],
    ['of a newer version', async () => edit((file) => Object.assign(file, { formatVersion: 11 })), '', /format 11.*reads up to 10/],
    ['of another kind', async () => ({ format: 'something' }), '', /no build file/],
    [
      'with an unknown field',
      async () => edit((file) => Object.assign(file.changes[1] as object, { colour: 'red' })),
      '',
      /changes\.1\.colour is not a field here/,
    ],
    [
      'with a duplicate id',
      async () => edit((file) => file.changes.push(file.changes[0] as never)),
      '',
      /stands twice: in changes, entry 1 and in changes, entry 4/,
    ],
    [
      'with a line of a stage it lacks',
      async () => edit((file) => Object.assign(file.changes[0] as object, { stageId: randomUUID() })),
      '',
      /changes, "bench": .*no such stage/,
    ],
    [
      'with a line on stage 0',
      async () => edit((file) => Object.assign(file.changes[0] as object, { stageId: file.stages[0]?.id })),
      '',
      /Stage 0 is the car as bought/,
    ],
    ['with a gap between stages', async () => edit((file) => Object.assign(file.stages[1] as object, { position: 4 })), '', /places 0, 2, 4/],
    ['with a pull file missing', async () => archive({ 'build.json': JSON.stringify(withSamples()) }), 'application/zip', /pulls\/a\.csv, which is not beside/],
    [
      'with a word among samples',
      async () => archive({ 'build.json': JSON.stringify(withSamples()), 'pulls/a.csv': 'n\r\n2000\r\nfast\r\n' }),
      'application/zip',
      /pulls\/a\.csv, line 3: "fast" is no number/,
    ],
    [
      'with a sample too many in a row',
      async () => archive({ 'build.json': JSON.stringify(withSamples()), 'pulls/a.csv': 'n\r\n1,2\r\n' }),
      'application/zip',
      /line 2: it has 2 cells/,
    ],
    ['that is a zip bomb', async () => archive({ 'build.json': json(), 'pulls/a.csv': bomb() }), 'application/zip', /unpack to far more/],
    ['with a path that leaves the archive', async () => renamed('aaaaa.csv', '../../a.b'), 'application/zip', /names a file outside itself/],
    ['with an absolute path', async () => renamed('aaaaa.csv', '/srv/aa.b'), 'application/zip', /names a file outside itself/],
    ['that is a damaged archive', async () => (await archive({ 'build.json': json() })).subarray(0, 200), 'application/zip', /damaged or cut short/],
    ['without the build file in it', async () => archive({ 'a.txt': 'x' }), 'application/zip', /no build\.json/],
    ['of another type', async () => Buffer.from('x'), 'text/csv', /application\/zip or application\/json/],
  ] as const)('%s', async (_, make, type, sentence) => {
    const before = await countBuilds()
    const body = await make()
    const answer = await server.call('POST', `/api/build-files?mode=import&as=new&importId=${randomUUID()}`, body, {
      'content-type': type || 'application/json',
    })
    expect(answer.status).toBeGreaterThanOrEqual(400)
    expect(answer.status).toBeLessThan(500)
    expect(answer.body.detail).toMatch(sentence)
    expect(await countBuilds()).toBe(before)
  })

  it('an archive over 100 MB by its announced length', async () => {
    const headers = { 'content-type': 'application/zip', 'content-length': String(101 * 1024 * 1024) }
    const answer = await server.call('POST', `/api/build-files?mode=preview&as=new&importId=${randomUUID()}`, 'x', headers)
    expect(answer).toMatchObject({ status: 413, body: { detail: expect.stringMatching(/100 MB/) } })
  })
})

it('reads the samples of the demo as they stand on disk', async () => {
  const file = path.join(import.meta.dirname, '../../../demo/gannet/pulls/2026-02-18-brinehall-1.csv')
  const heads = ['time', 'speed', 'power', 'torque', 'boost'].map((role) => ({ role, name: role, unit: '' }))
  const [, speed] = await readSamples(createReadStream(file), 'demo', heads)
  expect(speed?.values[0]).toBe(1900)
})

describe('a damaged archive', () => {
  const file = () => smallBuildFile() as unknown as BuildFile
  test.each(['preview', 'import'] as const)('is told by its checksum in a %s, and nothing is stored', async (mode) => {
    const content = JSON.stringify(file())
    const whole = await archive({ 'build.json': content })
    const bytes = await archive({ 'build.json': content }, { compress: false })
    const at = bytes.indexOf('"name":"') + '"name":"'.length
    bytes[at] = (bytes[at] as number) ^ 1
    const before = await countBuilds()
    const answer = await send(bytes, { mode })
    expect(answer).toMatchObject({ status: 422, body: { detail: expect.stringMatching(/checksum is wrong/) } })
    expect(await countBuilds()).toBe(before)
    expect((await send(whole, { mode })).status).toBeLessThan(300)
  })
})
