import type { FindInRoom } from '../../shared/define-room.ts'

/** What the room adds to Find or do. */
export const findIn: FindInRoom = (base, records) => [
  { key: 'do lap', group: 'Do', label: 'Type laps, pressures or words of a session', hint: 'track, paddock line', to: `${base}/track?tab=sessions&do=paddock` },
  { key: 'do track session', group: 'Do', label: 'New session on track', hint: 'laps, runs, shakedown', to: `${base}/track?tab=sessions&do=session` },
  { key: 'do track', group: 'Do', label: 'Draw or import a track', hint: 'track, GPX, segments', to: `${base}/track?tab=tracks&do=track` },
  { key: 'do brakes', group: 'Do', label: 'Calipers, pads and masters of a stage', hint: 'track, brakes', to: `${base}/track?tab=tyres&do=brakes` },
  { key: 'go worth', group: 'Go to', label: 'What each change is worth in seconds', hint: 'track', to: `${base}/track?tab=worth` },
  { key: 'go compare', group: 'Go to', label: 'Whether a session was faster', hint: 'track, A-B-A', to: `${base}/track?tab=compare` },
  { key: 'go pressures', group: 'Go to', label: 'Cold pressure for a hot one', hint: 'track, tyres', to: `${base}/track?tab=tyres` },
  ...records.tracks.map((track) => ({ key: track.id, group: 'Tracks', label: track.name, hint: 'its lap', to: `${base}/track?track=${track.id}` })),
]
