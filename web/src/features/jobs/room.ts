import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'jobs',
  name: 'Jobs',
  key: 'j',
  heading: 'Workshop',
  place: 90,
  page: async () => (await import('./jobs-page.tsx')).JobsPage,
  pictures: [{ name: 'jobs', query: 'tab=road', until: 'What helps' }],
})
