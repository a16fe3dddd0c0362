import { AERO_TYPESET } from './aero.ts'
import { DRIVETRAIN_TYPESET } from './drivetrain.ts'
import { DYNO_TYPESET } from './dyno.ts'
import { ENGINE_TYPESET } from './engine.ts'
import { MASS_TYPESET } from './mass.ts'
import type { Typeset } from './set.ts'
import { SYSTEMS_TYPESET } from './systems.ts'
import { TRACK_TYPESET } from './track.ts'
import { WORKSHOP_TYPESET } from './workshop.ts'

const TYPESET: Readonly<Record<string, Typeset>> = {
  ...AERO_TYPESET,
  ...DRIVETRAIN_TYPESET,
  ...DYNO_TYPESET,
  ...ENGINE_TYPESET,
  ...MASS_TYPESET,
  ...TRACK_TYPESET,
  ...WORKSHOP_TYPESET,
  ...SYSTEMS_TYPESET,
}

/**
 * How the formula of a calculation is set, in TeX, with what each of its symbols means; nothing for a name nobody knows.
 * @example typesetOf('mass.power-to-weight').symbols[1].meaning // 'power'
 */
export const typesetOf = (name: string): Typeset => TYPESET[name] ?? { lines: [], symbols: [] }
