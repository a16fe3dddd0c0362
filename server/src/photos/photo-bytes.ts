import type { PHOTO_TYPES } from '@bold-ballast/core'
import type { Knex } from 'knex'
import { AppError } from '../http/problem.ts'

export const LARGEST_PHOTO_BYTES = 10 * 1024 * 1024
type PhotoType = (typeof PHOTO_TYPES)[number]

const starts = (bytes: Buffer, at: number, text: string) => bytes.subarray(at, at + text.length).toString('latin1') === text

/** What kind of picture the bytes are, by how they begin; whatever the file was called. */
export function photoTypeOf(bytes: Buffer): PhotoType {
  if (bytes.length === 0) throw refuse('The file is empty. Choose the picture again.')
  if (bytes.length > LARGEST_PHOTO_BYTES) throw new AppError('too-large', 'The picture is larger than 10 MB. Take it smaller, or crop it.')
  const type = typeByHead(bytes)
  if (type && !isWhole[type](bytes)) throw refuse('The picture is cut short: its head is there and its end is not. Choose the file again.')
  if (type) return type
  throw refuse('This is no JPEG, PNG or WebP picture. Choose a photo of one of these kinds.')
}

function typeByHead(bytes: Buffer): PhotoType | undefined {
  if (starts(bytes, 0, '\u00ff\u00d8\u00ff')) return 'image/jpeg'
  if (starts(bytes, 0, '\u0089PNG\r\n\u001a\n')) return 'image/png'
  return starts(bytes, 0, 'RIFF') && starts(bytes, 8, 'WEBP') ? 'image/webp' : undefined
}

/** Whether a picture of a type has what it is made of, to its end. */
const isWhole: Record<PhotoType, (bytes: Buffer) => boolean> = {
  // Some cameras write more behind the end.
  'image/jpeg': (bytes) => bytes.lastIndexOf(Buffer.from([0xff, 0xd9])) > 3,
  'image/png': (bytes) => starts(bytes, 12, 'IHDR') && bytes.includes('IDAT') && bytes.includes('IEND'),
  'image/webp': (bytes) => bytes.length >= bytes.readUInt32LE(4) + 8,
}

const refuse = (message: string) => new AppError('bad-input', message, { errors: [{ path: 'file', message }] })

export async function insertPhotoBytes(trx: Knex, buildId: string, photoId: string, bytes: Buffer): Promise<void> {
  await trx('photo_bytes').insert({ buildId, photoId, bytes })
}

export async function photoBytes(knex: Knex, buildId: string, photoId: string): Promise<Buffer> {
  const found = (await knex('photo_bytes').where({ buildId, photoId }).first()) as { bytes: Buffer } | undefined
  if (!found) throw new AppError('not-found', 'There is no such picture.')
  return found.bytes
}
