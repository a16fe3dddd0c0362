import { expect, it } from 'vitest'
import { fileName } from './save-file.ts'
import { standaloneSvg } from './svg-button.tsx'

const colour = (name: string) => ({ '--ink': '#111', '--sheet': '#fff' })[name] ?? 'none'

it('a drawing stands by itself: colours as they are, its type named, on its own paper', () => {
  const made = standaloneSvg('<svg width="10" height="20"><line stroke="var(--ink)"></line></svg>', { width: 10, height: 20 }, colour)
  expect(made).toBe(
    '<svg xmlns="http://www.w3.org/2000/svg" width="10" height="20"><rect width="10" height="20" fill="#fff"/><style>text{font-family:Archivo,Helvetica,Arial,sans-serif}</style><line stroke="#111"></line></svg>',
  )
  expect(made).not.toContain('var(')
})
it('is no second time named, and of paper only once', () => {
  const made = standaloneSvg('<svg xmlns="http://www.w3.org/2000/svg"><svg></svg></svg>', { width: 1, height: 1 }, colour)
  expect(made.match(/xmlns/g)).toHaveLength(1)
  expect(made.match(/<rect/g)).toHaveLength(1)
})
it('a file has a name for any machine', () => {
  expect(fileName('Gannet, stage 4: car/side', 'svg', '2026-11-28')).toBe('gannet-stage-4-car-side-2026-11-28.svg')
})
