import { aeroDeviceKind, setupKind } from './aero-kinds.ts'
import { aeroRunKind, aeroTestKind } from './aero-test-kinds.ts'
import { balanceStepKind, ballastAimKind, liftKind, siteKind } from './balance-kinds.ts'
import { brakeSystemKind, trackPlanKind } from './brake-kinds.ts'
import { checkKind, markKind } from './check-kinds.ts'
import { decisionKind } from './decision-kind.ts'
import type { RecordKind, RecordOfKind, Row } from './define-record.ts'
import { courseKind, driveSettingKind, readingKind } from './drive-kinds.ts'
import { enginePlanKind } from './engine-plan-kind.ts'
import { mountKind } from './mount-kind.ts'
import { panelKind, panelMaterialKind } from './panel-kinds.ts'
import { partKind, partUseKind } from './part-kinds.ts'
import { photoKind } from './picture-kind.ts'
import { expectationKind, limitKind, stageKind, targetKind } from './plan-kinds.ts'
import { dynoMappingKind, pullKind, pullPlanKind, sessionKind, standingKind } from './power-kinds.ts'
import { ruleBookKind } from './rule-kinds.ts'
import { circuitKind, coolingPlanKind, powerBoxKind } from './systems-kinds.ts'
import { driftRunKind, lapFitKind, lapKind } from './track/lap-kinds.ts'
import { trackKind } from './track/track-kinds.ts'
import { loggerMappingKind, logWindowKind, trackLogKind } from './track/track-log-kinds.ts'
import { trackSessionKind } from './track/track-session-kinds.ts'
import { boxKind, changeKind, inCarKind, weighingKind, zoneKind } from './weight-kinds.ts'
import { eventKind, handKind, lessonKind, taskKind } from './workshop-kinds.ts'

/** Every kind of record that a build holds, in the order in which they are stored: what names another comes after it, or is checked at the end. */
export const KINDS = [
  // Before the stages, which race by them.
  ruleBookKind,
  stageKind,
  // Before the goals, which may be of one.
  trackKind,
  limitKind,
  targetKind,
  changeKind,
  weighingKind,
  inCarKind,
  sessionKind,
  pullKind,
  standingKind,
  zoneKind,
  boxKind,
  liftKind,
  balanceStepKind,
  siteKind,
  ballastAimKind,
  photoKind,
  partKind,
  // Behind the parts that it may name.
  expectationKind,
  enginePlanKind,
  pullPlanKind,
  dynoMappingKind,
  driveSettingKind,
  courseKind,
  readingKind,
  aeroDeviceKind,
  setupKind,
  aeroTestKind,
  aeroRunKind,
  mountKind,
  panelMaterialKind,
  panelKind,
  trackSessionKind,
  // Behind the sessions at a dyno and on track that it may name.
  partUseKind,
  trackLogKind,
  lapKind,
  driftRunKind,
  brakeSystemKind,
  logWindowKind,
  lapFitKind,
  loggerMappingKind,
  handKind,
  eventKind,
  // Behind the events that it may name.
  trackPlanKind,
  checkKind,
  markKind,
  taskKind,
  powerBoxKind,
  circuitKind,
  coolingPlanKind,
  decisionKind,
  lessonKind,
] as const

type Kind = (typeof KINDS)[number]
export type RecordList = Kind['list']
export type ResourceName = Kind['address']
export type BatchResource = Extract<Kind, { readonly isBatchable: true }>['address']
/** A record of one list, as calculations take it. */
export type RecordOf<List extends RecordList> = RecordOfKind<Extract<Kind, { readonly list: List }>>

const ALL: readonly (RecordKind & Kind)[] = KINDS
const byName = new Map<string, RecordKind & Kind>(ALL.flatMap((kind) => [[kind.list, kind] as const, [kind.address, kind] as const]))

/**
 * The kind of a list or of an address; undefined for any other word, "builds" among them.
 * @example findKind('part-uses').list // 'partUses'
 */
export const findKind = (name: string): (RecordKind & Kind) | undefined => byName.get(name)

/**
 * The kind of a list or of an address that is one.
 * @example kindOf('balanceSteps').table // 'balance_steps'
 */
export const kindOf = (name: RecordList | ResourceName): RecordKind & Kind => byName.get(name) as RecordKind & Kind

/**
 * What a person calls a record: by its kind's naming field, else its id. `name` is a list, an address, or "build" for the build itself.
 * @example recordName('sessions', { id: 'd', dynoName: 'hall' }) // 'hall'
 */
export function recordName(name: string, record: Row): string {
  const fields = findKind(name)?.nameFrom ?? ['name']
  return String(fields.map((field) => record[field]).find((text) => text !== undefined && text !== null) ?? record.id)
}

/**
 * What a list or an address holds one of, with its article.
 * @example recordWord('in-cars') // 'what was in the car'
 */
export const recordWord = (name: string): string => findKind(name)?.word ?? 'the build'
