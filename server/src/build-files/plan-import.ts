import type { BuildFile, BuildFileRecord, FileChange } from '@bold-ballast/contract'
import { buildFields, KINDS, kindOf, type RecordList, recordName } from '@bold-ballast/core'
import { sameFields } from '../records/versioned.ts'

export type Row = Record<string, unknown> & { id: string; version: number; deletedAt: string | null }
export type StoredLists = { readonly [List in RecordList]: readonly Row[] }

/** One record that an import writes: what stands here (with deleted ones), and the fields as they will be; null fields delete it. */
export interface PlannedWrite {
  readonly list: RecordList | 'build'
  readonly before: Row | null
  readonly fields: (Record<string, unknown> & { id: string }) | null
  readonly record: BuildFileRecord | null
  readonly change: FileChange
}

const known = (list: RecordList | 'build'): Readonly<Record<string, unknown>> => (list === 'build' ? buildFields : kindOf(list).fields)

/** Only the fields of a record, without who made it and where its samples are. */
export const fileFields = (list: RecordList | 'build', record: BuildFileRecord) =>
  Object.fromEntries(Object.entries(record).filter(([key]) => key in known(list))) as Record<string, unknown> & { id: string }

function changedFields(list: RecordList | 'build', before: Row, fields: Record<string, unknown>): FileChange['fields'] {
  return Object.keys(known(list))
    .filter((field) => !sameFields({ [field]: fields[field] }, before))
    .map((field) => ({ field, before: before[field] ?? null, after: fields[field] ?? null }))
}

function planRecord(list: RecordList | 'build', record: BuildFileRecord, before: Row | undefined): PlannedWrite | null {
  const fields = fileFields(list, record)
  const change = { list, id: record.id, name: recordName(list, record), fields: [], changedHere: false } as const
  if (!before) return { list, before: null, fields, record, change: { ...change, kind: 'added' } }
  const changed = changedFields(list, before, fields)
  const changedHere = record.version !== undefined && before.version > record.version
  if (before.deletedAt !== null) return { list, before, fields, record, change: { ...change, kind: 'putBack', fields: changed, changedHere } }
  return changed.length === 0 ? null : { list, before, fields, record, change: { ...change, kind: 'changed', fields: changed, changedHere } }
}

/**
 * What an update by a file writes: records the file has and this build does not, records that differ, deleted ones that come back and, where asked,
 * those that the file lacks. `stored` holds deleted records too.
 */
export function planUpdate(file: BuildFile, build: Row, stored: StoredLists, deletesMissing: boolean): { writes: PlannedWrite[]; unchangedCount: number } {
  const plans = [
    planRecord('build', file.build, build),
    ...KINDS.flatMap(({ list }) => {
      const here = new Map(stored[list].map((row) => [row.id, row]))
      return (file[list] as readonly BuildFileRecord[]).map((record) => planRecord(list, record, here.get(record.id)))
    }),
  ]
  const writes = plans.filter((plan) => plan !== null)
  const gone = deletesMissing ? KINDS.flatMap(({ list }) => missingFrom(list, file, stored)) : []
  return { writes: [...writes, ...gone], unchangedCount: plans.length - writes.length }
}

function missingFrom(list: RecordList, file: BuildFile, stored: StoredLists): PlannedWrite[] {
  const kept = new Set(file[list].map((record) => record.id))
  return stored[list].flatMap((before): PlannedWrite[] =>
    before.deletedAt !== null || kept.has(before.id)
      ? []
      : [
          {
            list,
            before,
            fields: null,
            record: null,
            change: { list, id: before.id, name: recordName(list, before), kind: 'deleted', fields: [], changedHere: false },
          },
        ],
  )
}
