import { createSchema, patchSchema } from '@bold-ballast/contract'
import { buildFields, KINDS, kindOf, z } from '@bold-ballast/core'
import { describe, expect, it } from 'vitest'
import { AppError } from '../http/problem.ts'
import { read } from '../http/read.ts'

/** What a program that means well, or not, may put into a field. */
const WRONG: readonly unknown[] = [{}, [], '', 'x', ' ', -1e99, 1e99, 0.5, -1, true, [[]], [{}], { x: 1 }, { typed: 5 }, 'x'.repeat(5000), Array(3000).fill(1)]
const SCHEMA_TEXT = /expected|received|invalid|zod|undefined|\bNaN\b|\[object|regex|pattern|nullish|refine/i
const SENTENCE = /^[a-z].*[.!]$/

const refusalsOf = (schema: z.ZodType, body: object): AppError['errors'] => {
  try {
    read(schema, body)
    return []
  } catch (error) {
    if (error instanceof AppError) return error.errors
    throw error
  }
}

/** Every path of a JSON Schema that a field may have, with numbers of entries left out. */
function pathsOf(schema: object, at = ''): string[] {
  const {
    properties = {},
    items,
    anyOf = [],
    oneOf = [],
  } = schema as { properties?: Record<string, object>; items?: object; anyOf?: object[]; oneOf?: object[] }
  return [
    at,
    ...Object.entries(properties).flatMap(([name, inner]) => pathsOf(inner, at ? `${at}.${name}` : name)),
    ...(items ? pathsOf(items, `${at}.#`) : []),
    ...[...anyOf, ...oneOf].flatMap((inner) => pathsOf(inner, at)),
  ]
}

describe.each([['builds', buildFields] as const, ...KINDS.map(({ list }) => [list, kindOf(list).fields] as const)])('every refusal of %s', (_, fields) => {
  const known = new Set(pathsOf(z.toJSONSchema(z.object(fields), { io: 'input' })))
  it('is a sentence of ours about a field that is there', () => {
    let count = 0
    for (const schema of [createSchema(fields), patchSchema(fields)]) {
      for (const field of Object.keys(fields)) {
        for (const wrong of WRONG) {
          for (const { path, message } of refusalsOf(schema, { version: 1, [field]: wrong })) {
            count++
            const named = path.replace(/\.?\b\d+\b/g, (found) => (found.startsWith('.') ? '.#' : '#'))
            const isUnknownKey = /not a field here/.test(message)
            if (!isUnknownKey && path !== 'version') expect([...known], `${field} ${JSON.stringify(wrong).slice(0, 60)}: ${path}`).toContain(named)
            expect(message, path).toMatch(SENTENCE)
            expect(message, path).not.toMatch(SCHEMA_TEXT)
          }
        }
      }
    }
    expect(count).toBeGreaterThan(20)
  })
})
