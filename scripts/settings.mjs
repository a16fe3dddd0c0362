// What the environment says about a server, read once for npm start and npm run serve.
import path from 'node:path'
import { Refusal, root } from './install.mjs'

/** A number of the environment; undefined where it says nothing. */
function number(name, least, most) {
  const text = process.env[name]
  if (text === undefined || text === '') return undefined
  const value = Number(text)
  if (!Number.isInteger(value) || value < least || value > most) throw new Refusal(`${name} is "${text}"; give a number from ${least} to ${most}.`)
  return value
}

/** A word of the environment out of a list; undefined where it says nothing. */
function oneOf(name, words) {
  const word = process.env[name] || undefined
  if (word !== undefined && !words.includes(word)) throw new Refusal(`${name} is "${word}"; give ${words.join(' or ')}.`)
  return word
}

/** Where what is kept beside the database lies: the secret of sign-ins, copies, the database itself where it is ours. */
export const dataFolder = () => path.resolve(process.env.DATA_DIR ?? path.join(root, '.data'))

/** Where copies are kept: beside a database of ours; of another one, where COPIES_DIR says so. */
function copySettings() {
  const { COPIES_DIR: folder, DATABASE_URL: isOther } = process.env
  if (!folder && isOther) return undefined
  return { folder: path.resolve(folder ?? path.join(dataFolder(), 'copies')), script: path.join(root, 'scripts', 'backup.mjs') }
}

export function serverSettings() {
  const { HOST: host, TLS_CERT: tlsCert, TLS_KEY: tlsKey, PUBLIC_URL: publicUrl, TRUST_PROXY: trustProxy } = process.env
  return {
    reach: { host, tlsCert, tlsKey, publicUrl, trustProxy },
    databaseOwnerUrl: process.env.DATABASE_OWNER_URL,
    sessionSecret: process.env.SESSION_SECRET,
    secretFile: path.join(dataFolder(), 'session-secret'),
    port: number('PORT', 1, 65_535),
    metricsPort: number('METRICS_PORT', 1, 65_535),
    drainS: number('DRAIN_S', 0, 600),
    logLevel: process.env.LOG_LEVEL,
    copies: copySettings(),
    hasDevices: oneOf('DEVICES', ['on', 'off']) !== 'off',
    webRoot: path.join(root, 'web', 'dist'),
    withCrew: process.env.DEMO === 'crew',
    demoRoot: process.env.DEMO === 'none' ? undefined : path.join(root, 'demo'),
  }
}

/** What is told without a stack: sentences of ours for the person at the terminal. */
const SENTENCES = /^(HOST is|PORT |TLS_|PUBLIC_URL|SESSION_SECRET|Others would|DATABASE_|A newer Bold Ballast|COPIES_|The copy before|.* waits for an upgrade)/

/** Says what went wrong, and ends. */
export function endWith(error, sentences = []) {
  const isSentence = error instanceof Refusal || sentences.some((kind) => error instanceof kind) || SENTENCES.test(error?.message ?? '')
  console.error(isSentence ? error.message : error)
  process.exit(1)
}
