import { describe, expect, it, test } from 'vitest'
import { LOOPBACK_FRONT } from './guard.ts'
import { reachOf } from './reach.ts'

const outside = { host: '0.0.0.0' }
const tls = { tlsCert: 'a.pem', tlsKey: 'b.pem' }
const proxy = { publicUrl: 'https://cars.example', trustProxy: 'loopback' }

describe('who can reach the server', () => {
  test.each([
    [outside, false, 'HOST is "0.0.0.0", which others can reach. Make an owner first: npm run people -- owner "NAME".'],
    [{ ...outside, ...tls }, false, 'HOST is "0.0.0.0", which others can reach. Make an owner first: npm run people -- owner "NAME".'],
    [outside, true, 'Others would reach it unencrypted. Give TLS_CERT and TLS_KEY, or PUBLIC_URL and TRUST_PROXY.'],
    [{ ...outside, publicUrl: proxy.publicUrl }, true, 'Others would reach it unencrypted. Give TLS_CERT and TLS_KEY, or PUBLIC_URL and TRUST_PROXY.'],
    [{ ...outside, tlsCert: 'a.pem' }, true, 'TLS_CERT and TLS_KEY belong together. Give both.'],
    [{ ...outside, ...proxy, publicUrl: 'http://cars.example' }, true, /PUBLIC_URL is "http:\/\/cars.example"/],
  ])('%j with an owner %s is refused', (wish, hasOwner, said) => expect(() => reachOf(wish, hasOwner)).toThrow(said))
  it('is this machine alone as long as nothing is said', () => {
    expect(reachOf({}, false)).toMatchObject({ host: '127.0.0.1', front: LOOPBACK_FRONT, tls: null })
    expect(reachOf({ host: '::1' }, false).front).toEqual(LOOPBACK_FRONT)
    expect(reachOf(tls, false).front).toEqual({ isTls: true, publicUrl: null, isOutside: false })
  })
  it('is others with an owner, and encrypted by itself or by a proxy', () => {
    expect(reachOf({ ...outside, ...tls }, true)).toMatchObject({
      front: { isTls: true, publicUrl: null, isOutside: true },
      tls: { cert: 'a.pem', key: 'b.pem' },
    })
    expect(reachOf({ ...outside, ...proxy }, true).front.publicUrl?.host).toBe('cars.example')
    // A proxy lets others in, wherever the server itself listens.
    expect(reachOf(proxy, false).front.isOutside).toBe(true)
  })
})
