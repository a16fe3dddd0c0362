import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'aero',
  name: 'Aero',
  key: 'e',
  heading: 'The car',
  place: 46,
  page: async () => (await import('./aero-page.tsx')).AeroPage,
  pictures: [{ name: 'aero', query: 'tab=car', atLastStage: true }],
})
