import { execFileSync, spawn } from 'node:child_process'
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { type Cluster, startCluster } from './cluster.ts'
import { freePort, runScript } from './served.ts'

let cluster: Cluster
let folder: string
let made: string
const run = (program: string, ...args: string[]) => execFileSync(program, args, { encoding: 'utf8', maxBuffer: 64e6 })

beforeAll(async () => {
  cluster = await startCluster()
  folder = mkdtempSync(path.join(tmpdir(), 'package-'))
  const done = await runScript('debian.mjs', [folder], {})
  expect(done.code, done.err).toBe(0)
  made = done.out.trim().split('\n').at(-1) as string
  run('dpkg-deb', '--extract', made, path.join(folder, 'out'))
})
afterAll(async () => {
  await cluster.stop()
  rmSync(folder, { recursive: true, force: true })
})

it('the Debian package says what it is and needs, and keeps the settings of whoever upgrades', () => {
  const [name, version] = [run('dpkg-deb', '--field', made, 'Package').trim(), run('dpkg-deb', '--field', made, 'Version').trim()]
  expect([name, version]).toEqual(['bold-ballast', JSON.parse(readFileSync('package.json', 'utf8')).version])
  expect(run('dpkg-deb', '--field', made, 'Depends')).toMatch(/nodejs \(>= 20\), postgresql \(>= 15\)/)
  const listed = run('dpkg-deb', '--contents', made).split('\n').filter(Boolean)
  expect(listed.filter((line) => !line.includes(' root/root '))).toEqual([])
  run('dpkg-deb', '--control', made, path.join(folder, 'control'))
  expect(readFileSync(path.join(folder, 'control', 'conffiles'), 'utf8')).toBe('/etc/bold-ballast/environment\n')
  for (const script of ['postinst', 'prerm']) run('sh', '-n', path.join(folder, 'control', script))
  run('sh', '-n', path.join(folder, 'out/usr/bin/bold-ballast'))
  const unit = readFileSync(path.join(folder, 'out/lib/systemd/system/bold-ballast.service'), 'utf8')
  expect(unit).toContain('WorkingDirectory=/opt/bold-ballast')
  expect(existsSync(path.join(folder, 'out/opt/bold-ballast/node_modules/vitest'))).toBe(false)
})

it('what lies in it serves, and takes a copy that is whole, with nothing built and nothing installed', async () => {
  const home = path.join(folder, 'out/opt/bold-ballast')
  const port = await freePort()
  const env = { ...process.env, DATABASE_URL: cluster.url, PORT: String(port), DATA_DIR: folder, COPIES_DIR: path.join(folder, 'copies'), DEMO: '1' }
  const child = spawn(process.execPath, ['scripts/serve.mjs'], { cwd: home, env, stdio: ['ignore', 'pipe', 'pipe'] })
  let said = ''
  child.stdout.on('data', (chunk: Buffer) => {
    said += chunk.toString('utf8')
  })
  child.stderr.on('data', (chunk: Buffer) => {
    said += chunk.toString('utf8')
  })
  try {
    await expect.poll(() => said, { timeout: 60_000 }).toContain('ready on')
    expect(said).not.toMatch(/Building|Installing/)
    expect((await fetch(`http://127.0.0.1:${port}/api/health/ready`)).status).toBe(200)
    expect(await (await fetch(`http://127.0.0.1:${port}/`)).text()).toContain('<div id="root">')
    expect(execFileSync(process.execPath, ['scripts/backup.mjs'], { cwd: home, env, encoding: 'utf8' })).toMatch(/every row the same, 3 Boards open/)
  } finally {
    child.kill('SIGTERM')
    await new Promise((resolve) => child.once('exit', resolve))
  }
})
