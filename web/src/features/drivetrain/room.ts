import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'drivetrain',
  name: 'Drivetrain',
  key: 'v',
  heading: 'The car',
  place: 45,
  page: async () => (await import('./drivetrain-page.tsx')).DrivetrainPage,
  pictures: [{ name: 'drivetrain', query: 'tab=gears', atLastStage: true }],
})
