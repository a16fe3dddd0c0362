import type { FindInRoom } from '../../shared/define-room.ts'

/** What the room adds to Find or do. */
export const findIn: FindInRoom = (base, records) => [
  { key: 'do outline', group: 'Do', label: 'Tape the car’s outline', hint: 'aero, overhangs, roof, width', to: `${base}/aero?do=outline` },
  { key: 'do taped', group: 'Do', label: 'Read the car with a tape or a meter', hint: 'aero, wing over roof, noise', to: `${base}/aero?tab=car&do=taped` },
  { key: 'do device', group: 'Do', label: 'New aero device', hint: 'wing, splitter, floor, body', to: `${base}/aero?do=device` },
  { key: 'do springs', group: 'Do', label: 'Springs, gaps and packers of a stage', hint: 'aero, set-up', to: `${base}/aero?tab=height&do=springs` },
  { key: 'do test', group: 'Do', label: 'New aero test', hint: 'coast-down, steady runs, drag', to: `${base}/aero?tab=proof&do=test` },
  { key: 'go proof', group: 'Go to', label: 'Tests of drag and downforce', hint: 'aero, planner', to: `${base}/aero?tab=proof` },
  { key: 'go setup', group: 'Go to', label: 'Set-up sheet', hint: 'aero, camber, toe, clicks, pressures, bars', to: `${base}/aero?tab=setup` },
  { key: 'do setup', group: 'Do', label: 'Type what is turned at each corner', hint: 'set-up, camber, toe, clicks', to: `${base}/aero?tab=setup&do=setup` },
  { key: 'go mounts', group: 'Go to', label: 'How wing and splitter are held', hint: 'aero, mounts, tether, bolts', to: `${base}/aero?tab=mounts` },
  { key: 'go height', group: 'Go to', label: 'Ride height against speed', hint: 'aero', to: `${base}/aero?tab=height` },
  { key: 'go panel', group: 'Go to', label: 'Choose a panel', hint: 'aero, plywood, aluminium', to: `${base}/aero?tab=panel` },
  ...records.aeroDevices.map((device) => ({
    key: device.id,
    group: 'Aero devices',
    label: device.name,
    hint: `${device.notches.length} ${device.notches.length === 1 ? 'notch' : 'notches'}`,
    to: `${base}/aero?do=device&device=${device.id}`,
  })),
]
