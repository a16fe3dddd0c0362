import type { PullSamples } from '@bold-ballast/contract'
import { powerFromTorqueW, toSi } from '@bold-ballast/core'
import { useEffect, useState } from 'react'
import { api } from '../../../data/api.ts'
import { useAppDispatch } from '../../../data/store.ts'

export interface RawCurve {
  readonly pullId: string
  readonly speedRpm: readonly number[]
  readonly powerW: readonly number[]
}

/** Samples of a pull as they were imported, in SI: power as recorded, else from torque; undefined where it has neither. */
export function rawCurve(pullId: string, { channels }: PullSamples): RawCurve | undefined {
  const of = (role: string) => channels.find((channel) => channel.role === role)
  const [speed, power, torque] = [of('speed'), of('power'), of('torque')]
  if (!speed || (!power && !torque)) return undefined
  const rows = speed.values.flatMap((rpm, i): [number, number][] => {
    const value = (power ?? torque)?.values[i]
    if (rpm === null || value === null || value === undefined) return []
    return [[rpm, power ? toSi('power', value, power.unit) : powerFromTorqueW(toSi('torque', value, torque?.unit ?? 'N·m'), rpm)]]
  })
  return { pullId, speedRpm: rows.map(([rpm]) => rpm), powerW: rows.map(([, powerW]) => powerW) }
}

/** The raw samples of pulls, fetched once they are looked at closely. */
export function useRawSamples(buildId: string, pullIds: readonly string[], isClose: boolean): readonly RawCurve[] {
  const dispatch = useAppDispatch()
  const [curves, setCurves] = useState<readonly RawCurve[]>([])
  const wanted = isClose ? pullIds.join(' ') : ''
  useEffect(() => {
    if (wanted === '') return setCurves([])
    let isCurrent = true
    const asked = wanted.split(' ').map((pullId) => ({ pullId, query: dispatch(api.endpoints.pullSamples.initiate({ buildId, pullId })) }))
    void Promise.all(asked.map(async ({ pullId, query }) => ({ pullId, data: (await query).data }))).then((answers) => {
      if (isCurrent) setCurves(answers.flatMap(({ pullId, data }) => (data ? (rawCurve(pullId, data) ?? []) : [])))
    })
    return () => {
      isCurrent = false
      for (const { query } of asked) query.unsubscribe()
    }
  }, [dispatch, buildId, wanted])
  return curves
}
