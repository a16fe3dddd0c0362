// Holds the arrows between the workspaces and forbids rings of files.
import fs from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import ts from 'typescript'

const MAY_IMPORT = { core: [], contract: ['core'], server: ['contract', 'core'], web: ['contract', 'core'] }
const OUTSIDE_OF_CORE = /^(node:|react|express|knex|objection|pg|pino|papaparse)/

/** All sentences of complaint about a tree that holds the four workspaces. */
export function layerFaults(root) {
  const files = Object.keys(MAY_IMPORT).flatMap((workspace) => sources(path.join(root, workspace, 'src')).map((file) => ({ workspace, file })))
  const faults = []
  const graph = new Map()
  for (const { workspace, file } of files) {
    const name = path.relative(root, file)
    const imports = ts.preProcessFile(fs.readFileSync(file, 'utf8'), true, true).importedFiles.map((entry) => entry.fileName)
    graph.set(
      file,
      imports.filter((to) => to.startsWith('.')).map((to) => path.resolve(path.dirname(file), to)),
    )
    for (const to of imports) {
      const other = /^@bold-ballast\/(\w+)/.exec(to)?.[1]
      if (other && !MAY_IMPORT[workspace].includes(other))
        faults.push(`${name} imports ${to}: ${workspace} may import ${MAY_IMPORT[workspace].join(' and ') || 'nothing of ours'}`)
      if (workspace === 'core' && !/\.test\.ts$/.test(file) && OUTSIDE_OF_CORE.test(to))
        faults.push(`${name} imports ${to}: core does no input, output or interface`)
      if (to.startsWith('.') && !path.resolve(path.dirname(file), to).startsWith(path.join(root, workspace) + path.sep))
        faults.push(`${name} reaches into another workspace by ${to}`)
      if (/(^|\/)index\.ts$/.test(to) && !/migrations\/index\.ts$/.test(to)) faults.push(`${name} imports the edge ${to}; import the file itself`)
    }
  }
  return [...faults, ...rings(graph).map((ring) => `ring: ${ring.map((file) => path.relative(root, file)).join(' → ')}`)]
}

function sources(folder) {
  return fs.readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const at = path.join(folder, entry.name)
    return entry.isDirectory() ? sources(at) : /\.tsx?$/.test(entry.name) && !entry.name.endsWith('.d.ts') ? [at] : []
  })
}

function rings(graph) {
  const found = []
  const done = new Set()
  const visit = (file, trail) => {
    const at = trail.indexOf(file)
    if (at >= 0) return void found.push([...trail.slice(at), file])
    if (done.has(file)) return
    for (const next of graph.get(file) ?? []) visit(next, [...trail, file])
    done.add(file)
  }
  for (const file of graph.keys()) visit(file, [])
  return found
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const faults = layerFaults(fileURLToPath(new URL('..', import.meta.url)))
  for (const fault of faults) console.error(fault)
  process.exitCode = faults.length > 0 ? 1 : 0
}
