import { readdirSync, readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { type BuildFile, buildFileSchema, type RecordsAnswer, type StoredRecords } from '@bold-ballast/contract'
import { makeBoard, makePowerRoom, makeWeightRoom, openCar, readBuildRecords, UNIT_SETS } from '@bold-ballast/core'
import { describe, expect, it, test } from 'vitest'
import { expectationsTable, goalsTable, stagesTable } from '../features/plan/tables.ts'
import { pullsTable } from '../features/power/tables.ts'
import { weighingsTable } from '../features/weight/tables.ts'
import type { FindInRoom } from '../shared/define-room.ts'
import { findItems, indexItems, search } from './find/find-items.ts'
import { ROOMS } from './rooms.ts'

const FEATURES = resolve(import.meta.dirname, '../features')
const isThere = (path: string, file: string) => readdirSync(resolve(FEATURES, path)).includes(file)
const FINDS = import.meta.glob<{ readonly findIn: FindInRoom }>('../features/*/find.ts', { eager: true })
const TABS = import.meta.glob<{ readonly TABS: readonly { readonly path: string; readonly word: string }[] }>('../features/*/tabs.ts', { eager: true })

const demo = (name: string): BuildFile =>
  buildFileSchema.parse(JSON.parse(readFileSync(resolve(import.meta.dirname, '../../../demo', name, 'build.json'), 'utf8')))
const DEMOS = ['gannet', 'osprey', 'petrel'].map((name) => [name, demo(name)] as const)

describe('rooms', () => {
  it('are those whose folder has a declaration, in the order of the side list', () => {
    const folders = readdirSync(FEATURES).filter((name) => isThere(name, 'room.ts'))
    expect(ROOMS.map(({ path }) => path).toSorted()).toEqual(folders.toSorted())
    expect(ROOMS.map(({ place }) => place)).toEqual(ROOMS.map(({ place }) => place).toSorted((a, b) => a - b))
  })
  test.each(ROOMS.map((room) => [room.path, room] as const))(
    '%s stands in the folder of its path, and its key is in its name',
    (path, { name, key, place }) => {
      expect(isThere(path, 'room.ts')).toBe(true)
      expect(name.toLowerCase()).toContain(key)
      expect(key).toHaveLength(1)
      expect(ROOMS.filter((other) => other.key === key || other.place === place || other.name === name)).toHaveLength(1)
    },
  )
  it('do not call two pictures the same', () => {
    const names = ROOMS.flatMap(({ pictures }) => pictures.map(({ name }) => name))
    expect(new Set(names).size).toBe(names.length)
  })
  test.each(Object.entries(TABS))('the tabs of %s have an address and a word each', (_, { TABS: tabs }) => {
    expect(tabs.length).toBeGreaterThan(1)
    expect(new Set(tabs.map(({ path }) => path)).size).toBe(tabs.length)
    expect(new Set(tabs.map(({ word }) => word)).size).toBe(tabs.length)
  })
})

describe.each(DEMOS)('what the rooms add to Find or do for %s', (_, file) => {
  const base = `/builds/${file.build.id}`
  const records = file as unknown as RecordsAnswer
  const inRooms = Object.values(FINDS).map(({ findIn }) => findIn)
  const items = findItems({ buildId: file.build.id, records, inRooms, garage: [], calculations: [] })

  it('leads into a room of this build or does something, and nothing stands there twice', () => {
    const paths = ROOMS.map(({ path }) => `${base}/${path}`)
    for (const { to, action } of inRooms.flatMap((find) => find(base, records))) {
      expect((to === undefined) !== (action === undefined)).toBe(true)
      if (to !== undefined) expect(paths).toContain(to.split('?')[0])
    }
    expect(new Set(items.map(({ key }) => key)).size).toBe(items.length)
  })
  it('opens a tab that is there', () => {
    for (const { to } of inRooms.flatMap((find) => find(base, records))) {
      const [path = '', query = ''] = (to ?? '').slice(base.length + 1).split('?')
      const tab = new URLSearchParams(query).get('tab')
      if (tab !== null) expect(TABS[`../features/${path}/tabs.ts`]?.TABS.map((each) => each.path)).toContain(tab)
    }
  })
  test.each(['stages', 'changes', 'parts', 'weighings', 'sessions', 'pulls', 'targets'] as const)('every one of its %s is found', (list) => {
    const keys = new Set(items.map(({ key }) => key))
    expect(file[list].filter(({ id }) => !keys.has(id)).map(({ id }) => id)).toEqual([])
  })
  it('finds each stage by its name', () => {
    const index = indexItems(items)
    for (const { id, name } of file.stages) expect(search(index, name).map(({ key }) => key)).toContain(id)
  })
})

describe.each(DEMOS)('the tables of %s', (_, file) => {
  const { records } = readBuildRecords(file)
  const car = openCar(records)
  const stored = file as unknown as StoredRecords
  const units = UNIT_SETS.metric
  test.each([
    ['stages', stagesTable(stored, makeBoard(car, '2026-11-01')), file.stages.length],
    ['goals', goalsTable(stored, units), file.targets.length + file.limits.length],
    ['expectations', expectationsTable(stored, units), file.expectations.length],
    ['pulls', pullsTable(stored, makePowerRoom(car), units), file.pulls.length],
    ['weighings', weighingsTable(stored, makeWeightRoom(car), units), file.weighings.length],
  ])('%s: a row for each, as wide as its heading, and no heading twice', (_name, { head, rows }, count) => {
    expect(rows).toHaveLength(count)
    for (const row of rows) expect(row).toHaveLength(head.length)
    expect(new Set(head).size).toBe(head.length)
  })
})
