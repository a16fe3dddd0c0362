import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'power',
  name: 'Power',
  key: 'p',
  heading: 'The car',
  place: 40,
  page: async () => (await import('./power-page.tsx')).PowerPage,
  pictures: [{ name: 'power', hasCurves: true }],
})
