import type { CalculationDescription, GarageEntry, RecordsAnswer } from '@bold-ballast/contract'
import { METRIC_INFO } from '@bold-ballast/core'
import { dayText } from '../../ui/words.ts'
import { FORMULAS_ROOM, ROOMS } from '../rooms.ts'

export type FindAction = 'units' | 'name' | 'keys' | 'theme' | 'undo' | 'export'

export interface FindItem {
  readonly key: string
  readonly group: string
  readonly label: string
  readonly hint: string
  /** Where it leads, or what it does. */
  readonly to?: string
  readonly action?: FindAction
}

/** Every place and thing that can be gone to or done from here. */
export function findItems({
  buildId,
  records,
  garage,
  calculations,
}: {
  buildId: string | undefined
  records: RecordsAnswer | undefined
  garage: readonly GarageEntry[]
  calculations: readonly CalculationDescription[]
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
    { key: 'theme', group: 'Do', label: 'Change between day light and pit light', hint: 'theme', action: 'theme' },
    { key: 'name', group: 'Do', label: 'Say who is writing', hint: 'your name', action: 'name' },
    { key: 'keys', group: 'Do', label: 'List the keys', hint: '?', action: 'keys' },
    { key: 'undo', group: 'Do', label: 'Take back what was stored last', hint: 'undo', action: 'undo' },
    ...garage.map(({ build }) => ({ key: build.id, group: 'Builds', label: build.name, hint: build.className ?? '', to: `/builds/${build.id}/board` })),
    ...calculations.map(({ name, title }) => ({ key: name, group: 'Calculations', label: title, hint: name, to: `/formulas/${name}` })),
  ]
  return records && buildId ? [...everywhere, ...ofBuild(`/builds/${buildId}`, records)] : everywhere
}

function ofBuild(base: string, records: RecordsAnswer): FindItem[] {
  const places = new Map(records.stages.map((stage) => [stage.id, `stage ${stage.position} ${stage.name}`]))
  const at = (room: string, stageId: string, more = '') => `${base}/${room}?stage=${stageId}${more}`
  const sessions = new Map(records.sessions.map((session) => [session.id, session]))
  const last = records.stages.at(-1)?.id ?? ''
  return [
    { key: 'do line', group: 'Do', label: 'Type a ledger line', hint: 'weigh a part', to: `${base}/weight` },
    { key: 'do paste', group: 'Do', label: 'Paste ledger lines', hint: 'from a spreadsheet', to: `${base}/weight?do=paste` },
    { key: 'do zones', group: 'Do', label: 'Say where zones are', hint: 'places', to: `${base}/weight?do=zones` },
    { key: 'do lift', group: 'Do', label: 'Enter a reading with an axle lifted', hint: 'centre height', to: `${base}/weight?tab=centre&do=lift` },
    { key: 'do balance', group: 'Do', label: 'Balance the corners', hint: 'perch turns', to: `${base}/weight?tab=balance` },
    { key: 'do ballast', group: 'Do', label: 'Plan ballast', hint: 'class minimum', to: `${base}/weight?tab=ballast` },
    { key: 'go score', group: 'Go to', label: 'Score', hint: 'weight', to: `${base}/weight?tab=score` },
    { key: 'go finished', group: 'Go to', label: 'Finished car', hint: 'weight, forecast', to: `${base}/weight?tab=finished` },
    { key: 'go centre', group: 'Go to', label: 'Centre of mass', hint: 'weight', to: `${base}/weight?tab=centre` },
    { key: 'go car', group: 'Go to', label: 'The car', hint: 'plan, dimensions and springs', to: `${base}/plan?tab=car` },
    { key: 'do weighing', group: 'Do', label: 'Enter a weighing', hint: 'scales', to: `${base}/weight?tab=scales&do=weighing` },
    { key: 'do session', group: 'Do', label: 'Enter a dyno session', hint: 'pulls', to: `${base}/power?do=session` },
    { key: 'do part', group: 'Do', label: 'Enter a part', hint: 'rating, life, cost', to: `${base}/parts?do=part` },
    { key: 'go beside', group: 'Go to', label: 'Parts side by side', hint: 'parts', to: `${base}/parts?tab=beside` },
    { key: 'go shelf', group: 'Go to', label: 'Shared shelf', hint: 'parts', to: `${base}/parts?tab=shelf` },
    { key: 'do plan', group: 'Do', label: 'Plan the engine', hint: 'power, air, fuel', to: `${base}/power?tab=plan` },
    { key: 'go links', group: 'Go to', label: 'Weak links', hint: 'power, ratings', to: `${base}/power?tab=links` },
    { key: 'do hours', group: 'Do', label: 'Plan the hours at the dyno', hint: 'pulls', to: `${base}/power?tab=hours` },
    { key: 'do live', group: 'Do', label: 'Read a dyno live', hint: 'pull', to: `${base}/power?tab=live` },
    { key: 'do compare', group: 'Do', label: 'Compare two sets of pulls', hint: 'gain, power', to: `${base}/power?tab=compare` },
    { key: 'do stage', group: 'Do', label: 'Add a stage', hint: 'plan', to: `${base}/plan` },
    { key: 'do goal', group: 'Do', label: 'Set a target or a limit', hint: 'plan', to: `${base}/plan?tab=goals` },
    { key: 'do expectation', group: 'Do', label: 'Say what a stage should give', hint: 'plan', to: `${base}/plan?tab=expectations` },
    { key: 'do export', group: 'Do', label: 'Export the build as a file', hint: 'build file', action: 'export' },
    ...records.stages.map((stage) => ({ key: stage.id, group: 'Stages', label: `${stage.position} ${stage.name}`, hint: 'stage', to: at('board', stage.id) })),
    ...records.targets.map((target) => ({
      key: target.id,
      group: 'Goals',
      label: METRIC_INFO[target.metric].word,
      hint: `target, ${places.get(target.dueStageId ?? last) ?? ''}`,
      to: `${base}/plan?tab=goals`,
    })),
    ...records.changes.map((change) => ({
      key: change.id,
      group: 'Parts',
      label: change.name,
      hint: `${change.kind}, ${places.get(change.stageId) ?? ''}`,
      to: at('weight', change.stageId, `&line=${change.id}`),
    })),
    ...records.parts.map((part) => ({
      key: part.id,
      group: 'Register',
      label: part.name,
      hint: `${part.kind}, ${part.status}`,
      to: `${base}/parts?part=${part.id}`,
    })),
    ...records.sites.map((site) => ({ key: site.id, group: 'Ballast', label: site.name, hint: 'a place for ballast', to: `${base}/weight?tab=ballast` })),
    ...records.boxes.map((box) => ({ key: box.id, group: 'Boxes', label: box.name, hint: 'weigh into it', to: `${base}/weight?box=${box.id}` })),
    ...records.weighings.map((weighing) => ({
      key: weighing.id,
      group: 'Weighings',
      label: `Weighing, ${dayText(weighing.at)}`,
      hint: places.get(weighing.stageId) ?? '',
      to: at('weight', weighing.stageId, `&tab=scales&working=weighing:${weighing.id}`),
    })),
    ...records.sessions.map((session) => ({
      key: session.id,
      group: 'Dyno sessions',
      label: `${session.dynoName}, ${dayText(session.at)}`,
      hint: `session, ${places.get(session.stageId) ?? ''}`,
      to: at('power', session.stageId, `&working=session:${session.id}`),
    })),
    ...records.pulls.map((pull) => {
      const session = sessions.get(pull.sessionId)
      return {
        key: pull.id,
        group: 'Pulls',
        label: `Pull ${pull.label}`,
        hint: session ? `${session.dynoName}, ${dayText(session.at)}` : '',
        to: at('power', session?.stageId ?? '', `&working=pull:${pull.id}`),
      }
    }),
  ]
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
