import { describe, expect, it, test } from 'vitest'
import { findDelimiter } from './find-delimiter.ts'
import { numberMarks } from './number-marks.ts'
import { powerFromTorqueW } from './power-torque.ts'
import { PullReader, type ReadPull } from './pull-reader.ts'
import { type ColumnMapping, splitHeading } from './read-header.ts'

/** A sweep as text: torque falls gently, power follows from it; the units are those the *numbers* are in. */
function sweep({
  head,
  rows = 40,
  power = 1000,
  torque = 1,
  mark = '.',
  delimiter = ',',
  speed = 1,
}: {
  head: string
  rows?: number
  power?: number
  torque?: number
  mark?: string
  delimiter?: string
  speed?: number
}): string {
  const lines = Array.from({ length: rows }, (_, i) => {
    const rpm = 3000 + 100 * i
    const newtonMetres = 300 - i
    return [rpm * speed, powerFromTorqueW(newtonMetres, rpm) / power, newtonMetres / torque].map((value) => value.toFixed(3).replace('.', mark)).join(delimiter)
  })
  return [head, ...lines].join('\n')
}

function read(text: string, { mapping }: { mapping?: readonly ColumnMapping[] } = {}) {
  const delimiter = findDelimiter(text)
  const reader = new PullReader({ delimiter, mapping })
  for (const line of text.split('\n')) reader.addRow(line.split(delimiter))
  return reader.finish()
}

const told = (heading: string, role: ColumnMapping['role'], unit = ''): ColumnMapping => ({ heading, role, unit })
const [HP, PS, LBFT, RAD] = [745.6998716, 735.49875, 1.3558179483, Math.PI / 30]
const HEAD = 'rpm,power kW,torque Nm'

describe('a dyno file', () => {
  test.each([
    ['comma and point', sweep({ head: HEAD })],
    ['semicolon and comma', sweep({ head: 'rpm;power kW;torque Nm', delimiter: ';', mark: ',' })],
    ['tab, hp and lb·ft', sweep({ head: 'RPM\tPower [hp]\tTorque [lb-ft]', delimiter: '\t', power: HP, torque: LBFT })],
    ['PS with a unit row', sweep({ head: 'Engine speed,Power,Torque\nrpm,PS,Nm', power: PS })],
    ['lines of names and air before the heading', sweep({ head: `Hall: east, booth 2\nOperator;none\nAir, 21 C, 1002 hPa, 45 %\n\n${HEAD}` })],
    ['a German heading', sweep({ head: 'Motordrehzahl [U/min];Radleistung [PS];Drehmoment [Nm]', delimiter: ';', mark: ',', power: PS })],
    ['a French heading', sweep({ head: 'Régime (r/min);Puissance (kW);Couple (N·m)', delimiter: ';', mark: ',' })],
    ['names with underscores', sweep({ head: 'engine_speed_rpm,power_kw,torque_nm' })],
  ])('%s gives the same peak', (_, text) => {
    const { pulls, crossCheckRatio } = read(text)
    expect(pulls).toHaveLength(1)
    expect((pulls[0]?.peakPowerW ?? 0) / powerFromTorqueW(261, 6900)).toBeCloseTo(1, 4)
    expect(crossCheckRatio).toBeCloseTo(1, 3)
  })

  test.each([
    ['hp labelled kW', sweep({ head: HEAD, power: HP }), /power is in hp but labelled kW/],
    ['PS labelled kW', sweep({ head: HEAD, power: PS }), /power is in PS but labelled kW/],
    ['kW labelled hp', sweep({ head: 'rpm,power hp,torque Nm' }), /power is in kW but labelled hp/],
    ['lb·ft labelled N·m', sweep({ head: HEAD, torque: LBFT }), /torque is in lb·ft but labelled N·m/],
    ['rad/s labelled rpm', sweep({ head: HEAD, speed: RAD }), /rad\/s/],
    ['torque at the wheel', sweep({ head: HEAD, torque: 1 / 3.73 }), /overall gear ratio of 3\.73/],
    ['watts labelled kW', sweep({ head: HEAD, power: 1 }), /power is in W but labelled kW/],
    ['thousands read as decimals', sweep({ head: HEAD, speed: 0.001 }), /no engine speed in rpm/],
  ])('%s is refused with the cause and the cure', (_, text, sentence) => {
    expect(() => read(text)).toThrow(sentence)
  })

  it('reads a wrong label right once the unit is picked', () => {
    expect(read(sweep({ head: HEAD, power: HP }), { mapping: [told('power kW', 'power', 'hp')] }).crossCheckRatio).toBeCloseTo(1, 3)
  })

  test.each([
    ['no speed', 'speed km/h,power kW\n100,50', /no column of engine speed/],
    ['no power', 'rpm,lambda\n3000,0.8', /no column of power or torque/],
    ['no unit', 'rpm,power\n3000,100', /names no unit/],
    ['unknown unit', 'rpm,power (ponies)\n3000,100', /ponies/],
    ['nine rising rows', sweep({ head: HEAD, rows: 9 }), /9 rows of rising speed; at least 10/],
    ['no rows', HEAD, /No row of numbers/],
    ['one column', 'rpm\n3000', /one column only/],
    ['nothing', '', /empty/],
    ['binary', 'PK\0\0rpm,power', /not a text file/],
  ])('%s is refused in words', (_, text, sentence) => {
    expect(() => read(text)).toThrow(sentence)
  })

  it('leaves out single bad lines and says which', () => {
    const lines = sweep({ head: HEAD }).split('\n')
    lines[5] = '3400,,296'
    lines[8] = '3700,n/a,293'
    lines[9] = '3800'
    const { refusedLines, pulls } = read(lines.join('\n'))
    expect(refusedLines.map((entry) => entry.line)).toEqual([6, 9, 10])
    expect(refusedLines[0]?.reason).toMatch(/power.*empty/)
    expect(pulls[0]?.rowCount).toBe(37)
  })

  it('cuts the falling part, reports it, and finds the next pull', () => {
    const up = sweep({ head: HEAD }).split('\n')
    const fall = Array.from({ length: 12 }, (_, i) => `${6700 - 300 * i},-5,-7`)
    const { pulls, notes } = read([...up, ...fall, ...up.slice(1)].join('\n'))
    expect(pulls).toHaveLength(2)
    expect(pulls.map((pull) => pull.risingRowCount)).toEqual([40, 40])
    expect(pulls[0]?.cutRowCount).toBeGreaterThanOrEqual(11)
    expect(notes[0]).toMatch(/falling speed were cut/)
  })

  it('reads columns that nobody could guess by what a person said of them, and names them with their heading', () => {
    const odd = sweep({ head: 'CH1,CH2,CH3 ' })
    expect(() => read(odd)).toThrow(/no column of engine speed. Found "CH1", "CH2", "CH3"/)
    const { pulls, columns } = read(odd, { mapping: [told('ch1', 'speed', 'rpm'), told('CH2', 'power', 'kW'), told('CH3', 'torque', 'N·m')] })
    expect(pulls[0]?.peakPowerW as number).toBeGreaterThan(0)
    expect(columns.map(({ heading, role }) => [heading, role])).toEqual([
      ['CH1', 'speed'],
      ['CH2', 'power'],
      ['CH3', 'torque'],
    ])
  })
  it('lets a person overrule a guess, and says of an unread file what its columns seem to be', () => {
    const twice = sweep({ head: 'rpm,power kW,torque Nm' }).replace('power kW', 'engine power kW')
    expect(read(twice, { mapping: [told('engine power kW', 'other')] }).columns[1]?.role).toBe('other')
    const reader = new PullReader({ delimiter: ',' })
    reader.addRow(['Time (s)', 'Wheel speed (km/h)', 'AFR'])
    expect(reader.guess().map(({ role }) => role)).toEqual(['time', 'roadSpeed', 'lambda'])
  })
  it('keeps boost, lambda and intake temperature on the grid, in SI, with gaps where the file has them', () => {
    const head = `${HEAD},Boost [bar],AFR,Intake temp (°F)`
    const text = sweep({ head }).split('\n')
    const filled = text.map((line, i) => (i === 0 ? line : `${line},1.2,${i < 10 ? '' : '11.76'},${50 + i}`))
    const { alongside, curve } = read(filled.join('\n')).pulls[0] as ReadPull
    expect(alongside?.boostPa?.every((value) => value !== null && Math.abs(value - 120_000) < 1e-6)).toBe(true)
    expect(alongside?.lambda?.slice(0, 18).every((value) => value === null)).toBe(true)
    expect(alongside?.lambda?.at(-1)).toBeCloseTo(0.8, 12)
    // Row i stands at 2 900 + 100 i rpm and reads 50 + i °F; 4 000 rpm is row 11: 61 °F = 289.261 K.
    expect(alongside?.intakeK?.[(4000 - curve.firstSpeedRpm) / 50]).toBeCloseTo(289.2611, 4)
  })

  it.each([
    ['AFR', 11.76, 0.8, /over 14\.7, the scale of petrol/],
    ['Lambda (AFR 9.8)', 7.84, 0.8, /over 9\.8, as its unit says/],
  ])('names the scale of an air-fuel ratio: %s', (heading, ratio, lambda, note) => {
    const text = sweep({ head: `${HEAD},${heading}` }).split('\n')
    const report = read(text.map((line, i) => (i === 0 ? line : `${line},${ratio}`)).join('\n'))
    expect(report.pulls[0]?.alongside?.lambda?.at(-1)).toBeCloseTo(lambda, 12)
    expect(report.notes.join()).toMatch(note)
  })

  it('finds pulls by a pull column', () => {
    const rows = sweep({ head: HEAD }).split('\n')
    const numbered = (label: string) => rows.slice(1).map((line) => `${label},${line}`)
    const { pulls } = read([`Run,${HEAD}`, ...numbered('A'), ...numbered('B')].join('\n'))
    expect(pulls.map((pull) => pull.label)).toEqual(['A', 'B'])
  })
})

test.each([
  ['Power (kW)', 'Power', 'kW'],
  ['Torque [lb-ft]', 'Torque', 'lb-ft'],
  ['Engine speed, rpm', 'Engine speed', 'rpm'],
  ['power_kw', 'power', 'kw'],
  ['Nm', 'Nm', 'Nm'],
  ['Lambda', 'Lambda', ''],
])('heading %s', (heading, name, unit) => {
  expect(splitHeading(heading)).toEqual({ name, unit })
})

describe('pulls beside each other', () => {
  const wide = (head: string, cells: (rpm: number, kW: number, i: number) => readonly (string | number)[], count = 30) =>
    [head, ...Array.from({ length: count }, (_, i) => cells(3000 + 100 * i, ((3000 + 100 * i) * Math.PI) / 100, i).join(','))].join('\n')

  it('with one speed for all are read each by itself, under their numbers', () => {
    const { pulls, notes, columns } = read(wide('RPM,Run 1 kW,Run 2 kW,Run 4 kW', (rpm, kW) => [rpm, kW, kW * 1.01, kW * 1.02]))
    expect(pulls.map(({ label, channels }) => [label, channels.map(({ role }) => role)])).toEqual(['1', '2', '4'].map((label) => [label, ['speed', 'power']]))
    for (const [i, pull] of pulls.entries()) expect(pull.peakPowerW).toBeCloseTo(5900 * Math.PI * 10 * (1 + i / 100), 3)
    expect(notes).toContain('Each of the 3 pulls has columns of its own.')
    expect(columns.map(({ role }) => role)).toEqual(['speed', 'power', 'power', 'power'])
  })
  it('with a speed of their own each are read together with it, and end where their cells do', () => {
    const text = wide('RPM 1,Power 1 [kW],Boost,RPM 2,Power 2 [kW]', (rpm, kW, i) => [rpm, kW, 90, ...(i < 20 ? [rpm + 7, kW * 1.1] : ['', ''])])
    const { pulls, refusedLineCount } = read(text)
    expect(pulls.map(({ label, rowCount }) => [label, rowCount])).toEqual([
      ['1', 30],
      ['2', 20],
    ])
    expect(pulls[1]?.channels.find(({ role }) => role === 'speed')?.values[0]).toBe(3007)
    expect(refusedLineCount).toBe(0)
  })
  it('are checked against their torque like any, each in its own units', () => {
    const head = 'rpm,power 1 (kW),torque 1 (Nm),power 2 (hp),torque 2 (Nm)'
    const row = (rpm: number, kW: number) => [rpm, kW, 300, kW / 0.745699872, 300]
    expect(read(wide(head, row)).crossCheckRatio).toBeCloseTo(1, 6)
    expect(() => read(wide(head.replace('(hp)', '(kW)'), row))).toThrow(/do not fit each other/)
  })
  it('stay beside each other when a person says what they are, and one that is said to be something else is none', () => {
    const text = wide('RPM,CH 1,CH 2,CH 3', (rpm, kW) => [rpm, kW, kW * 1.01, 77])
    const mapping = [told('CH 1', 'power', 'kW'), told('CH 2', 'power', 'kW'), told('CH 3', 'other')]
    expect(read(text, { mapping }).pulls.map(({ label }) => label)).toEqual(['1', '2'])
  })
  it('with one speed and powers told apart by words are a pull each, with the torque of the same place', () => {
    const head = 'rpm,Power stock (kW),Torque stock (Nm),Power tuned (kW),Torque tuned (Nm)'
    const { pulls, notes } = read(wide(head, (rpm, kW) => [rpm, kW, 300, kW * 1.1, 330]))
    expect(pulls.map(({ label, channels }) => [label, channels.map(({ role }) => role)])).toEqual(
      ['stock', 'tuned'].map((label) => [label, ['speed', 'power', 'torque']]),
    )
    expect((pulls[1]?.peakPowerW as number) / (pulls[0]?.peakPowerW as number)).toBeCloseTo(1.1, 9)
    expect(notes).toContain('Each of the 2 pulls has columns of its own.')
  })
  it('drop no column without a word', () => {
    const { pulls, notes } = read(wide('rpm,Power stock (kW),Power tuned (kW),Torque (Nm)', (rpm, kW) => [rpm, kW, kW * 1.1, 300]))
    expect(pulls).toHaveLength(2)
    expect(notes.join()).toMatch(/counted in none: "Torque"/)
  })
  it('that are one pull at the wheels and at the engine are one pull, and the second is told', () => {
    const { pulls, notes } = read(wide('rpm,Wheel power (kW),Engine power (kW)', (rpm, kW) => [rpm, kW, kW * 1.15]))
    expect(pulls).toHaveLength(1)
    expect(notes.join()).toMatch(/counted in none: "Engine power"/)
  })
  it('are not seen in one power beside a numbered something', () => {
    const { pulls, columns } = read(wide('rpm,power 1 (kW),EGT 1,EGT 2', (rpm, kW) => [rpm, kW, 800, 810]))
    expect(pulls).toHaveLength(1)
    expect(columns.map(({ role }) => role)).toEqual(['speed', 'power', 'other', 'other'])
  })
})

test.each([
  ['Engine RPM,Wheel Power (hp)', ['speed', 'power']],
  ['rpm,W,Nm', ['speed', 'power', 'torque']],
  ['1/min,Last [kW],Loss [kW]', ['speed', 'power', 'other']],
  ['rpm,Loss kW,Nm', ['speed', 'other', 'torque']],
  ['Turbo speed [rpm],rpm,kW', ['other', 'speed', 'power']],
])('of "%s" the unit says what no name says', (heading, roles) => {
  const reader = new PullReader({ delimiter: ',' })
  reader.addRow(heading.split(','))
  expect(reader.guess().map(({ role }) => role)).toEqual(roles)
})

test.each([
  ['a comma between thousands, in quotes', ',', ['2,500', '164.3', '98'], '.', ','],
  ['a point between thousands', ';', ['2.500', '164,3', '1.234,5'], ',', '.'],
  ['decimal commas alone', ';', ['2500', '164,3'], ',', undefined],
  ['decimal points alone', ';', ['2500.125', '0.850'], '.', undefined],
  ['three decimals everywhere', ';', ['2500,125', '0,850'], ',', undefined],
  ['both, in no shape of thousands', ';', ['2500.125', '164,3'], '.', undefined],
  ['whole numbers', ',', ['2500', '164'], '.', undefined],
])('marks of numbers: %s', (_, delimiter, cells, decimal, thousands) => {
  expect(numberMarks(cells, delimiter)).toEqual({ decimal, thousands })
})

it('reads thousands as a spreadsheet writes them, and says so', () => {
  const reader = new PullReader({ delimiter: ',' })
  reader.addRow(['Engine RPM', 'Power (kW)'])
  for (let i = 0; i < 20; i++) reader.addRow([(2500 + 100 * i).toLocaleString('en-US'), `${90 + i}.5`])
  const { pulls, notes } = reader.finish()
  expect(pulls[0]).toMatchObject({ rowCount: 20, peakPowerSpeedRpm: 4400 })
  expect(notes).toContain('Thousands were marked by a comma.')
})
