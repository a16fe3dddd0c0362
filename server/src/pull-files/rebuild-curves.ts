import { type Channel, CURVE_VERSION, pullFigures } from '@bold-ballast/core'
import type { Knex } from 'knex'
import { modelOf } from '../records/models.ts'
import { storedChannels } from './channels.ts'

/** Makes curve and peaks of a pull anew from its channels; what else is known of it stays. */
export async function rebuildPull(db: Knex, buildId: string, pullId: string, label: string, channels: readonly Channel[]): Promise<void> {
  const { curve, alongside, peakPowerW, peakPowerSpeedRpm, peakTorqueNm, rowCount, cutRowCount } = pullFigures(label, channels)
  await modelOf('pulls')
    .query(db)
    .findById([buildId, pullId])
    .patch({ curve, alongside, peakPowerW, peakPowerSpeedRpm, peakTorqueNm, rowCount, cutRowCount } as object)
}

/** Makes peaks and grid curves anew that an earlier core worked out; pulls without samples stay as they are. Answers how many were made. */
export async function rebuildOldCurves(knex: Knex): Promise<number> {
  const old = (await knex('pulls').where('curveVersion', '<', CURVE_VERSION).select('buildId', 'id', 'label')) as {
    buildId: string
    id: string
    label: string
  }[]
  let count = 0
  for (const { buildId, id, label } of old) {
    const channels = await storedChannels(knex, buildId, id)
    if (channels.length === 0) continue
    await rebuildPull(knex, buildId, id, label, channels)
    count++
  }
  return count
}
