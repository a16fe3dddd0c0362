// A large build as a build file, for the bench and for looking at screens: 12 stages, 15 goals, 2,000 ledger lines, 40 weighings, 60 pulls, 200 parts, 300 checks, 5,000 marks.
import { createHash } from 'node:crypto'

/** Even numbers from 0 to 1 from a seed (mulberry32, public domain), so that every run measures the same build. */
export function seeded(seed) {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let t = Math.imul(state ^ (state >>> 15), 1 | state)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

const id = (kind, i) => {
  const hex = createHash('sha256').update(`${kind} ${i}`).digest('hex')
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}
const at = (day, hour = 12) => new Date(Date.UTC(2024, 0, 1 + day, hour)).toISOString()
const NAMES = ['bracket', 'loom', 'panel', 'carpet', 'hose', 'clip set', 'mount', 'trim', 'tray', 'sensor', 'bolt set', 'cover', 'pipe', 'shield', 'hinge']
const ZONES = ['cabin', 'nose', 'tail', 'doors', 'floor', 'engine bay', null]
const AXLE = { wheelRateNPerM: 45_000, tyreRateNPerM: 220_000, motionRatio: 0.9, threadPitchM: 0.0015 }
const WORDS = ['As bought', 'Strip', 'Cage', 'Brakes', 'Turbo', 'Fuel', 'Cooling', 'Gearbox', 'Glass', 'Floor', 'Wing', 'Ballast']

/** The file and the CSV of samples of each pull by name; `lineCount` and `pullCount` can be changed. */
export function makeLargeBuild({ name = 'Heron', lineCount = 2000, pullCount = 60, sampleCount = 2000, partCount = 200 } = {}) {
  const random = seeded(4600)
  const stages = WORDS.map((word, position) => ({ id: id('stage', position), position, name: word, date: at(position * 60 + 40).slice(0, 10) }))
  const changes = Array.from({ length: lineCount }, (_, i) => {
    // Half of the lines in one stage, so that its ledger is long.
    const stage = i % 2 === 0 ? 1 : 1 + (i % 11)
    const kg = Math.round((0.05 + random() ** 3 * 9) * 1000) / 1000
    const proof = ['measured', 'measured', 'measured', 'guess', 'catalogue'][i % 5]
    const done = stage < 9
    const time = at(stage * 60 + (i % 30), 8)
    return {
      id: id('change', i),
      stageId: stages[stage].id,
      kind: i % 7 === 0 ? 'on' : i % 41 === 0 ? 'transfer' : 'off',
      name: `${NAMES[i % NAMES.length]} ${i}`,
      count: 1 + (i % 3 === 0 ? 1 : 0),
      zone: ZONES[i % ZONES.length],
      values: [
        ...(i % 10 === 0 ? [{ massKg: kg * 0.9, sdKg: null, proof: 'guess', typed: `${(kg * 0.9).toFixed(2)} kg`, at: time }] : []),
        { massKg: kg, sdKg: null, proof, typed: `${kg} kg`, at: time },
      ],
      state: done ? 'done' : 'planned',
      doneAt: done ? time : null,
      touchesPower: i % 90 === 0,
    }
  })
  const metrics = ['massReady', 'wheelPower', 'powerToMass']
  const targets = Array.from({ length: 15 }, (_, i) => {
    const metric = metrics[i % 3]
    const due = 1 + Math.floor(i / 3) * 2
    const value = metric === 'massReady' ? 1240 - due * 9 : metric === 'wheelPower' ? 150_000 + due * 9000 : 120 + due * 9
    return { id: id('target', i), metric, sense: metric === 'massReady' ? 'atMost' : 'atLeast', value, dueStageId: stages[due].id }
  })
  const weighings = Array.from({ length: 40 }, (_, i) => {
    const pad = () => ({ massKg: Math.round((700 - i * 2.5 + random() * 4) * 5) / 10, sdKg: null })
    return {
      id: id('weighing', i),
      stageId: stages[Math.min(8, Math.floor(i / 4))].id,
      at: at(30 + i * 14),
      pads: { LF: pad(), RF: pad(), LR: pad(), RR: pad() },
      driverInKg: 0,
      fuelL: 20,
    }
  })
  const sessionCount = Math.max(1, Math.round(pullCount / 5))
  const sessions = Array.from({ length: sessionCount }, (_, i) => ({
    id: id('session', i),
    stageId: stages[Math.min(8, i)].id,
    at: at(Math.min(8, i) * 60 + 35),
    dynoName: `hall ${i % 3}`,
    place: 'hub',
    printedStandard: 'SAE J1349',
  }))
  const samples = new Map()
  const channels = [
    { role: 'speed', name: 'Engine speed', unit: 'rpm' },
    { role: 'power', name: 'Power', unit: 'kW' },
    { role: 'torque', name: 'Torque', unit: 'N·m' },
    { role: 'other', name: 'Boost', unit: 'kPa' },
  ]
  const pulls = Array.from({ length: pullCount }, (_, i) => {
    const peak = 150_000 + Math.min(8, i % sessionCount) * 10_000
    const powerAt = (rpm) => peak * Math.sin((Math.PI / 2) * Math.min(1.15, rpm / 6500))
    const rows = Array.from({ length: sampleCount }, (_, k) => {
      const rpm = 2000 + (k * 5200) / sampleCount
      const power = powerAt(rpm) * (1 + (random() - 0.5) * 0.004)
      return `${rpm.toFixed(1)},${(power / 1000).toFixed(3)},${(power / ((rpm * Math.PI) / 30)).toFixed(2)},${(180 - rpm / 100).toFixed(1)}`
    })
    const file = `pulls/pull-${i}.csv`
    samples.set(file, `${channels.map((channel) => `${channel.name} [${channel.unit}]`).join(',')}\r\n${rows.join('\r\n')}\r\n`)
    const powerW = Array.from({ length: 104 }, (_, k) => powerAt(2000 + k * 50))
    return {
      id: id('pull', i),
      sessionId: sessions[i % sessionCount].id,
      position: i,
      label: String(i + 1),
      peakPowerW: Math.max(...powerW),
      peakPowerSpeedRpm: 6500,
      peakTorqueNm: 300,
      curve: { stepRpm: 50, firstSpeedRpm: 2000, powerW },
      rowCount: sampleCount,
      cutRowCount: 0,
      samples: { file, channels },
    }
  })
  const subjects = ['crankTorque', 'crankPower', 'airFlow', 'engineSpeed', 'boost']
  const limits = { crankTorque: 520, crankPower: 330_000, airFlow: 0.42, engineSpeed: 7800, boost: 160_000 }
  const parts = Array.from({ length: partCount }, (_, i) => {
    const of = subjects[i % subjects.length]
    return {
      id: id('part', i),
      kind: `${NAMES[i % NAMES.length]} job ${Math.floor(i / 4)}`,
      name: `${NAMES[i % NAMES.length]} of kind ${i}`,
      count: 1 + (i % 3),
      mass: { massKg: 0.2 + (i % 17), sdKg: null, proof: 'catalogue', typed: null },
      cost: 40 + i * 3,
      ratings: [{ of, limit: limits[of] * (0.9 + random()), known: 'catalogue' }],
      life: i % 4 === 0 ? { amount: 40, unit: 'hours' } : null,
      status: i % 4 === 0 ? 'fitted' : 'wanted',
      stageId: i % 4 === 0 ? stages[1].id : null,
    }
  })
  const enginePlans = [
    {
      id: id('plan', 0),
      stageId: stages[1].id,
      engine: { displacementM3: 0.002, cylinders: 4, redlineRpm: 7500, veCurve: [{ speedRpm: 6500, volumetricEfficiency: 1 }] },
      target: { powerW: 260_000, place: 'wheel' },
      air: {
        isBoosted: true,
        ambientPressurePa: 101_325,
        ambientTemperatureK: 298.15,
        beforeLossPa: 2000,
        afterLossPa: 8000,
        compressorEfficiency: 0.72,
        flowReference: '298 K, 100 kPa',
        coolerEffectiveness: 0.75,
      },
      burn: { bsfcKgPerJ: 365 / 3.6e9, lambda: 0.8, ethanolShare: 0, powerSpeedRpm: 6500, torqueRise: 1.15, heatSchool: 'shareOfFuel', coolantShare: 0.25 },
    },
  ]
  const checks = Array.from({ length: 300 }, (_, i) => ({
    id: id('check', i),
    kind: ['bolt', 'look', 'level'][i % 3],
    name: `${NAMES[i % NAMES.length]} check ${i}`,
    zone: ZONES[i % ZONES.length],
    rounds: i % 2 ? ['between', 'event'] : ['event'],
    isSafety: i % 5 === 0,
    bolt: i % 3 === 0 ? { count: 1 + (i % 6) } : null,
    level: i % 3 === 2 ? { fluid: 'oil' } : null,
    partId: i % 10 === 0 ? parts[(i * 4) % parts.length].id : null,
  }))
  const marks = Array.from({ length: 5000 }, (_, i) => ({
    id: id('mark', i),
    checkId: checks[i % checks.length].id,
    stageId: stages[1 + (i % 8)].id,
    at: at(60 + (i % 500), 9),
    result: i % 47 === 0 ? 'bad' : 'ok',
    round: 'event',
  }))
  const file = {
    format: 'bold-ballast-build',
    formatVersion: 2,
    build: {
      id: id('build', name),
      name,
      discipline: 'timeAttack',
      className: 'Open',
      drivenAxles: 'rear',
      wheelbaseM: 2.6,
      trackFrontM: 1.5,
      trackRearM: 1.5,
      reference: { driverKg: 80, fuelL: 20, fuelKgPerL: 0.745 },
      powerBasis: { place: 'hub', standard: 'SAE J1349', boostSchool: 'none' },
      driverPlace: { xM: 1.4, yM: 0.35, zM: 0.4 },
      fuelPlace: { xM: 2.4, yM: 0, zM: 0.3 },
      suspension: { front: AXLE, rear: AXLE },
    },
    stages,
    zones: ZONES.filter(Boolean).map((zone, i) => ({ id: id('zone', i), name: zone, place: { xM: i * 0.5, yM: 0, zM: 0.2 + i * 0.1 } })),
    targets,
    limits: [{ id: id('limit', 0), metric: 'massReady', sense: 'atLeast', value: 1050, source: 'classRule' }],
    changes,
    expectations: [9, 10].map((stage) => ({ id: id('expectation', stage), stageId: stages[stage].id, mode: 'times', value: 1.05, sd: null, proof: 'guess' })),
    weighings,
    sessions,
    pulls,
    parts,
    checks,
    marks,
    events: [{ id: id('event', 0), name: 'Open day', startsOn: at(900).slice(0, 10), days: 2, stageId: stages[9].id }],
    enginePlans,
  }
  return { file, samples }
}
