import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'parts',
  name: 'Parts',
  key: 't',
  heading: 'Workshop',
  place: 80,
  keys: [['d', 'weigh the parts that stand side by side as a decision']],
  page: async () => (await import('./parts-page.tsx')).PartsPage,
  pictures: [{ name: 'parts' }],
})
