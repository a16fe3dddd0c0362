import { CalculationError, requirePositive, requireWithin } from '../errors.ts'

export interface FuelProperties {
  /** Kilograms of air that a kilogram of fuel needs. */
  readonly stoichiometricRatio: number
  readonly densityKgM3: number
  readonly heatingValueJPerKg: number
}

/** Usual values (engine handbooks and chemistry, from memory); a supplier's own figures are better. */
export const PETROL: FuelProperties = { stoichiometricRatio: 14.7, densityKgM3: 745, heatingValueJPerKg: 43.2e6 }
export const ETHANOL: FuelProperties = { stoichiometricRatio: 9, densityKgM3: 789, heatingValueJPerKg: 26.8e6 }
export const METHANOL: FuelProperties = { stoichiometricRatio: 6.47, densityKgM3: 792, heatingValueJPerKg: 19.9e6 }

/** Kilograms of air per kmol of oxygen: molar mass of air over its share of oxygen (ISO 2533, from memory). */
const AIR_KG_PER_KMOL_O2 = 28.9647 / 0.20946
const ATOM_KG_PER_KMOL = { C: 12.011, H: 1.008, O: 15.999 } as const

/**
 * Stoichiometric air-fuel ratio of C_x H_y O_z: (x + y/4 − z/2) 138.28/M. Source: oxygen balance, closed form. Rejects carbon of zero or less.
 * @example stoichiometricRatio({ carbon: 8, hydrogen: 18, oxygen: 0 }) // 15.13
 */
export function stoichiometricRatio({ carbon, hydrogen, oxygen }: { carbon: number; hydrogen: number; oxygen: number }): number {
  requirePositive(carbon, 'carbon')
  const mass = carbon * ATOM_KG_PER_KMOL.C + hydrogen * ATOM_KG_PER_KMOL.H + oxygen * ATOM_KG_PER_KMOL.O
  return ((carbon + hydrogen / 4 - oxygen / 2) * AIR_KG_PER_KMOL_O2) / mass
}

export interface FuelBlend extends FuelProperties {
  readonly ethanolMassShare: number
  readonly methanolMassShare: number
  /** How much more volume than petrol carries the same energy, as a share: 0.3 is 30 % more. */
  readonly moreVolumeThanPetrol: number
}

/**
 * Petrol with ethanol and methanol by volume: ρ = Σ φ ρ_i, w = φ ρ_i/ρ, ratio and heating value by mass (not by volume, which is a common error).
 * Source: mixing by volume; under 0.3 % of excess volume is left out. Rejects shares outside 0 to 1, and more than all of it.
 * @example fuelBlend(0.85).stoichiometricRatio // 9.814
 */
export function fuelBlend(ethanolShare: number, methanolShare = 0): FuelBlend {
  requireWithin(ethanolShare, 0, 1, 'ethanolShare')
  requireWithin(methanolShare, 0, 1, 'methanolShare')
  if (ethanolShare + methanolShare > 1)
    throw new CalculationError('inconsistent', 'methanolShare', 'Ethanol and methanol are more than all of the fuel. Their shares are at most 1 together.')
  const parts = [
    [ETHANOL, ethanolShare],
    [METHANOL, methanolShare],
    [PETROL, 1 - ethanolShare - methanolShare],
  ] as const
  const densityKgM3 = parts.reduce((sum, [fuel, share]) => sum + share * fuel.densityKgM3, 0)
  const byMass = (pick: (fuel: FuelProperties) => number) => parts.reduce((sum, [fuel, share]) => sum + share * fuel.densityKgM3 * pick(fuel), 0) / densityKgM3
  const massShare = (fuel: FuelProperties, share: number) => (share * fuel.densityKgM3) / densityKgM3
  const heatingValueJPerKg = byMass((fuel) => fuel.heatingValueJPerKg)
  const moreVolumeThanPetrol = (PETROL.heatingValueJPerKg * PETROL.densityKgM3) / (heatingValueJPerKg * densityKgM3) - 1
  return {
    stoichiometricRatio: byMass((fuel) => fuel.stoichiometricRatio),
    densityKgM3,
    heatingValueJPerKg,
    ethanolMassShare: massShare(ETHANOL, ethanolShare),
    methanolMassShare: massShare(METHANOL, methanolShare),
    moreVolumeThanPetrol,
  }
}
