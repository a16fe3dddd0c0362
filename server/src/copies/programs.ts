import { spawn } from 'node:child_process'
import { CopyRefusal } from './manifest.ts'

/** Where PostgreSQL's own programs are. */
export interface PostgresPrograms {
  readonly pg_dump: string
  readonly pg_restore: string
}

/** An address without its password, and the password, which no list of processes shall show. */
function apart(databaseUrl: string): { address: string; environment: NodeJS.ProcessEnv } {
  const url = new URL(databaseUrl)
  const password = decodeURIComponent(url.password)
  url.password = ''
  return { address: url.href, environment: { ...process.env, ...(password ? { PGPASSWORD: password } : {}), LC_ALL: 'C.UTF-8' } }
}

/** Runs one of PostgreSQL's programs on a database. Rejects with what it said last. */
export function runProgram(program: string, databaseUrl: string, args: readonly string[]): Promise<void> {
  const { address, environment } = apart(databaseUrl)
  return new Promise((resolve, reject) => {
    const child = spawn(program, ['--dbname', address, ...args], { env: environment, stdio: ['ignore', 'ignore', 'pipe'] })
    let said = ''
    child.stderr.on('data', (chunk: Buffer) => {
      said = (said + chunk.toString('utf8')).slice(-4000)
    })
    child.once('error', () => reject(new CopyRefusal(`${program} could not be run. Install Debian's package postgresql.`)))
    child.once('close', (code) => {
      if (code === 0) return resolve()
      const last =
        said
          .trim()
          .split('\n')
          .findLast((line) => /error|ERROR|FATAL|No space/.test(line)) ?? said.trim().split('\n').at(-1)
      reject(new CopyRefusal(last ?? `${program} ended with ${code}.`))
    })
  })
}
