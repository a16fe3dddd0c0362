import type { BatchWrite } from '@bold-ballast/contract'
import {
  attempt,
  CalculationError,
  type Course,
  type DriveCar,
  driveCourse,
  driveMotion,
  leaveSpeeds,
  METRIC_INFO,
  runnableCourse,
  type SlideSetup,
  slideCorner,
  slideCorners,
  whatIfCar,
  YARDSTICKS,
  type Yardstick,
  yardsticks,
} from '@bold-ballast/core'
import { useMemo, useState } from 'react'
import { api, readFailure } from '../../../data/api.ts'
import { useQuantities } from '../../../ui/quantity.ts'
import { ScrollBox } from '../../../ui/scroll-box.tsx'
import { Alert } from '../../../ui/states.tsx'
import type { DriveTabProps } from '../tab-props.ts'

type WhatIf = Parameters<typeof whatIfCar>[1]
type Lever = keyof WhatIf

/** The eight sliders: what each moves, between which ends and by which step. */
const SLIDERS: readonly {
  readonly key: Lever
  readonly word: string
  readonly least: number
  readonly most: number
  readonly step: number
  readonly isRelative: boolean
}[] = [
  { key: 'powerFactor', word: 'Power', least: 0.7, most: 1.6, step: 0.01, isRelative: true },
  { key: 'massKg', word: 'Mass', least: -200, most: 100, step: 5, isRelative: false },
  { key: 'rearShare', word: 'Share to the rear', least: -0.06, most: 0.06, step: 0.005, isRelative: false },
  { key: 'frictionFactor', word: 'Grip', least: 0.7, most: 1.3, step: 0.01, isRelative: true },
  { key: 'finalFactor', word: 'Final drive', least: 0.75, most: 1.35, step: 0.01, isRelative: true },
  { key: 'radiusFactor', word: 'Tyre, rolling radius', least: 0.9, most: 1.1, step: 0.005, isRelative: true },
  { key: 'shiftS', word: 'Shift time', least: -0.35, most: 0.2, step: 0.01, isRelative: false },
  { key: 'dragFactor', word: 'Drag', least: 0.7, most: 1.6, step: 0.01, isRelative: true },
]
const START: WhatIf = { powerFactor: 1, massKg: 0, rearShare: 0, frictionFactor: 1, finalFactor: 1, radiusFactor: 1, shiftS: 0, dragFactor: 1 }

function figuresOf(car: DriveCar, rollOutM: number, course: Course | null) {
  return attempt(() => {
    const motion = driveMotion(car)
    const lap = course ? attempt(() => driveCourse({ motion, leaveRpm: leaveSpeeds(motion), ...runnableCourse(course, car) }).timeS) : null
    return { times: yardsticks(motion, rollOutM), lapS: typeof lap === 'number' ? lap : null }
  })
}

/** The sliding setup after the sliders: its car follows the whole car's. */
function slideAfter(setup: SlideSetup, before: DriveCar, after: DriveCar): SlideSetup {
  return {
    ...setup,
    car: {
      ...setup.car,
      massKg: after.massKg,
      frontShare: after.frontShare,
      dragAreaM2: after.dragAreaM2,
      slidingFriction: (setup.car.slidingFriction * after.friction) / before.friction,
    },
    train: { ...setup.train, curve: after.curve, finalRatio: after.finalRatio, radiusM: after.radiusM },
  }
}

type Kept = Pick<DriveTabProps, 'records' | 'stageId' | 'position'> & { readonly car: DriveCar }

/** What is kept beside power: mass as a guessed line, a final as a part of the stage, drag as a setting of it. */
function keptWrites(moved: WhatIf, { car, records, stageId, position }: Kept): BatchWrite[] {
  const writes: BatchWrite[] = []
  const at = new Date().toISOString()
  if (moved.massKg !== 0 && position > 0)
    writes.push({
      kind: 'create',
      resource: 'changes',
      body: {
        id: crypto.randomUUID(),
        stageId,
        kind: moved.massKg < 0 ? 'off' : 'on',
        name: 'as tried in What if',
        values: [{ massKg: Math.abs(moved.massKg), sdKg: null, proof: 'guess', typed: null, at }],
        state: 'planned',
      },
    })
  if (moved.finalFactor !== 1) {
    const ratio = Number((car.finalRatio * moved.finalFactor).toFixed(3))
    const drive = { role: 'finalDrive', ratio, teeth: null, pairs: [] }
    const standing = records.parts.find((part) => part.drive?.role === 'finalDrive' && part.stageId === stageId)
    writes.push(
      standing
        ? { kind: 'update', resource: 'parts', id: standing.id, body: { version: standing.version, drive } }
        : {
            kind: 'create',
            resource: 'parts',
            body: { id: crypto.randomUUID(), kind: 'final drive', name: `Final ${ratio.toFixed(2)}`, status: 'wanted', stageId, drive },
          },
    )
  }
  if (moved.dragFactor !== 1) {
    const dragAreaM2 = { value: car.dragAreaM2 * moved.dragFactor, sd: null, known: 'guess', typed: null }
    const setting = records.driveSettings.find((each) => each.stageId === stageId)
    writes.push(
      setting
        ? { kind: 'update', resource: 'drive-settings', id: setting.id, body: { version: setting.version, dragAreaM2 } }
        : { kind: 'create', resource: 'drive-settings', body: { id: crypto.randomUUID(), stageId, dragAreaM2 } },
    )
  }
  return writes
}

/** Eight sliders: before and after of yardsticks, the course and slides; Enter keeps power, mass, final and drag at the stage. */
export function WhatIfTab({ car, made, room, course, records, stageId, position }: DriveTabProps) {
  const [moved, setMoved] = useState<WhatIf>(START)
  const { text, format } = useQuantities()
  const [failure, setFailure] = useState<string | null>(null)
  const [create] = api.useCreateRecordMutation()
  const [write] = api.useBatchMutation()
  const before = useMemo(() => (car ? figuresOf(car, room.rollOutM, course) : null), [car, room.rollOutM, course])
  const changed = useMemo(() => (car ? attempt(() => whatIfCar(car, moved)) : null), [car, moved])
  const after = useMemo(
    () => (changed && !(changed instanceof CalculationError) ? figuresOf(changed, room.rollOutM, course) : changed),
    [changed, room.rollOutM, course],
  )
  if (!car || !before || before instanceof CalculationError) return null
  const shown = (key: Lever, value: number) => {
    if (key === 'massKg') return text('mass', value, { sign: true, decimals: 0 })
    if (key === 'shiftS') return `${format('lapTime', car.shiftS + value, { decimals: 2 }).number} s`
    if (key === 'rearShare') return text('share', value, { sign: true })
    if (key === 'finalFactor') return (car.finalRatio * value).toFixed(2)
    return `× ${value.toFixed(2)}`
  }
  const isMoved = SLIDERS.some(({ key }) => moved[key] !== START[key])
  const keep = async () => {
    const writes = keptWrites(moved, { car, records, stageId, position })
    const isPower = moved.powerFactor !== START.powerFactor
    if (writes.length === 0 && !isPower)
      return setFailure(
        'Power, mass, final drive and drag are kept from here. Grip, tyres, share and shift time are typed where they belong: in Parts, or on the scales.',
      )
    const buildId = records.build.id
    const stored = writes.length > 0 ? await write({ buildId, batchId: crypto.randomUUID(), writes }) : null
    if (stored?.error) return setFailure(readFailure(stored.error).message)
    if (isPower) {
      const body = {
        id: crypto.randomUUID(),
        stageId,
        metric: 'wheelPower',
        mode: 'times',
        value: moved.powerFactor,
        sd: null,
        proof: 'guess',
        typed: `× ${moved.powerFactor.toFixed(2)}`,
      }
      const answer = await create({ buildId, resource: 'expectations', body })
      if (answer.error) return setFailure(readFailure(answer.error).message)
    }
    setFailure(null)
    setMoved({ ...moved, powerFactor: 1, massKg: 0, finalFactor: 1, dragFactor: 1 })
  }
  const slides = made.slide && course ? slideCorners(course) : []
  const setup = made.slide ? { ...made.slide, inputs: [] } : null
  const held = (each: SlideSetup, corner: (typeof slides)[number]['corner'], name: string) => {
    const found = attempt(() => slideCorner(each, name, corner))
    return found instanceof CalculationError ? null : (found.best?.inHand ?? null)
  }
  const kindOf = (key: Yardstick) => METRIC_INFO[key].kind
  const cell = (key: Yardstick, value: number | null | undefined) =>
    value === null || value === undefined ? 'never' : text(kindOf(key), value, { decimals: kindOf(key) === 'speed' ? 0 : 2 })
  return (
    <form
      className="grid grid-cols-[minmax(0,1fr)] gap-x-8 gap-y-4 lg:grid-cols-[420px_minmax(0,1fr)]"
      onSubmit={(event) => {
        event.preventDefault()
        void keep()
      }}
    >
      <div>
        {SLIDERS.map(({ key, word, least, most, step }) => (
          <label key={key} className="grid grid-cols-[minmax(0,140px)_minmax(0,1fr)_84px] items-center gap-2 border-t border-line py-1.5">
            <span>{word}</span>
            <input
              type="range"
              min={least}
              max={most}
              step={step}
              value={moved[key]}
              onChange={(event) => setMoved({ ...moved, [key]: Number(event.target.value) })}
            />
            <output className={`text-right tabular-nums ${moved[key] === START[key] ? 'text-quiet' : 'font-semibold'}`}>{shown(key, moved[key])}</output>
          </label>
        ))}
        <p className="mt-3 flex flex-wrap gap-3">
          <button type="submit" className="button button-strong" disabled={!isMoved}>
            Keep it at stage {position}
          </button>
          <button type="button" className="button" disabled={!isMoved} onClick={() => setMoved(START)}>
            Back to the stage as it is
          </button>
        </p>
        {failure && <Alert className="mt-2">{failure}</Alert>}
      </div>
      <ScrollBox label="Before and after">
        <table className="w-full max-w-xl">
          <thead>
            <tr>
              <th className="text-left">What it does</th>
              <th className="text-right">As it is</th>
              <th className="text-right">With this</th>
            </tr>
          </thead>
          <tbody>
            {!made.isConverter &&
              YARDSTICKS.map((key) => (
                <tr key={key} className="border-t border-line">
                  <th scope="row" className="py-1 text-left font-normal">
                    {METRIC_INFO[key].word}
                  </th>
                  <td className="text-right text-quiet tabular-nums">{cell(key, before.times[key])}</td>
                  <td className="text-right font-semibold tabular-nums">{after && !(after instanceof CalculationError) ? cell(key, after.times[key]) : ''}</td>
                </tr>
              ))}
            {before.lapS !== null && before.lapS > 0 && (
              <tr className="border-t border-line">
                <th scope="row" className="py-1 text-left font-normal">
                  {course?.name}, between corners
                </th>
                <td className="text-right text-quiet tabular-nums">{text('lapTime', before.lapS)}</td>
                <td className="text-right font-semibold tabular-nums">
                  {after && !(after instanceof CalculationError) && after.lapS !== null ? text('lapTime', after.lapS) : ''}
                </td>
              </tr>
            )}
            {setup &&
              slides.map(({ name, corner }) => {
                const was = held(setup, corner, name)
                const is = changed && !(changed instanceof CalculationError) ? held(slideAfter(setup, car, changed), corner, name) : null
                return (
                  <tr key={name} className="border-t border-line">
                    <th scope="row" className="py-1 text-left font-normal">
                      {name}, power in hand
                    </th>
                    <td className="text-right text-quiet tabular-nums">{was === null ? 'no gear' : text('share', was, { sign: true, decimals: 0 })}</td>
                    <td className="text-right font-semibold tabular-nums">{is === null ? 'no gear' : text('share', is, { sign: true, decimals: 0 })}</td>
                  </tr>
                )
              })}
          </tbody>
        </table>
      </ScrollBox>
      {after instanceof CalculationError && <p className="border-l-4 border-wait pl-3">{after.message}</p>}
    </form>
  )
}
