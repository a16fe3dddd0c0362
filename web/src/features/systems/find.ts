import type { FindInRoom } from '../../shared/define-room.ts'

/** What the room adds to Find or do. */
export const findIn: FindInRoom = (base, records) => [
  { key: 'do circuit', group: 'Do', label: 'Add a circuit', hint: 'amps, metres, fan, pump', to: `${base}/systems?tab=electrics&do=circuit` },
  { key: 'do cooler', group: 'Do', label: 'Plan the cooling', hint: 'radiator, oil cooler, charge cooler', to: `${base}/systems?tab=cooling&do=cooler` },
  { key: 'go electrics', group: 'Go to', label: 'What blows first', hint: 'systems, outputs, wires, supply', to: `${base}/systems?tab=electrics` },
  { key: 'go cooling', group: 'Go to', label: 'Will it stay cool', hint: 'systems, radiator, heat', to: `${base}/systems?tab=cooling` },
  { key: 'go gaps', group: 'Go to', label: 'Gaps, cold and hot', hint: 'systems, clearance', to: `${base}/systems?tab=gaps` },
  { key: 'go alarms', group: 'Go to', label: 'Limits for the dash', hint: 'systems, alarms, warn, stop', to: `${base}/systems?tab=alarms` },
  ...records.circuits.map(({ id, name, currentA }) => ({
    key: id,
    group: 'Circuits',
    label: name,
    hint: `${currentA} A`,
    to: `${base}/systems?tab=electrics&circuit=${id}`,
  })),
]
