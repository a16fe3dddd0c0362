import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'log',
  name: 'Log',
  key: 'o',
  heading: 'The record',
  place: 140,
  page: async () => (await import('./log-page.tsx')).LogPage,
})
