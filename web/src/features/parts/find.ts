import type { FindInRoom } from '../../shared/define-room.ts'

export const findIn: FindInRoom = (base, records) => {
  return [
    { key: 'do part', group: 'Do', label: 'Enter a part', hint: 'rating, life, cost', to: `${base}/parts?do=part` },
    { key: 'go beside', group: 'Go to', label: 'Parts side by side', hint: 'parts', to: `${base}/parts?tab=beside` },
    { key: 'go shelf', group: 'Go to', label: 'Shared shelf', hint: 'parts', to: `${base}/parts?tab=shelf` },
    ...records.parts.map((part) => ({
      key: part.id,
      group: 'Register',
      label: part.name,
      hint: `${part.kind}, ${part.status}`,
      to: `${base}/parts?part=${part.id}`,
    })),
  ]
}
