import { type Check, checkKind, type Mark, markKind } from '../src/records/check-kinds.ts'
import type { BuildRecords } from '../src/records/records.ts'
import { eventKind } from '../src/records/workshop-kinds.ts'
import { z } from '../src/zod.ts'
import { changed } from './worked-example.ts'

/** What tests of checks are made of: an event of two days, checks and marks. */
export const TODAY = '2027-03-21'
export const C = 273.15
export const check = (fields: object): Check => z.object(checkKind.fields).parse({ kind: 'look', rounds: ['between'], ...fields })
export const bolt = (id: string, more: object = {}) => check({ id, kind: 'bolt', name: id, bolt: { count: 1 }, isSafety: true, ...more })
let marked = 0
export const mark = (checkId: string, on: string, result: string, more: object = {}): Mark =>
  z.object(markKind.fields).parse({ id: `m${marked++}`, checkId, stageId: 's1', at: `${on}T10:00:00Z`, result, ...more })
export const event = (more: object = {}) =>
  z.object(eventKind.fields).parse({ id: 'e', name: 'Test hour', kind: 'hire', startsOn: '2027-03-27', days: 2, ...more })
export const records = (edit: (all: BuildRecords) => void) =>
  changed((all) => {
    all.events.push(event())
    edit(all)
  })
export const asked = { event: event(), position: 1, today: TODAY, round: null } as const
