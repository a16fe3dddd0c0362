import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'crew',
  name: 'Crew',
  key: 'c',
  heading: 'The record',
  place: 150,
  page: async () => (await import('./crew-page.tsx')).CrewPage,
  pictures: [{ name: 'crew', ofCrew: true, atLastStage: true, until: 'Who moved it' }],
  keys: [
    ['s', 'I have seen this: the next look starts from here'],
    ['↓ ↑', 'pick a spell'],
    ['u', 'take the picked spell back'],
  ],
})
