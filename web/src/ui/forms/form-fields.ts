import { fieldUnit, findUnit, fromSi, type QuantityKind, quantityOf, z } from '@bold-ballast/core'
import { typedText } from '../quantity.ts'
import type { FormReader, FormValues } from './form-reader.ts'
import type { FieldSpec, Hint } from './record-form.tsx'

type Units = Readonly<Record<string, string>>
type Fields = Readonly<Record<string, z.ZodType>>
type Tree = Record<string, unknown>

/** Points of a curve, one a line; the last may be left out of a line where it is optional. A bare one is shown without its unit. */
export interface PointsKind {
  readonly points: readonly { readonly key: string; readonly kind: QuantityKind; readonly isOptional?: boolean; readonly isBare?: boolean }[]
  /** What a person is told who gives none. */
  readonly whenNone?: string
}

/** A field that is read and shown in a way of its own. */
export interface OwnKind {
  readonly read: (read: FormReader, name: string) => unknown
  readonly begin: (record: unknown, units: Units) => string
  readonly type?: FieldSpec['type']
}

interface FieldOptions {
  readonly label: string
  readonly hint?: Hint
  readonly section?: string
  readonly isWide?: boolean
  /** The words of a choice, by its values. */
  readonly words?: Readonly<Record<string, string>>
  /** Where the text that was typed is kept beside the number. */
  readonly typedAt?: string
  /** The unit a stored number is shown in, where it is not the picked one. */
  readonly shownIn?: string
  /** The unit a plain number is read in, and shown in, where it is not the picked one. */
  readonly unit?: string
  /** What the form begins with where the record has none, in the field's own unit. */
  readonly begin?: number | boolean | string
}

type FieldKind = QuantityKind | 'number' | 'count' | 'choice' | 'numberChoice' | 'flag' | 'checkbox' | 'text' | 'note' | PointsKind | OwnKind

export interface Field extends FieldOptions {
  readonly path: string
  readonly kind: FieldKind
}

/** Declares a field of a form, once: its spec, how it is read and what it begins with follow; its limits are those of the record's own field. */
export const field = (path: string, kind: FieldKind, options: FieldOptions): Field => ({ path, kind, ...options })

/** A part of a record that is nothing while one of its fields is empty. */
export interface Group {
  readonly path: string
  readonly unless: string
}

/** The name of a field in its form; a dot would make a tree of it. */
export const fieldName = (path: string): string => path.replaceAll('.', '-')

/** What a record holds at a path such as `gap.needM`. */
export const valueAt = (tree: unknown, path: string): unknown => path.split('.').reduce<unknown>((at, key) => (at as Tree | null | undefined)?.[key], tree)

function putAt(tree: Tree, path: string, value: unknown): void {
  const keys = path.split('.')
  const last = keys.pop() as string
  let at = tree
  for (const key of keys) {
    at[key] ??= {}
    at = at[key] as Tree
  }
  at[last] = value
}

/** The declared field behind defaults and nothings. */
function bare(schema: z.ZodType): z.ZodType {
  return schema instanceof z.ZodDefault || schema instanceof z.ZodNullable || schema instanceof z.ZodOptional ? bare(schema.unwrap() as z.ZodType) : schema
}

function declaredAt(fields: Fields, path: string): z.ZodType {
  let schema: z.ZodType = z.object(fields)
  for (const key of path.split('.')) schema = (bare(schema) as z.ZodObject).shape[key] as z.ZodType
  return schema
}

/** How many record units one unit of the field is: litres of a field in cubic metres. */
function scaleOf(path: string, kind: QuantityKind): number {
  const unit = fieldUnit(path.split('.').at(-1) ?? '')?.unit
  return (unit && findUnit(kind, unit.symbol)?.factor) ?? 1
}

const isQuantity = (kind: FieldKind): kind is QuantityKind => typeof kind === 'string' && quantityOf(kind as QuantityKind) !== undefined

/** Refuses a number that the record's field does not take, with the bounds in the units of the form. */
function holdBounds(read: FormReader, { path, kind, label }: Field, schema: z.ZodType, value: number): void {
  if (Number.isNaN(value) || schema.safeParse(value).success) return
  const declared = bare(schema)
  const [low, high] = declared instanceof z.ZodNumber ? [declared.minValue ?? -Infinity, declared.maxValue ?? Infinity] : [-Infinity, Infinity]
  const unit = isQuantity(kind) ? (read.units[kind] ?? '') : ''
  const shown = (bound: number) => (isQuantity(kind) ? Number(fromSi(kind, bound * scaleOf(path, kind), unit).toPrecision(6)) : bound)
  const behind = unit ? ` ${unit}` : ''
  if (low === 0 && value <= 0)
    read.refuse(fieldName(path), `${label} must be ${declared.safeParse(0).success ? 'zero or more' : 'more than zero'}. Type what it is.`)
  else if (Number.isFinite(low) && Number.isFinite(high)) read.refuse(fieldName(path), `${label} lies from ${shown(low)} to ${shown(high)}${behind}.`)
  else if (Number.isFinite(high)) read.refuse(fieldName(path), `${label} is at most ${shown(high)}${behind}.`)
  else read.refuse(fieldName(path), `${label} is at least ${shown(low)}${behind}.`)
}

function readPoints(read: FormReader, { path, label }: Field, { points, whenNone }: PointsKind, schema: z.ZodType): Tree[] {
  const name = fieldName(path)
  if (read.raw(name) === '' && whenNone) read.refuse(name, whenNone)
  const element = (bare(schema) as z.ZodArray).element as z.ZodType
  return read.points(name, label.split(':')[0]?.toLowerCase() ?? label, points).map((values) => {
    const point = Object.fromEntries(points.map(({ key }, i) => [key, values[i] ?? null]))
    for (const { key, kind, isOptional } of points) {
      const inner = declaredAt({ point: element }, `point.${key}`)
      if (!(isOptional && point[key] === null)) holdBounds(read, { path, kind, label: label.split(':')[0] ?? label }, inner, point[key] as number)
    }
    return point
  })
}

/** What a field holds, as the record keeps it; null where it may be empty and is. */
function readField(read: FormReader, each: Field, schema: z.ZodType): { value: unknown; typed?: string } {
  const { path, kind, label } = each
  const name = fieldName(path)
  if (typeof kind === 'object') return { value: 'read' in kind ? kind.read(read, name) : readPoints(read, each, kind, schema) }
  if (kind === 'text') return { value: read.text(name, label) }
  if (kind === 'choice') return { value: read.raw(name) }
  if (kind === 'numberChoice') return { value: Number(read.raw(name)) }
  if (kind === 'flag' || kind === 'checkbox') return { value: read.flag(name) }
  if (kind === 'note') return { value: read.optional(name) }
  if (read.raw(name) === '' && schema.safeParse(null).success) return { value: null }
  if (kind === 'count') {
    const declared = bare(schema) as z.ZodNumber
    // A whole number above nothing begins at 1.
    const low = Math.max(declared.safeParse(0).success ? 0 : 1, declared.minValue ?? 0)
    return { value: read.count(name, label, low, declared.maxValue ?? Number.MAX_SAFE_INTEGER) }
  }
  const found = kind === 'number' ? { value: read.number(name, label), typed: read.raw(name) } : read.quantity(name, label, kind, each.unit)
  const value = kind === 'number' ? found.value : found.value / scaleOf(path, kind)
  holdBounds(read, each, schema, value)
  return { value, typed: found.typed }
}

const plain = (value: number) => String(Number(value.toPrecision(6)))

function shownQuantity({ path, kind, shownIn, unit }: Field, value: number, units: Units): string {
  return isQuantity(kind) ? typedText(kind, value * scaleOf(path, kind), unit ?? shownIn ?? (units[kind] as string)) : plain(value)
}

function shownPoints({ points }: PointsKind, list: readonly Tree[], units: Units): string {
  const isBare = points.every((point) => point.isBare)
  const cell = (kind: QuantityKind, value: unknown) =>
    typeof value !== 'number' ? '' : isBare ? plain(fromSi(kind, value, units[kind] as string)) : typedText(kind, value, units[kind] as string)
  const line = (row: Tree) => points.map(({ key, kind }) => cell(kind, row[key])).filter((text) => text !== '')
  return list.map((row) => line(row).join(isBare ? ' ' : '; ')).join('\n')
}

function beginText(each: Field, record: unknown, units: Units): string {
  const { path, kind, typedAt, begin } = each
  if (typeof kind === 'object' && 'read' in kind) return kind.begin(record, units)
  const typed = typedAt ? valueAt(record, typedAt) : undefined
  if (typeof typed === 'string') return typed
  const value = valueAt(record, path) ?? begin
  if (value === undefined || value === null) return ''
  if (typeof kind === 'object') return shownPoints(kind, value as Tree[], units)
  return typeof value === 'number' && kind !== 'numberChoice' ? shownQuantity(each, value, units) : String(value)
}

const TYPES: Readonly<Record<string, FieldSpec['type']>> = { choice: 'select', numberChoice: 'select', flag: 'select', checkbox: 'checkbox' }

/** A form out of declared fields, over the fields of a record's kind. */
export function makeForm(fields: Fields, list: readonly Field[], groups: readonly Group[] = []) {
  const declared = new Map(list.map((each) => [each.path, declaredAt(fields, each.path)]))
  const inGroup = (path: string) => groups.find((group) => path.startsWith(`${group.path}.`))
  return {
    specs: (): FieldSpec[] =>
      list.map(({ path, kind, label, hint, section, isWide, words }) => {
        const type = typeof kind !== 'object' ? TYPES[kind] : 'read' in kind ? kind.type : 'textarea'
        return {
          name: fieldName(path),
          label,
          ...(hint === undefined ? {} : { hint }),
          ...(type ? { type } : {}),
          ...(section ? { section } : {}),
          ...(isWide ? { isWide } : {}),
          ...(words ? { options: Object.entries(words).map(([value, word]) => ({ value, label: word })) } : {}),
        }
      }),
    /** The record's fields as they were typed; what cannot be read is refused in the reader. */
    body: (read: FormReader): Tree => {
      const body: Tree = {}
      for (const group of groups) putAt(body, group.path, null)
      for (const each of list) {
        const group = inGroup(each.path)
        if (group && read.raw(fieldName(group.unless)) === '') continue
        if (group && valueAt(body, group.path) === null) putAt(body, group.path, {})
        const { value, typed } = readField(read, each, declared.get(each.path) as z.ZodType)
        putAt(body, each.path, value)
        if (each.typedAt) putAt(body, each.typedAt, typed ?? null)
      }
      return body
    },
    /** The texts that the form begins with. */
    defaults: (record: unknown, units: Units): FormValues => Object.fromEntries(list.map((each) => [fieldName(each.path), beginText(each, record, units)])),
  }
}
