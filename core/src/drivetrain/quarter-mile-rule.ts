import { requirePositive } from '../errors.ts'
import { HP_W, LB_KG } from '../units/factors.ts'

/** 1 320 ft, exactly. */
export const QUARTER_MILE_M = 402.336
export const SIXTY_FEET_M = 18.288
const MPH = 0.44704

/** Pairs of constants as they are told among racers (from memory): seconds for W/P in lb/hp, mph for P/W; power at the flywheel, mass ready to race with driver. */
const RULES = [
  { seconds: 5.825, mph: 234 },
  { seconds: 6.269, mph: 230 },
  { seconds: 6.29, mph: 224 },
] as const

/**
 * Rules of thumb for the quarter mile by the cube root of mass over power, as a range, and what no car can pass: constant power without any loss.
 * t = c (W/P)^⅓, v = d (P/W)^⅓; the floor from x = ⅔ √(2P/m) t^1.5. Source: F.9; the constants are from memory. A car that spins its tyres is slower.
 * @example quarterMileRule({ massKg: 1270.06, crankPowerW: 223710 }).times[0] // 12.264
 */
export function quarterMileRule({ massKg, crankPowerW }: { readonly massKg: number; readonly crankPowerW: number }): {
  times: number[]
  speedsMps: number[]
  floorS: number
  ceilingMps: number
} {
  requirePositive(massKg, 'massKg')
  requirePositive(crankPowerW, 'crankPowerW')
  const lbPerHp = massKg / LB_KG / (crankPowerW / HP_W)
  return {
    times: RULES.map(({ seconds }) => seconds * Math.cbrt(lbPerHp)),
    speedsMps: RULES.map(({ mph }) => mph * MPH * Math.cbrt(1 / lbPerHp)),
    floorS: Math.cbrt((9 * massKg * QUARTER_MILE_M ** 2) / (8 * crankPowerW)),
    ceilingMps: Math.cbrt((3 * crankPowerW * QUARTER_MILE_M) / massKg),
  }
}
