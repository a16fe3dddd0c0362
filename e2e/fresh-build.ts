import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import { expect } from './server.ts'

const at = '2026-03-01T10:00:00Z'

/** A build of its own with one stage and a level weighing, so that tests do not see each other's lines. */
export async function freshBuild(page: Page): Promise<{ path: string; stage: string }> {
  const id = randomUUID()
  const stage = randomUUID()
  const pads = Object.fromEntries(Object.entries({ LF: 312, RF: 298, LR: 276, RR: 294 }).map(([pad, massKg]) => [pad, { massKg, sdKg: null }]))
  const file = {
    format: 'bold-ballast-build',
    formatVersion: 1,
    build: {
      id,
      name: `Knot ${id.slice(0, 4)}`,
      discipline: 'track',
      drivenAxles: 'rear',
      wheelbaseM: 2.57,
      trackFrontM: 1.5,
      trackRearM: 1.52,
      reference: { driverKg: 80, fuelL: 20, fuelKgPerL: 0.745 },
      powerBasis: { place: 'hub', standard: 'none', boostSchool: 'none' },
      suspension: {
        front: { wheelRateNPerM: 38_000, motionRatio: 0.95, threadPitchM: 0.0015 },
        rear: { wheelRateNPerM: 46_000, motionRatio: 0.9, threadPitchM: 0.0015 },
      },
    },
    stages: [
      { id: randomUUID(), position: 0, name: 'As bought' },
      { id: stage, position: 1, name: 'Strip' },
    ],
    weighings: [] as object[],
  }
  file.weighings.push({ id: randomUUID(), stageId: file.stages[0]?.id, at, pads, driverInKg: 80, fuelL: 20, fuelSdL: 0.5 })
  const answer = await page.request.post(`/api/build-files?mode=import&as=new&importId=${randomUUID()}`, {
    data: file,
    headers: { 'sec-fetch-site': 'same-origin' },
  })
  expect(answer.status(), await answer.text()).toBe(201)
  return { path: `/builds/${id}`, stage }
}

/** Stops what an earlier test of this server left running. */
export async function stopDevices(page: Page): Promise<void> {
  for (const { id } of await (await page.request.get('/api/devices')).json()) await page.request.delete(`/api/devices/stand-ins/${id}`, { data: {} })
}
