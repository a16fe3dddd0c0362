import { type OwnKind, valueAt } from '../../ui/forms/form-fields.ts'
import type { FormReader } from '../../ui/forms/form-reader.ts'

/** Something that can be named in a field. */
export type Named = { readonly id: string; readonly name: string }

/** Several records by their names, with commas between. */
export function named(path: string, list: readonly Named[], what: string): OwnKind {
  return {
    read: (read: FormReader, name: string) =>
      read
        .raw(name)
        .split(/\s*[,;+]\s*/)
        .filter((word) => word !== '')
        .flatMap((word) => {
          const found = list.find((each) => each.name.toLowerCase() === word.toLowerCase())
          if (!found)
            read.refuse(
              name,
              `There is no ${what} called “${word}”.${
                list.length > 0
                  ? ` There is ${list
                      .slice(0, 6)
                      .map((each) => each.name)
                      .join(', ')}.`
                  : ''
              }`,
            )
          return found ? [found.id] : []
        }),
    begin: (record: unknown) => {
      const ids = (record as Record<string, readonly string[]> | null)?.[path] ?? []
      return ids.flatMap((id) => list.find((each) => each.id === id)?.name ?? []).join(', ')
    },
  }
}

/** A day, or none. */
export const dayField = (path: string): OwnKind => ({
  type: 'date',
  read: (read, name) => read.optional(name),
  begin: (record) => ((record as Record<string, string | null> | null)?.[path] ?? '').slice(0, 10),
})

/** One of some records, or none. */
export const choiceOrNone = (path: string): OwnKind => ({
  type: 'select',
  read: (read, name) => read.optional(name),
  begin: (record) => (valueAt(record, path) as string | null | undefined) ?? '',
})

/** A text that may be empty, and is never nothing. */
export const plainText = (path: string): OwnKind => ({
  read: (read, name) => read.raw(name),
  begin: (record) => (record as Record<string, string> | null)?.[path] ?? '',
})
