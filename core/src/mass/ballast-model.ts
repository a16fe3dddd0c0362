import { itemAt } from '../item-at.ts'
import type { MilpAnswer, MilpProblem } from '../solver/milp.ts'
import { cornerShares, sharesOf } from './add-at.ts'
import type { BallastInput, BallastPlacement, BallastSite } from './ballast-types.ts'
import { PAD_NAMES } from './corners.ts'
import { type CornerRates, perCorner, STANDARD_GRAVITY_MPS2 } from './suspension.ts'

const MASS_TIE_BREAK = 1e-4

interface Column {
  readonly site: number
  readonly plateKg: number
}

export interface Bounds {
  readonly lowKg: number
  readonly highKg: number
  readonly columns: readonly { readonly low: number; readonly high: number }[]
}

/** The mixed-integer problem of a ballast plan, and what an answer of its solver means. */
export function ballastModel(input: BallastInput) {
  const { corners, sites, wheelbaseM, rates, objective } = input
  const carKg = PAD_NAMES.reduce((sum, name) => sum + corners[name], 0)
  const columns = sites.flatMap(({ plates }, site): Column[] => plates.map(({ massKg }) => ({ site, plateKg: massKg })))
  const smallestKg = Math.min(...columns.map(({ plateKg }) => plateKg))
  const at = (column: Column) => sites[column.site] as BallastSite
  const before = sharesOf(corners)
  const crossOf = sites.map(({ xM, yM }) => {
    if (!rates) return 0
    const shares = cornerShares(input, rates, xM, yM)
    return shares.RF + shares.LR
  })
  // Where a kilogram at the site lands: front axle, left side, the diagonal.
  const trackM = input.trackFrontM * before.frontShare + input.trackRearM * (1 - before.frontShare)
  const leftOf = sites.map(({ xM, yM }) => {
    if (!rates) return 0.5 + yM / trackM
    const shares = cornerShares(input, rates, xM, yM)
    return shares.LF + shares.LR
  })
  const wanted = [
    { name: 'front', aim: input.front, carKg: carKg * before.frontShare, perKg: sites.map(({ xM }) => 1 - xM / wheelbaseM) },
    { name: 'left', aim: input.left, carKg: carKg * before.leftShare, perKg: leftOf },
    { name: 'cross', aim: input.crossRfLr, carKg: carKg * before.crossShareRfLr, perKg: crossOf },
  ].flatMap(({ aim, ...rest }) => (aim ? [{ ...rest, aim }] : []))
  const target = centreAimedAt(input, before)
  const costPerKg = ({ site }: Column): number => {
    const { xM, yM, zM } = itemAt(sites, site)
    if (objective === 'lowestCentre') return zM
    if (objective === 'leastYawInertia') return (xM - target.xM) ** 2 + (yM - target.yM) ** 2
    return objective === 'leastMass' ? 1 : MASS_TIE_BREAK
  }
  const near = objective === 'nearestShares' ? wanted : []
  const problem = (bounds: Bounds): MilpProblem => ({
    variables: [
      ...columns.map((column, i) => ({
        name: `n${i}`,
        cost: costPerKg(column) * column.plateKg,
        low: bounds.columns[i]?.low ?? 0,
        high: bounds.columns[i]?.high ?? 0,
        isWhole: true,
      })),
      ...near.map(({ name, aim }) => ({ name: `off ${name}`, cost: aim.weight ?? 1, low: 0, high: Number.POSITIVE_INFINITY, isWhole: false })),
    ],
    rows: [
      {
        name: 'mass',
        low: bounds.lowKg - carKg,
        high: bounds.highKg - carKg,
        coefficients: columns.map(({ plateKg }, i) => [i, plateKg] as const),
      },
      ...sites.flatMap(({ limitKg, id }, site) => [
        {
          name: `limit ${id}`,
          low: 0,
          high: limitKg,
          coefficients: columns.flatMap((column, i) => (column.site === site ? [[i, column.plateKg] as const] : [])),
        },
      ]),
      ...near.flatMap(({ name, aim, carKg: loadKg, perKg }, k) => {
        // Load on the axle, side or diagonal less the wanted share of the whole car, in kg, between −off and +off.
        const coefficients = columns.map(({ site, plateKg }, i) => [i, plateKg * (itemAt(perKg, site) - aim.value)] as const)
        const fixed = loadKg - aim.value * carKg
        return [
          { name: `${name} over`, low: Number.NEGATIVE_INFINITY, high: -fixed, coefficients: [...coefficients, [columns.length + k, -1] as const] },
          { name: `${name} under`, low: -fixed, high: Number.POSITIVE_INFINITY, coefficients: [...coefficients, [columns.length + k, 1] as const] },
        ]
      }),
      ...wanted.flatMap(({ name, aim, carKg: loadKg, perKg }) => {
        if (aim.within === undefined) return []
        const bound = (share: number) => ({
          coefficients: columns.map(({ site, plateKg }, i) => [i, plateKg * (itemAt(perKg, site) - share)] as const),
          edge: share * carKg - loadKg,
        })
        const [least, most] = [bound(aim.value - aim.within), bound(aim.value + aim.within)]
        return [
          { name: `${name} at least`, low: least.edge, high: Number.POSITIVE_INFINITY, coefficients: least.coefficients },
          { name: `${name} at most`, low: Number.NEGATIVE_INFINITY, high: most.edge, coefficients: most.coefficients },
        ]
      }),
    ],
  })
  const needed = input.minimumKg > carKg
  const bounds: Bounds = {
    lowKg: input.minimumKg,
    // A car over its minimum already may still carry plates for its shares, as few as help.
    highKg: (needed ? input.minimumKg : carKg) + (input.mostOverKg ?? (needed ? smallestKg : 0)),
    columns: columns.map((column) => ({
      low: 0,
      high: Math.min(plateCount(at(column), column.plateKg), Math.floor(at(column).limitKg / column.plateKg + 1e-9)),
    })),
  }
  const placement = (answer: MilpAnswer): BallastPlacement => {
    const counts = columns.map((_, i) => Math.round(itemAt(answer.values, i)))
    // Without the mass that only breaks ties.
    const off = near.reduce((sum, { aim }, k) => sum + (aim.weight ?? 1) * itemAt(answer.values, columns.length + k), 0)
    return describe(input, columns, counts, objective === 'nearestShares' ? off : answer.objective)
  }
  return { columns, carKg, bounds, problem, placement }
}

export type BallastModel = ReturnType<typeof ballastModel>

const plateCount = (site: BallastSite, plateKg: number) => site.plates.filter(({ massKg }) => massKg === plateKg).reduce((sum, { count }) => sum + count, 0)

function centreAimedAt(input: BallastInput, before: { frontShare: number; leftShare: number }): { xM: number; yM: number } {
  const trackM = input.trackFrontM * before.frontShare + input.trackRearM * (1 - before.frontShare)
  return { xM: input.wheelbaseM * (1 - (input.front?.value ?? before.frontShare)), yM: trackM * ((input.left?.value ?? before.leftShare) - 0.5) }
}

function describe(input: BallastInput, columns: readonly Column[], counts: readonly number[], objective: number): BallastPlacement {
  const { corners, sites, rates, loadFactorG, centreHeightM } = input
  const massAt = sites.map((_, site) => columns.reduce((sum, column, i) => sum + (column.site === site ? column.plateKg * itemAt(counts, i) : 0), 0))
  const ballastKg = massAt.reduce((sum, kg) => sum + kg, 0)
  const carKg = PAD_NAMES.reduce((sum, name) => sum + corners[name], 0)
  const totalKg = carKg + ballastKg
  const moment = (pick: (site: BallastSite) => number) => sites.reduce((sum, site, i) => sum + pick(site) * itemAt(massAt, i), 0)
  const before = sharesOf(corners)
  const shares = rates ? loaded(input, rates, massAt) : undefined
  const trackM = input.trackFrontM * before.frontShare + input.trackRearM * (1 - before.frontShare)
  const leftKg = carKg * before.leftShare + 0.5 * ballastKg + moment((site) => site.yM) / trackM
  return {
    sites: sites.map(({ id }, site) => ({
      id,
      plates: columns.flatMap((column, i) => (column.site === site && itemAt(counts, i) > 0 ? [{ massKg: column.plateKg, count: itemAt(counts, i) }] : [])),
      massKg: itemAt(massAt, site),
      mountLoadN: loadFactorG === undefined ? null : itemAt(massAt, site) * loadFactorG * STANDARD_GRAVITY_MPS2,
    })),
    ballastKg,
    totalKg,
    frontShare: (carKg * before.frontShare + ballastKg - moment((site) => site.xM) / input.wheelbaseM) / totalKg,
    leftShare: shares?.leftShare ?? leftKg / totalKg,
    crossShareRfLr: shares?.crossShareRfLr ?? null,
    ballastHeightM: ballastKg > 0 ? moment((site) => site.zM) / ballastKg : null,
    centreHeightM: centreHeightM === undefined ? null : (carKg * centreHeightM + moment((site) => site.zM)) / totalKg,
    objective,
  }
}

function loaded(input: BallastInput, rates: CornerRates, massAt: readonly number[]) {
  const shares = input.sites.map(({ xM, yM }) => cornerShares(input, rates, xM, yM))
  return sharesOf(perCorner((name) => input.corners[name] + shares.reduce((sum, share, i) => sum + share[name] * itemAt(massAt, i), 0)))
}
