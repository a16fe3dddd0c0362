import type { DynoSample } from '@bold-ballast/contract'

const HEAD = ['Time [s]', 'Engine speed [rpm]', 'Power [W]', 'Torque [N·m]', 'Boost [Pa]', 'Lambda', 'Intake temp [K]']

/** A pull that was read live, as the file a dyno would have written, so that it is read, checked and stored the same way. */
export function livePullFile(samples: readonly DynoSample[]): File {
  const rows = samples.map(({ timeS, speedRpm, powerW, torqueNm, boostPa, lambda, intakeK }) =>
    [timeS, speedRpm, powerW, torqueNm, boostPa, lambda, intakeK].map((value) => value ?? '').join(';'),
  )
  return new File([`${[HEAD.join(';'), ...rows].join('\r\n')}\r\n`], `live pull ${samples[0]?.pull ?? ''}`, { type: 'text/csv' })
}

/** Of a pull's samples; they have at least one. */
export const mostPowerW = (samples: readonly DynoSample[]): number => samples.reduce((most, { powerW }) => Math.max(most, powerW), Number.NEGATIVE_INFINITY)

const MOST_POINTS = 300

/** Samples thinned for drawing; the first and the last stay. */
export function thinned<Item>(samples: readonly Item[], most = MOST_POINTS): readonly Item[] {
  if (samples.length <= most) return samples
  const step = (samples.length - 1) / (most - 1)
  return Array.from({ length: most }, (_, i) => samples[Math.round(i * step)] as Item)
}

/** Round numbers from 0 to at least `most`, in four to eight steps of 1, 2 or 5 times a power of ten. */
export function niceTicks(most: number): number[] {
  const rough = most / 5
  const power = 10 ** Math.floor(Math.log10(rough))
  const step = ([1, 2, 5, 10].find((factor) => factor * power >= rough) ?? 10) * power
  return Array.from({ length: Math.ceil(most / step) + 1 }, (_, i) => i * step)
}
