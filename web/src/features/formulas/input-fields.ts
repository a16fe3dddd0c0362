/** The part of JSON Schema that the registry's inputs use. */
export interface InputSchema {
  readonly type?: string
  readonly properties?: Readonly<Record<string, InputSchema>>
  readonly required?: readonly string[]
  readonly enum?: readonly string[]
  readonly anyOf?: readonly InputSchema[]
  readonly default?: unknown
}

/** One thing to fill in: a number, a choice, a text, or JSON where a plain field would not do. */
export interface InputField {
  readonly path: readonly string[]
  readonly kind: 'number' | 'choice' | 'text' | 'yesNo' | 'json'
  readonly options: readonly string[]
  readonly isRequired: boolean
  readonly shown: string
}

const at = (value: unknown, key: string): unknown => (value && typeof value === 'object' ? (value as Record<string, unknown>)[key] : undefined)
const MOST_LINES = 400

/** A field for every input of a calculation, filled with its example; objects are opened up, lists are typed as JSON. */
export function inputFields(schema: InputSchema, example: unknown, path: readonly string[] = []): InputField[] {
  return Object.entries(schema.properties ?? {}).flatMap(([key, found]): InputField[] => {
    const property = plain(found)
    const here = [...path, key]
    const value = at(example, key)
    const isRequired = (schema.required ?? []).includes(key) && property.default === undefined
    const isSmall = property.properties !== undefined && JSON.stringify(property).length < 4000
    if (isSmall && (isRequired || value !== undefined)) return inputFields(property, value, here)
    const kind = property.enum
      ? 'choice'
      : property.type === 'number' || property.type === 'integer'
        ? 'number'
        : property.type === 'string'
          ? 'text'
          : property.type === 'boolean'
            ? 'yesNo'
            : 'json'
    const shown = value === undefined ? '' : kind === 'json' ? JSON.stringify(value, null, 1).slice(0, MOST_LINES * 80) : String(value)
    return [{ path: here, kind, options: property.enum ?? [], isRequired, shown }]
  })
}

/** A value or nothing is shown as the value. */
const plain = (schema: InputSchema): InputSchema => schema.anyOf?.find((option) => option.type !== 'null') ?? schema

/** What was typed as an input; a text that is no number or no JSON is refused by its field. */
export function readInput(
  fields: readonly InputField[],
  typed: Readonly<Record<string, string>>,
  readNumber: (text: string, field: string) => number,
): { input: unknown; errors: Record<string, string> } {
  const errors: Record<string, string> = {}
  const input: Record<string, unknown> = {}
  for (const { path, kind, isRequired } of fields) {
    const name = path.join('.')
    const text = (typed[name] ?? '').trim()
    if (text === '') {
      if (isRequired) errors[name] = `${name} is empty. Type it.`
      continue
    }
    try {
      put(input, path, kind === 'number' ? readNumber(text, name) : kind === 'json' ? JSON.parse(text) : kind === 'yesNo' ? text === 'true' : text)
    } catch (error) {
      errors[name] = kind === 'json' ? `${name} is not JSON. Keep the brackets and quotes of the example.` : (error as Error).message
    }
  }
  return { input, errors }
}

function put(target: Record<string, unknown>, [key = '', ...rest]: readonly string[], value: unknown): void {
  if (rest.length === 0) {
    target[key] = value
    return
  }
  const next = (target[key] as Record<string, unknown> | undefined) ?? {}
  target[key] = next
  put(next, rest, value)
}

const UNIT_ENDINGS: readonly (readonly [string, string])[] = [
  ['KgM3', 'kg/m³'],
  ['KgM2', 'kg·m²'],
  ['KgPerL', 'kg/L'],
  ['KgPerS', 'kg/s'],
  ['KgPerJ', 'kg/J'],
  ['JPerKg', 'J/kg'],
  ['PerKg', 'per kg'],
  ['M3PerS', 'm³/s'],
  ['RadPerS', 'rad/s'],
  ['NPerM', 'N/m'],
  ['Mps2', 'm/s²'],
  ['M3', 'm³'],
  ['Kg', 'kg'],
  ['Pa', 'Pa'],
  ['Mps', 'm/s'],
  ['Rpm', 'rpm'],
  ['Nm', 'N·m'],
  ['Share', '0 to 1'],
  ['Probability', '0 to 1'],
  ['Humidity', '0 to 1'],
  ['W', 'W'],
  ['K', 'K'],
  ['L', 'L'],
  ['M', 'm'],
  ['N', 'N'],
]

/** A field's name in words with the unit its name, or the name of what holds it, carries: "pressurePa" is "pressure, Pa". */
export function fieldTitle(path: readonly string[]): string {
  const words = path.map((part) => {
    const ending = UNIT_ENDINGS.find(([end]) => part.endsWith(end) && part.length > end.length)
    const bare = ending && ending[1] !== '0 to 1' ? part.slice(0, -ending[0].length) : part
    const text = bare.replace(/([a-z])([A-Z])/g, '$1 $2')
    return { text: /^[A-Z]+$/.test(text) ? text : text.toLowerCase(), unit: ending?.[1] }
  })
  const unit = words.findLast((word) => word.unit !== undefined)?.unit
  return `${words.map((word) => word.text).join(' ')}${unit ? `, ${unit}` : ''}`
}

/** The answer of a calculation as rows of name and value. */
export function answerRows(value: unknown, path: readonly string[] = []): { name: string; value: number | string }[] {
  if (value === null || value === undefined) return [{ name: fieldTitle(path), value: 'none' }]
  if (Array.isArray(value)) return value.flatMap((item, i) => answerRows(item, [...path, String(i + 1)]))
  if (typeof value === 'object') return Object.entries(value).flatMap(([key, item]) => answerRows(item, [...path, key]))
  return [{ name: fieldTitle(path), value: typeof value === 'number' ? value : String(value) }]
}
