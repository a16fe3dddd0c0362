import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'checks',
  name: 'Checks',
  key: 'h',
  heading: 'Workshop',
  place: 92,
  page: async () => (await import('./checks-page.tsx')).ChecksPage,
  keys: [
    ['n', 'type a check'],
    ['Space', 'in a round: in order'],
    ['b', 'the picked check is bad'],
    ['s', 'in a round: skip it'],
    ['j', 'make a job of the picked check'],
    ['t', 'the picked check stands in order, or is packed'],
  ],
  pictures: [{ name: 'checks', query: 'tab=shakedown&stage=cd6a4292-f27b-4af9-89bc-15a5956f5c71', until: 'After 80 percent', day: '2026-09-26' }],
})
