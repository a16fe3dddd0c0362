import { createHash } from 'node:crypto'
import type { BuildFile } from '@bold-ballast/contract'
import { KINDS } from '@bold-ballast/core'

/** An id made of an import and an old id: the same import sent twice gives the same ids. */
function derivedId(importId: string, id: string): string {
  const hex = createHash('sha256').update(`${importId} ${id}`).digest('hex')
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}

function replaceIds(value: unknown, ids: ReadonlyMap<string, string>): unknown {
  if (typeof value === 'string') return ids.get(value) ?? value
  if (Array.isArray(value)) return value.map((item) => replaceIds(item, ids))
  if (value && typeof value === 'object') return Object.fromEntries(Object.entries(value).map(([key, item]) => [key, replaceIds(item, ids)]))
  return value
}

/** The same build under ids of its own, wherever one record names another; the order of its records stays. */
export function withNewIds(file: BuildFile, importId: string): BuildFile {
  const old = [file.build.id, ...KINDS.flatMap(({ list }) => file[list].map((record) => record.id))]
  const renamed = replaceIds(file, new Map(old.map((id) => [id, derivedId(importId, id)]))) as BuildFile
  for (const { list } of KINDS) {
    // Records of one moment are ordered by id; under new ids they are set a millisecond apart instead.
    let last = Number.NEGATIVE_INFINITY
    for (const record of renamed[list]) {
      if (!record.createdAt) continue
      last = Math.max(last + 1, Date.parse(record.createdAt))
      record.createdAt = new Date(last).toISOString()
    }
  }
  return renamed
}
