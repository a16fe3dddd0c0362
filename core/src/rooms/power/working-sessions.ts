import type { Car } from '../../stages/car.ts'
import { day, schoolRemark, type Working, type WorkingLine } from '../../stages/working-line.ts'
import { sessionPower } from './session-power.ts'

/** The peaks of a session's pulls and what brings them to the build's basis. */
export function sessionWorking(car: Car, id: string): Working | undefined {
  const { records } = car
  const session = records.sessions.find((entry) => entry.id === id)
  if (!session) return undefined
  const power = sessionPower(
    records,
    session,
    records.standings.find((entry) => entry.sessionId === id && entry.stageId === session.stageId),
  )
  const pulls = records.pulls.filter((pull) => pull.sessionId === id)
  const lines = pulls.map(
    (pull): WorkingLine => ({
      label: `pull ${pull.label}, peak as printed`,
      value: pull.peakPowerW,
      kind: 'power',
      proof: 'measured',
      note: pull.setAside ? `set aside: ${pull.setAside}` : undefined,
    }),
  )
  const title = `${session.dynoName}, ${day(session.at)}`
  if (!power.ok)
    return {
      title,
      calculation: 'dyno.correction',
      result: { label: 'power on the build’s basis', value: null, kind: 'power' },
      lines,
      remarks: [power.reason],
    }
  return {
    title,
    calculation: 'dyno.correction',
    result: { label: 'power on the build’s basis', value: power.value, kind: 'power', sd: power.sd, proof: 'measured' },
    lines: [
      ...lines,
      { label: `factor from ${session.printedStandard === 'none' ? 'observed' : session.printedStandard} to the basis`, value: power.factor, kind: 'ratio' },
      { label: 'pull to pull, 1 sd', value: power.pullSd, kind: 'power' },
    ],
    remarks: ['Mean of the standing pulls’ peaks; the spread adds 1 % for what differs from one visit to the next (common practice).', ...schoolRemark(car)],
  }
}

/** What was read of one pull. */
export function pullWorking(car: Car, id: string): Working | undefined {
  const pull = car.records.pulls.find((entry) => entry.id === id)
  if (!pull) return undefined
  return {
    title: `Pull ${pull.label}`,
    calculation: 'dyno.power-torque',
    result: { label: 'peak power as printed', value: pull.peakPowerW, kind: 'power', proof: 'measured' },
    lines: [
      { label: 'at', value: pull.peakPowerSpeedRpm, kind: 'engineSpeed' },
      { label: 'peak torque', value: pull.peakTorqueNm, kind: 'torque', proof: 'measured' },
    ],
    remarks: [
      `${pull.rowCount} rows read, ${pull.cutRowCount} of falling speed cut; the peak is the greatest of a 50 rpm grid drawn through the rest, without smoothing.`,
    ],
  }
}
