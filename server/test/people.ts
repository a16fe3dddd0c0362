import { randomUUID } from 'node:crypto'
import { expect } from 'vitest'
import type { Answer, TestServer } from './test-server.ts'

/** A browser: it keeps the cookie it was given and says where its pages come from. */
export class TestBrowser {
  private readonly server: TestServer
  cookie = ''
  readonly address: string | undefined

  constructor(server: TestServer, address?: string) {
    this.server = server
    this.address = address
  }

  async call(method: string, path: string, body?: unknown, headers: Record<string, string> = {}): Promise<Answer> {
    const own: Record<string, string> = { 'sec-fetch-site': 'same-origin' }
    if (this.cookie) own.cookie = this.cookie
    if (this.address) own['x-forwarded-for'] = this.address
    const answer = await this.server.call(method, path, body, { ...own, ...headers })
    const set = answer.headers['set-cookie']?.[0]
    if (set) this.cookie = set.split(';')[0] as string
    return answer
  }
}

export const PASSWORD = 'four words do it'

export interface Signed {
  readonly id: string
  readonly browser: TestBrowser
}

/** Makes the first owner; from then on people sign in. */
export async function makeOwner(server: TestServer, name = 'Ilse'): Promise<Signed & { readonly garageId: string }> {
  const browser = new TestBrowser(server)
  const answer = await browser.call('POST', '/api/owner', { name, login: name.toLowerCase(), password: PASSWORD })
  expect(answer.status, answer.text).toBe(201)
  return { id: answer.body.person.id, browser, garageId: answer.body.garages[0].garageId }
}

/** Invites somebody and lets him join on a browser of his own. */
export async function joinAs(server: TestServer, owner: Signed & { readonly garageId: string }, name: string, invitation: object): Promise<Signed> {
  const made = await owner.browser.call('POST', `/api/garages/${owner.garageId}/invitations`, invitation)
  expect(made.status, made.text).toBe(201)
  const browser = new TestBrowser(server)
  const joined = await browser.call('POST', '/api/join', { token: made.body.token, name, login: name.toLowerCase(), password: PASSWORD })
  expect(joined.status, joined.text).toBe(200)
  return { id: joined.body.person.id, browser }
}

/** A second garage with an owner of its own. */
export async function otherGarage(server: TestServer, name: string): Promise<Signed & { readonly garageId: string }> {
  const garageId = randomUUID()
  await server.knex('garages').insert({ id: garageId, name: `${name}'s` })
  const { hashOfToken, makeToken } = await import('../src/sign-in/tokens.ts')
  const token = makeToken()
  await server
    .knex('invitations')
    .insert({ id: randomUUID(), tokenHash: hashOfToken(token), garageId, role: 'owner', expiresAt: new Date(Date.now() + 3_600_000) })
  const browser = new TestBrowser(server)
  const joined = await browser.call('POST', '/api/join', { token, name, login: name.toLowerCase(), password: PASSWORD })
  expect(joined.status, joined.text).toBe(200)
  return { id: joined.body.person.id, browser, garageId }
}
