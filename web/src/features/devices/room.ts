import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'devices',
  name: 'Devices',
  key: 'd',
  heading: 'Workshop',
  place: 120,
  page: async () => (await import('./devices-page.tsx')).DevicesPage,
})
