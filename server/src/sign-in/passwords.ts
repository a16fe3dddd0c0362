import { AppError } from '../http/problem.ts'
import { folded } from './names.ts'

const SHORTEST = 12
const LONGEST = 256

/** A password as it is hashed: one way to write each letter. */
export const normal = (password: string): string => password.normalize('NFC')

let common: Promise<ReadonlySet<string>> | undefined

/** The lists of common passwords, read when the first is chosen. */
function commonPasswords(): Promise<ReadonlySet<string>> {
  common ??= import('@zxcvbn-ts/language-common').then(({ dictionary }) => new Set((dictionary['passwords-common'] as readonly string[]).map(folded)))
  return common
}

const refuse = (field: string, message: string) => new AppError('bad-input', message, { errors: [{ path: field, message }] })

/** Whether a text is a shorter one over and over: a common word twice is as common. */
const unitOf = (text: string): string => {
  const again = (text + text).indexOf(text, 1)
  return text.slice(0, again)
}

/** Refuses a password that is short, common, or a name that others know; asks for no kinds of letters. */
export async function requirePassword(password: string, names: readonly string[], field = 'password'): Promise<void> {
  const letters = [...normal(password)].length
  if (letters < SHORTEST) throw refuse(field, `Use ${SHORTEST} characters or more; four words do.`)
  if (letters > LONGEST) throw refuse(field, `Use ${LONGEST} characters or fewer.`)
  const known = folded(password)
  if (names.some((name) => folded(name) === known)) throw refuse(field, 'It is a name that others know. Use four words.')
  const lists = await commonPasswords()
  if (lists.has(known) || lists.has(unitOf(known)) || unitOf(known).length <= 2) throw refuse(field, 'It is on lists of common passwords.')
}
