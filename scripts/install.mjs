// What start and test need before anything else: npm packages and Debian's Chromium. Node built-ins only.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import fs from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import zlib from 'node:zlib'

export const root = fileURLToPath(new URL('..', import.meta.url))

/** A sentence for the person at the terminal; shown without a stack. */
export class Refusal extends Error {}

const digest = (text) => createHash('sha256').update(text).digest('hex')

/** Runs npm install when the lock file is not the one that was installed last. */
export function installPackages() {
  const stamp = path.join(root, 'node_modules', '.bold-ballast-lock')
  const wanted = digest(fs.readFileSync(path.join(root, 'package-lock.json')))
  if (fs.existsSync(stamp) && fs.readFileSync(stamp, 'utf8') === wanted) return
  console.error('Installing npm packages ...')
  const done = spawnSync('npm', ['install', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] })
  if (done.status !== 0) throw new Refusal('npm install failed. Check the network and run the command again.')
  fs.writeFileSync(stamp, digest(fs.readFileSync(path.join(root, 'package-lock.json'))))
}

/** Where a program is; installs the Debian package that has it where it is missing and may be installed. */
function findProgram(places, debianPackage) {
  const found = () => places.find((place) => fs.existsSync(place))
  if (found()) return found()
  const sudo = process.getuid?.() === 0 ? [] : ['sudo', '-n']
  const run = (...args) => {
    const [command, ...rest] = [...sudo, ...args]
    return spawnSync(command, rest, { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } }).status === 0
  }
  console.error(`Installing ${debianPackage} from Debian (once) ...`)
  run('apt-get', '-o', 'DPkg::Lock::Timeout=300', 'update', '-qq')
  run('apt-get', '-o', 'DPkg::Lock::Timeout=300', 'install', '-y', '-qq', '--no-install-recommends', debianPackage)
  if (!found()) throw new Refusal(`"${debianPackage}" is not installed and could not be. Install this Debian package (apt-get install ${debianPackage}).`)
  return found()
}

/** Path of Chromium. */
export const findChromium = () => findProgram([process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser'].filter(Boolean), 'chromium')

/** Path of the reader that the tests hold printed pages against. */
export const findPdfToText = () => findProgram(['/usr/bin/pdftotext'], 'poppler-utils')

/** Hash of everything the build is made from. */
export function sourceStamp() {
  const hash = createHash('sha256')
  const walk = (folder) => {
    for (const entry of fs.readdirSync(folder, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      if (entry.name === 'node_modules' || entry.name === 'dist' || entry.name.endsWith('.tsbuildinfo')) continue
      const at = path.join(folder, entry.name)
      if (entry.isDirectory()) walk(at)
      // By where it stands in the project: a tree that was moved is still built.
      else hash.update(path.relative(root, at)).update(fs.readFileSync(at))
    }
  }
  for (const part of ['core', 'contract', 'server', 'web']) walk(path.join(root, part))
  hash.update(fs.readFileSync(path.join(root, 'package-lock.json')))
  return hash.digest('hex')
}

/** Beside each file that shrinks, the same packed by brotli and by gzip, for whoever asks for it. */
function packAssets(folder) {
  for (const entry of fs.readdirSync(folder, { withFileTypes: true, recursive: true })) {
    if (!entry.isFile() || !/\.(js|css|html|svg|wasm|json)$/.test(entry.name)) continue
    const at = path.join(entry.parentPath ?? entry.path, entry.name)
    const bytes = fs.readFileSync(at)
    fs.writeFileSync(`${at}.br`, zlib.brotliCompressSync(bytes, { params: { [zlib.constants.BROTLI_PARAM_QUALITY]: 9 } }))
    fs.writeFileSync(`${at}.gz`, zlib.gzipSync(bytes, { level: 9 }))
  }
}

const isAlive = (pid) => {
  try {
    process.kill(pid, 0)
    return true
  } catch (error) {
    return error.code === 'EPERM'
  }
}

/** Does something that programs beside each other may not do at once; one that was killed in it keeps nobody. */
function alone(lock, work) {
  fs.mkdirSync(path.dirname(lock), { recursive: true })
  for (;;) {
    try {
      fs.writeFileSync(lock, String(process.pid), { flag: 'wx' })
      break
    } catch (error) {
      if (error.code !== 'EEXIST') throw error
      const holder = Number(fs.readFileSync(lock, 'utf8') || 0)
      if (holder && !isAlive(holder)) fs.rmSync(lock, { force: true })
      else Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 100)
    }
  }
  try {
    return work()
  } finally {
    fs.rmSync(lock, { force: true })
  }
}

/** Builds server and web when their sources changed since the last build; of programs that ask at once, one does. */
export function buildAll() {
  const stamp = path.join(root, 'web', 'dist', '.stamp')
  const wanted = sourceStamp()
  const isBuilt = () => fs.existsSync(stamp) && fs.readFileSync(stamp, 'utf8') === wanted && fs.existsSync(path.join(root, 'server/dist/main.js'))
  if (isBuilt()) return
  alone(path.join(root, '.out', 'build.lock'), () => {
    if (isBuilt()) return
    console.error('Building ...')
    const run = (args, cwd) => {
      // Whoever asks for it, a test too, what is built is what people use.
      const done = spawnSync(process.execPath, args, { cwd, encoding: 'utf8', env: { ...process.env, NODE_ENV: 'production' } })
      if (done.status !== 0) throw new Refusal(`The build failed:\n${done.stdout}\n${done.stderr}`)
    }
    run([path.join(root, 'server/build.mjs')], root)
    run([path.join(root, 'node_modules/vite/bin/vite.js'), 'build', '--logLevel', 'warn'], path.join(root, 'web'))
    packAssets(path.join(root, 'web', 'dist'))
    fs.writeFileSync(stamp, wanted)
  })
}
