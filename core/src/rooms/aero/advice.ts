import { touches } from '../../aero/ride-heights.ts'
import { attempt } from '../../attempt.ts'
import { CalculationError } from '../../errors.ts'
import { AERO_TEST_KINDS } from '../../records/aero-test-kinds.ts'
import { AERO_METRICS, type AeroMetric, TAPE_METRICS } from '../../records/metric-keys.ts'
import type { Car } from '../../stages/car.ts'
import { defineAdvice, type ItemOf, type Sayings } from '../../stages/define-advice.ts'
import { basisOf } from './basis.ts'
import { standingTests } from './car-tests.ts'
import { mountsAtStage } from './mounts.ts'
import { panelsAtStage } from './panels.ts'
import { heightsAtStage, stageAero } from './stage-aero.ts'
import { toldByTest } from './told-by-test.ts'

const ofSums = (metric: string): metric is AeroMetric =>
  (AERO_METRICS as readonly string[]).includes(metric) && !(TAPE_METRICS as readonly string[]).includes(metric)

/** A target of the air, and a device in the car that nobody knows, or no bare body. */
const unknownDevice = defineAdvice({
  rank: 64,
  find: (car: Car) => {
    const target = car.records.targets.find(({ metric }) => ofSums(metric))
    const position = car.stages.length - 1
    if (!target) return []
    const side = stageAero(car, position)?.[target.metric === 'dragArea' ? 'drag' : 'loads']
    if (side?.isWhole) return []
    const name = side?.unknown[0]
    return [{ code: 'aero-unknown', position, metric: target.metric, name: name ?? null } as const]
  },
})

const likelyStall = defineAdvice({
  rank: 65,
  find: (car: Car) => {
    const position = car.stages.length - 1
    const stalled = (stageAero(car, position)?.lines ?? []).find(({ notch }) => (notch.stallChance ?? 0) > 0.5)
    return stalled
      ? [{ code: 'likely-stall', position, name: stalled.device.name, notch: stalled.notch.name, chance: stalled.notch.stallChance ?? 1 } as const]
      : []
  },
})

/** Something touches the ground below the fastest speed, or stands on it at rest. */
const touchesBelow = defineAdvice({
  rank: 66,
  find: (car: Car) => {
    const position = car.stages.length - 1
    const input = heightsAtStage(car, position)
    if (!input) return []
    const { fastestMps } = basisOf(car)
    const found = attempt(() => touches(input, fastestMps))
    if (found instanceof CalculationError) return []
    const first = found.filter(({ touchMps }) => touchMps !== null).sort((a, b) => (a.touchMps ?? 0) - (b.touchMps ?? 0))[0]
    return first ? [{ code: 'touches-ground', position, name: first.name, speedMps: first.touchMps ?? 0, fastestMps } as const] : []
  },
})

/** The latest test of a kind says another thing than what stood before it. */
const testDisagrees = defineAdvice({
  rank: 46,
  find: (car: Car) =>
    AERO_TEST_KINDS.flatMap((kind) => {
      const last = standingTests(car, kind).at(-1)
      const told = last && toldByTest(car, last)
      if (!last || !told?.isOff) return []
      const { of, highBy, fromTest } = told
      return [{ code: 'aero-test-disagrees', position: last.position, of, highBy, name: last.name, byTest: fromTest !== null } as const]
    }),
})

type MountItem =
  | { readonly code: 'mount-over-load'; readonly position: number; readonly name: string; readonly use: number }
  | { readonly code: 'mount-unsafe'; readonly position: number; readonly name: string; readonly lacksMount: boolean; readonly isOnLid: boolean }

/** What can fly into people: a mount that is too weak, none that was looked at, or nothing that holds it when the mount lets go. */
const mountUnsafe = defineAdvice({
  rank: 20,
  find: (car: Car) => {
    const position = car.stages.length - 1
    return mountsAtStage(car, position).flatMap((state): MountItem[] => {
      const { name, use, lacksMount, lacksSecond, mount } = state
      if (use !== null && use > 1) return [{ code: 'mount-over-load', position, name, use }]
      if (!lacksMount && !lacksSecond) return []
      return [{ code: 'mount-unsafe', position, name, lacksMount, isOnLid: mount?.carriedBy === 'lid' }]
    })
  },
})

/** A panel that is built and does not hold the air, or its rods do not. */
const panelFails = defineAdvice({
  rank: 20,
  find: (car: Car) => {
    const position = car.stages.length - 1
    return panelsAtStage(car, position).flatMap(({ panel, deviceName, faults }) => {
      const isWeak = panel.isChosen && (faults.includes('air') || faults.includes('rods'))
      return isWeak ? [{ code: 'panel-fails', position, name: deviceName, isRods: !faults.includes('air') } as const] : []
    })
  },
})

export const AERO_ADVICE = [mountUnsafe, panelFails, testDisagrees, unknownDevice, likelyStall, touchesBelow] as const

export const AERO_SAYINGS: Sayings<ItemOf<typeof AERO_ADVICE>> = {
  'aero-unknown': ({ position, metric, name }, { metric: facts, at }) => ({
    head: name === null ? `Say what the bare body does, for ${facts(metric).word.toLowerCase()}` : `Nobody knows what ${name} does`,
    text:
      name === null
        ? 'A target is set on it; the body is the largest part of drag and lift. A coast-down, a maker’s number or a guess with its spread will do.'
        : `A target is set on ${facts(metric).word.toLowerCase()} and it has no plan until a test or a maker’s value says it, or it counts as nothing.`,
    to: at('aero', position),
  }),
  'mount-over-load': ({ position, name, use }, { text, at }) => ({
    head: `The mount of ${name} carries ${text('share', use)} of what it is rated for`,
    text: 'At the fastest speed, with its load factor. More bolts, larger ones, or feet further apart; then let a qualified person look at it.',
    to: at('aero', position, '&tab=mounts'),
  }),
  'mount-unsafe': ({ position, name, lacksMount, isOnLid }, { at }) => ({
    head: lacksMount ? `Nobody said how ${name} is held` : `${name} has nothing that holds it when its mount lets go`,
    text: lacksMount
      ? 'What comes off flies into people. Say what carries it, with which bolts or rods, and what holds it then.'
      : `${isOnLid ? 'It stands on a lid, which opens. ' : ''}A tether or a second fixing to the chassis keeps it on the car.`,
    to: at('aero', position, '&tab=mounts'),
  }),
  'panel-fails': ({ position, name, isRods }, { at }) => ({
    head: isRods ? `The rods of ${name} carry more than they are rated for` : `The panel of ${name} does not hold the air`,
    text: 'At the fastest speed, with its load factor. A thicker sheet, a nearer support or more rods; what folds under goes beneath the car.',
    to: at('aero', position, '&tab=panel'),
  }),
  'aero-test-disagrees': ({ position, of, highBy, name, byTest }, { text, at }) => ({
    head: `${name} says ${text('share', Math.abs(highBy))} ${highBy > 0 ? 'less' : 'more'} ${of} than was thought`,
    text: `${byTest ? 'An earlier test and the devices since' : 'The devices by their own values'} are beyond the spread of both. The test stands; look at what differs, or set a pair aside.`,
    to: at('aero', position, '&tab=proof'),
  }),
  'likely-stall': ({ position, name, notch, chance }, { text, at }) => ({
    head: `${name} has likely let go at ${notch}`,
    text: `By its estimate the chance is ${text('share', chance)}. A smaller angle gives more.`,
    to: at('aero', position),
  }),
  'touches-ground': ({ position, name, speedMps, fastestMps }, { text, stage, at }) => ({
    head: `${name} touches the ground at ${text('speed', speedMps)}`,
    text: `The fastest of ${stage(position)} is ${text('speed', fastestMps)}. A packer, a stiffer spring or more height lifts it.`,
    to: at('aero', position, '&tab=height'),
  }),
}
