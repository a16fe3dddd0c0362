import type { Front } from './guard.ts'

const LOOPBACK = ['127.0.0.1', '::1', 'localhost']

/** What the environment says about who can reach the server. */
export interface ReachWish {
  readonly host?: string | undefined
  readonly tlsCert?: string | undefined
  readonly tlsKey?: string | undefined
  readonly publicUrl?: string | undefined
  readonly trustProxy?: string | undefined
}

export interface Reach {
  readonly host: string
  readonly front: Front
  /** Files of the certificate and its key, where the server encrypts by itself. */
  readonly tls: { readonly cert: string; readonly key: string } | null
  readonly trustProxy: string | undefined
}

function publicUrlOf(text: string): URL {
  const url = URL.canParse(text) ? new URL(text) : null
  if (url?.protocol === 'https:' && url.pathname === '/' && url.search === '') return url
  throw new Error(`PUBLIC_URL is "${text}". Give the https address that people type, such as https://cars.example.`)
}

/**
 * How the server may be reached. Throws a sentence where others could reach it and nobody has to sign in, or could listen in.
 * @param hasOwner whether sign-in has begun
 */
export function reachOf({ host = '127.0.0.1', tlsCert, tlsKey, publicUrl, trustProxy }: ReachWish, hasOwner: boolean): Reach {
  const isOutside = !LOOPBACK.includes(host)
  if (isOutside && !hasOwner) throw new Error(`HOST is "${host}", which others can reach. Make an owner first: npm run people -- owner "NAME".`)
  if ((tlsCert === undefined) !== (tlsKey === undefined)) throw new Error('TLS_CERT and TLS_KEY belong together. Give both.')
  const tls = tlsCert !== undefined && tlsKey !== undefined ? { cert: tlsCert, key: tlsKey } : null
  const isBehindProxy = publicUrl !== undefined && trustProxy !== undefined
  if (isOutside && !tls && !isBehindProxy) throw new Error('Others would reach it unencrypted. Give TLS_CERT and TLS_KEY, or PUBLIC_URL and TRUST_PROXY.')
  const front = { isTls: tls !== null, publicUrl: publicUrl === undefined ? null : publicUrlOf(publicUrl), isOutside: isOutside || publicUrl !== undefined }
  return { host, front, tls, trustProxy }
}
