import { BATCH_RESOURCES, batchSchema, createSchema, patchSchema } from '@bold-ballast/contract'
import { KINDS, kindOf, type RecordList, z } from '@bold-ballast/core'
import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { anyBuildFile } from '../../test/random-records.ts'

const ID = '0b3c0c3e-3f6b-4c58-8f1c-1f5a4a4e6a11'
type Row = Readonly<Record<string, unknown>>
const rows = (file: object, list: string) => (file as Readonly<Record<string, readonly Row[]>>)[list] ?? []
/** Records of a list as they are in builds of any content; what only a file adds to them is left off. */
const recordsOf = (list: RecordList) =>
  anyBuildFile()
    .filter((file) => rows(file, list).length > 0)
    .map((file): Row => Object.fromEntries(Object.entries(rows(file, list)[0] ?? {}).filter(([field]) => field in kindOf(list).fields)))
/** Pictures need their bytes and have a route of their own. */
const WRITTEN = KINDS.filter(({ list }) => list !== 'photos')

describe.each(WRITTEN.map(({ list }) => [list, kindOf(list)] as const))('bodies of %s', (list, kind) => {
  const create = createSchema(kind.fields)
  const patch = patchSchema(kind.fields)

  it('take any record that its declaration allows, and give it back unchanged', () => {
    fc.assert(
      fc.property(recordsOf(list), (record) => {
        expect(create.parse({ ...record, id: ID })).toEqual({ ...record, id: ID })
      }),
      { numRuns: 8, seed: 4600 },
    )
  })

  it('take each field alone as a change, and fill in nothing that was not sent', () => {
    fc.assert(
      fc.property(recordsOf(list), (record) => {
        for (const [field, value] of Object.entries(record).filter(([name]) => name !== 'id'))
          expect(patch.parse({ version: 3, [field]: value })).toEqual({ version: 3, [field]: value })
      }),
      { numRuns: 8, seed: 4600 },
    )
    expect(patch.parse({ version: 1 })).toEqual({ version: 1 })
  })

  test.each([
    ['a change without the version it saw', () => patch.safeParse({})],
    ['a change with a version that never was', () => patch.safeParse({ version: 0 })],
    ['a change of its id', () => patch.safeParse({ version: 1, id: ID })],
    ['an unknown field', () => patch.safeParse({ version: 1, nonsense: 1 })],
    ['a creation of nothing', () => create.safeParse({})],
    ['an id that is none', () => create.safeParse({ id: 'no' })],
  ])('refuse %s', (_, parse) => {
    expect(parse().success).toBe(false)
  })

  it('name every reference by a field that is there, and ask for each that is not optional', () => {
    for (const { field, isOptional } of kind.refs) {
      expect(Object.keys(kind.fields)).toContain(field)
      expect(kind.fields[field]?.safeParse(null).success).toBe(isOptional)
      expect(kind.fields[field]?.safeParse(ID).success).toBe(true)
    }
  })

  it('stand in JSON Schema, for whoever calls from elsewhere', () => {
    const schema = z.toJSONSchema(create, { io: 'input' })
    expect(schema).toMatchObject({ type: 'object', additionalProperties: false })
    expect(schema.required).toContain('id')
  })
})

describe('what a kind says of itself', () => {
  test.each(KINDS.map(({ list }) => [list, kindOf(list)] as const))('%s', (list, kind) => {
    expect(kind.address.replaceAll('-', '_')).toBe(kind.table)
    expect(kind.table.replaceAll('_', '').toLowerCase()).toBe(list.toLowerCase())
    expect(kind.word).not.toBe('')
    expect(kind.noun).not.toMatch(/^(a|an|the) /)
    for (const field of [...kind.onePer, ...kind.nameFrom]) expect(Object.keys(kind.fields)).toContain(field)
    for (const { whenGone, isOptional } of kind.refs) {
      if (whenGone === 'forgets') expect(isOptional).toBe(true)
      if (typeof whenGone === 'object') expect(whenGone.keepsIt).toMatch(/^[A-Z].*\.$/s)
    }
  })

  it('is its own: no list, address, table or word stands for two', () => {
    for (const name of ['list', 'address', 'table', 'word', 'noun'] as const)
      expect(new Set(KINDS.map(({ list }) => kindOf(list)[name])).size, name).toBe(KINDS.length)
  })
})

describe('a batch', () => {
  const write = { kind: 'remove', resource: 'changes', id: ID, version: 1 }
  it('takes every kind that says so and no other', () => {
    for (const { address, isBatchable } of KINDS) {
      expect(batchSchema.safeParse({ batchId: ID, writes: [{ ...write, resource: address }] }).success).toBe(isBatchable)
      expect((BATCH_RESOURCES as readonly string[]).includes(address)).toBe(isBatchable)
    }
  })
  test.each([
    ['without a write', { batchId: ID, writes: [] }],
    ['without an id', { writes: [write] }],
    ['with a removal that saw no version', { batchId: ID, writes: [{ ...write, version: undefined }] }],
    ['with a kind of write that is none', { batchId: ID, writes: [{ ...write, kind: 'burn' }] }],
    ['longer than 2500', { batchId: ID, writes: Array.from({ length: 2501 }, () => write) }],
  ])('is refused %s', (_, body) => {
    expect(batchSchema.safeParse(body).success).toBe(false)
  })
})
