import type { GridCurve } from '../../dyno/curve.ts'
import type { Car } from '../../stages/car.ts'
import { countingSessions, curveAtStage, powerAtStage, sessionStands } from './power-at-stage.ts'
import { sessionPower } from './session-power.ts'

export interface SessionFigures {
  readonly sessionId: string
  /** On the build's basis; null where the session counts for no target, with the reason. */
  readonly power: { value: number; sd: number; factor: number; pullSd: number; pullCount: number } | null
  readonly reason: string | null
  /** `stands`: measures its stage. `start`: the engine was not that of the stage, so it is a start value. `other`: another session stands. */
  readonly role: 'stands' | 'agrees' | 'disagrees' | 'start' | 'other' | 'notCounted'
}

export interface StagePower {
  readonly value: number
  readonly sd: number
  readonly proof: string
  readonly fromPosition: number | null
  readonly isMeasuredHere: boolean
  readonly curve: GridCurve | null
  readonly scaledFromPosition: number | null
}

export interface PowerRoom {
  readonly sessions: readonly SessionFigures[]
  readonly stages: readonly (StagePower | null)[]
}

/**
 * Everything the Power screen shows of a build, on the build's basis.
 * @example makePowerRoom(CAR).stages[1].value // 140000
 */
export function makePowerRoom(car: Car): PowerRoom {
  const { records } = car
  return {
    sessions: records.sessions.map((session): SessionFigures => {
      const standing = records.standings.find((entry) => entry.sessionId === session.id && entry.stageId === session.stageId)
      const power = sessionPower(records, session, standing)
      if (!power.ok) return { sessionId: session.id, power: null, reason: power.reason, role: 'notCounted' }
      const { value, sd, factor, pullSd, pulls } = power
      return { sessionId: session.id, power: { value, sd, factor, pullSd, pullCount: pulls.length }, reason: null, role: sessionRole(car, session.id) }
    }),
    stages: car.stages.map((_, position): StagePower | null => {
      const power = powerAtStage(car, position)
      if (!power) return null
      const { value, sd, proof, fromPosition, isMeasuredHere } = power
      const found = curveAtStage(car, position)
      return { value, sd, proof, fromPosition, isMeasuredHere, curve: found?.curve ?? null, scaledFromPosition: found?.scaledFromPosition ?? null }
    }),
  }
}

function sessionRole(car: Car, sessionId: string): SessionFigures['role'] {
  const session = car.records.sessions.find((entry) => entry.id === sessionId)
  const position = car.stages.findIndex((stage) => stage.id === session?.stageId)
  if (!session || position < 0) return 'notCounted'
  const counting = countingSessions(car, position)
  if (!sessionStands(car, session, position)) {
    const anyStands = counting.some((entry) => sessionStands(car, entry.session, position))
    return !anyStands && counting[0]?.session.id === sessionId ? 'start' : 'other'
  }
  const step = powerAtStage(car, position)?.steps[0]
  if (step?.kind !== 'measured') return 'other'
  const at = step.sessions.findIndex((entry) => entry.session.id === sessionId)
  if (at === 0) return 'stands'
  if (at === step.combined.agreesWith) return 'agrees'
  if (at === step.combined.disagreesWith) return 'disagrees'
  return 'other'
}
