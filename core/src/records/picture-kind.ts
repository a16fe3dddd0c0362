import { z } from '../zod.ts'
import { id } from './common-fields.ts'
import { defineRecord, type RecordOfKind } from './define-record.ts'

export const PHOTO_TYPES = ['image/jpeg', 'image/png', 'image/webp'] as const

/** A picture that hangs on a record; its bytes stand beside. */
export const photoKind = defineRecord({
  list: 'photos',
  word: 'a picture',
  nameFrom: ['name'],
  refs: {
    recordId: {
      to: ['changes', 'weighings', 'sessions', 'boxes', 'parts'],
      whenGone: 'goesWith',
      sentence: 'A picture hangs on a ledger line, a box, a part, a weighing or a dyno session of this build. Pick one that is there.',
    },
  },
  mostInFile: 2000,
  fields: {
    id,
    recordId: id,
    name: z.string().trim().min(1).max(200),
    mediaType: z.enum(PHOTO_TYPES),
    byteCount: z.int().positive().max(10_485_760),
  },
})
export type Photo = RecordOfKind<typeof photoKind>
