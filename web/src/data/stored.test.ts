import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'

const ILSE = '11111111-1111-4111-8111-111111111111'
const MARO = '22222222-2222-4222-8222-222222222222'

/** A browser's storage, as much of it as is used. */
function storage(entries: Record<string, unknown>) {
  const map = new Map(Object.entries(entries).map(([key, value]) => [key, JSON.stringify(value)]))
  return {
    map,
    get length() {
      return map.size
    },
    key: (i: number) => [...map.keys()][i] ?? null,
    getItem: (key: string) => map.get(key) ?? null,
    setItem: (key: string, value: string) => void map.set(key, value),
    removeItem: (key: string) => void map.delete(key),
  }
}

async function openPage(entries: Record<string, unknown>) {
  vi.resetModules()
  const kept = storage(entries)
  vi.stubGlobal('localStorage', kept)
  const reload = vi.fn()
  vi.stubGlobal('window', { location: { reload, assign: reload } })
  return { kept, reload, stored: await import('./stored.ts') }
}

beforeEach(() => vi.resetModules())
afterEach(() => vi.unstubAllGlobals())

describe('what a browser keeps', () => {
  it('has the keys it always had as long as nobody signs in', async () => {
    const { kept, stored } = await openPage({})
    stored.writeStored('bold-ballast.outbox', [1])
    expect([...kept.map.keys()]).toEqual(['bold-ballast.outbox'])
  })
  it('is each person’s own, but for what belongs to the browser', async () => {
    const { kept, stored } = await openPage({ 'bold-ballast.seat': { personId: ILSE, name: 'Ilse' }, [`bold-ballast.${MARO}.outbox`]: ['his'] })
    expect(stored.readStored('bold-ballast.outbox', [])).toEqual([])
    stored.writeStored('bold-ballast.outbox', ['hers'])
    stored.writeStored('bold-ballast.preferences', { theme: 'dark' })
    expect(kept.map.get(`bold-ballast.${ILSE}.outbox`)).toBe('["hers"]')
    expect(kept.map.has('bold-ballast.preferences')).toBe(true)
    expect(stored.storedOfOthers<string[]>('bold-ballast.outbox')).toEqual([{ personId: MARO, value: ['his'] }])
  })
  it('that was typed before becomes the first owner’s, and nobody else’s by itself', async () => {
    const { kept, stored, reload } = await openPage({ 'bold-ballast.outbox': ['typed before'], 'bold-ballast.preferences': {} })
    stored.sitDown({ personId: ILSE, name: 'Ilse' }, { adopts: true })
    expect(kept.map.get(`bold-ballast.${ILSE}.outbox`)).toBe('["typed before"]')
    expect(kept.map.has('bold-ballast.outbox')).toBe(false)
    expect(reload).toHaveBeenCalledOnce()
    const other = await openPage({ 'bold-ballast.outbox': ['typed before'], 'bold-ballast.seat': { personId: MARO, name: 'Maro' } })
    expect(other.stored.storedOfOthers('bold-ballast.outbox')).toEqual([{ personId: null, value: ['typed before'] }])
    other.stored.takeOverOpen<string[]>('bold-ballast.outbox', (mine, before) => [...(mine ?? []), ...before])
    expect(other.stored.readStored('bold-ballast.outbox', [])).toEqual(['typed before'])
  })
})
