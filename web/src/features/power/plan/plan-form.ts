import type { RecordsAnswer } from '@bold-ballast/contract'
import {
  type BuildRecords,
  type EnginePlan,
  FLOW_REFERENCES,
  fromSi,
  type HEAT_SCHOOLS,
  litresFromM3,
  lossOf,
  m3FromLitres,
  partsAtStage,
  toSi,
} from '@bold-ballast/core'
import type { FormReader, FormValues } from '../../../ui/form-reader.ts'
import { typedText } from '../../../ui/quantity.ts'
import type { FieldSpec } from '../../../ui/record-form.tsx'

type Units = Record<string, string>
const options = (words: Record<string, string>) => Object.entries(words).map(([value, label]) => ({ value, label }))
const HEAT_WORDS: Record<(typeof HEAT_SCHOOLS)[number], string> = { shareOfFuel: 'a share of the fuel’s energy', shareOfPower: 'a share of the power' }

export const planFieldSpecs = (units: Units): FieldSpec[] => [
  { name: 'power', label: 'Power to reach', section: 'What is asked' },
  { name: 'place', label: 'Counted', type: 'select', options: options({ wheel: 'at the wheels', crank: 'at the crank' }) },
  { name: 'powerSpeed', label: 'Made at', hint: 'Engine speed in rpm.' },
  { name: 'torqueRise', label: 'Greatest torque over the torque there', hint: '1.0 to 1.3 is usual (common practice, no source).' },
  { name: 'displacement', label: 'Displacement', section: 'Engine', hint: `in ${units.volume} unless a unit is typed, such as 1998 cc` },
  { name: 'cylinders', label: 'Cylinders' },
  { name: 'strokes', label: 'Strokes', type: 'select', options: options({ 4: 'four', 2: 'two' }) },
  { name: 'redline', label: 'Redline', hint: 'rpm' },
  { name: 'bore', label: 'Bore', hint: 'May stay empty.' },
  { name: 'stroke', label: 'Stroke', hint: 'With the rod it gives piston speed; may stay empty.' },
  { name: 'rod', label: 'Rod, between centres' },
  { name: 'valves', label: 'Valves of each cylinder' },
  { name: 'compression', label: 'Compression ratio' },
  {
    name: 've',
    label: 'Volumetric efficiency: speed and value, a point a line',
    hint: 'Referred to the manifold. 0.80 to 1.10 without boost, 0.85 to 1.05 with it (common practice, no source).',
    type: 'textarea',
    isWide: true,
  },
  { name: 'ethanol', label: 'Ethanol in the fuel', section: 'Fuel', hint: 'By volume; measure it, pumps vary.' },
  {
    name: 'bsfc',
    label: 'Fuel used for each power and time',
    hint: 'Petrol 255 to 335 g/kWh, boosted 335 to 395; ethanol about 40 % more (common practice, no source).',
  },
  { name: 'lambda', label: 'Lambda at full power', hint: '0.78 to 0.90 is usual (common practice, no source).' },
  { name: 'isBoosted', label: 'The engine is', type: 'select', section: 'Air', options: options({ true: 'boosted', false: 'without boost' }) },
  { name: 'ambientPressure', label: 'Air outside, absolute' },
  { name: 'ambientTemperature', label: 'Air outside, temperature' },
  { name: 'intakeRise', label: 'Without boost: charge warmer by, K', hint: '5 to 15 K (common practice, no source).' },
  { name: 'beforeLoss', label: 'Lost before the engine or compressor', hint: 'Filter and pipe: 1 to 5 kPa (common practice, no source).' },
  { name: 'afterLoss', label: 'Lost between it and the manifold', hint: 'Cooler and pipes: 5 to 15 kPa (common practice, no source).' },
  { name: 'compressorEfficiency', label: 'Compressor efficiency', hint: 'Turbo 55 to 80 %, driven 50 to 75 % (common practice, no source).' },
  {
    name: 'flowReference',
    label: 'Its map is stated at',
    type: 'select',
    options: Object.keys(FLOW_REFERENCES).map((value) => ({ value, label: value })),
    hint: 'Maps differ by up to 8 % in flow.',
  },
  { name: 'cooler', label: 'Cooler effectiveness', hint: '50 to 85 % (common practice, no source). Empty: no cooler.' },
  { name: 'coolant', label: 'What cools it, temperature', hint: 'Air or water into the cooler. Empty: as the air outside.' },
  { name: 'injectorCount', label: 'Injectors', section: 'Injectors; leave the number empty while none are chosen' },
  { name: 'injectorFlow', label: 'Static flow of each', hint: `in ${units.injectorFlow} unless a unit is typed` },
  { name: 'injectorRated', label: 'Rated at' },
  { name: 'injectorDelta', label: 'Rail over manifold', hint: 'What the regulator holds.' },
  { name: 'dutyLimit', label: 'Duty at most', hint: '80 to 85 % (common practice, no source).' },
  { name: 'deadTime', label: 'Dead time, ms', hint: 'May stay empty.' },
  { name: 'pumpCount', label: 'Pumps', section: 'Fuel pumps; leave the number empty while none are chosen' },
  { name: 'pumpBase', label: 'Regulator over manifold' },
  {
    name: 'pumpPoints',
    label: 'Flow of one: pressure above the air, flow and, if measured, current, a point a line',
    hint: `At the voltage the car has, in ${units.pressure}, ${units.volumeFlow} and A: 300 340 12. Nothing is guessed beyond the points.`,
    type: 'textarea',
    isWide: true,
  },
  { name: 'pumpLoss', label: 'Filter and lines take' },
  { name: 'pumpMargin', label: 'Margin wanted', hint: '15 to 30 % (common practice, no source).' },
  { name: 'heatSchool', label: 'Heat to the coolant is', type: 'select', section: 'Heat: good people differ here', options: options(HEAT_WORDS) },
  { name: 'heatShare', label: 'That share', hint: '17 to 30 % of the fuel, or 50 to 60 % of the power (common practice, no source).' },
]

/** A plan as it was typed. */
export function planBody(read: FormReader): Record<string, unknown> {
  const of = (name: string, label: string, kind: Parameters<FormReader['quantity']>[2]) => read.quantity(name, label, kind).value
  const maybe = (name: string, label: string, kind: Parameters<FormReader['quantity']>[2]) => read.optionalQuantity(name, label, kind)?.value ?? null
  const power = read.quantity('power', 'Power to reach', 'power')
  const veCurve = read
    .points('ve', 'volumetric efficiency', [{ kind: 'engineSpeed' }, { kind: 'ratio' }])
    .map(([speedRpm, volumetricEfficiency]) => ({ speedRpm, volumetricEfficiency }))
  if (read.raw('ve') === '') read.refuse('ve', 'Give one point at least, such as 6500 0.95.')
  for (const { volumetricEfficiency } of veCurve)
    if (!((volumetricEfficiency as number) >= 0.2 && (volumetricEfficiency as number) <= 1.6))
      read.refuse('ve', 'A volumetric efficiency lies from 0.2 to 1.6. Type 0.95 or 95 %.')
  const within = (name: string, label: string, low: number, high: number) => {
    const value = of(name, label, 'share')
    if (value < low || value > high) read.refuse(name, `${label} lies from ${100 * low} to ${100 * high} %.`)
    return value
  }
  const cooler = read.raw('cooler') === '' ? null : within('cooler', 'Cooler effectiveness', 0, 1)
  return {
    target: { powerW: power.value, place: read.raw('place'), typed: power.typed },
    engine: {
      displacementM3: m3FromLitres(of('displacement', 'Displacement', 'volume')),
      cylinders: read.count('cylinders', 'Cylinders', 1, 24),
      strokes: Number(read.raw('strokes')),
      boreM: maybe('bore', 'Bore', 'length'),
      strokeM: maybe('stroke', 'Stroke', 'length'),
      rodM: maybe('rod', 'Rod', 'length'),
      valvesPerCylinder: read.raw('valves') === '' ? null : read.count('valves', 'Valves of each cylinder', 1, 8),
      compressionRatio: maybe('compression', 'Compression ratio', 'ratio'),
      redlineRpm: of('redline', 'Redline', 'engineSpeed'),
      veCurve,
    },
    burn: {
      ethanolShare: within('ethanol', 'Ethanol in the fuel', 0, 1),
      bsfcKgPerJ: of('bsfc', 'Fuel used', 'fuelUse'),
      lambda: read.number('lambda', 'Lambda'),
      powerSpeedRpm: of('powerSpeed', 'Made at', 'engineSpeed'),
      torqueRise: read.number('torqueRise', 'Greatest torque over the torque there'),
      heatSchool: read.raw('heatSchool'),
      coolantShare: within('heatShare', 'That share', 0.05, 1),
    },
    air: {
      isBoosted: read.flag('isBoosted'),
      ambientPressurePa: of('ambientPressure', 'Air outside', 'pressure'),
      ambientTemperatureK: of('ambientTemperature', 'Air outside', 'temperature'),
      intakeRiseK: read.number('intakeRise', 'Charge warmer by'),
      beforeLossPa: of('beforeLoss', 'Lost before it', 'pressure'),
      afterLossPa: of('afterLoss', 'Lost after it', 'pressure'),
      compressorEfficiency: within('compressorEfficiency', 'Compressor efficiency', 0.3, 1),
      flowReference: read.raw('flowReference'),
      coolerEffectiveness: cooler,
      coolantTemperatureK: maybe('coolant', 'What cools it', 'temperature'),
    },
    injectors:
      read.raw('injectorCount') === ''
        ? null
        : {
            count: read.count('injectorCount', 'Injectors', 1, 48),
            ratedFlowM3PerS: of('injectorFlow', 'Static flow of each', 'injectorFlow'),
            ratedPressurePa: of('injectorRated', 'Rated at', 'pressure'),
            pressureDifferencePa: of('injectorDelta', 'Rail over manifold', 'pressure'),
            dutyLimit: within('dutyLimit', 'Duty at most', 0.3, 1),
            deadTimeS: read.raw('deadTime') === '' ? null : toSi('duration', read.number('deadTime', 'Dead time'), 'ms'),
          },
    pump:
      read.raw('pumpCount') === ''
        ? null
        : {
            count: read.count('pumpCount', 'Pumps', 1, 8),
            points: read
              .points('pumpPoints', 'flow of one', [{ kind: 'pressure' }, { kind: 'volumeFlow' }, { kind: 'current', isOptional: true }])
              .map(([pressurePa, flowM3PerS, currentA]) => ({ pressurePa, flowM3PerS, currentA })),
            basePressurePa: of('pumpBase', 'Regulator over manifold', 'pressure'),
            lineLossPa: of('pumpLoss', 'Filter and lines', 'pressure'),
            margin: within('pumpMargin', 'Margin wanted', 0, 1),
          },
  }
}

/** The texts that a form of a plan starts with. */
export function planDefaults(plan: Omit<EnginePlan, 'id' | 'stageId'>, units: Units): FormValues {
  const { engine, target, air, burn, injectors, pump } = plan
  const shown = (kind: Parameters<typeof typedText>[0], value: number | null | undefined) =>
    value === null || value === undefined ? '' : typedText(kind, value, units[kind] as string)
  const plain = (value: number | null | undefined) => (value === null || value === undefined ? '' : String(Number(value.toPrecision(6))))
  const point = (values: readonly string[]) => values.filter((value) => value !== '').join('; ')
  return {
    power: target.typed ?? shown('power', target.powerW),
    place: target.place,
    powerSpeed: plain(burn.powerSpeedRpm),
    torqueRise: plain(burn.torqueRise),
    displacement: typedText('volume', litresFromM3(engine.displacementM3), 'cm³'),
    cylinders: plain(engine.cylinders),
    strokes: plain(engine.strokes),
    redline: plain(engine.redlineRpm),
    bore: shown('length', engine.boreM),
    stroke: shown('length', engine.strokeM),
    rod: shown('length', engine.rodM),
    valves: plain(engine.valvesPerCylinder),
    compression: plain(engine.compressionRatio),
    ve: engine.veCurve.map(({ speedRpm, volumetricEfficiency }) => `${speedRpm} ${plain(volumetricEfficiency)}`).join('\n'),
    ethanol: shown('share', burn.ethanolShare),
    bsfc: shown('fuelUse', burn.bsfcKgPerJ),
    lambda: plain(burn.lambda),
    isBoosted: String(air.isBoosted),
    ambientPressure: shown('pressure', air.ambientPressurePa),
    ambientTemperature: shown('temperature', air.ambientTemperatureK),
    intakeRise: plain(air.intakeRiseK),
    beforeLoss: shown('pressure', air.beforeLossPa),
    afterLoss: shown('pressure', air.afterLossPa),
    compressorEfficiency: shown('share', air.compressorEfficiency),
    flowReference: air.flowReference,
    cooler: shown('share', air.coolerEffectiveness),
    coolant: shown('temperature', air.coolantTemperatureK),
    injectorCount: plain(injectors?.count),
    injectorFlow: injectors ? typedText('injectorFlow', injectors.ratedFlowM3PerS, 'cm³/min') : '',
    injectorRated: shown('pressure', injectors?.ratedPressurePa ?? 300_000),
    injectorDelta: shown('pressure', injectors?.pressureDifferencePa ?? 300_000),
    dutyLimit: shown('share', injectors?.dutyLimit ?? 0.85),
    deadTime: injectors?.deadTimeS ? plain(fromSi('duration', injectors.deadTimeS, 'ms')) : '',
    pumpCount: plain(pump?.count),
    pumpPoints:
      pump?.points
        .map(({ pressurePa, flowM3PerS, currentA }) => point([shown('pressure', pressurePa), shown('volumeFlow', flowM3PerS), shown('current', currentA)]))
        .join('\n') ?? '',
    pumpBase: shown('pressure', pump?.basePressurePa ?? 300_000),
    pumpLoss: shown('pressure', pump?.lineLossPa ?? 20_000),
    pumpMargin: shown('share', pump?.margin ?? 0.2),
    heatSchool: burn.heatSchool,
    heatShare: shown('share', burn.coolantShare),
  }
}

/** Where a first plan starts: usual numbers (common practice, no source), with target, fuel, boost and injectors that the build knows already. */
export function firstPlan(records: RecordsAnswer, position: number): Omit<EnginePlan, 'id' | 'stageId'> {
  const target = records.targets.find(({ metric }) => metric === 'wheelPower')
  const session = [...records.sessions].sort((a, b) => Date.parse(b.at) - Date.parse(a.at))[0]
  const isBoosted = session ? session.boostControl !== 'none' : false
  const ethanolShare = session?.ethanolShare ?? 0
  const injectors = partsAtStage(records as unknown as BuildRecords, position).find(({ ratings }) =>
    ratings.some(({ of, isEach }) => of === 'fuelFlow' && isEach),
  )
  const flow = injectors?.ratings.find(({ of }) => of === 'fuelFlow')?.limit
  const petrolGrams = isBoosted ? 365 : 295
  return {
    target: {
      powerW: target?.value ?? 150_000,
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
      redlineRpm: 7500,
      veCurve: [
        { speedRpm: 3000, volumetricEfficiency: 0.9 },
        { speedRpm: 5500, volumetricEfficiency: 0.97 },
        { speedRpm: 7500, volumetricEfficiency: 0.9 },
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
      bsfcKgPerJ: toSi('fuelUse', petrolGrams * (1 + 0.4 * ethanolShare), 'g/kWh'),
      lambda: isBoosted ? 0.8 : 0.88,
      ethanolShare,
      powerSpeedRpm: 6500,
      torqueRise: 1.15,
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
