import { TRACK_METRICS as KEYS, type TrackMetric } from '../../records/metric-keys.ts'
import type { Car } from '../../stages/car.ts'
import { WAITING } from '../../stages/stage-value.ts'
import { BEING_WORKED_OUT, metricFrame, ofStage, stageName, type Working, type WorkingLine, type WorkingMaker } from '../../stages/working-line.ts'
import { roomWindows } from './corner-grip.ts'
import { driftAt } from './drift-days.ts'
import { LAP_INPUT_WORDS } from './lap-input.ts'
import { lapStage } from './lap-inputs.ts'
import { TRACK_METRICS as DECLARED, TRACK_VALUES } from './metrics.ts'
import { brakeGains, brakeShareAt } from './stage-brakes.ts'
import { controlTrack, trackSessions } from './track-sessions.ts'

/** The sessions that a lap rests on: those of its own stage, or of the one it is carried from. */
function sessionLines(car: Car, from: number): WorkingLine[] {
  const track = controlTrack(car)
  return trackSessions(car)
    .filter(({ record, position: at, whyNot, value }) => at === from && record.trackId === track?.id && whyNot === null && value !== null)
    .map(
      ({ record, value }): WorkingLine => ({
        label: `${record.at.slice(0, 10)}, ${value?.clean ?? 0} clean`,
        value: value?.lapS ?? null,
        kind: 'lapTime',
        sd: value?.sdS,
        proof: 'measured',
      }),
    )
}

/** Numbers that the lap rests on, those first that the model takes as guesses. */
const inputLines = (car: Car, position: number): WorkingLine[] =>
  [...lapStage(car, position).inputs]
    .sort((a, b) => Number(b.isGuess) - Number(a.isGuess))
    .map(
      ({ key, value, sd, isGuess }): WorkingLine => ({
        label: LAP_INPUT_WORDS[key].word,
        value,
        kind: LAP_INPUT_WORDS[key].kind,
        sd,
        proof: isGuess ? 'guess' : 'calculated',
      }),
    )

const NOT_IN_IT = 'Not in it: bars, springs, dampers, kerbs, tyre heat and wear, the line driven. All of that is in the grip.'

/** Nothing is driven by the model here: what takes long is asked for, and its doubts stand in the room. */
function lapWorking(car: Car, position: number): Working | undefined {
  const value = TRACK_VALUES.lapTime.at(car, position)
  const declared = DECLARED.find(({ key }) => key === 'lapTime')
  if (!value || !declared) return undefined
  if (value === WAITING) {
    const { word, kind, calculation } = declared
    return {
      title: `${word} at ${stageName(car, position)}`,
      calculation,
      result: { label: word.toLowerCase(), value: null, kind },
      lines: inputLines(car, position),
      remarks: [BEING_WORKED_OUT, NOT_IN_IT],
    }
  }
  const from = value.fromPosition ?? position
  const sessions = sessionLines(car, from)
  const how =
    sessions.length === 0
      ? 'Nothing was driven: a range in whole seconds, no lap time. One session takes most of it off.'
      : from === position
        ? 'Driven with the car of this stage.'
        : `Carried from ${stageName(car, from)} by what the model says of the difference; the Track room says what each number leaves of its doubt.`
  return {
    ...metricFrame(car, position, declared, value),
    lines: [...sessions, ...(from === position && sessions.length > 0 ? [] : inputLines(car, position))],
    remarks: [how, NOT_IN_IT],
  }
}

function brakeLines(car: Car, position: number): WorkingLine[] {
  const found = brakeShareAt(car, position)
  if (!found) return []
  const gains = brakeGains(car, position, found.brakes)
  const { masters } = found.brakes
  return [
    { label: 'front, force at the road for the pressure, N/kPa', value: 1000 * gains.front, kind: 'ratio' },
    { label: 'rear, force at the road for the pressure, N/kPa', value: 1000 * gains.rear, kind: 'ratio' },
    ...(masters ? [{ label: 'front share of the bar', value: masters.barFront, kind: 'share' as const }] : []),
  ]
}

function gripLines(car: Car, position: number): WorkingLine[] {
  return roomWindows(car)
    .filter(({ of, setAside, trackSessionId }) => {
      const session = trackSessions(car).find(({ record }) => record.id === trackSessionId)
      return of === 'grip' && setAside === null && session?.position === position
    })
    .map(({ day, fromS, grip }) => ({ label: `${day}, lap from ${fromS.toFixed(1)} s of its log`, value: grip, kind: 'ratio', proof: 'measured' }))
}

function driftLines(car: Car, position: number): WorkingLine[] {
  const found = driftAt(car, position)
  if (!found) return []
  return [
    { label: 'runs', value: found.runs, kind: 'ratio' },
    { label: 'rear pairs used up', value: found.pairsUsed, kind: 'ratio' },
    { label: 'days', value: found.days, kind: 'ratio' },
  ]
}

const plain = (metric: Exclude<TrackMetric, 'lapTime'>) => (car: Car, position: number) => {
  const value = TRACK_VALUES[metric].at(car, position)
  const declared = DECLARED.find(({ key }) => key === metric)
  if (!value || value === WAITING || !declared) return undefined
  const from = value.fromPosition ?? position
  const lines = metric === 'brakeShare' ? brakeLines(car, position) : metric === 'cornerGrip' ? gripLines(car, from) : driftLines(car, from)
  const remarks = value.fromPosition === null ? [] : [`From ${stageName(car, value.fromPosition)}.`]
  return { ...metricFrame(car, position, declared, value), lines, remarks }
}

export const TRACK_WORKINGS = Object.fromEntries(KEYS.map((key) => [key, ofStage(key === 'lapTime' ? lapWorking : plain(key))])) as Record<
  TrackMetric,
  WorkingMaker
>
