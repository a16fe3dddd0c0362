import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'jobs',
  name: 'Jobs',
  key: 'j',
  heading: 'Workshop',
  place: 90,
  page: async () => (await import('./jobs-page.tsx')).JobsPage,
  keys: [
    ['n', 'type a job'],
    ['h', 'log hours on the picked job'],
    ['x', 'the picked job is done'],
    [',  .', 'what if the picked part or job came a week later, or sooner'],
    ['Alt ↑ ↓', 'move the picked job in the list'],
  ],
  pictures: [{ name: 'jobs', query: 'tab=road&stage=c87ced6d-11a6-4ad2-87c7-ac10083d0a2f', until: 'Fit final drives without Tomas', day: '2027-03-01' }],
})
