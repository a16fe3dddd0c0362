import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'board',
  name: 'Board',
  key: 'b',
  place: 10,
  page: async () => (await import('./board-page.tsx')).BoardPage,
  pictures: [
    { name: 'board' },
    { name: 'working', query: 'working=mass:LAST' },
    { name: 'board-dark', theme: 'dark' },
    { name: 'board-phone', width: 390, height: 844 },
  ],
})
