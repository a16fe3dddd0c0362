import type { Board, NextAction } from '@bold-ballast/core'
import type { ReactNode } from 'react'
import { renderToStaticMarkup } from 'react-dom/server'
import { Provider } from 'react-redux'
import { MemoryRouter } from 'react-router'
import { expect, test } from 'vitest'
import { store } from '../../data/store.ts'
import { FirstOfNext, WhatNext } from './what-next.tsx'

const boardOf = (next: readonly NextAction[]) => ({ stages: [{ id: 's0', name: 'As bought' }], next }) as unknown as Board
const drawn = (page: ReactNode) =>
  renderToStaticMarkup(
    <Provider store={store}>
      <MemoryRouter>{page}</MemoryRouter>
    </Provider>,
  )
const linkOf = (action: NextAction) => /href="([^"]+)"/.exec(drawn(<WhatNext board={boardOf([action])} buildId="b" />))?.[1]
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

test.each([
  [0, 0, 'Nothing presses'],
  [2, 0, ''],
  [3, 0, ''],
  [5, 2, 'After that'],
  [11, 5, '3 more'],
] as const)('of %d lines the first three stand above a tall Board, %d are told after it', (count, after, words) => {
  const board = boardOf(Array.from({ length: count }, () => broken('massReady')))
  const lines = (page: ReactNode) => drawn(page).split('<li').length - 1
  expect(lines(<FirstOfNext board={board} buildId="b" />)).toBe(Math.min(3, count))
  const rest = <WhatNext board={board} buildId="b" areFirstAbove />
  expect(lines(rest)).toBe(after)
  expect(drawn(rest)).toContain(words)
})
