import { type ChildProcess, spawn } from 'node:child_process'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
// @ts-expect-error a script without types
import { buildAll } from '../scripts/install.mjs'
// @ts-expect-error a script without types
import { freePort as findFreePort } from '../scripts/postgres.mjs'

export const root = fileURLToPath(new URL('..', import.meta.url))
export const script = (name: string) => path.join(root, 'scripts', name)

export const freePort = findFreePort as () => Promise<number>

export interface Served {
  readonly port: number
  readonly address: string
  /** Lines of its log so far. */
  readonly lines: readonly string[]
  readonly signal: (name: NodeJS.Signals) => void
  /** Resolves with the code it ends with. */
  readonly ended: Promise<number | null>
}

/** A server as it runs for good, of what was built; ready when this resolves. */
export async function serve(environment: Record<string, string>): Promise<Served> {
  buildAll()
  const port = Number(environment.PORT ?? (await freePort()))
  const child: ChildProcess = spawn(process.execPath, [script('serve.mjs')], {
    env: { ...process.env, ...environment, PORT: String(port) },
    stdio: ['ignore', 'pipe', 'pipe'],
  })
  const lines: string[] = []
  let said = ''
  child.stderr?.on('data', (chunk: Buffer) => {
    said += chunk.toString('utf8')
  })
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve))
  await new Promise<void>((resolve, reject) => {
    child.stdout?.on('data', (chunk: Buffer) => {
      lines.push(...chunk.toString('utf8').split('\n').filter(Boolean))
      if (lines.some((line) => line.includes('ready on'))) resolve()
    })
    void ended.then((code) => reject(new Error(`the server ended with ${code}: ${said}`)))
  })
  return { port, address: `http://127.0.0.1:${port}`, lines, signal: (name) => void child.kill(name), ended }
}

export interface Ran {
  readonly code: number | null
  readonly out: string
  readonly err: string
}

/** Runs a script of ours to its end. */
export function runScript(name: string, args: readonly string[], environment: Record<string, string>): Promise<Ran> {
  buildAll()
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [script(name), ...args], {
      env: { ...process.env, ...environment },
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    let [out, err] = ['', '']
    child.stdout.on('data', (chunk: Buffer) => {
      out += chunk.toString('utf8')
    })
    child.stderr.on('data', (chunk: Buffer) => {
      err += chunk.toString('utf8')
    })
    child.once('close', (code) => resolve({ code, out: out.trim(), err: err.trim() }))
  })
}

/** Asks a server; an answer of JSON, or undefined where nobody answered. */
export async function ask(address: string, method: string, route: string, body?: unknown, headers: Record<string, string> = {}) {
  try {
    const answer = await fetch(`${address}/api${route}`, {
      method,
      // A connection that is kept may be closed by the server in the moment it is used again.
      headers: { 'content-type': 'application/json', 'sec-fetch-site': 'same-origin', connection: 'close', ...headers },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    // biome-ignore lint/suspicious/noExplicitAny: bodies are asserted on, field by field
    return { status: answer.status, body: (await answer.json()) as any, headers: answer.headers }
  } catch {
    return undefined
  }
}
