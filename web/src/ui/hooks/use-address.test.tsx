import { act } from 'react'
import { createRoot, type Root } from 'react-dom/client'
import { createMemoryRouter, RouterProvider, useLocation, useNavigate } from 'react-router'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useAddress } from './use-address.ts'

type Address = ReturnType<typeof useAddress>
let address: Address
let search: string
let go: (to: string) => void
let root: Root

function Probe() {
  address = useAddress()
  search = useLocation().search
  const navigate = useNavigate()
  go = (to) => void navigate(to)
  return null
}

async function open(at: string): Promise<void> {
  root = createRoot(document.createElement('div'))
  const router = createMemoryRouter([{ path: '*', element: <Probe /> }], { initialEntries: [at] })
  await act(async () => root.render(<RouterProvider router={router} />))
}
const rest = (ms: number) => act(async () => vi.advanceTimersByTime(ms))

beforeEach(() => {
  vi.useFakeTimers()
  Object.assign(globalThis, { IS_REACT_ACT_ENVIRONMENT: true })
})
afterEach(async () => {
  await act(async () => root.unmount())
  vi.useRealTimers()
})

describe('values of the address', () => {
  it('are read from it, and are empty where it has none', async () => {
    await open('/power?band=4000+to+6000')
    expect([address.get('band'), address.get('first')]).toEqual(['4000 to 6000', ''])
  })
  it('stand in it at once when they are set, beside what stands there already; an empty one leaves it', async () => {
    await open('/power?tab=compare&first=a')
    await act(async () => address.set({ second: 'b' }))
    expect(search).toBe('?tab=compare&first=a&second=b')
    await act(async () => address.set({ first: '', second: 'c' }))
    expect(search).toBe('?tab=compare&second=c')
  })
  it('hold on the page with each key, and stand in the address when the typing rests', async () => {
    await open('/weight?stage=s')
    for (const text of ['h', 'ho', 'hos', 'hose']) {
      await act(async () => address.type({ filter: text }))
      expect(address.get('filter')).toBe(text)
      expect(search).toBe('?stage=s')
      await rest(50)
    }
    await rest(200)
    expect(search).toBe('?stage=s&filter=hose')
    expect(address.get('filter')).toBe('hose')
  })
  it('that were typed are not lost to what is set meanwhile', async () => {
    await open('/power')
    await act(async () => address.type({ band: '4000 to 6000' }))
    await act(async () => address.set({ first: 'a' }))
    expect(new URLSearchParams(search).get('band')).toBe('4000 to 6000')
    expect(new URLSearchParams(search).get('first')).toBe('a')
  })
  it('follow the address again when somebody goes elsewhere', async () => {
    await open('/power?band=3000+to+5000')
    await act(async () => address.set({ band: '4000 to 6000' }))
    await act(async () => go('/power?band=2000+to+7000'))
    expect(address.get('band')).toBe('2000 to 7000')
  })
  it('that were typed and taken back leave nothing behind', async () => {
    await open('/weight')
    await act(async () => address.type({ filter: 'h' }))
    await act(async () => address.type({ filter: '' }))
    await rest(200)
    await act(async () => go('/weight?filter=hose'))
    expect(address.get('filter')).toBe('hose')
  })
  it('can be cleared by typing', async () => {
    await open('/weight?filter=hose')
    await act(async () => address.type({ filter: '' }))
    expect(address.get('filter')).toBe('')
    await rest(200)
    expect(search).toBe('')
  })
})
