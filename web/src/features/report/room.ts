import { defineRoom } from '../../shared/define-room.ts'

export const room = defineRoom({
  path: 'report',
  name: 'Report',
  key: 'r',
  heading: 'The record',
  place: 130,
  page: async () => (await import('./report-page.tsx')).ReportPage,
  pictures: [{ name: 'report', query: 'tab=sheet&stage=cd6a4292-f27b-4af9-89bc-15a5956f5c71', until: 'Shown by a reading', day: '2027-03-01' }],
})
