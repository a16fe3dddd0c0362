import { orElse } from '../../attempt.ts'
import type { BoxProblem } from '../../electrics/placing.ts'
import { firstToTrip, supply } from '../../electrics/supply.ts'
import { loomMass, wireCarries, wireFor } from '../../electrics/wire.ts'
import type { BuildRecords } from '../../records/records.ts'
import type { Circuit, PowerBox } from '../../records/systems-kinds.ts'

/** How well a current is known where nobody said (common practice, no source). */
const SHARE_BY_KNOWN = { guess: 0.25, catalogue: 0.1, measured: 0.03 } as const

/**
 * The spread of a circuit's current, A: its own, else by how it is known.
 * @example currentSdA({ currentA: 10, sdA: null, known: 'catalogue' }) // 1
 */
export const currentSdA = ({ currentA, sdA, known }: Pick<Circuit, 'currentA' | 'sdA' | 'known'>): number => sdA ?? currentA * SHARE_BY_KNOWN[known]

type Records = Pick<BuildRecords, 'stages' | 'powerBoxes' | 'circuits' | 'build'>

/**
 * The box that a stage has: its own, else that of the latest stage before.
 * @example boxAtStage(ELECTRIC, 1).position // 1
 */
export function boxAtStage(
  { stages, powerBoxes }: Pick<Records, 'stages' | 'powerBoxes'>,
  position: number,
): { readonly box: PowerBox; readonly position: number } | undefined {
  const order = [...stages].sort((a, b) => a.position - b.position)
  for (let at = position; at >= 0; at--) {
    const box = powerBoxes.find(({ stageId }) => stageId === order[at]?.id)
    if (box) return { box, position: at }
  }
  return undefined
}

/**
 * Circuits that are there at a stage.
 * @example circuitsAtStage(ELECTRIC, 1).length // 1
 */
export function circuitsAtStage({ stages, circuits }: Pick<Records, 'stages' | 'circuits'>, position: number): Circuit[] {
  const place = new Map(stages.map((stage) => [stage.id, stage.position]))
  return circuits.filter(({ stageId }) => stageId === null || (place.get(stageId) ?? Number.POSITIVE_INFINITY) <= position)
}

/**
 * A box with its circuits as the placing takes them: what is switched alone is a group of its own.
 * @example placingOf(BOX, [PUMP]).circuits[0].group // 'alone pump'
 */
export const placingOf = (box: PowerBox, circuits: readonly Circuit[]): BoxProblem => ({
  outputs: box.outputs.map(({ key, ratedA }) => ({ key, ratedA })),
  circuits: circuits
    .filter(({ kind }) => kind === 'power')
    .map(({ name, currentA, startFactor, group, isVital, output, isPinned }) => ({
      name,
      currentA,
      startFactor,
      group: group ?? `alone ${name}`,
      isVital,
      pinned: isPinned ? output : null,
    })),
  rules: {
    loadShare: box.loadShare,
    peakShare: box.peakShare,
    keepFree: Object.fromEntries(box.keepFree.map(({ ratedA, count }) => [String(ratedA), count])),
    vitalAlone: box.vitalAlone,
  },
})

/** An output with what runs on it. */
export interface OutputView {
  readonly key: string
  readonly ratedA: number
  readonly tripA: number
  readonly isTripSet: boolean
  readonly circuits: readonly Circuit[]
  readonly loadA: number
  /** Times its load at which it trips; null: nothing runs on it. */
  readonly factor: number | null
  readonly chanceOver: number
  /** What its trip would best be set to. */
  readonly settingA: number
  /** The most it draws as one of its circuits starts; null: the box names no peak, so it was not checked. */
  readonly peakA: number | null
  readonly problems: readonly string[]
}

/** The wire of a circuit. */
export interface WireView {
  readonly circuit: Circuit
  readonly needMm2: number | null
  readonly dropV: number | null
  readonly allowedV: number
  readonly refused: string | null
  /** What its output trips at is more than the wire that is laid carries. */
  readonly tripOverWire: boolean
}

export interface SupplyView {
  readonly meanA: number
  readonly sdA: number
  readonly guessShare: number
  readonly hotA: number
  readonly idleA: number
  readonly shaftW: number
  readonly batteryMinutes: number
}

export interface ElectricsView {
  readonly box: PowerBox | null
  readonly boxPosition: number | null
  readonly circuits: readonly Circuit[]
  readonly outputs: readonly OutputView[]
  /** Circuits that stand on no output of the box. */
  readonly unplaced: readonly Circuit[]
  /** Of those with a load, the one that trips first. */
  readonly first: OutputView | null
  readonly totalA: number
  readonly free: readonly { readonly ratedA: number; readonly count: number }[]
  readonly wires: readonly WireView[]
  /** Null: nobody entered alternator and battery, or nothing draws. */
  readonly supply: SupplyView | null
  readonly loom: { readonly massKg: number; readonly sdKg: number; readonly missing: number } | null
  /** What goes on when the main switch is off. */
  readonly outsideKill: readonly Circuit[]
}

function outputViews(box: PowerBox, circuits: readonly Circuit[]): OutputView[] {
  const on = (key: string) => circuits.filter(({ output }) => output?.toLowerCase() === key.toLowerCase())
  const trips = firstToTrip(
    box.outputs.map(({ key, ratedA, tripA }) => ({
      key,
      tripA: tripA ?? ratedA,
      circuits: on(key).map((each) => ({ currentA: each.currentA, sdA: currentSdA(each) })),
    })),
  )
  return trips.flatMap(({ key, loadA, factor, chanceOver, settingA }) => {
    const output = box.outputs.find((each) => each.key === key)
    if (!output) return []
    const own = on(key)
    const peakA = box.peakShare === null || own.length === 0 ? null : Math.max(...own.map((each) => loadA + (each.startFactor - 1) * each.currentA))
    const groups = new Set(own.map(({ group, name }) => group ?? name))
    const problems = [
      ...(loadA > box.loadShare * output.ratedA + 1e-9
        ? [`${loadA.toFixed(1)} A is more than ${Math.round(100 * box.loadShare)} % of its ${output.ratedA} A.`]
        : []),
      ...(peakA !== null && peakA > (box.peakShare as number) * output.ratedA + 1e-9 ? [`A start draws ${peakA.toFixed(0)} A, over its peak.`] : []),
      ...(groups.size > 1 ? ['What is on it is not switched together.'] : []),
      ...(box.vitalAlone && own.length > 1 && own.some(({ isVital }) => isVital) ? ['A vital circuit shares it.'] : []),
    ]
    return [
      {
        key,
        ratedA: output.ratedA,
        tripA: output.tripA ?? output.ratedA,
        isTripSet: output.tripA !== null,
        circuits: own,
        loadA,
        factor: Number.isFinite(factor) ? factor : null,
        chanceOver,
        settingA: Math.min(settingA, output.ratedA),
        peakA,
        problems,
      },
    ]
  })
}

/** Where no box says it. */
const USUAL_V = 13.8

function wireOf(circuit: Circuit, box: PowerBox | null, outputs: readonly OutputView[]): WireView {
  const tripA = outputs.find(({ circuits }) => circuits.some(({ id }) => id === circuit.id))?.tripA ?? Math.max(0.1, circuit.currentA)
  const systemV = box?.systemV ?? USUAL_V
  const allowedV = circuit.dropShare * systemV
  const tripOverWire = circuit.areaMm2 !== null && wireCarries(circuit.areaMm2) < tripA
  if (circuit.lengthM === null)
    return { circuit, needMm2: null, dropV: null, allowedV, refused: 'No length: type how long its wire is, one way.', tripOverWire }
  const run = {
    currentA: circuit.currentA,
    lengthM: circuit.lengthM,
    returnsBy: circuit.return,
    jointOhm: circuit.jointOhm,
    temperatureK: circuit.temperatureK,
  }
  return orElse(
    () => {
      const { areaMm2, dropV } = wireFor(run, { tripA, systemV, dropShare: circuit.dropShare })
      return { circuit, needMm2: areaMm2, dropV, allowedV, refused: null, tripOverWire }
    },
    (refused) => ({ circuit, needMm2: null, dropV: null, allowedV, refused, tripOverWire }),
  )
}

/** Whether the alternator carries the circuits; null where nobody said what feeds them, or nothing draws. */
export function supplyOf(build: Records['build'], circuits: readonly Circuit[]): SupplyView | null {
  const own = build.supply
  const draws = circuits.filter(({ currentA, duty }) => currentA * duty > 0)
  if (!own || draws.length === 0) return null
  const found = supply({ ...own, circuits: draws })
  const variances = draws.map((each) => ({ of: (currentSdA(each) * each.duty) ** 2, isGuess: each.known === 'guess' }))
  const variance = variances.reduce((sum, { of }) => sum + of, 0)
  const guessed = variances.reduce((sum, { of, isGuess }) => sum + (isGuess ? of : 0), 0)
  return { ...found, sdA: Math.sqrt(variance), guessShare: variance > 0 ? guessed / variance : 0 }
}

/**
 * Everything electric of a stage: outputs with their loads, wires, supply, loom and main switch.
 * @example electricsAtStage(ELECTRIC, 1).first.key // 'O1'
 */
export function electricsAtStage(records: Records, position: number): ElectricsView {
  const found = boxAtStage(records, position)
  const circuits = circuitsAtStage(records, position)
  const power = circuits.filter(({ kind }) => kind === 'power')
  const box = found?.box ?? null
  const outputs = box ? outputViews(box, power) : []
  const placed = new Set(outputs.flatMap((output) => output.circuits.map(({ id }) => id)))
  const wires = circuits.filter(({ currentA }) => currentA > 0).map((circuit) => wireOf(circuit, box, outputs))
  const runs = wires.flatMap(({ circuit, needMm2 }) => {
    const areaMm2 = circuit.areaMm2 ?? needMm2
    return areaMm2 === null || circuit.lengthM === null ? [] : [{ areaMm2, lengthM: circuit.lengthM, returnsBy: circuit.return }]
  })
  const free = new Map<number, number>()
  for (const { ratedA, circuits: own } of outputs) if (own.length === 0) free.set(ratedA, (free.get(ratedA) ?? 0) + 1)
  return {
    box,
    boxPosition: found?.position ?? null,
    circuits,
    outputs,
    unplaced: power.filter(({ id }) => !placed.has(id)),
    first: outputs.find(({ factor }) => factor !== null) ?? null,
    totalA: power.reduce((sum, { currentA, duty }) => sum + currentA * duty, 0),
    free: [...free].map(([ratedA, count]) => ({ ratedA, count })).sort((a, b) => b.ratedA - a.ratedA),
    wires,
    supply: supplyOf(records.build, circuits),
    loom: runs.length === 0 ? null : { ...loomMass(runs), missing: wires.length - runs.length },
    outsideKill: power.filter(({ behindKill }) => !behindKill),
  }
}
