import { readdirSync, readFileSync } from 'node:fs'
import path from 'node:path'
import loadHighs from 'highs'
import ts from 'typescript'
import { describe, expect, it } from 'vitest'
import * as core from '../src/index.ts'
import * as fixtures from './example-fixtures.ts'

const root = path.join(import.meta.dirname, '..', 'src')
const sources = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const at = path.join(folder, entry.name)
    return entry.isDirectory() ? sources(at) : /(?<!\.test)\.ts$/.test(entry.name) ? [at] : []
  })

interface Documented {
  readonly file: string
  readonly name: string
  readonly comment: string
  readonly text: string
  readonly examples: readonly { readonly expression: string; readonly expected: string }[]
}

/** Every exported function with its comment and the examples in it. */
function functionsOf(file: string): Documented[] {
  const source = ts.createSourceFile(file, readFileSync(file, 'utf8'), ts.ScriptTarget.Latest, true)
  return source.statements.flatMap((statement): Documented[] => {
    const isExported = ts.canHaveModifiers(statement) && ts.getModifiers(statement)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword)
    if (!isExported) return []
    const comment = ts
      .getJSDocCommentsAndTags(statement)
      .map((node) => node.getText())
      .join('\n')
    const examples = [...comment.matchAll(/@example (.+?) \/\/ (.+?)(?:\s*\*\/)?$/gm)].map((found) => ({
      expression: found[1] as string,
      expected: (found[2] as string).replaceAll('−', '-'),
    }))
    const names = ts.isFunctionDeclaration(statement)
      ? [statement.name?.text ?? '']
      : ts.isVariableStatement(statement)
        ? statement.declarationList.declarations.flatMap(({ name, initializer }) => (initializer && ts.isArrowFunction(initializer) ? [name.getText()] : []))
        : []
    return names.map((name) => ({ file, name, comment, text: statement.getText(), examples }))
  })
}

const all = sources(root).flatMap(functionsOf)
const isPublic = ({ name }: Documented) => typeof (core as Record<string, unknown>)[name] === 'function'
const SOLVER = core.highsSolver(await loadHighs())

/** Numbers agree to the digits that the example gives; everything else is equal, and objects may hold more. */
function expectAsWritten(found: unknown, expected: unknown, written: string): void {
  if (typeof expected === 'number' && typeof found === 'number' && !Number.isInteger(found)) {
    const decimals = /\.(\d+)/.exec(written)?.[1]?.length ?? 0
    expect(decimals, 'give the digits that it has').toBeGreaterThan(0)
    expect(Math.abs(found - expected)).toBeLessThanOrEqual(0.5000001 * 10 ** -decimals)
  } else if (expected && typeof expected === 'object' && !Array.isArray(expected)) expect(found).toMatchObject(expected)
  else expect(found).toEqual(expected)
}

const withExamples = all.filter(({ examples }) => examples.length > 0)
describe.each(withExamples.map((each) => [`${path.relative(root, each.file)} ${each.name}`, each] as const))('%s', (_, { file, examples }) => {
  it.each(examples.map(({ expression, expected }) => [expression, expected]))('%s gives %s', async (expression, expected) => {
    const own = await import(/* @vite-ignore */ file)
    const known: Record<string, unknown> = { ...core, ...fixtures, ...own, SOLVER }
    const run = (text: string) => new Function(...Object.keys(known), `return (${text})`)(...Object.values(known)) as unknown
    const refusal = /^throws (\S+)$/.exec(expected)?.[1]
    if (refusal) expect(() => run(expression)).toThrow(expect.objectContaining({ code: refusal }))
    else expectAsWritten(run(expression), run(expected), expected)
  })
})

describe('every public function', () => {
  const named = all.filter(isPublic)
  it('is found', () => {
    expect(named.length).toBeGreaterThan(80)
  })
  it.each(named.map((each) => [each.name, each] as const))('%s says what it is and gives an example', (_, { comment, examples }) => {
    expect(comment.replace(/@example.*/g, '').replace(/[/*\s]/g, '').length).toBeGreaterThan(20)
    expect(examples.length).toBeGreaterThan(0)
  })
})

it('every function that refuses says so', () => {
  const unsaid = all.filter(({ comment, text }) => /throw new CalculationError/.test(text) && !/[Rr]eject|Errors:|[Rr]efus/.test(comment))
  expect(unsaid.map(({ file, name }) => `${path.relative(root, file)} ${name}`)).toEqual([])
})
