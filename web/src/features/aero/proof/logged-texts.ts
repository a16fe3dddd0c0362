import type { AeroTestKind, CoastRun, HeldSpeed, LoggedTest, QuantityKind } from '@bold-ballast/core'
import { typedText } from '../../../ui/quantity.ts'
import { runText } from './test-form.ts'

type Units = Readonly<Record<QuantityKind, string>>

/** Fields of the form with what they take, how many pairs that is, and what is said of it. */
export interface LoggedTexts {
  readonly texts: Readonly<Record<string, string>>
  readonly pairs: number
  readonly told: string
  /** Nothing can be taken. */
  readonly isEmpty: boolean
}

const none = (told: string): LoggedTexts => ({ texts: {}, pairs: 0, told, isEmpty: true })

const heldText = (held: readonly HeldSpeed[], units: Units): string =>
  held
    .map(({ speedMps, frontM, rearM, pitotPa }) => {
      const travel = (value: number) => typedText('length', Number(value.toFixed(5)), 'mm')
      const tube = pitotPa === null ? [] : ['', typedText('pressure', Math.round(pitotPa), 'Pa')]
      return [typedText('speed', Number(speedMps.toFixed(2)), units.speed), travel(frontM), travel(rearM), ...tube].join('; ')
    })
    .join('\n')

/** What the runs of a logger put into the form of a test. */
export function loggedTexts({ pairs, held, reading, isFromRest }: LoggedTest, kind: AeroTestKind, units: Units): LoggedTexts {
  if (kind === 'coastDown') {
    const whole = pairs.filter((pair): pair is { out: CoastRun; back: CoastRun } => pair.out !== null && pair.back !== null)
    const left = pairs.length - whole.length
    if (whole.length === 0) return none(left === 0 ? 'It told of no run yet.' : 'One direction cannot tell wind and slope from drag. Run it back as well.')
    const texts = Object.fromEntries(
      whole.flatMap(({ out, back }, i) => [
        [`out${i}`, runText(out, units)],
        [`back${i}`, runText(back, units)],
      ]),
    )
    const count = whole.length === 1 ? 'one pair' : `${whole.length} pairs`
    return {
      texts,
      pairs: whole.length,
      isEmpty: false,
      told: `${count}${left > 0 ? `; ${left} driven one way alone ${left === 1 ? 'is' : 'are'} left out` : ''}.`,
    }
  }
  const count = held.out.length + held.back.length
  if (reading === null) return none('It reads neither heights nor dampers at both axles.')
  if (count === 0) return none('No speed was held for two seconds yet.')
  return {
    texts: { reading, points: heldText(held.out, units), pointsBack: heldText(held.back, units) },
    pairs: 0,
    isEmpty: false,
    told: `${count} held speeds, by ${reading === 'height' ? 'ride height' : 'dampers'}${isFromRest ? ' from the car at rest' : '; no run began at rest: bump rubbers would be taken wrong'}.`,
  }
}
