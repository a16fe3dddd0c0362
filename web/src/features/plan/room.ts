import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'plan',
  name: 'Plan',
  key: 'l',
  place: 20,
  page: async () => (await import('./plan-page.tsx')).PlanPage,
  pictures: [{ name: 'plan', query: 'tab=goals' }],
})
