import type { FindInRoom } from '../../shared/define-room.ts'
import { stageAddress, stageNames } from '../../shared/find-stages.ts'
import { dayText } from '../../ui/words.ts'

export const findIn: FindInRoom = (base, records) => {
  const places = stageNames(records)
  const at = stageAddress(base)
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
    { key: 'do weighing', group: 'Do', label: 'Enter a weighing', hint: 'scales', to: `${base}/weight?tab=scales&do=weighing` },
    ...records.changes.map((change) => ({
      key: change.id,
      group: 'Parts',
      label: change.name,
      hint: `${change.kind}, ${places.get(change.stageId) ?? ''}`,
      to: at('weight', change.stageId, `&line=${change.id}`),
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
  ]
}
