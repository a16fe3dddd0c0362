import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'track',
  name: 'Track',
  key: 'k',
  heading: 'The car',
  place: 47,
  page: async () => (await import('./track-page.tsx')).TrackPage,
  pictures: [{ name: 'track', query: 'tab=lap', atLastStage: true, until: 'of any tyre, on this track' }],
})
