import type { Board, NextAction } from '@bold-ballast/core'
import { renderToStaticMarkup } from 'react-dom/server'
import { Provider } from 'react-redux'
import { MemoryRouter } from 'react-router'
import { expect, test } from 'vitest'
import { store } from '../../data/store.ts'
import { WhatNext } from './what-next.tsx'

const linkOf = (action: NextAction) => {
  const board = { stages: [{ id: 's0', name: 'As bought' }], next: [action] } as unknown as Board
  const html = renderToStaticMarkup(
    <Provider store={store}>
      <MemoryRouter>
        <WhatNext board={board} buildId="b" />
      </MemoryRouter>
    </Provider>,
  )
  return /href="([^"]+)"/.exec(html)?.[1]
}
const broken = (metric: 'massReady' | 'wheelPower' | 'peakTorque' | 'powerToMass') =>
  ({ code: 'limit-broken', limitId: 'l', place: null, metric, position: 0, value: 480, limit: 450, sense: 'atMost' }) as const

test.each([
  ['massReady', '/builds/b/weight?stage=s0'],
  ['wheelPower', '/builds/b/power?stage=s0'],
  ['peakTorque', '/builds/b/power?stage=s0'],
  ['powerToMass', '/builds/b/power?stage=s0'],
] as const)('a broken limit on %s leads to the room that shows it', (metric, to) => {
  expect(linkOf(broken(metric))).toBe(to)
})
