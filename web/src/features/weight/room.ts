import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'weight',
  name: 'Weight',
  key: 'w',
  heading: 'The car',
  place: 30,
  page: async () => (await import('./weight-page.tsx')).WeightPage,
  pictures: [
    { name: 'weight' },
    { name: 'scales', query: 'tab=scales' },
    { name: 'ballast', query: 'tab=ballast', build: 'Petrel', atLastStage: true, press: 'Plan the plates', until: 'The plan' },
  ],
})
