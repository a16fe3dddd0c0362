import type { RecordList } from '@bold-ballast/core'
import type { ResourceName } from './resources.ts'

/** The lists of a build file and of a build's records, and the resource each holds. */
export const LIST_RESOURCES = {
  stages: 'stages',
  limits: 'limits',
  targets: 'targets',
  changes: 'changes',
  expectations: 'expectations',
  weighings: 'weighings',
  inCars: 'in-cars',
  sessions: 'sessions',
  pulls: 'pulls',
  standings: 'standings',
  zones: 'zones',
  boxes: 'boxes',
  lifts: 'lifts',
  balanceSteps: 'balance-steps',
  sites: 'sites',
  ballastAims: 'ballast-aims',
  photos: 'photos',
  parts: 'parts',
  partUses: 'part-uses',
  enginePlans: 'engine-plans',
  pullPlans: 'pull-plans',
  dynoMappings: 'dyno-mappings',
} as const satisfies Record<RecordList, ResourceName>

/** The list of a build's records that a resource's records stand in. */
export const listOfResource = (resource: ResourceName): RecordList =>
  (Object.keys(LIST_RESOURCES) as RecordList[]).find((list) => LIST_RESOURCES[list] === resource) as RecordList

export const RECORD_LISTS = Object.keys(LIST_RESOURCES) as RecordList[]
