import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  type BuildRecords,
  type EnginePlan,
  enginePlanKind,
  FLOW_REFERENCES,
  fuelRoleOf,
  type HEAT_SCHOOLS,
  lossOf,
  type MeasuredEngine,
  partsAtStage,
  toSi,
  usualBsfc,
} from '@bold-ballast/core'
import { field, makeForm } from '../../../ui/forms/form-fields.ts'
import { usualText } from '../../../ui/quantity.ts'

const HEAT_WORDS: Record<(typeof HEAT_SCHOOLS)[number], string> = { shareOfFuel: 'a share of the fuel’s energy', shareOfPower: 'a share of the power' }
const REFERENCE_WORDS = Object.fromEntries(Object.keys(FLOW_REFERENCES).map((value) => [value, value]))
const REGULATOR_PA = 300_000

/** The form of an engine plan. */
export const planForm = makeForm(
  enginePlanKind.fields,
  [
    field('target.powerW', 'power', { label: 'Power to reach', section: 'What is asked', typedAt: 'target.typed' }),
    field('target.place', 'choice', { label: 'Counted', words: { wheel: 'at the wheels', crank: 'at the crank' } }),
    field('burn.powerSpeedRpm', 'engineSpeed', { label: 'Made at', hint: 'Engine speed in rpm.' }),
    field('burn.torqueRise', 'number', { label: 'Greatest torque over the torque there', hint: '1.0 to 1.3 is usual (common practice, no source).' }),
    field('engine.displacementM3', 'volume', {
      label: 'Displacement',
      section: 'Engine',
      hint: (units) => `${units.volume} unless a unit is typed, such as 1998 cc`,
      shownIn: 'cm³',
    }),
    field('engine.cylinders', 'count', { label: 'Cylinders' }),
    field('engine.strokes', 'numberChoice', { label: 'Strokes', words: { 4: 'four', 2: 'two' } }),
    field('engine.redlineRpm', 'engineSpeed', { label: 'Redline', hint: 'rpm' }),
    field('engine.boreM', 'length', { label: 'Bore', hint: 'May stay empty.' }),
    field('engine.strokeM', 'length', { label: 'Stroke', hint: 'With the rod it gives piston speed; may stay empty.' }),
    field('engine.rodM', 'length', { label: 'Rod, between centres' }),
    field('engine.valvesPerCylinder', 'count', { label: 'Valves of each cylinder' }),
    field('engine.compressionRatio', 'ratio', { label: 'Compression ratio' }),
    field(
      'engine.veCurve',
      {
        points: [
          { key: 'speedRpm', kind: 'engineSpeed', isBare: true },
          { key: 'volumetricEfficiency', kind: 'ratio', isBare: true },
        ],
        whenNone: 'Give one point at least, such as 6500 0.95.',
      },
      {
        label: 'Volumetric efficiency: speed and value, a point a line',
        hint: 'Referred to the manifold. 0.80 to 1.10 without boost, 0.85 to 1.05 with it (common practice, no source).',
        isWide: true,
      },
    ),
    field('burn.ethanolShare', 'share', { label: 'Ethanol in the fuel', section: 'Fuel', hint: 'By volume; measure it, pumps vary.' }),
    field('burn.bsfcKgPerJ', 'fuelUse', {
      label: 'Fuel used for each power and time',
      hint: (units) =>
        `Petrol ${usualText(units, 'fuelUse', toSi('fuelUse', 255, 'g/kWh'), toSi('fuelUse', 335, 'g/kWh'))}, boosted ${usualText(units, 'fuelUse', toSi('fuelUse', 335, 'g/kWh'), toSi('fuelUse', 395, 'g/kWh'))}; ethanol about 40 % more (common practice, no source).`,
    }),
    field('burn.lambda', 'number', { label: 'Lambda at full power', hint: '0.78 to 0.90 is usual (common practice, no source).' }),
    field('air.isBoosted', 'flag', { label: 'The engine is', section: 'Air', words: { true: 'boosted', false: 'without boost' } }),
    field('air.ambientPressurePa', 'pressure', { label: 'Air outside, absolute' }),
    field('air.ambientTemperatureK', 'temperature', { label: 'Air outside, temperature' }),
    field('air.intakeRiseK', 'number', { label: 'Without boost: charge warmer by, K', hint: '5 to 15 K (common practice, no source).' }),
    field('air.beforeLossPa', 'pressure', {
      label: 'Lost before the engine or compressor',
      hint: (units) => `Filter and pipe: ${usualText(units, 'pressure', 1000, 5000)} (common practice, no source).`,
    }),
    field('air.afterLossPa', 'pressure', {
      label: 'Lost between it and the manifold',
      hint: (units) => `Cooler and pipes: ${usualText(units, 'pressure', 5000, 15_000)} (common practice, no source).`,
    }),
    field('air.compressorEfficiency', 'share', { label: 'Compressor efficiency', hint: 'Turbo 55 to 80 %, driven 50 to 75 % (common practice, no source).' }),
    field('air.flowReference', 'choice', { label: 'Its map is stated at', words: REFERENCE_WORDS, hint: 'Maps differ by up to 8 % in flow.' }),
    field('air.coolerEffectiveness', 'share', { label: 'Cooler effectiveness', hint: '50 to 85 % (common practice, no source). Empty: no cooler.' }),
    field('air.coolantTemperatureK', 'temperature', {
      label: 'What cools it, temperature',
      hint: 'Air or water into the cooler. Empty: as the air outside.',
    }),
    field('injectors.count', 'count', { label: 'Injectors', section: 'Injectors; leave the number empty while none are chosen' }),
    field('injectors.ratedFlowM3PerS', 'injectorFlow', {
      label: 'Static flow of each',
      hint: (units) => `${units.injectorFlow} unless a unit is typed`,
      shownIn: 'cm³/min',
    }),
    field('injectors.ratedPressurePa', 'pressure', { label: 'Rated at', begin: REGULATOR_PA }),
    field('injectors.pressureDifferencePa', 'pressure', { label: 'Rail over manifold', hint: 'What the regulator holds.', begin: REGULATOR_PA }),
    field('injectors.dutyLimit', 'share', { label: 'Duty at most', hint: '80 to 85 % (common practice, no source).', begin: 0.85 }),
    field('injectors.deadTimeS', 'duration', { label: 'Dead time, ms', hint: 'May stay empty.', unit: 'ms' }),
    field('pump.count', 'count', { label: 'Feed pumps', section: 'Fuel pumps; leave the number empty while none are chosen' }),
    field('pump.spareCount', 'count', { label: 'Spare pumps', hint: 'They run when one has failed.', begin: 0 }),
    field('pump.basePressurePa', 'pressure', { label: 'Regulator over manifold', begin: REGULATOR_PA }),
    field(
      'pump.points',
      {
        points: [
          { key: 'pressurePa', kind: 'pressure' },
          { key: 'flowM3PerS', kind: 'volumeFlow' },
          { key: 'currentA', kind: 'current', isOptional: true },
        ],
      },
      {
        label: 'Flow of one: pressure above the air, flow and, if measured, current, a point a line',
        hint: (units) => `At the voltage the car has, as ${units.pressure}, ${units.volumeFlow} and A. Nothing is guessed beyond the points.`,
        isWide: true,
      },
    ),
    field('pump.lineLossPa', 'pressure', { label: 'Filter and lines take', begin: 20_000 }),
    field('pump.margin', 'share', { label: 'Margin wanted', hint: '15 to 30 % (common practice, no source).', begin: 0.2 }),
    field('burn.heatSchool', 'choice', { label: 'Heat to the coolant is', section: 'Heat: good people differ here', words: HEAT_WORDS }),
    field('burn.coolantShare', 'share', { label: 'That share', hint: '17 to 30 % of the fuel, or 50 to 60 % of the power (common practice, no source).' }),
  ],
  [
    { path: 'injectors', unless: 'injectors.count' },
    { path: 'pump', unless: 'pump.count' },
  ],
)

/** Speeds and torque ratio that a plan starts from: those of the standing curve where one was measured, else usual ones (common practice, no source). */
function speedsOf(measured: MeasuredEngine | null) {
  if (!measured) return { powerSpeedRpm: 6500, torqueRise: 1.15, redlineRpm: 7500 }
  const { peakSpeedRpm, peakTorqueNm, torqueAtPeakNm, lastSpeedRpm } = measured
  return { powerSpeedRpm: peakSpeedRpm, torqueRise: Math.max(1, Number((peakTorqueNm / torqueAtPeakNm).toFixed(3))), redlineRpm: lastSpeedRpm }
}

/**
 * Where a first plan starts: what was measured of the engine, and usual numbers (common practice, no source), with target, fuel, boost and injectors that
 * the build knows already.
 */
export function firstPlan(records: RecordsAnswer, position: number, measured: MeasuredEngine | null): Omit<EnginePlan, 'id' | 'stageId'> {
  const { powerSpeedRpm, torqueRise, redlineRpm } = speedsOf(measured)
  const target = records.targets.find(({ metric }) => metric === 'wheelPower')
  const session = [...records.sessions].sort((a, b) => Date.parse(b.at) - Date.parse(a.at))[0]
  const setting = session?.settings.at(-1)
  const isBoosted = setting ? setting.boostControl !== 'none' : false
  const ethanolShare = setting?.ethanolShare ?? 0
  const injectors = partsAtStage(records as unknown as BuildRecords, position).find(
    (part) => fuelRoleOf(part) === 'injectors' && part.ratings.some(({ of, isEach }) => of === 'fuelFlow' && isEach),
  )
  const flow = injectors?.ratings.find(({ of }) => of === 'fuelFlow')?.limit
  const [low, high] = usualBsfc({ air: { isBoosted }, burn: { ethanolShare } })
  return {
    target: {
      powerW: target?.value ?? measured?.powerW ?? 150_000,
      place: lossOf(records.build).school === 'percentage' && records.build.powerBasis.place === 'engine' ? 'crank' : 'wheel',
      typed: target?.typed ?? null,
    },
    engine: {
      displacementM3: 0.002,
      cylinders: 4,
      strokes: 4,
      boreM: null,
      strokeM: null,
      rodM: null,
      valvesPerCylinder: null,
      compressionRatio: null,
      redlineRpm,
      veCurve: [
        { speedRpm: 3000, volumetricEfficiency: 0.9 },
        { speedRpm: 5500, volumetricEfficiency: 0.97 },
        { speedRpm: Math.max(7500, redlineRpm), volumetricEfficiency: 0.9 },
      ],
    },
    air: {
      isBoosted,
      ambientPressurePa: 101_325,
      ambientTemperatureK: 298.15,
      beforeLossPa: 2000,
      afterLossPa: isBoosted ? 8000 : 1000,
      compressorEfficiency: 0.7,
      flowReference: '298 K, 100 kPa',
      coolerEffectiveness: isBoosted ? 0.7 : null,
      coolantTemperatureK: null,
      intakeRiseK: 10,
    },
    burn: {
      bsfcKgPerJ: toSi('fuelUse', Math.round((low + high) / 2), 'g/kWh'),
      lambda: isBoosted ? 0.8 : 0.88,
      ethanolShare,
      powerSpeedRpm,
      torqueRise,
      heatSchool: 'shareOfFuel',
      coolantShare: 0.25,
    },
    injectors:
      injectors && flow
        ? { count: injectors.count, ratedFlowM3PerS: flow, ratedPressurePa: 300_000, pressureDifferencePa: 300_000, dutyLimit: 0.85, deadTimeS: null }
        : null,
    pump: null,
  }
}
