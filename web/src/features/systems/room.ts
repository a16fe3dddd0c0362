import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'systems',
  name: 'Systems',
  key: 's',
  heading: 'Workshop',
  place: 95,
  page: async () => (await import('./systems-page.tsx')).SystemsPage,
  keys: [
    ['n', 'type a circuit, or a gap'],
    ['o', 'place the circuits on the outputs; Enter keeps it'],
  ],
  pictures: [{ name: 'electrics', query: 'tab=electrics&stage=cd6a4292-f27b-4af9-89bc-15a5956f5c71', until: 'trips first', day: '2027-03-01' }],
})
