import type { CalculationDescription, GarageEntry, RecordsAnswer } from '@bold-ballast/contract'
import type { FindInRoom, FindItem } from '../../shared/define-room.ts'
import { FORMULAS_ROOM, ROOMS } from '../rooms.ts'

/** Every place and thing that can be gone to or done from here. */
export function findItems({
  buildId,
  records,
  inRooms,
  garage,
  calculations,
  isClosed = false,
}: {
  buildId: string | undefined
  records: RecordsAnswer | undefined
  /** What each room adds, in the order of the side list. */
  inRooms: readonly FindInRoom[]
  garage: readonly GarageEntry[]
  calculations: readonly CalculationDescription[]
  /** Whether people sign in here. */
  isClosed?: boolean
}): FindItem[] {
  const everywhere: FindItem[] = [
    ...(buildId
      ? ROOMS.map((room) => ({ key: `room ${room.path}`, group: 'Go to', label: room.name, hint: `g ${room.key}`, to: `/builds/${buildId}/${room.path}` }))
      : []),
    { key: 'garage', group: 'Go to', label: 'Garage', hint: 'all builds', to: '/' },
    { key: 'formulas', group: 'Go to', label: FORMULAS_ROOM.name, hint: 'every calculation', to: '/formulas' },
    { key: 'new', group: 'Do', label: 'New build', hint: '', to: '/new' },
    { key: 'import', group: 'Do', label: 'Open a build file', hint: 'import', to: '/open' },
    { key: 'units', group: 'Do', label: 'Change units or decimal mark', hint: '', action: 'units' },
    { key: 'theme', group: 'Do', label: 'Change between day light and pit light', hint: 'theme, dark, light', action: 'theme' },
    isClosed
      ? { key: 'hands', group: 'Do', label: 'Hand over', hint: 'change hands', action: 'hands' }
      : { key: 'name', group: 'Do', label: 'Say who is writing', hint: 'your name', action: 'name' },
    { key: 'keys', group: 'Do', label: 'List the keys', hint: '?', action: 'keys' },
    { key: 'undo', group: 'Do', label: 'Take back what was stored last', hint: 'undo', action: 'undo' },
    { key: 'redo', group: 'Do', label: 'Put back what was taken back last', hint: 'redo', action: 'redo' },
    { key: 'print', group: 'Do', label: 'Print this page', hint: 'on paper, always light', action: 'print' },
    ...garage.map(({ build }) => ({ key: build.id, group: 'Builds', label: build.name, hint: build.className ?? '', to: `/builds/${build.id}/board` })),
    ...calculations.map(({ name, title }) => ({ key: name, group: 'Calculations', label: title, hint: name, to: `/formulas/${name}` })),
  ]
  return records && buildId ? [...everywhere, ...inRooms.flatMap((find) => find(`/builds/${buildId}`, records))] : everywhere
}

/** An address of the build that is open, with the stage that is picked, as the side list and its keys keep it; one that names a stage stays as it is. */
export function withPickedStage(to: string, buildId: string | undefined, pickedStage: string | null): string {
  if (buildId === undefined || pickedStage === null || !to.startsWith(`/builds/${buildId}/`)) return to
  const [path, query] = to.split('?')
  const search = new URLSearchParams(query)
  if (search.has('stage')) return to
  search.set('stage', pickedStage)
  return `${path}?${search.toString()}`
}

const MOST_SHOWN = 40

/** A list made ready to be searched on every key press. */
export const indexItems = (items: readonly FindItem[]) => items.map((item) => ({ item, text: `${item.label} ${item.hint} ${item.group}`.toLowerCase() }))

/**
 * Items that hold every typed word, best first: a label that is the text, then one that starts with it, then a word that starts with it; shorter before
 * longer. With nothing typed, what can be gone to and done.
 */
export function search(index: ReturnType<typeof indexItems>, typed: string): FindItem[] {
  const text = typed.trim().toLowerCase()
  const words = text.split(/\s+/).filter(Boolean)
  if (words.length === 0) return index.filter(({ item }) => item.group === 'Go to' || item.group === 'Do').map(({ item }) => item)
  const rank = (item: FindItem, all: string) => {
    const label = item.label.toLowerCase()
    const score = label === text ? 0 : label.startsWith(text) ? 1 : label.includes(` ${text}`) ? 2 : label.includes(text) ? 3 : 4
    return score * 1000 + all.length
  }
  return index
    .filter(({ text: all }) => words.every((word) => all.includes(word)))
    .map(({ item, text: all }) => ({ item, rank: rank(item, all) }))
    .sort((a, b) => a.rank - b.rank)
    .slice(0, MOST_SHOWN)
    .map(({ item }) => item)
}
