import type { Circuit } from '../../records/systems-kinds.ts'

/** A pin of a connector with all that ends on it. */
export interface PinView {
  readonly pin: string | null
  readonly colour: string | null
  readonly circuits: readonly string[]
}

export interface LoomView {
  readonly connectors: readonly { readonly name: string; readonly pins: readonly PinView[] }[]
  readonly splices: readonly { readonly name: string; readonly circuits: readonly string[] }[]
  /** What a strip leaves in: vital circuits, and what hangs on a pin or a splice of one. */
  readonly stays: readonly { readonly name: string; readonly with: string | null }[]
  /** What may come out. */
  readonly goes: readonly string[]
}

const fold = (text: string) => text.trim().toLowerCase()
const byName = new Intl.Collator('en', { numeric: true, sensitivity: 'base' })

/** Values by a folded key, in the order they came. */
function grouped<Each>(list: readonly Each[], keyOf: (each: Each) => string | null): Map<string, Each[]> {
  const groups = new Map<string, Each[]>()
  for (const each of list) {
    const key = keyOf(each)
    if (key !== null) groups.set(key, [...(groups.get(key) ?? []), each])
  }
  return groups
}

/** Vital circuits, then what shares a pin or a splice with one that stays, from one to the next. */
function stayingOf(circuits: readonly Circuit[], joints: readonly (readonly string[])[]): LoomView['stays'] {
  const stays = new Map<string, string | null>(circuits.filter(({ isVital }) => isVital).map(({ name }) => [name, null]))
  // The map grows while it is gone through: what joins it is gone through as well.
  for (const [name] of stays) for (const joint of joints) if (joint.includes(name)) for (const other of joint) if (!stays.has(other)) stays.set(other, name)
  return [...stays].map(([name, other]) => ({ name, with: other }))
}

/**
 * The loom by its ends: what is on each pin and splice, and what a strip must leave in, which is the vital circuits and whatever hangs on a pin or a splice of one.
 * Names are the same in any case of their letters.
 * @example loomView([PUMP]).goes // ['pump']
 */
export function loomView(circuits: readonly Circuit[]): LoomView {
  const ends = circuits.flatMap(({ name, ends: own }) => own.map((end) => ({ ...end, circuit: name })))
  const named = (list: readonly { circuit: string }[]) => [...new Set(list.map(({ circuit }) => circuit))]
  const connectors = [...grouped(ends, ({ connector }) => fold(connector)).values()].map((own) => ({
    name: own[0]?.connector ?? '',
    pins: [...grouped(own, ({ pin }) => fold(pin ?? '')).values()]
      .map((on): PinView => ({ pin: on[0]?.pin ?? null, colour: on.find(({ colour }) => colour !== null)?.colour ?? null, circuits: named(on) }))
      .sort((a, b) => byName.compare(a.pin ?? '', b.pin ?? '')),
  }))
  const splices = [...grouped(ends, ({ splice }) => (splice === null ? null : fold(splice))).values()].map((own) => ({
    name: own[0]?.splice ?? '',
    circuits: named(own),
  }))
  const joints = [...connectors.flatMap(({ pins }) => pins.filter(({ pin }) => pin !== null).map((on) => on.circuits)), ...splices.map((on) => on.circuits)]
  const stays = stayingOf(circuits, joints)
  const staying = new Set(stays.map(({ name }) => name))
  return {
    connectors: connectors.sort((a, b) => byName.compare(a.name, b.name)),
    splices: splices.sort((a, b) => byName.compare(a.name, b.name)),
    stays,
    goes: circuits.flatMap(({ name }) => (staying.has(name) ? [] : [name])),
  }
}
