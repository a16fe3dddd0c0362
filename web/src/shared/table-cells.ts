import type { StoredRecords } from '@bold-ballast/contract'
import { fromSi, type QuantityKind, spreadFromSi } from '@bold-ballast/core'

export type Units = Record<QuantityKind, string>

/** A number for a cell of a table in the picked units; nothing for none. */
export const inUnits = (units: Units) => (kind: QuantityKind, value: number | null | undefined) =>
  value === null || value === undefined ? null : fromSi(kind, value, units[kind])

/** A spread for a cell of a table in the picked units. */
export const spreadIn = (units: Units) => (kind: QuantityKind, sd: number | null | undefined) =>
  sd === null || sd === undefined ? null : spreadFromSi(kind, sd, units[kind])

/** A stage as a table names it; none is the last one. */
export const stageCell = (records: StoredRecords, id: string | null) => {
  const stage = id === null ? records.stages.at(-1) : records.stages.find((entry) => entry.id === id)
  return stage ? `${stage.position} ${stage.name}` : null
}
