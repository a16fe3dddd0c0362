import type { Car } from '../../stages/car.ts'
import { day, schoolRemark, type Working, type WorkingLine } from '../../stages/working-line.ts'
import { settingOf, standingPower } from './session-power.ts'

/** The peaks of a session's pulls and what brings them to the build's basis; of one setting where the id names it behind a stroke. */
export function sessionWorking(car: Car, id: string): Working | undefined {
  const { records } = car
  const [sessionId, settingId = null] = id.split('/')
  const session = records.sessions.find((entry) => entry.id === sessionId)
  if (!session) return undefined
  const setting = settingOf(session, settingId)
  const power = standingPower(records, session, setting)
  const pulls = records.pulls.filter((pull) => pull.sessionId === sessionId && settingOf(session, pull.settingId) === setting)
  const lines = pulls.map(
    (pull): WorkingLine => ({
      label: `pull ${pull.label}, peak as printed`,
      value: pull.peakPowerW,
      kind: 'power',
      proof: 'measured',
      note: pull.setAside ? `set aside: ${pull.setAside}` : undefined,
    }),
  )
  const common = { title: `${session.dynoName}, ${day(session.at)}, ${setting.name}`, calculation: 'dyno.correction' }
  if (!power.ok) return { ...common, result: { label: 'power on the build’s basis', value: null, kind: 'power' }, lines, remarks: [power.reason] }
  const isAsPrinted = records.build.powerBasis.standard === 'asPrinted'
  const printed = session.printedStandard === 'none' ? 'observed' : session.printedStandard
  const label = isAsPrinted ? `power as printed, ${printed}` : 'power on the build’s basis'
  return {
    ...common,
    result: { label, value: power.value, kind: 'power', sd: power.sd, proof: 'measured' },
    lines: [
      ...lines,
      { label: isAsPrinted ? `factor: ${printed} as printed` : `factor from ${printed} to the basis`, value: power.factor, kind: 'ratio' },
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
      ...(pull.peakPowerSpeedRpm === null ? [] : [{ label: 'at', value: pull.peakPowerSpeedRpm, kind: 'engineSpeed' as const }]),
      ...(pull.peakTorqueNm === null ? [] : [{ label: 'peak torque', value: pull.peakTorqueNm, kind: 'torque' as const, proof: 'measured' as const }]),
    ],
    remarks: [
      pull.curve === null
        ? 'A peak alone, as it was read: it has no curve, no band and no torque.'
        : `${pull.rowCount} rows read, ${pull.cutRowCount} of falling speed cut; the peak is the greatest of a 50 rpm grid drawn through the rest, without smoothing.`,
    ],
  }
}
