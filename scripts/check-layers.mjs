// Holds the arrows between the workspaces and between the floors of each, forbids rings of files and of folders, and draws the floors into docs/architecture.md.
//   node scripts/check-layers.mjs          complains, and ends with 1 where anything is wrong
//   node scripts/check-layers.mjs draw     draws the picture anew
import fs from 'node:fs'
import path from 'node:path'
import { fileURLToPath } from 'node:url'
import ts from 'typescript'

const MAY_IMPORT = { core: [], contract: ['core'], server: ['contract', 'core'], web: ['contract', 'core'] }
const OUTSIDE_OF_CORE = /^(node:|react|express|knex|objection|pg|pino|papaparse)/

/** The floors of each workspace, lowest first; a file may import from its own floor and from those under it. */
const FLOORS = {
  core: [
    ['errors.ts', 'zod.ts', 'attempt.ts', 'item-at.ts', 'say-issue.ts', 'solver'],
    ['units', 'stats', 'air', 'proof'],
    ['checks', 'cooling', 'dyno', 'electrics', 'jobs', 'mass', 'ruling'],
    ['aero', 'brakes', 'drivetrain', 'engine', 'structure', 'tyres'],
    ['track'],
    ['tracklog'],
    ['records'],
    ['stages'],
    ['rooms/weight'],
    ['rooms/power'],
    ['rooms/parts'],
    ['rooms/aero'],
    ['rooms/drivetrain'],
    ['rooms/jobs', 'rooms/checks'],
    ['rooms/track'],
    ['rooms/systems'],
    ['board'],
    ['calculations', 'report'],
    ['index.ts'],
  ],
  contract: [],
  server: [
    ['database', 'http', 'solver'],
    ['access'],
    ['sign-in'],
    ['people'],
    ['file-reading', 'build-reading', 'garage-rows'],
    ['workers'],
    ['records'],
    ['batches', 'builds', 'calculations', 'devices', 'photos', 'pull-files', 'shelf'],
    ['track-logs'],
    ['build-files', 'links', 'live', 'log'],
    ['demo', 'copies'],
    ['operation'],
    ['app.ts', 'main.ts'],
  ],
  web: [['data'], ['ui'], ['shared'], ['features'], ['app'], ['main.tsx']],
}
/** Folders whose own folders are rooms and may not import each other. */
const APART = { web: 'features' }
const MARKS = ['<!-- floors: drawn by the layer check -->', '<!-- end of floors -->']

const isTest = (file) => /\.test\.tsx?$/.test(file)
const within = (place, file) => file === place || file.startsWith(`${place}/`)
const floorOf = (workspace, file) => FLOORS[workspace].findIndex((places) => places.some((place) => within(place, file)))
/** The folder that stands for a file in the picture, and in rings of folders. */
const placeOf = (workspace, file) => {
  if (APART[workspace] && within(APART[workspace], file)) return file.split('/').slice(0, 2).join('/')
  return FLOORS[workspace].flat().find((place) => within(place, file)) ?? file.split('/')[0]
}

/** Every source file of the four workspaces with what it imports, as paths. */
function readTree(root) {
  return Object.keys(MAY_IMPORT).flatMap((workspace) =>
    sources(path.join(root, workspace, 'src')).map((file) => {
      const imports = ts.preProcessFile(fs.readFileSync(file, 'utf8'), true, true).importedFiles.map((entry) => entry.fileName)
      return { workspace, file, name: path.relative(path.join(root, workspace, 'src'), file), imports }
    }),
  )
}

/** All sentences of complaint about a tree that holds the four workspaces. */
export function layerFaults(root) {
  const tree = readTree(root)
  const faults = tree.flatMap((entry) => [...outerFaults(root, entry), ...floorFaults(root, entry)])
  const graph = new Map(tree.map(({ file, imports }) => [file, imports.filter((to) => to.startsWith('.')).map((to) => path.resolve(path.dirname(file), to))]))
  const ofFiles = rings(graph).map((ring) => `ring: ${ring.map((file) => path.relative(root, file)).join(' → ')}`)
  const ofFolders = Object.keys(FLOORS).flatMap((workspace) =>
    rings(folderArrows(root, tree, workspace)).map((ring) => `ring of folders in ${workspace}: ${ring.join(' → ')}`),
  )
  return [...faults, ...ofFiles, ...ofFolders]
}

function outerFaults(root, { workspace, file, imports }) {
  const name = path.relative(root, file)
  return imports.flatMap((to) => {
    const faults = []
    const other = /^@bold-ballast\/(\w+)/.exec(to)?.[1]
    if (other && !MAY_IMPORT[workspace].includes(other))
      faults.push(`${name} imports ${to}: ${workspace} may import ${MAY_IMPORT[workspace].join(' and ') || 'nothing of ours'}`)
    if (workspace === 'core' && !isTest(file) && OUTSIDE_OF_CORE.test(to)) faults.push(`${name} imports ${to}: core does no input, output or interface`)
    if (to.startsWith('.') && !path.resolve(path.dirname(file), to).startsWith(path.join(root, workspace) + path.sep))
      faults.push(`${name} reaches into another workspace by ${to}`)
    if (/(^|\/)index\.ts$/.test(to) && !/migrations\/index\.ts$/.test(to)) faults.push(`${name} imports the edge ${to}; import the file itself`)
    return faults
  })
}

/** Targets of a file's imports in its own workspace, by their names there. */
const targets = (root, { workspace, file, imports }) =>
  imports.filter((to) => to.startsWith('.')).map((to) => path.relative(path.join(root, workspace, 'src'), path.resolve(path.dirname(file), to)))

/** A test may look down on anything: it stands beside what it tests, and often tries it through what uses it. */
function floorFaults(root, entry) {
  const { workspace, file, name } = entry
  if (FLOORS[workspace].length === 0 || isTest(file)) return []
  const own = floorOf(workspace, name)
  if (own < 0) return [`${workspace}/src/${name} stands on no floor: put it into a folder of one`]
  return targets(root, entry).flatMap((to) => {
    if (to.startsWith('..')) return []
    const faults = []
    if (floorOf(workspace, to) > own) faults.push(`${workspace}/src/${name} imports ${to}: ${placeOf(workspace, to)} stands on a higher floor`)
    const apart = APART[workspace]
    if (apart && within(apart, name) && within(apart, to) && placeOf(workspace, name) !== placeOf(workspace, to))
      faults.push(`${workspace}/src/${name} imports ${to}: rooms do not import each other`)
    return faults
  })
}

function folderArrows(root, tree, workspace) {
  const arrows = new Map()
  for (const entry of tree.filter((each) => each.workspace === workspace && !isTest(each.file))) {
    const from = placeOf(workspace, entry.name)
    const known = arrows.get(from) ?? new Set()
    arrows.set(from, known)
    for (const to of targets(root, entry)) {
      const place = placeOf(workspace, to)
      if (!to.startsWith('..') && place !== from) known.add(place)
    }
  }
  return arrows
}

/** The floors as they stand in the code, highest first, and what each folder imports. */
export function drawFloors(root) {
  const tree = readTree(root)
  const lines = []
  for (const workspace of ['web', 'server', 'contract', 'core']) {
    const arrows = folderArrows(root, tree, workspace)
    lines.push(`${workspace}${MAY_IMPORT[workspace].length > 0 ? `  → ${MAY_IMPORT[workspace].join(', ')}` : ''}`)
    const floors = FLOORS[workspace].length > 0 ? FLOORS[workspace] : [[...arrows.keys()]]
    const places = [...arrows.keys()]
    const width = Math.max(...places.map((place) => place.length))
    for (const [i, floor] of [...floors.entries()].reverse()) {
      const here = places.filter((place) => floor.some((each) => within(each, place))).sort()
      for (const [k, place] of here.entries()) {
        const to = [...arrows.get(place)].sort()
        lines.push(`  ${k === 0 ? String(i + 1).padStart(2) : '  '} │ ${place.padEnd(width)}${to.length > 0 ? `  → ${to.join(', ')}` : ''}`)
      }
    }
    lines.push('')
  }
  return `${MARKS[0]}\n\`\`\`\n${lines.join('\n').trimEnd()}\n\`\`\`\n${MARKS[1]}`
}

/** The page with the picture drawn anew. */
function redrawn(root) {
  const page = path.join(root, 'docs', 'architecture.md')
  const text = fs.readFileSync(page, 'utf8')
  const [from, to] = [text.indexOf(MARKS[0]), text.indexOf(MARKS[1])]
  return { page, text, next: text.slice(0, from) + drawFloors(root) + text.slice(to + MARKS[1].length) }
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
  const visit = (node, trail) => {
    const at = trail.indexOf(node)
    if (at >= 0) return void found.push([...trail.slice(at), node])
    if (done.has(node)) return
    for (const next of graph.get(node) ?? []) visit(next, [...trail, node])
    done.add(node)
  }
  for (const node of graph.keys()) visit(node, [])
  return found
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const root = fileURLToPath(new URL('..', import.meta.url))
  const faults = layerFaults(root)
  const { page, text, next } = redrawn(root)
  if (process.argv[2] === 'draw') fs.writeFileSync(page, next)
  else if (text !== next) faults.push('docs/architecture.md shows other floors than the code has: run npm run layers')
  for (const fault of faults) console.error(fault)
  process.exitCode = faults.length > 0 ? 1 : 0
}
