import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'jobs',
  name: 'Jobs',
  key: 'j',
  heading: 'Workshop',
  place: 90,
  page: async () => (await import('./jobs-page.tsx')).JobsPage,
  pictures: [{ name: 'jobs', query: 'tab=road&stage=c87ced6d-11a6-4ad2-87c7-ac10083d0a2f', until: 'Fit final drives without Tomas', day: '2027-03-01' }],
})
