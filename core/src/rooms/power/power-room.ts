import { orElse } from '../../attempt.ts'
import type { GridCurve } from '../../dyno/curve.ts'
import type { DynoSession, DynoSetting } from '../../records/power-kinds.ts'
import { type Car, stageIndex } from '../../stages/car.ts'
import { curveAtStage, powerAtStage, runsAtStage, sessionStands } from './power-at-stage.ts'
import { settingOf, standingPower } from './session-power.ts'
import { isSameSetting, type PowerRun } from './visits.ts'

/** One setting of a session. */
export interface SessionFigures {
  readonly sessionId: string
  readonly settingId: string
  /** On the build's basis; null where it counts for no target, with the reason. */
  readonly power: { value: number; sd: number; factor: number; pullSd: number; pullCount: number } | null
  readonly reason: string | null
  /**
   * `stands`: measures its stage. `start`: the engine was not that of the stage, so it is a start value. `otherSetting`: another engine than the one that
   * stands. `other`: another session stands.
   */
  readonly role: 'stands' | 'agrees' | 'disagrees' | 'start' | 'otherSetting' | 'other' | 'notCounted'
}

/** What was measured at a stage on another setting than the one that stands. */
export interface OtherSetting {
  readonly sessionId: string
  readonly settingId: string
  readonly name: string
  readonly value: number
  readonly sd: number
}

export interface StagePower {
  readonly value: number
  readonly sd: number
  readonly proof: string
  readonly fromPosition: number | null
  readonly isMeasuredHere: boolean
  /** The setting that stands where it was measured here, and whether somebody picked it; null where it was not. */
  readonly stands: { readonly name: string; readonly isPicked: boolean; readonly isOneOfSeveral: boolean } | null
  readonly otherSettings: readonly OtherSetting[]
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
    sessions: records.sessions.flatMap((session) =>
      orElse(
        () => sessionFigures(car, session),
        () => [],
      ),
    ),
    stages: car.stages.map((_, position) =>
      orElse(
        () => stagePower(car, position),
        () => null,
      ),
    ),
  }
}

function stagePower(car: Car, position: number): StagePower | null {
  const power = powerAtStage(car, position)
  if (!power) return null
  const { value, sd, proof, fromPosition, isMeasuredHere } = power
  const found = curveAtStage(car, position)
  const { measured, otherSettings, isPicked } = runsAtStage(car, position)
  const head = isMeasuredHere ? measured[0] : undefined
  return {
    value,
    sd,
    proof,
    fromPosition,
    isMeasuredHere,
    stands: head ? { name: head.setting.name, isPicked, isOneOfSeveral: otherSettings.length > 0 } : null,
    otherSettings: otherSettings.map((run) => ({ sessionId: run.session.id, settingId: run.setting.id, name: run.setting.name, value: run.value, sd: run.sd })),
    curve: found?.curve ?? null,
    scaledFromPosition: found?.scaledFromPosition ?? null,
  }
}

/** The settings of a session that were run; its first where none was. */
function sessionFigures(car: Car, session: DynoSession): SessionFigures[] {
  const { records } = car
  const ran = session.settings.filter((setting) =>
    records.pulls.some((pull) => pull.sessionId === session.id && settingOf(session, pull.settingId).id === setting.id),
  )
  return (ran.length > 0 ? ran : session.settings.slice(0, 1)).map((setting): SessionFigures => {
    const power = standingPower(records, session, setting)
    const common = { sessionId: session.id, settingId: setting.id }
    if (!power.ok) return { ...common, power: null, reason: power.reason, role: 'notCounted' }
    const { value, sd, factor, pullSd, pulls } = power
    return { ...common, power: { value, sd, factor, pullSd, pullCount: pulls.length }, reason: null, role: settingRole(car, session, setting) }
  })
}

function settingRole(car: Car, session: DynoSession, setting: DynoSetting): SessionFigures['role'] {
  const position = stageIndex(car, session.stageId)
  if (position < 0) return 'notCounted'
  const { measured, start } = runsAtStage(car, position)
  const isOf = (run: PowerRun | undefined) => run?.sessionIds.includes(session.id) === true && isSameSetting(run.setting, setting)
  if (!sessionStands(car, session, position)) return isOf(start) ? 'start' : 'other'
  const head = measured[0]
  if (head && !isSameSetting(head.setting, setting)) return 'otherSetting'
  const at = measured.findIndex(isOf)
  const step = powerAtStage(car, position)?.steps[0]
  if (step?.kind !== 'measured' || at < 0) return 'other'
  if (at === 0) return 'stands'
  if (at === step.combined.agreesWith) return 'agrees'
  return at === step.combined.disagreesWith ? 'disagrees' : 'other'
}
